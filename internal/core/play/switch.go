package play

import (
	"slices"

	"jettyfog/internal/core/score"
)

// switchOver has a group go on as the act has it that was made ready. All its steps before then are done.
func (f *Performer) switchOver(g *group) {
	was := *g
	*g = *was.next
	g.walked = was.walked
	entered := map[int]score.Tick{} // by the ids of tracks whose pattern changes
	for _, track := range g.tracks {
		if g.project.Track(track).Playing != was.project.Track(track).Playing {
			entered[track] = was.entry(track)
			f.leave(was.walkers, track, entered[track])
			if g.project.PatternsCut {
				left := uint8(was.project.Track(track).Playing)
				f.cuts = append(f.cuts, Cut{uint32(track), left, entered[track]})
			}
		}
	}
	for _, s := range g.sources {
		before := was.source(s.key())
		w, walks := s.(*walker)
		if !walks {
			s.restore(before.save())
			continue
		}
		f.watchLanes(w)
		if f.built != nil {
			f.built(w)
		}
		if at, enters := entered[w.track.ID]; enters {
			w.enter(at, f.left[w.key()], was.walkers)
		} else {
			old := before.(*walker)
			old.seekTo(was.from)
			w.continueFrom(old, was.from)
		}
	}
	for _, track := range g.moved {
		f.move(g, &was, track)
	}
	g.coupled.arrange()
	f.remap(g)
	f.decideSilence()
}

// move does to the lanes of a track what an act does to them, once a group has gone on as another.
func (f *Performer) move(g, was *group, track int) {
	at := was.entry(track)
	if g.moves == Realigning {
		f.drop(track, at)
	}
	for _, w := range g.walkers {
		switch {
		case w.track.ID != track:
		case g.moves == Realigning:
			w.seekTo(at)
			w.align(at)
			if w.ownClock {
				w.local, w.next, w.stops = 0, at, false
			}
			if w.machine != nil {
				w.findMoment()
			}
		case g.moves == Evolving:
			for _, v := range w.all {
				v.extra++
			}
		}
	}
}

// drop leaves out what a track would begin from a tick on.
func (f *Performer) drop(track int, at score.Tick) {
	kept := 0
	for i, n := range f.notes {
		if int(n.Track) != track || n.Start < at {
			f.notes[kept], f.orders[kept] = n, f.orders[i]
			kept++
		}
	}
	f.notes, f.orders = f.notes[:kept], f.orders[:kept]
	f.changes = slices.DeleteFunc(f.changes, func(c pendingChange) bool { return int(c.Track) == track && c.Tick >= at })
}

// entry returns when the next pattern of a track enters.
func (g *group) entry(track int) score.Tick {
	at := never
	for _, w := range g.walkers {
		if w.track.ID == track && (w.ownClock || w.machine != nil) {
			at = min(at, w.next)
		}
	}
	if !g.onStep || at == never {
		return g.from
	}
	return at
}

func (g *group) source(key partKey) source {
	for _, s := range g.sources {
		if s.key() == key {
			return s
		}
	}
	return nil
}

// leave keeps how the parts of a track stand whose pattern ends at a tick, for their draws to be numbered on when they
// come again. Notes that have not begun by then are left out, those that sound finish.
func (f *Performer) leave(walkers []*walker, track int, at score.Tick) {
	for _, w := range walkers {
		if w.track.ID != track {
			continue
		}
		w.seekOver(at, at-1) // a pattern changes before what is held begins anew
		for _, v := range w.mods {
			w.goTo(v.control, at)
		}
		left := w.save().(partState)
		for name, lane := range f.left[w.key()].lanes {
			if _, there := left.lanes[name]; !there {
				left.lanes[name] = lane
			}
		}
		f.left[w.key()] = left
	}
	f.drop(track, at)
}

// enter has the part play from its first step on from a tick. Its draws, as it left them, are numbered on; what it hears
// is what the parts before it have heard.
func (w *walker) enter(at score.Tick, left partState, before []*walker) {
	w.entered = at
	w.holdFrom()
	w.aligned, w.next = at, at
	w.gate.DrawIndex = -1
	if left.lanes != nil {
		w.gate.DrawIndex, w.sounded = left.gate.DrawIndex, left.walker.sounded
		w.portamento = left.walker.portamento
	}
	for _, v := range w.all {
		lane, known := left.lanes[v.name]
		if !known {
			continue
		}
		v.DrawIndex = lane.mover.DrawIndex
		if v.control != nil && lane.sends == v.control.mod {
			v.control.started, v.control.sent = lane.control.started, lane.control.sent
			v.control.from, v.control.to, v.control.begun, v.control.sentTo = v.control.sent, v.control.sent, at, at
		}
	}
	if w.track.EntersAsPlayed {
		w.enterAsPlayed(at)
	}
	if w.machine != nil {
		w.enterField(at, left.moving)
	}
	first := slices.IndexFunc(before, func(other *walker) bool { return other.trackIndex == w.trackIndex })
	if first < 0 {
		return
	}
	other := before[first]
	w.controllers, w.incoming = other.controllers, slices.Clone(other.incoming)
	w.restoreCurves(other.curves)
	w.restoreChord(chordState{}, other.keysState)
	if w.ownClock || w.machine != nil {
		return
	}
	w.triggers = slices.Clone(other.triggers)
	w.triggered, w.control = other.triggered, other.control
	w.findTrigger()
}

// continueFrom has the part go on from where another state of it stands, whose lanes have been brought to a tick.
func (w *walker) continueFrom(was *walker, at score.Tick) {
	w.walkerState, w.hold.holdState = was.walkerState, was.hold.holdState
	w.triggers, w.incoming = slices.Clone(was.triggers), slices.Clone(was.incoming)
	w.restoreModulation(was.modulationState)
	w.restoreChord(was.chordState, was.keysState)
	w.passes += w.gate.Continue(was.gate.State, was.gate.Lane())
	for i, v := range w.all {
		before := was.all[i]
		v.Continue(before.State, before.Lane())
		v.valueState = before.valueState
		if v.evolved != nil && before.evolved != nil {
			*v.evolved = *before.evolved
		}
		if v.control != nil {
			v.control.controlState = before.control.controlState
			v.control.waiting = slices.Clone(before.control.waiting)
		}
	}
	if was.hold.every != w.hold.every || was.track.HoldFrom != w.track.HoldFrom {
		w.entered, w.hold.holdState = at, holdState{passes: -1, heard: -1}
	} else if w.hold.kept != nil {
		w.hold.kept = w.refit(w.hold.kept, was)
	}
	w.holdFrom()
	w.continueField(was, at)
	if w.ownClock && (w.speed != was.speed || w.grid == 0 && w.gate.Rate != was.gate.Rate) {
		w.retime(was)
	}
}

// retime has the part's own time count so that its next step, and the next moves of its lanes, come when they were due,
// where it passes at another speed, or steps that swing in pairs last longer or shorter. Of these the first stays first.
func (w *walker) retime(was *walker) {
	at := was.real(was.local)
	if w.stops || w.realigns { // a realignment can come before the step
		whole := (at - was.aligned) / score.Tick(w.speed.M)
		w.local = whole * score.Tick(w.speed.N)
	} else {
		second := was.local / was.gate.Rate % 2
		w.local = second * w.gate.Rate
	}
	w.aligned = at - w.span(w.local)
	num, den := score.Tick(was.speed.M*w.speed.N), score.Tick(was.speed.N*w.speed.M)
	for _, v := range w.byClock {
		since := (v.due - was.local) * num
		if v.due = w.local + since/den; since%den < 0 {
			v.due--
		}
	}
}

// refit returns how everything was at the beginning of what is held, by the loops that the lanes have now.
func (w *walker) refit(kept *keptLuck, was *walker) *keptLuck {
	fitted := *kept
	gate := w.gate
	gate.Continue(kept.gate, was.gate.Lane())
	fitted.gate = gate.State
	fitted.values = map[score.LaneName]keptValue{}
	for _, v := range w.all {
		before := was.lane(v.name)
		if before == nil { // an edit has added it
			continue
		}
		value, mover := kept.values[v.name], v.Mover
		mover.Continue(value.mover, before.Lane())
		value.mover = mover.State
		if v.evolved != nil && before.evolved == nil {
			value.evolved, value.rolls, value.extra = *v.evolved, v.rolls, v.extra
		}
		fitted.values[v.name] = value
	}
	if w.machine != nil && was.machine != nil && kept.moving != nil {
		fitted.moving, fitted.origin = w.continued(was, kept.moving, kept.origin, kept.at)
	}
	return &fitted
}

// lane returns a lane of the part, or nil.
func (w *walker) lane(name score.LaneName) *value {
	for _, v := range w.all {
		if v.name == name {
			return v
		}
	}
	return nil
}

// holdFrom finds the first bar of what is held: the one that the track says, or that in which or after which the part
// entered, or was asked to hold.
func (w *walker) holdFrom() {
	if w.entered == 0 {
		return
	}
	w.hold.from = max(int64(w.track.HoldFrom), w.bars.At(w.bars.Ceil(w.entered)))
}

// remap gives what waits of a group the ranks that its parts have now; of parts that have left that of the track's first.
func (f *Performer) remap(g *group) {
	rank := func(track, part int) (int, bool) {
		for _, w := range g.walkers {
			if w.track.ID == track && w.part.ID == part {
				return w.order, true
			}
		}
		return slices.Index(f.order, track) * score.MaxParts, slices.Contains(g.tracks, track)
	}
	for i, n := range f.notes {
		if order, own := rank(int(n.Track), int(n.Part)); own && g.project.Track(int(n.Track)).Loop == nil {
			f.orders[i] = uint16(order)
		}
	}
	for i, c := range f.changes {
		if order, own := rank(int(c.Track), int(c.Part)); own {
			f.changes[i].order = order<<slotBits | c.order&(1<<slotBits-1)
		}
	}
	for _, track := range g.tracks {
		first := slices.Index(f.order, track) * score.MaxParts << slotBits
		sent := f.lastSent[first : first+score.MaxParts<<slotBits]
		before := slices.Clone(sent)
		clear(sent)
		for at, c := range before {
			if c.Track == 0 {
				continue
			}
			for _, w := range g.walkers {
				if w.track.ID == track && w.part.ID == int(c.Part) {
					f.lastSent[w.order<<slotBits|at&(1<<slotBits-1)] = c
				}
			}
		}
	}
}
