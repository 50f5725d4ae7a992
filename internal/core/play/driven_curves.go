package play

import "jettyfog/internal/core/score"

// curveAt returns where a modulator is at a tick of the grid of glides. What drives it has played all that it plays before then.
func (w *walker) curveAt(modulator int, tick score.Tick) int {
	if w.driven(modulator) {
		w.seekDrivers(tick)
		w.takeIncoming(tick)
	}
	return w.waveAt(modulator, tick)
}

// seekDrivers brings the tracks that drive modulators of the walker to a tick: their mod lanes are read where they stand at that
// moment, and what they hold begins anew by then.
func (w *walker) seekDrivers(tick score.Tick) {
	for _, driver := range w.drivers {
		if driver.next >= tick {
			driver.seekTo(tick)
		}
	}
}

// isDriven reports whether a track drives some of the modulators of the walker.
func (w *walker) isDriven() bool {
	for i := range w.of {
		if w.of[i].original.Shape.DrivenByTrack() {
			return true
		}
	}
	return false
}

// sendsDriven reports whether the walker sends a curve that something drives, clockDriven whether one is its clock.
func (w *walker) sendsDriven() bool {
	for i := range w.sendings {
		if w.driven(w.sendings[i].modulator) {
			return true
		}
	}
	return false
}

func (w *walker) clockDriven() bool { return w.clock.is && w.driven(w.clock.modulator) }

func (w *walker) driven(modulator int) bool { return w.of[modulator].original.Shape.Driven() }

// passCurves passes the curves of a group that something drives, up to its next step or to a tick, whatever is first. At one tick of the
// grid they are read after the steps of that tick: those that are clocks first, and after the steps that these make the ones that are sent.
// It reports whether the next step is before the tick.
func (g *group) passCurves(to score.Tick) (step bool) {
	for {
		clock, send := never, never
		for _, w := range g.clocks {
			clock = min(clock, onGrid(w.curves.seen))
		}
		for _, w := range g.senders {
			send = min(send, onGrid(w.curves.to))
		}
		tick, next := min(clock, send), never
		if len(g.coupled) > 0 {
			next = g.coupled[0].next
		}
		switch {
		case next < to && next <= tick:
			return true
		case tick >= to:
			return false
		case clock == tick:
			for _, w := range g.clocks {
				if onGrid(w.curves.seen) == tick {
					w.lookAtClock(tick)
				}
			}
			g.coupled.arrange()
		default:
			for _, w := range g.senders {
				if onGrid(w.curves.to) == tick {
					w.sendCurvesAt(tick)
				}
			}
		}
	}
}
