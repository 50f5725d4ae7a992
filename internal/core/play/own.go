package play

import (
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// ownStep is what a step of a lane has of its own, made ready.
type ownStep struct {
	score.StepOwn
	total   int   // of the weights
	nearest []int // how far the nearest allowed degree is, by degrees of the scale; nil where all are allowed
}

// readOwn makes ready what the steps of a lane have of their own; nil where none has anything.
func readOwn(lane *score.Lane) *[score.MaxSteps]*ownStep {
	if len(lane.Own) == 0 {
		return nil
	}
	steps := new([score.MaxSteps]*ownStep)
	for step, own := range lane.Own {
		steps[step] = &ownStep{StepOwn: own, total: own.Total()}
	}
	return steps
}

// rests reports whether the table of weights of some step has rests.
func rests(lane *score.Lane) bool {
	for _, own := range lane.Own {
		for _, w := range own.Weights {
			if w.Rest && w.Weight > 0 {
				return true
			}
		}
	}
	return false
}

// ownAt returns what a step has of its own, or nil.
func (v *value) ownAt(step int) *ownStep {
	if v.own == nil {
		return nil
	}
	return v.own[step]
}

// spread returns the spread that is in force at a step, or nil.
func (v *value) spread(step int) *score.Spread {
	if own := v.ownAt(step); own != nil && own.Spread != nil {
		return own.Spread
	}
	return v.Lane().Spread
}

// table returns the table of weights that is in force at a step, and their sum.
func (v *value) table(step int) (table []score.Weight, total int) {
	if own := v.ownAt(step); own != nil && own.total > 0 {
		return own.Weights, own.total
	}
	return v.Lane().Weights, v.total
}

// allow makes the allowed notes of the steps of the pitch lane ready.
func (v *value) allow(p *pitches) {
	if v.own == nil {
		return
	}
	for _, own := range v.own {
		if own != nil && len(own.Allowed) > 0 {
			own.nearest = theory.ToAllowed(p.spelling.Notes(), own.Allowed)
		}
	}
}

// nudges returns how much earlier and later than their step notes come by nudges of their own, at most.
func nudges(lane *score.Lane) (earlier, later score.Tick) {
	for _, own := range lane.Own {
		for _, note := range own.Notes {
			earlier, later = max(earlier, -note.Nudge), max(later, note.Nudge)
		}
	}
	return earlier, later
}
