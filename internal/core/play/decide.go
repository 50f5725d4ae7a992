package play

import (
	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// decide finds whether the present step sounds; decided is false for a step that never could.
func (w *walker) decide(d *decision, detail score.StepDetail, trackSounded []bool) (decided bool) {
	address := w.chance
	address.Lane, address.Purpose, address.N = score.Gate.Spec().Number(), chance.Sound, uint64(w.gate.drawn)
	switch w.gate.lane.Steps[d.step] {
	case score.On:
		d.probability = w.probability.read(d.step, w.gate.drawn)
		d.sounds = w.allows(detail.Condition, trackSounded) && chance.Happens(address, d.probability)
		return true
	case score.Off:
		if w.project.Filling && w.part.Fill > 0 {
			d.probability = w.part.Fill
			d.sounds = chance.Happens(address, d.probability)
			return true
		}
	}
	return false
}

// allows reports whether a condition holds.
func (w *walker) allows(c score.Condition, trackSounded []bool) bool {
	switch c {
	case score.Always:
		return true
	case score.FirstPass:
		return w.gate.moved < w.gate.length
	case score.NotFirstPass:
		return w.gate.moved >= w.gate.length
	case score.WhileFilling:
		return w.project.Filling
	case score.AfterSound:
		return w.sounded
	case score.AfterSilence:
		return !w.sounded
	}
	if a, b, ok := c.Passes(); ok {
		return w.gate.moved/w.gate.length%int64(b) == int64(a-1)
	}
	if id, ok := c.Track(); ok {
		for i := range w.project.Tracks {
			if w.project.Tracks[i].ID == id {
				return trackSounded[i]
			}
		}
	}
	return false
}
