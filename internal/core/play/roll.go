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
		address := r.address(part, step)
		address.Purpose = chance.RollApplies
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
		value := r.draw(address, lowest, highest)
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

// address returns where the numbers are that decide about a step.
func (r Roll) address(part *score.Part, step int) chance.Address {
	return chance.Address{Luck: r.Luck, Track: uint32(r.Track), Part: uint8(part.ID), Lane: r.Lane.Spec().Number(), N: uint64(step)}
}

// draw returns a value between two.
func (r Roll) draw(address chance.Address, lowest, highest int) int {
	return lowest + int(uint64(chance.Lean(address, r.Lean))*uint64(highest-lowest+1)>>32)
}

// Notes returns the edits that roll the notes of those steps, of the pitch lane, whose notes are drawn for each by itself: within the same bounds, each
// to the allowed note of the key that is drawn, or the next above that no other note of the step has. rolled is what Edit returned. A step for whose
// notes there is no room keeps them.
func (r Roll) Notes(p *score.Project, rolled score.SetSteps) (edits []score.SetOwn) {
	part, err := p.Part(r.PartAddress)
	if err != nil || r.Lane != score.Pitch {
		return nil
	}
	for _, s := range rolled.Steps {
		own := part.Lanes.Lane(score.Pitch).Own[s.Step]
		if !own.Each || len(own.Notes) < 2 {
			continue
		}
		var room bool
		if own.Notes, room = r.notes(part, s, own.Notes, p.Key.Spelling()); room {
			edits = append(edits, score.SetOwn{LaneAddress: r.LaneAddress, Step: s.Step, Own: own})
		}
	}
	return edits
}

// notes rolls each of the notes of a step, whose lane has a new value.
func (r Roll) notes(part *score.Part, s score.StepValue, notes []score.StepNote, spelling theory.Spelling) (rolled []score.StepNote, room bool) {
	spec := score.Pitch.Spec()
	taken := map[score.StepNote]bool{}
	for i, note := range notes {
		address := r.address(part, s.Step)
		address.Purpose, address.Sub = chance.Roll, uint8(i)
		degree := spelling.Allow(r.draw(address, max(r.Lowest, spec.Least), min(r.Highest, spec.Most)))
		for {
			note.Degree = degree - s.Value
			if note.Degree > score.MaxNoteDegree || note.Degree < -score.MaxNoteDegree {
				return nil, false
			}
			if pitch := (score.StepNote{Degree: note.Degree, Octave: note.Octave, Alteration: note.Alteration}); !taken[pitch] {
				taken[pitch] = true
				break
			}
			for degree++; spelling.Allow(degree) != degree; {
				degree++
			}
		}
		rolled = append(rolled, note)
	}
	return rolled, true
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
