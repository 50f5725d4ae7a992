package play

import "jettyfog/internal/core/score"

// readLanes makes the lanes that are read for each note, and the mod lanes that the part has.
func (w *walker) readLanes() {
	add := func(name score.LaneName) *value {
		v := newValue(&w.part.Lanes, name.Spec(), w.chance)
		w.all = append(w.all, v)
		return v
	}
	w.pitch, w.octave, w.alteration, w.chord = add(score.Pitch), add(score.Octave), add(score.Alteration), add(score.Chord)
	w.velocity, w.length, w.ratchet = add(score.Velocity), add(score.Length), add(score.Ratchet)
	w.probability, w.nudge, w.swings, w.slide = add(score.Probability), add(score.Nudge), add(score.Swing), add(score.Slide)
	for i, name := range score.ModLanes() {
		switch {
		case i < len(w.part.Mods):
			v := add(name)
			v.control = &control{lane: v, mod: w.part.Mods[i], index: i}
			w.mods = append(w.mods, v)
		case w.part.Lanes.Has(name):
			add(name)
		}
	}
	for _, v := range w.all {
		if v.evolved != nil {
			w.evolving = append(w.evolving, v)
		}
		if v.linked || v.fixed {
			continue
		}
		switch v.lane.Moves {
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
}

// gateLane returns the gate lane of a part, with the loop to which it is held.
func gateLane(part *score.Part) *score.Lane {
	gate := part.Lanes.Lane(score.Gate)
	if part.Held.Length == 0 {
		return gate
	}
	held := *gate
	held.First, held.Length = part.Held.First, part.Held.Length
	return &held
}

// seekTo brings the lanes that move by the clock to just before a tick of the project, and aligns those of
// a track that does not go by the clock, which has no steps of its own at which to do it.
func (w *walker) seekTo(tick score.Tick) {
	for boundary := w.boundary(); !w.ownClock && boundary > 0 && boundary <= tick; boundary = w.boundary() {
		w.seekClock(boundary - w.aligned - 1)
		w.align(boundary)
	}
	// The last local time whose tick, rounded down, is before the given one.
	n, m := score.Tick(w.speed.N), score.Tick(w.speed.M)
	w.seekClock(((tick-w.aligned)*n+m-1)/m - 1)
}

// align brings all lanes back to their first step at a boundary.
func (w *walker) align(boundary score.Tick) {
	w.aligned, w.aligning = boundary, true
	for _, v := range w.all {
		v.align()
	}
}

// seekClock brings the lanes that move by the clock to a moment of local time.
func (w *walker) seekClock(local score.Tick) {
	for _, v := range w.byClock {
		for v.due <= local {
			v.advance()
			if w.watch != nil || v.control != nil {
				w.stand(v, w.real(v.due))
			}
			v.due += v.rate
		}
	}
}

// use takes lanes that move by what happens at a tick as being read there.
func (w *walker) use(lanes []*value, tick score.Tick) {
	for _, v := range lanes {
		w.stand(v, tick)
		v.used = true
	}
}

// goOnAll moves lanes on that were read where they stood.
func goOnAll(lanes []*value) {
	for _, v := range lanes {
		v.goOn()
	}
}

// stand tells on which step a lane with a loop of its own stands from a tick on.
func (w *walker) stand(v *value, tick score.Tick) {
	w.tell(v.name, tick, &v.mover)
	if v.control != nil && v.control.started {
		w.turn(v.control, tick)
	}
}

// turnMods gives the mod lanes their values at a step: those that have none yet, those that were just
// aligned, and those that sit on the gate lane's step.
func (w *walker) turnMods() {
	for _, v := range w.mods {
		if !v.control.started || w.local == 0 || v.linked || v.fixed {
			w.turn(v.control, w.next)
		}
	}
}

func (w *walker) tell(lane score.LaneName, tick score.Tick, m *mover) {
	if w.watch != nil {
		w.watch(lane, Move{Tick: tick, Step: m.step()})
	}
}
