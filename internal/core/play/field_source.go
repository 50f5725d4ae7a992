package play

import (
	"slices"

	"jettyfog/internal/core/field"
	"jettyfog/internal/core/score"
)

// fieldSource is the field whose cells a walker plays: each that sounds is a step of its gate lane. machine is nil without one. Its time is that of the
// field at the speed of the track, counted from where it began.
type fieldSource struct {
	machine *field.Machine
	pace    score.Ratio // the track's speed
	moving  *field.State
	origin  score.Tick // when the field began, in ticks of the project
	sound   *field.Sound
	scratch []field.Sound
	clocks  []int      // the ids of the tracks that rules moved on at the last moment
	clocked score.Tick // when that is heard

	// watchField is called with each moment, if it is set.
	watchField func(tick score.Tick, s *field.State, sounds []field.Sound)
}

// takeField finds the field of the walker's part.
func (w *walker) takeField() {
	if w.part.Field == nil {
		return
	}
	w.machine, w.pace = field.New(w.part.Field, w.chance), w.track.Speed
	w.moving = w.machine.Begin()
	w.findMoment()
}

// fieldTime converts a moment of the field's time to the project's.
func (w *walker) fieldTime(due score.Tick) score.Tick {
	if due == field.Never {
		return never
	}
	return w.origin + due*score.Tick(w.pace.M)/score.Tick(w.pace.N)
}

// fieldLasts converts a length of the field's time to the project's.
func (w *walker) fieldLasts(length score.Tick) score.Tick {
	return max(1, length*score.Tick(w.pace.M)/score.Tick(w.pace.N))
}

// findMoment finds when something moves next, or the field begins anew, or a pass of what is held.
func (w *walker) findMoment() {
	w.next = min(w.fieldTime(w.moving.Due()), w.hold.next())
	if boundary := w.boundary(); boundary > 0 {
		w.next = min(w.next, boundary)
	}
}

// playField has everything on the field move that is due, and plays the cells that sound.
func (w *walker) playField(dst []Note) []Note {
	w.clocks, w.clocked = w.clocks[:0], w.soundsAt(w.local)
	for w.fieldTime(w.moving.Due()) <= w.next {
		var clocks []int
		w.scratch, clocks = w.machine.Move(w.moving, w.scratch[:0])
		w.clocks = append(w.clocks, clocks...)
		if w.watchField != nil {
			w.watchField(w.clocked, w.moving, w.scratch)
		}
		for i := range w.scratch {
			w.sound = &w.scratch[i]
			dst = w.step(dst)
		}
	}
	w.sound = nil
	w.findMoment()
	return dst
}

// movedOn returns how often a rule of the field moved a track on at the last moment.
func (w *walker) movedOn(track int) (times int) {
	for _, id := range w.clocks {
		if id == track {
			times++
		}
	}
	return times
}

// traveller returns the traveller by which the present cell sounds.
func (w *walker) traveller() *score.Traveller { return &w.part.Field.Travellers[w.sound.Traveller] }

// ofCell returns what the present cell has of its own in place of a lane's value; 0 is nothing.
func (w *walker) ofCell(own func(*score.Cell) int, lane int) int {
	if w.sound == nil || w.sound.Cell == nil {
		return lane
	}
	if value := own(w.sound.Cell); value > 0 {
		return value
	}
	return lane
}

// modOfCell returns the value that the present cell has of its own of a mod, by its place in the part; has is false without one.
func (w *walker) modOfCell(index int) (value int, has bool) {
	if w.sound == nil || w.sound.Cell == nil {
		return 0, false
	}
	for _, mod := range w.sound.Cell.Mods {
		if mod.Mod == index+1 {
			return mod.Value, true
		}
	}
	return 0, false
}

// pitchOfCell returns the degree of the present cell, and by how many octaves it and its traveller are higher.
func (w *walker) pitchOfCell() (degree, octaves int) {
	if w.sound == nil {
		return 0, 0
	}
	return w.sound.Degree, w.sound.Octave + w.traveller().Octave
}

// beginField has the field begin anew at a tick.
func (w *walker) beginField(at score.Tick) {
	if w.machine != nil {
		w.machine.BeginAnew(w.moving)
		w.origin = at
	}
}

// enterField has the field begin at a tick, its draws numbered on from how it was left.
func (w *walker) enterField(at score.Tick, left *field.State) {
	w.moving, w.origin = w.machine.Begin(), at
	if left != nil {
		w.numberOn(left)
	}
	w.findMoment()
}

// numberOn has the draws of the field be numbered as in another state.
func (w *walker) numberOn(as *field.State) {
	w.moving.Judged = as.Judged
	for i := range w.moving.Travellers {
		t := &w.moving.Travellers[i]
		if at := slices.IndexFunc(as.Travellers, func(other field.Traveller) bool { return other.ID == t.ID }); at >= 0 {
			t.Moves = as.Travellers[at].Moves
		}
	}
}

// bringFieldBack has the field be as it was where what is held began; where it begins anew at the same moment only its draws are numbered so.
func (w *walker) bringFieldBack(k *keptLuck, at score.Tick, aligned bool) {
	switch {
	case w.machine == nil || k.moving == nil:
	case aligned:
		w.numberOn(k.moving)
	default:
		w.moving, w.origin = k.moving.Clone(), k.origin+at-k.at
	}
}

// continueField has the field go on from where it stands in another state of the part, at a tick.
func (w *walker) continueField(was *walker, at score.Tick) {
	if w.machine == nil || was.machine == nil {
		return
	}
	w.moving, w.origin = w.continued(was, was.moving, was.origin, at)
	w.findMoment()
}

// continued returns how the field goes on at a tick from a state of another state of the part, and its origin. At another speed the next move stays due when
// it was.
func (w *walker) continued(was *walker, from *field.State, began, at score.Tick) (moving *field.State, origin score.Tick) {
	inTicks := func(length score.Tick, pace score.Ratio) score.Tick {
		return length * score.Tick(pace.M) / score.Tick(pace.N)
	}
	now := (at - began) * score.Tick(was.pace.N) / score.Tick(was.pace.M)
	moving, origin = w.machine.Continue(was.machine, from, now), began
	if due := from.Due(); due != field.Never && w.pace != was.pace {
		origin += inTicks(due, was.pace) - inTicks(due, w.pace)
	}
	return moving, origin
}

// slowest returns the longest that a cell of the field lasts, in ticks of the project; 0 without a field.
func (w *walker) slowest() (longest score.Tick) {
	if w.part.Field == nil {
		return 0
	}
	for i := range w.part.Field.Travellers {
		longest = max(longest, w.part.Field.Travellers[i].Rate.Ticks())
	}
	for i := range w.part.Field.Rules {
		longest = max(longest, w.part.Field.Rules[i].Rate.Ticks())
	}
	return longest*score.Tick(w.track.Speed.M)/score.Tick(w.track.Speed.N) + 1
}
