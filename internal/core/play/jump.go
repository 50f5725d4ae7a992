package play

import "jettyfog/internal/core/score"

// skipTo brings a fresh performer close to a tick without playing all that comes before, where each lane's
// place follows from the time alone. Tracks for which it does not are played through in silence. The
// music from there on is the same either way.
func (f *Performer) skipTo(tick score.Tick) {
	for _, w := range f.walkers {
		if w.hearsOthers() {
			return // which must then have been played
		}
	}
	for _, w := range f.walkers {
		if w.jumps() {
			w.jump(tick)
		}
	}
	f.arrange()
}

// hearsOthers reports whether what the part plays depends on other tracks.
func (w *walker) hearsOthers() bool {
	if w.follows() {
		return true
	}
	for _, detail := range w.details {
		if _, other := detail.Condition.Track(); other {
			return true
		}
	}
	return false
}

// jumps reports whether every lane's place follows from the time alone, and nothing else is remembered.
func (w *walker) jumps() bool {
	if w.track.Hold > 0 || w.track.Realign > 0 || len(w.mods) > 0 || !w.slide.fixed {
		return false
	}
	for _, detail := range w.details {
		afterLast := detail.Condition == score.AfterSound || detail.Condition == score.AfterSilence
		if detail.Skip || detail.Stretch > 1 || afterLast {
			return false
		}
	}
	if len(w.byStep)+len(w.byHit)+len(w.byStrike) > 0 || !placeable(w.gate.lane) {
		return false
	}
	for _, v := range w.byClock {
		if !placeable(v.value.lane) {
			return false
		}
	}
	return true
}

// placeable reports whether a lane's place follows from how often it has moved.
func placeable(lane *score.Lane) bool {
	return lane.Order != score.Shuffle && lane.Order != score.Drift
}

// jump goes on to a step that is so far before a tick that no note of an earlier step starts at it or later.
func (w *walker) jump(tick score.Tick) {
	const most = 4 // steps by which swing, nudge, ratchets and strums can delay a note
	late := w.jitter + max(0, w.track.Delay)
	local := (tick - late) * score.Tick(w.speed.N) / score.Tick(w.speed.M)
	steps := int64(local/w.gate.rate) - most
	if steps <= 0 {
		return
	}
	w.local = score.Tick(steps) * w.gate.rate
	w.next = w.real(w.local)
	w.gate.setMoves(steps)
	for _, v := range w.byClock {
		moves := int64(w.local / v.value.rate)
		v.value.setMoves(moves)
		w.tell(v.name, w.real(score.Tick(moves)*v.value.rate), &v.value.mover)
	}
}

// setMoves sets how often the lane has moved since the beginning.
func (m *mover) setMoves(moves int64) {
	m.moved, m.drawn = moves, moves
	m.settle()
}
