package play

import (
	"jettyfog/internal/core/orders"
	"jettyfog/internal/core/score"
)

// noteLanes are the lanes that are read for each note.
type noteLanes struct {
	pitch, octave, alteration, chord, velocity         *value
	length, ratchet, probability, nudge, swings, slide *value
}

// readLanes makes the lanes that are read for each note, and the mod lanes that the part has.
func (w *walker) readLanes() {
	const most = 11 + score.MaxMods
	values := make([]value, 0, most)
	w.all, w.byClock, w.unheard = make([]*value, 0, most), make([]*value, 0, most), make([]*value, 0, score.MaxMods)
	add := func(name score.LaneName, heard bool) *value {
		values = append(values, newValue(&w.part.Lanes, name.Spec(), w.chance))
		v := &values[len(values)-1]
		w.all = append(w.all, v)
		if heard {
			w.sort(v)
		} else {
			w.unheard = append(w.unheard, v)
		}
		return v
	}
	note := func(name score.LaneName) *value {
		v := add(name, true)
		if v.evolved != nil {
			w.evolving = append(w.evolving, v)
		}
		return v
	}
	w.pitch, w.octave, w.alteration, w.chord = note(score.Pitch), note(score.Octave), note(score.Alteration), note(score.Chord)
	w.pitch.allow(w.pitches)
	w.velocity, w.length, w.ratchet = note(score.Velocity), note(score.Length), note(score.Ratchet)
	w.probability, w.nudge, w.swings, w.slide = note(score.Probability), note(score.Nudge), note(score.Swing), note(score.Slide)
	for i, name := range score.ModLanes() {
		switch {
		case i < len(w.part.Mods):
			v := add(name, true)
			v.control = &control{lane: v, mod: w.part.Mods[i], index: i}
			w.mods = append(w.mods, v)
		case w.part.Lanes.Has(name):
			add(name, false)
		}
	}
}

// watchLanes tells the moves of all lanes from now on, of mod lanes too that go nowhere.
func (w *walker) watchLanes(watch func(lane score.LaneName, move Move)) {
	for _, v := range w.unheard {
		w.sort(v)
	}
	w.watch, w.unheard = watch, nil
}

// sort takes a lane to those that move as it does.
func (w *walker) sort(v *value) {
	if v.linked || v.fixed {
		return
	}
	switch v.Lane().Moves {
	case score.ByClock:
		w.byClock = append(w.byClock, v)
	case score.ByStep:
		w.byStep = append(w.byStep, v)
	case score.ByHit:
		w.byHit = append(w.byHit, v)
	case score.ByStrike:
		w.byStrike = append(w.byStrike, v)
	}
}

// seekTo brings the lanes that move by the clock to just before a tick of the project. On the way it holds what is to
// be held, and aligns the lanes of a track that does not go by the clock, which has no steps of its own at which to
// do it. No step of the part may come before the tick that is not done.
func (w *walker) seekTo(tick score.Tick) { w.seekOver(tick, tick) }

// seekOver is seekTo that holds and aligns only what is to be by another tick, which is not later.
func (w *walker) seekOver(tick, last score.Tick) {
	for {
		hold, align := w.hold.next(), never
		if boundary := w.boundary(); !w.ownClock && boundary > 0 {
			align = boundary
		}
		switch {
		case hold <= last && hold <= align:
			w.seekBefore(hold + 1)
			w.holdAt(hold)
			continue
		case align <= last:
			w.seekClock(align - w.aligned - 1)
			w.align(align)
			continue
		}
		w.seekBefore(tick)
		return
	}
}

// seekBefore brings the lanes that move by the clock to the last local time whose tick, rounded down, is before the
// given one.
func (w *walker) seekBefore(tick score.Tick) {
	w.seekClock(w.localFrom(tick, w.aligned) - 1)
}

// align brings all lanes back to their first step at a boundary.
func (w *walker) align(boundary score.Tick) {
	if !w.gate.Fresh {
		w.passes = w.pass() + 1
	}
	w.aligned, w.gate.Fresh, w.struck, w.realigns = boundary, true, 0, false
	w.beginField(boundary)
	for _, v := range w.all {
		v.align()
	}
}

// seekClock brings the lanes that move by the clock to a moment of local time.
func (w *walker) seekClock(local score.Tick) {
	for _, v := range w.byClock {
		for v.due <= local {
			if v.IsForward() { // most lanes are, and a call costs as much as a move
				v.Moved++
				v.DrawIndex++
				if v.Position++; v.Position == v.Length {
					v.Position = 0
				}
			} else {
				v.Advance()
			}
			if w.watch != nil || v.control != nil {
				w.stand(v, w.real(v.due), w.soundsAt(v.due))
			}
			v.due += v.Rate
		}
	}
}

// use takes lanes that move by what happens at a tick as being read there; it is heard at another.
func (w *walker) use(lanes []*value, tick, heard score.Tick) {
	for _, v := range lanes {
		w.stand(v, tick, heard)
		v.used = true
	}
}

// goOnAll moves lanes on that were read where they stood.
func goOnAll(lanes []*value) {
	for _, v := range lanes {
		v.goOn()
	}
}

// stand tells on which step a lane with a loop of its own stands from a tick on, which is heard at another.
func (w *walker) stand(v *value, tick, heard score.Tick) {
	w.notify(v.name, tick, &v.Mover)
	if v.control != nil && v.control.turned {
		w.turn(v.control, tick, heard)
	}
}

// turnMods gives the mod lanes their values at a step: those that have none yet, those that were just
// aligned, those that sit on the gate lane's step, and those of which the cell that sounds has a value of its own.
func (w *walker) turnMods() {
	for _, v := range w.mods {
		c := v.control
		own, has := w.modOfCell(c.index)
		if first := !c.turned; first || w.begins || v.linked || v.fixed || has {
			w.turn(c, w.next, w.soundsAt(w.local))
			if has {
				w.turnTo(c, own)
			}
			if first || v.linked || v.fixed || has || v.Lane().Moves != score.ByClock {
				w.turnedNow = append(w.turnedNow, stepTurn{c, len(c.waiting) - 1})
			}
		}
	}
}

// stepTurn is a value that a control was given at the present step, by its place among those that wait.
type stepTurn struct {
	control *control
	place   int
}

// withNote lets the values that controls were given at the present step come with its first note.
func (w *walker) withNote(start score.Tick) {
	for _, t := range w.turnedNow {
		waiting := &t.control.waiting[t.place]
		waiting.tick, waiting.withNote = max(0, start), true
	}
}

func (w *walker) notify(lane score.LaneName, tick score.Tick, m *orders.Mover) {
	if w.watch != nil {
		w.watch(lane, Move{Tick: tick, Step: m.Step()})
	}
}
