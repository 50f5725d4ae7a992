package play

import (
	"jettyfog/internal/core/score"
)

// step is a gate step made ready to be played: what the gate lane and the step's details say.
type step struct {
	gate      uint8 // score.Off, On or Tie
	stretch   uint8 // from 1
	skip      bool
	struck    []segment // in the order in which they come
	condition *sentence // nil is always
	ratchet   *score.StepRatchet
}

// lengths returns how many step lengths the step takes; one that is skipped and played all the same, because all are,
// takes one.
func (s *step) lengths() score.Tick {
	if s.skip {
		return 1
	}
	return score.Tick(s.stretch)
}

// segment is some lengths of a step that sound as one: struck on the first, and tied from there on.
type segment struct{ first, lengths uint8 }

// segmentsOf returns the segments of a step.
func segmentsOf(detail score.StepDetail) (segments []segment) {
	for i, length := range detail.Struck() {
		switch length {
		case score.On:
			segments = append(segments, segment{uint8(i), 1})
		case score.Tie:
			segments[len(segments)-1].lengths++
		}
	}
	return segments
}

// once is how a plain step is struck.
var once = segmentsOf(score.StepDetail{})

// readSteps makes all gate steps of a part ready.
func readSteps(c *common, track *score.Track, part *score.Part) *[score.MaxSteps]step {
	steps := new([score.MaxSteps]step)
	usual := &score.StepRatchet{RatchetShape: part.Ratchet}
	for i, gate := range part.Lanes.Lane(score.Gate).Steps {
		steps[i] = step{gate: uint8(gate), stretch: 1, struck: once, ratchet: usual}
	}
	for i, detail := range part.Details {
		s := &steps[i]
		s.skip, s.stretch, s.struck = detail.Skip, uint8(max(1, detail.Stretch)), segmentsOf(detail)
		s.condition = readCondition(c, track, detail.Condition)
		if detail.Ratchet != nil {
			s.ratchet = detail.Ratchet
		}
	}
	return steps
}

// trackIndexOf returns the place of the track with the id, which must exist.
func trackIndexOf(p *score.Project, id int) int {
	for i := range p.Tracks {
		if p.Tracks[i].ID == id {
			return i
		}
	}
	panic("play: the project refers to a track that it does not have")
}
