package score

import (
	"fmt"
	"slices"
)

// convertOld makes what projects of before had otherwise what it is now, with the same music where that is possible,
// and says what it has changed, each a sentence without its full stop.
func (p *Project) convertOld() (remarks []string) {
	swung := p.convertSwing()
	for i := range p.Tracks {
		p.Tracks[i].numberPatterns()
	}
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
	if swung {
		remarks = append(remarks, "its tracks swing by their own steps, as they did; each can swing on the grid of the project instead")
	}
	return remarks
}

// convertSwing makes swing that was counted in whole percents, and bent pairs of each track's own steps, what it is now.
// It reports whether any track is kept from the grid so that it sounds as it did.
func (p *Project) convertSwing() (kept bool) {
	if p.SwingGrid != "" {
		return false
	}
	p.SwingGrid = "1/16"
	if p.Swing > MostSwing/10 { // in tenths already, and the grid left out
		return false
	}
	p.Swing *= 10
	for i := range p.Tracks {
		t := &p.Tracks[i]
		t.Swing *= 10
		t.SwingOwnSteps = t.Swing > Straight || t.Swing == 0 && p.Swing > Straight
		kept = kept || t.SwingOwnSteps
	}
	return kept
}

// numberPatterns gives patterns that have no ids yet, and so all have 0, their places as ids.
func (t *Track) numberPatterns() {
	if len(t.Patterns) == 1 || slices.ContainsFunc(t.Patterns, func(pattern Pattern) bool { return pattern.ID != 0 }) {
		return
	}
	for i := range t.Patterns {
		t.Patterns[i].ID = i
	}
}
