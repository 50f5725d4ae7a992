package score

import "fmt"

// convertOld makes what projects of before had otherwise what it is now, with the same music where that is possible,
// and says what it has changed, each a sentence without its full stop.
func (p *Project) convertOld() (remarks []string) {
	moved := 0
	for i := range p.Tracks {
		for j := range p.Tracks[i].Patterns {
			parts := p.Tracks[i].Patterns[j].Parts
			for k := range parts {
				lane := parts[k].Lanes.Probability
				if lane != nil && (lane.Moves == ByHit || lane.Moves == ByStrike) {
					lane.Moves = ByStep
					if !lane.Linked {
						moved++
					}
				}
			}
		}
	}
	const why = "because probability decides whether there is a hit"
	switch {
	case moved == 1:
		remarks = append(remarks, "a probability lane that moved by hits moves by steps now, "+why)
	case moved > 1:
		remarks = append(remarks, fmt.Sprintf("%d probability lanes that moved by hits move by steps now, %s", moved, why))
	}
	return remarks
}
