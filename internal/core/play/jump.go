package play

import (
	"slices"

	"jettyfog/internal/core/orders"
	"jettyfog/internal/core/score"
)

// skipTo brings a fresh performer close to a tick without playing all that comes before, where each lane's
// place follows from the time alone. Tracks for which it does not are played through in silence. The
// music from there on is the same either way.
func (f *Performer) skipTo(tick score.Tick) {
	for _, g := range f.groups {
		for _, s := range g.alone {
			if s.jumps() {
				s.jump(tick)
			}
		}
	}
}

// hearsOthers reports whether what the part plays depends on other tracks.
func (w *walker) hearsOthers() bool {
	if !w.ownClock || w.isDriven() || w.sendsDriven() || w.source.FollowsTrack() > 0 {
		return true
	}
	for i := range w.steps {
		if len(w.steps[i].about()) > 0 {
			return true
		}
	}
	return false
}

// jumps reports whether every lane's place follows from the time alone, and nothing else is remembered.
func (w *walker) jumps() bool {
	if w.source != nil || w.track.Hold > 0 || w.track.Realign > 0 || w.durations > 0 || w.track.Retunes() || w.maySlide() {
		return false
	}
	for i := range w.steps {
		s := &w.steps[i]
		if s.skip || s.stretch > 1 || s.condition.listens() {
			return false
		}
	}
	for _, v := range w.mods {
		// What was sent last is known from the present step alone, unless it is on its way or was read before
		// the lane evolved.
		if v.control.mod.Glide > 0 || v.evolved != nil {
			return false
		}
	}
	if len(w.byStep)+len(w.byHit)+len(w.byStrike) > 0 || !orders.Jumps(w.gate.Lane()) {
		return false
	}
	for _, v := range w.byClock {
		if !orders.Jumps(v.Lane()) {
			return false
		}
	}
	return true
}

// maySlide reports whether the part can slide at all.
func (w *walker) maySlide() bool {
	return !w.slide.fixed && (!w.slide.plain || slices.Max(w.slide.steps) > 0)
}

// jump goes on to a step that is so far before a tick that no note of an earlier step starts at it or later.
func (w *walker) jump(tick score.Tick) {
	const most = 4 // steps by which nudge, ratchets and strums can delay a note
	late := w.jitter(w.tempo.fastest()) + max(0, score.Tick(w.highestOf("delay", int(w.track.Delay)))) + w.swingLate()
	for _, shift := range w.track.Shifts {
		late += shift.Ticks()
	}
	_, later := nudges(w.pitch.Lane())
	late += later
	local := (tick - late) * score.Tick(w.speed.N) / score.Tick(w.speed.M)
	steps := int64(local/w.gate.Rate) - most
	if steps <= 0 {
		return
	}
	w.local = score.Tick(steps) * w.gate.Rate
	w.next = w.real(w.local)
	w.sendFrom(w.next)
	w.gate.SetMoves(steps - 1)
	w.gate.Fresh = false
	for _, v := range w.byClock {
		moves := int64(w.local / v.Rate)
		v.SetMoves(moves)
		v.due = score.Tick(moves+1) * v.Rate
		w.notify(v.name, w.real(score.Tick(moves)*v.Rate), &v.Mover)
	}
}
