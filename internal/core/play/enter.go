package play

import "jettyfog/internal/core/score"

// enterAsPlayed has a part that enters at a tick stand where it would if it had played all along, as far as that follows from
// the tick: its lanes that move by the clock in orders without chance, and its gate too where its steps last alike. All else
// enters at its first step.
func (w *walker) enterAsPlayed(at score.Tick) {
	aligned := w.alignedBefore(at)
	since := w.localFrom(at, aligned) // in the part's own time
	steady, shift := w.steady(), since
	if steady {
		steps := (since + w.gate.Rate - 1) / w.gate.Rate
		w.aligned, w.local, shift = aligned, steps*w.gate.Rate, 0
		if steps > 0 {
			w.gate.Stand(int64(steps) - 1)
			w.gate.Fresh = false
		}
	}
	for _, v := range w.byClock {
		if !v.AtRandom() {
			moves := since / v.Rate
			v.Stand(int64(moves))
			v.due = (moves+1)*v.Rate - shift
		}
		if steady { // else they are notified with the first step
			w.notify(v.name, at, &v.Mover)
		}
	}
	if steady {
		w.findNext()
	}
}

// steady reports whether the gate's place follows from the time alone, without chance.
func (w *walker) steady() bool {
	if !w.ownClock || w.unsteady || w.gate.AtRandom() || w.durations > 0 {
		return false
	}
	for i := range w.steps {
		if w.steps[i].skip || w.steps[i].stretch > 1 {
			return false
		}
	}
	return true
}

// alignedBefore returns when the lanes would have been realigned last by a tick.
func (w *walker) alignedBefore(tick score.Tick) score.Tick {
	every := int64(w.track.Realign)
	if every == 0 {
		return 0
	}
	return w.bars.Start(w.bars.At(tick) / every * every)
}
