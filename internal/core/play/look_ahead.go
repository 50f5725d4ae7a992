package play

import (
	"jettyfog/internal/core/orders"
	"jettyfog/internal/core/score"
)

// lookAhead is a look at the steps after the present one, over realignments too.
type lookAhead struct {
	gate     orders.Mover
	pass     int64         // of what is held
	kept     *orders.State // how the gate lane was when the first began
	wait     score.Tick    // from then until the next step
	aligned  score.Tick    // when the lanes are aligned from which local time counts
	begin    score.Tick    // of the step, in local time
	duration score.Tick
	rest     bool
}

// look begins to look ahead from the present step.
func (w *walker) look(duration score.Tick) lookAhead {
	a := lookAhead{gate: w.gate, pass: w.hold.passes, aligned: w.aligned, begin: w.local, duration: duration}
	if w.hold.kept != nil {
		a.kept, a.wait = &w.hold.kept.gate, w.hold.kept.wait
	}
	return a
}

// lookOn goes on to the next step.
func (w *walker) lookOn(a *lookAhead) *step {
	a.begin += w.steps[a.gate.Step()].lengths() * a.duration
	boundary := never
	if after := w.boundaryAfter(a.aligned); after > 0 {
		boundary = after
	}
	for range score.MaxSteps { // it never comes where each pass of what is held begins before it does
		hold := w.hold.after(a.pass)
		if hold > min(boundary, a.aligned+w.span(a.begin)) {
			break
		}
		w.holdAhead(a, hold)
	}
	if a.aligned+w.span(a.begin) >= boundary {
		a.aligned, a.begin, a.gate.Fresh = boundary, 0, true
	}
	w.goOn(&a.gate)
	a.duration, a.rest = w.duration(a.gate.DrawIndex)
	return &w.steps[a.gate.Step()]
}

// holdAhead is holdAt for what is looked at.
func (w *walker) holdAhead(a *lookAhead, at score.Tick) {
	a.pass++
	if a.kept == nil {
		kept := a.gate.State
		a.kept, a.wait = &kept, a.aligned+w.span(a.begin)-at
		return
	}
	byChance := w.unsteady || !w.ownClock
	bringBack(&a.gate, *a.kept, byChance)
	if w.unsteady && w.ownClock {
		a.begin = w.localFrom(at+a.wait, a.aligned)
	}
}

// tied is the last step length that is tied to the present step.
type tied struct {
	any     bool
	aligned score.Tick // when the lanes are aligned from which begin counts
	begin   score.Tick // in local time
	lasts   score.Tick
}

// lastTied returns the last step length that is tied to the present step.
func (w *walker) lastTied(duration score.Tick) (last tied) {
	if !w.ties {
		return last
	}
	ahead := w.look(duration)
	for lengths := 0; lengths < score.MaxSteps; {
		s := w.lookOn(&ahead)
		if s.gate != score.Tie || s.skip || ahead.rest {
			break
		}
		lengths += int(s.stretch)
		last = tied{true, ahead.aligned, ahead.begin + score.Tick(s.stretch-1)*ahead.duration, ahead.duration}
	}
	return last
}

// nextOn returns when the next step that is on comes, and from when its local time counts; ok is false if none is on.
func (w *walker) nextOn(duration score.Tick) (aligned, local score.Tick, ok bool) {
	ahead := w.look(duration)
	for range score.MaxSteps {
		if s := w.lookOn(&ahead); s.gate == score.On && !s.skip && !ahead.rest {
			return ahead.aligned, ahead.begin, true
		}
	}
	return 0, 0, false
}
