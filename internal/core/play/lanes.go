package play

import "jettyfog/internal/core/score"

// namedValue is one of the lanes that a walker reads.
type namedValue struct {
	name  score.LaneName
	value *value
	// control is set for a mod lane that goes somewhere.
	control *control
}

// lanes returns the lanes that are read for each note, and the mod lanes that the part has.
func (w *walker) lanes() []namedValue {
	lanes := []namedValue{
		{name: score.Pitch, value: &w.pitch}, {name: score.Octave, value: &w.octave}, {name: score.Chord, value: &w.chord},
		{name: score.Velocity, value: &w.velocity}, {name: score.Length, value: &w.length}, {name: score.Ratchet, value: &w.ratchet},
		{name: score.Probability, value: &w.probability}, {name: score.Nudge, value: &w.nudge}, {name: score.Slide, value: &w.slide},
	}
	for i, name := range score.ModLanes() {
		mod := namedValue{name: name, value: new(value)}
		switch {
		case i < len(w.part.Mods):
			mod.control = &control{lane: mod.value, mod: w.part.Mods[i], index: i}
			w.mods = append(w.mods, mod)
		case !w.part.Lanes.Has(name):
			continue
		}
		lanes = append(lanes, mod)
	}
	return lanes
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
// a track that follows another's notes, which has no steps of its own at which to do it.
func (w *walker) seekTo(tick score.Tick) {
	for boundary := w.boundary(); w.follows() && boundary > 0 && boundary <= tick; boundary = w.boundary() {
		w.seekClock(boundary - w.aligned - 1)
		w.align(boundary)
	}
	// The last local time whose tick, rounded down, is before the given one.
	n, m := score.Tick(w.speed.N), score.Tick(w.speed.M)
	w.seekClock(((tick-w.aligned)*n+m-1)/m - 1)
}

// align brings all lanes back to their first step at a boundary.
func (w *walker) align(boundary score.Tick) {
	w.aligned = boundary
	w.gate.align()
	for _, v := range w.all {
		v.value.align()
	}
}

// seekClock brings the lanes that move by the clock to a moment of local time.
func (w *walker) seekClock(local score.Tick) {
	for _, v := range w.byClock {
		for due := score.Tick(v.value.moved+1) * v.value.rate; due <= local; due += v.value.rate {
			v.value.advance()
			w.stand(v, w.real(due))
		}
	}
}

// use takes lanes that move by what happens at a tick as having been read there, and moves them on.
func (w *walker) use(lanes []namedValue, tick score.Tick) {
	for _, v := range lanes {
		w.stand(v, tick)
		v.value.advance()
	}
}

// stand tells on which step a lane with a loop of its own stands from a tick on.
func (w *walker) stand(v namedValue, tick score.Tick) {
	w.tell(v.name, tick, &v.value.mover)
	if v.control != nil && v.control.started {
		w.turn(v.control, tick)
	}
}

// turnMods gives the mod lanes their values at a step: those that have none yet, those that were just
// aligned, and those that sit on the gate lane's step.
func (w *walker) turnMods() {
	for _, v := range w.mods {
		if !v.control.started || w.local == 0 || v.value.linked || v.value.fixed {
			w.turn(v.control, w.next)
		}
	}
}

func (w *walker) tell(lane score.LaneName, tick score.Tick, m *mover) {
	if w.watch != nil {
		w.watch(lane, Move{Tick: tick, Step: m.step()})
	}
}
