package play

import (
	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// ahead returns how much earlier than its step a note can start.
func (w *walker) ahead() score.Tick {
	ahead := max(0, -w.track.Delay) + w.jitter(w.tempo.fastest())
	for _, shift := range w.track.Shifts {
		ahead = max(ahead, max(0, -w.track.Delay)+w.jitter(w.tempo.fastest())+shift.Ticks())
	}
	if w.nudge.fixed {
		return ahead
	}
	longest := w.gate.Rate
	for _, d := range w.part.Durations {
		longest = max(longest, d.Value.Ticks())
	}
	return ahead + longest*score.Tick(w.speed.M)/score.Tick(w.speed.N)
}

// duration returns how long a step lasts whose gate has made so many moves, without its stretch, and
// whether it is a rest.
func (w *walker) duration(n int64) (duration score.Tick, rest bool) {
	if w.durations == 0 {
		return w.gate.Rate, false
	}
	address := w.soundChance
	address.Purpose, address.N = chance.Duration, uint64(n)
	weight := chance.Below(address, w.durations)
	for _, d := range w.part.Durations {
		if weight < d.Weight {
			return d.Value.Ticks(), d.Rest
		}
		weight -= d.Weight
	}
	panic("play: the weights of durations do not add up")
}

// jitter returns the most by which jitter shifts a note at a tempo. A millisecond lasts
// tempo·ticks per quarter / (60 s · 1000) ticks.
func (w *walker) jitter(tempo score.Tempo) score.Tick {
	return score.Tick(w.track.Jitter) * score.Tick(tempo) * score.TicksPerQuarter / 60_000_000
}

// drawShift draws how far chance shifts the present step's notes.
func (w *walker) drawShift() score.Tick {
	if w.track.Jitter == 0 && len(w.track.Shifts) == 0 {
		return 0
	}
	address := w.chance
	address.Lane, address.Purpose, address.N = score.Nudge.Spec().Number(), chance.Shift, uint64(w.gate.Drawn)
	most := w.jitter(w.tempo.At(w.next))
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

// share returns where the i-th of r strikes lies in a segment; see score.Spacing.
func (w *walker) share(segment score.Tick, r, i int) exact {
	strikes, at, all := int64(r), int64(i), int64(segment)
	switch w.part.Ratchet.Spacing {
	case score.Gathering:
		return fraction(all*at*(2*strikes-at), strikes*strikes)
	case score.Slackening:
		return fraction(all*at*at, strikes*strikes)
	}
	return fraction(all*at, strikes)
}

// sounding returns how long a note sounds that has the given room, in a step of the given duration; only
// the last one of a step can last longer than its room.
func (w *walker) sounding(length int, duration score.Tick, room exact, last bool) exact {
	of, percent := room, int64(length)
	if length > score.WholeStep {
		of, percent = exactly(duration).over(room.den), int64(length-score.WholeStep+1)*100
	}
	if w.unit > 0 {
		of = exactly(w.unit).over(room.den)
	}
	share := percent * int64(w.length.Lane().Amount)
	if share == 100_00 && last {
		return of
	}
	sounding := of.times(share, 100_00)
	if room = room.over(sounding.den); !last && room.less(sounding) {
		return room
	}
	return sounding
}
