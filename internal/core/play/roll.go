package play

import (
	"slices"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// Roll asks for new random values in the steps of a lane's loop.
type Roll struct {
	score.LaneAddress
	// Luck is the number from which the values follow.
	Luck uint64
	// Lowest and Highest bound the values, within those of the lane.
	Lowest, Highest int
	// Density is how many of the steps get a new value, in percent; in a gate lane, how many are on.
	Density int
	// Lean is where in the range the values tend to land, -100 to 100; see score.Spread.
	Lean int
	// Only are the steps to roll; empty is the whole loop.
	Only []int
}

// Edit returns the one edit that writes the values, or none if every step is locked or none is chosen.
// Locked steps keep their values, and pitches are allowed notes of the key. The bounds are cut to those of the lane,
// which must exist. There is none if the part is not there.
func (r Roll) Edit(p *score.Project) (edit score.SetSteps, any bool) {
	part, err := p.Part(r.PartAddress)
	if err != nil {
		return edit, false
	}
	spec := r.Lane.Spec()
	loop, locked := part.Lanes.Loop(r.Lane), part.Lanes.Lane(r.Lane).Locked
	spelling := p.Key.Spelling()
	lowest, highest := max(r.Lowest, spec.Least), min(r.Highest, spec.Most)
	edit = score.SetSteps{LaneAddress: r.LaneAddress}
	for step := loop.First; step < loop.First+loop.Length; step++ {
		if slices.Contains(locked, step) || len(r.Only) > 0 && !slices.Contains(r.Only, step) {
			continue
		}
		address := chance.Address{
			Luck: r.Luck, Track: uint32(r.Track), Part: uint8(part.ID), Lane: spec.Number(),
			Purpose: chance.RollApplies, N: uint64(step),
		}
		chosen := chance.Happens(address, r.Density)
		if r.Lane == score.Gate {
			value := score.Off
			if chosen {
				value = score.On
			}
			edit.Steps = append(edit.Steps, score.StepValue{Step: step, Value: value})
			continue
		}
		if !chosen || highest < lowest {
			continue
		}
		address.Purpose = chance.Roll
		span := uint64(highest - lowest + 1)
		value := lowest + int(uint64(chance.Lean(address, r.Lean))*span>>32)
		if r.Lane == score.Pitch {
			var any bool
			if value, any = allowedNear(spelling, value, spec); !any {
				continue
			}
		}
		edit.Steps = append(edit.Steps, score.StepValue{Step: step, Value: value})
	}
	return edit, len(edit.Steps) > 0
}

// allowedNear returns the allowed degree that is nearest to one, of those that the lane can hold; any is false if it
// can hold none.
func allowedNear(spelling theory.Spelling, degree int, spec score.LaneSpec) (near int, any bool) {
	if near = spelling.Allow(degree); near >= spec.Least && near <= spec.Most {
		return near, true
	}
	for by := range spec.Most - spec.Least + 1 {
		for _, near := range []int{degree - by, degree + by} {
			if near >= spec.Least && near <= spec.Most && spelling.Allow(near) == near {
				return near, true
			}
		}
	}
	return 0, false
}
