package play

import (
	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// Reach is between which values chance can lead a step of a lane.
type Reach struct {
	// Step counts from 0.
	Step int `json:"step"`
	// Lowest and Highest are the ends, before a step's own allowed notes are looked for; both are the value itself where chance has no say.
	Lowest  int `json:"lowest"`
	Highest int `json:"highest"`
	// Own says that the step has chance of its own in place of the lane's. Words say in short what it has of its own, chance or notes.
	Own   bool   `json:"own"`
	Words string `json:"words,omitempty"`
}

// Reaches returns, for those steps of a lane's loop in which chance has a say or that have something of their own, between which values they lead.
func Reaches(p *score.Project, lanes *score.Lanes, name score.LaneName) []Reach {
	spec, loop := name.Spec(), lanes.Loop(name)
	v := newValue(lanes, spec, chance.Address{})
	if v.own != nil {
		v.allow(newPitches(p.Key))
	}
	reaches := []Reach{}
	if v.plain {
		return reaches
	}
	for step := loop.First; step < loop.First+loop.Length; step++ {
		r := Reach{Step: step}
		r.Lowest, r.Highest = v.reach(step)
		if own := v.ownAt(step); own != nil {
			r.Own, r.Words = own.Spread != nil || own.total > 0 || own.nearest != nil, own.Words(p, spec)
		}
		if r.Words != "" || r.Lowest < r.Highest {
			reaches = append(reaches, r)
		}
	}
	return reaches
}

// reach returns the ends of what a step can be.
func (v *value) reach(step int) (lowest, highest int) {
	lowest, highest = v.most, v.least
	add := func(written int) {
		scaled := score.Rounded(written*v.scale, 100)
		least, most := 0, 0
		if s := v.spread(step); s != nil && s.Chance > 0 && s.Touched(written) {
			g := gridOf(s, scaled)
			least, most = g.added(0), g.added(g.slots-1)
			if s.Chance < 100 {
				least, most = min(0, least), max(0, most)
			}
		}
		lowest = min(lowest, max(v.least, min(v.most, scaled+least)))
		highest = max(highest, min(v.most, max(v.least, scaled+most)))
	}
	table, total := v.table(step)
	if total == 0 {
		add(v.steps[step])
		return lowest, highest
	}
	for _, line := range table {
		for value := line.Lowest; line.Weight > 0 && value <= line.Highest; value++ {
			if !line.Rest {
				add(value)
			}
		}
	}
	if lowest > highest { // nothing but rests
		add(v.steps[step])
	}
	return lowest, highest
}
