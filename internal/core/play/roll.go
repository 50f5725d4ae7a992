package play

import (
	"slices"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
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
	// Locked are steps that keep their values.
	Locked []int
}

// Edit returns the one edit that writes the values, or none if every step is locked or none is chosen.
// The lane must exist; the bounds are cut to those of the lane.
func (r Roll) Edit(part *score.Part) (edit score.SetSteps, any bool) {
	spec := r.Lane.Spec()
	loop := part.Lanes.Loop(r.Lane)
	lowest, highest := max(r.Lowest, spec.Least), min(r.Highest, spec.Most)
	edit = score.SetSteps{LaneAddress: r.LaneAddress}
	for step := loop.First; step < loop.First+loop.Length; step++ {
		if slices.Contains(r.Locked, step) {
			continue
		}
		address := chance.Address{
			Luck: r.Luck, Track: uint32(r.Track), Part: uint8(r.Part), Lane: spec.Number(),
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
		edit.Steps = append(edit.Steps, score.StepValue{Step: step, Value: value})
	}
	return edit, len(edit.Steps) > 0
}
