package play

import (
	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/orders"
	"jettyfog/internal/core/score"
)

// real converts the walker's own time to the project's.
func (w *walker) real(local score.Tick) score.Tick {
	if w.straight {
		return w.aligned + local
	}
	return w.aligned + local*score.Tick(w.speed.M)/score.Tick(w.speed.N)
}

// span converts a length of the walker's own time to the project's.
func (w *walker) span(local score.Tick) score.Tick {
	return local * score.Tick(w.speed.M) / score.Tick(w.speed.N)
}

// localFrom returns the first moment of the walker's own time, counted from where the lanes are aligned, that is not
// before a tick of the project.
func (w *walker) localFrom(tick, aligned score.Tick) score.Tick {
	n, m := score.Tick(w.speed.N), score.Tick(w.speed.M)
	return ((tick-aligned)*n + m - 1) / m
}

// duration returns how long a step lasts whose gate has made so many moves, without its stretch, and
// whether it is a rest.
func (w *walker) duration(n int64) (duration score.Tick, rest bool) {
	switch {
	case w.sound != nil:
		return w.fieldLasts(w.sound.Lasts), false
	case w.durations == 0:
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

// longest returns how long a step of the part lasts at most, in ticks of the project.
func (w *walker) longest() score.Tick {
	rate, lengths := w.gate.Rate, score.Tick(1)
	for _, d := range w.part.Durations {
		rate = max(rate, d.Value.Ticks())
	}
	for i := range w.steps {
		lengths = max(lengths, w.steps[i].lengths())
	}
	rate = max(rate, w.slowest())
	return w.span(rate*lengths) + 1
}

// begin moves the gate lane on to the step that comes now. It brings the luck back where a pass of what is held
// begins, and lets the lanes evolve where it is time.
func (w *walker) begin() {
	if w.hold.next() <= w.next {
		w.seekTo(w.next)
	}
	for _, v := range w.evolving {
		v.evolveTo(w.evolvingBar(w.next))
	}
	if w.begins = w.local == 0 && w.gate.Fresh; w.begins && w.watch != nil {
		for _, v := range w.byClock {
			w.notify(v.name, w.next, &v.Mover)
		}
	}
	w.goOn(&w.gate)
}

// goOn moves a gate lane on to a step, past steps that are skipped, which take no time; a loop of nothing else plays
// on in silence.
func (w *walker) goOn(gate *orders.Mover) {
	if gate.Fresh {
		gate.Fresh = false
		gate.DrawIndex++
		gate.Align()
	} else {
		gate.Advance()
	}
	for range score.MaxSteps {
		if !w.steps[gate.Step()].skip {
			break
		}
		gate.Advance()
	}
}

// findNext finds when the next step comes, which may be the moment at which the lanes are aligned. They are only once the step comes,
// because the track can be told something else until then.
func (w *walker) findNext() {
	w.next = w.real(w.local)
	boundary, hold := w.boundary(), w.hold.next()
	// Where a pass of what is held begins, chance can have decided that the next step comes earlier or later.
	w.stops = w.unsteady && hold <= w.next && (boundary == 0 || hold < boundary)
	w.realigns = !w.stops && boundary > 0 && w.next >= boundary
	switch {
	case w.stops:
		w.next = hold
	case w.realigns:
		w.next = boundary
	}
}

// boundary returns when the lanes are aligned next, or 0 if they never are.
func (w *walker) boundary() score.Tick { return w.boundaryAfter(w.aligned) }

// boundaryAfter returns when the lanes are aligned next after a tick, or 0 if they never are.
func (w *walker) boundaryAfter(tick score.Tick) score.Tick {
	every := int64(w.track.Realign)
	if every == 0 {
		return 0
	}
	return w.bars.Start((w.bars.At(tick)/every + 1) * every)
}
