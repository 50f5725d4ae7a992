package play

import (
	"jettyfog/internal/core/field"
	"jettyfog/internal/core/orders"
	"jettyfog/internal/core/score"
)

// holding has all that chance can move be, every so many bars, as it was at a first bar: the draws, the places of lanes
// that go at random or move by hits, what has evolved, and what sounded last. What moves by arithmetic goes on.
type holding struct {
	bars        score.Bars
	from, every int64 // in bars; every 0 holds nothing
	holdState
}

// holdState is how far holding has come.
type holdState struct {
	passes    int64     // of what is held that have begun, less one; -1 before the first
	kept      *keptLuck // how everything was at the beginning of the first; it is never changed
	heard     int64     // in which pass the last trigger was heard; -1 before the first
	triggered int64     // how many triggers were heard before the first
}

// keptLuck is how everything that chance can move was at a moment.
type keptLuck struct {
	gate    orders.State
	values  map[score.LaneName]keptValue
	sounded bool
	state   trackState
	chord   chordState
	wait    score.Tick // until the next step, by the part's own clock
	bar     int64      // in which it was
	at      score.Tick // when
	evolved int64      // the walker's evolvedBars
	moving  *field.State
	origin  score.Tick
}

// keptValue is how a lane was.
type keptValue struct {
	mover   orders.State
	used    bool
	evolved [score.MaxSteps]int
	rolls   int64
	extra   int64
}

// pass returns in which pass a tick is, from 0; -1 before the first.
func (h *holding) pass(tick score.Tick) int64 {
	if bar := h.bars.At(tick); h.every > 0 && bar >= h.from {
		return (bar - h.from) / h.every
	}
	return -1
}

// within returns the bar of the first pass that a tick repeats.
func (h *holding) within(tick score.Tick) int64 {
	bar := h.bars.At(tick)
	if h.every == 0 || bar < h.from {
		return bar
	}
	return h.from + (bar-h.from)%h.every
}

// evolvingBar returns the bar by which lanes have evolved at a tick.
func (w *walker) evolvingBar(tick score.Tick) int64 { return w.hold.within(tick) + w.evolvedBars }

// next returns when the next pass of what is held begins.
func (h *holding) next() score.Tick { return h.after(h.passes) }

// after returns when the pass after another one begins, from 0; that after -1 is the first.
func (h *holding) after(pass int64) score.Tick {
	if h.every == 0 {
		return never
	}
	return h.bars.Start(h.from + (pass+1)*h.every)
}

// holdAt keeps how everything is where the first pass begins, and brings it back where another does. All steps of the
// part before then are done, and lanes have moved that move at that moment.
func (w *walker) holdAt(at score.Tick) {
	if w.hold.passes++; w.hold.kept == nil {
		w.hold.kept = w.keep(at)
	} else {
		w.bringBack(w.hold.kept, at)
	}
}

func (w *walker) keep(at score.Tick) *keptLuck {
	k := &keptLuck{gate: w.gate.State, values: map[score.LaneName]keptValue{}, sounded: w.sounded, chord: w.chordState, wait: w.real(w.local) - at, at: at, bar: w.bars.At(at), evolved: w.evolvedBars}
	if w.machine != nil {
		k.moving, k.origin = w.moving.Clone(), w.origin
	}
	k.state = w.states[w.trackIndex] // no other part of the track has gone on at that moment: all are held before one does
	for _, v := range w.all {
		kept := keptValue{mover: v.State, used: v.used, rolls: v.rolls, extra: v.extra}
		if v.evolved != nil {
			kept.evolved = *v.evolved
		}
		k.values[v.name] = kept
	}
	return k
}

func (w *walker) bringBack(k *keptLuck, at score.Tick) {
	aligned := w.alignedAt(at)
	byChance := w.unsteady || !w.ownClock // whether chance decides when the gate goes on
	bringBack(&w.gate, k.gate, byChance && !aligned)
	if w.unsteady && w.ownClock && !aligned {
		w.local = w.localFrom(at+k.wait, w.aligned)
	}
	for _, v := range w.all {
		kept, there := k.values[v.name]
		if !there {
			continue
		}
		moved := kept.mover.DrawIndex + pending(kept.used)
		byHits := v.Lane().Moves == score.ByHit || v.Lane().Moves == score.ByStrike || v.Lane().Moves == score.ByStep && byChance
		if bringBack(&v.Mover, kept.mover, byHits && !aligned) && !aligned {
			v.used = kept.used
		}
		v.DrawIndex = moved - pending(v.used)
		if aligned {
			v.Mover.Align()
		}
		if v.evolved != nil {
			*v.evolved, v.rolls, v.extra = kept.evolved, kept.rolls, kept.extra
		}
	}
	w.bringFieldBack(k, at, aligned)
	w.sounded, w.evolvedBars, w.chordState = k.sounded, k.evolved, k.chord
	if aligned {
		w.struck = 0
	}
	s := &w.states[w.trackIndex]
	mods := s.mods
	*s = k.state
	s.before, s.since = s.now, -1
	s.bar += w.bars.At(at) - k.bar
	s.tick, s.until = s.tick+at-k.at, s.until+at-k.at
	if w.partIndex > 0 { // whose mod lanes drive nothing
		s.mods = mods
	}
}

// alignedAt reports whether the lanes are realigned at a tick. The beginning of a song is no realignment.
func (w *walker) alignedAt(tick score.Tick) bool { return w.aligned == tick && w.track.Realign > 0 }

// bringBack brings the draws of a mover back, and where it stands too if chance decides that, which it reports.
func bringBack(m *orders.Mover, kept orders.State, byChance bool) bool {
	if !byChance && !m.AtRandom() {
		m.DrawIndex = kept.DrawIndex
		return false
	}
	fresh := m.Fresh // where the lanes are aligned at the same moment
	m.State = kept
	m.Fresh = m.Fresh || fresh
	return true
}

// pending is a move that a lane that was read where it stood has still to make.
func pending(used bool) int64 {
	if used {
		return 1
	}
	return 0
}
