package play

import (
	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// ahead returns how much earlier than its step a note can start.
func (w *walker) ahead() score.Tick {
	earlier, _ := nudges(w.pitch.Lane())
	usual := max(0, -score.Tick(w.lowestOf("delay", int(w.track.Delay)))) + w.jitter(w.tempo.fastest()) + earlier
	ahead := usual
	for _, shift := range w.track.Shifts {
		ahead = max(ahead, usual+shift.Ticks())
	}
	if w.nudge.fixed {
		return ahead
	}
	longest := w.gate.Rate
	for _, d := range w.part.Durations {
		longest = max(longest, d.Value.Ticks())
	}
	longest = max(longest, w.slowest())
	return ahead + longest*score.Tick(w.speed.M)/score.Tick(w.speed.N)
}

// jitter returns the most by which jitter ever shifts a note at a tempo.
func (w *walker) jitter(tempo score.Tempo) score.Tick {
	return score.Tick(inTicks(w.highestOf("jitter", w.track.Jitter), tempo))
}

// drawShift draws how far chance shifts the present step's notes.
func (w *walker) drawShift() score.Tick {
	if w.track.Jitter == 0 && len(w.track.Shifts) == 0 {
		return 0
	}
	address := w.chance
	address.Lane, address.Purpose, address.N = score.Nudge.Spec().Number(), chance.Shift, uint64(w.gate.DrawIndex)
	most := score.Tick(inTicks(w.track.Jitter, w.tempo.At(w.next)))
	shift := score.Tick(chance.Below(address, 2*int(most)+1)) - most
	address.Purpose = chance.ShiftBy
	switch by := chance.Below(address, 2*len(w.track.Shifts)+1) - 1; {
	case by < 0:
		return shift
	case by%2 == 0:
		return shift + w.track.Shifts[by/2].Ticks()
	default:
		return shift - w.track.Shifts[by/2].Ticks()
	}
}
