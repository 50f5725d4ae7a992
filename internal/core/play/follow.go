package play

import (
	"math"
	"slices"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// never is when a track goes on that has no clock of its own, until something makes it.
const never = score.Tick(math.MaxInt64)

// hearAll has the track go on by what a part of the track that it follows has just played: by its notes, or by the rules of its field.
func (w *walker) hearAll(of *walker, notes []Note) {
	if w.track.Source.Kind == score.FieldRules {
		for range of.movedOn(w.track.ID) {
			w.trigger(max(0, of.clocked), max(0, of.clocked))
		}
		return
	}
	for _, n := range notes {
		if !n.Beside { // a chord is heard once
			w.hear(n)
		}
	}
}

// hear has the track go on by a note of the track that it follows.
func (w *walker) hear(n Note) {
	if w.track.Source.Kind == score.NoteEnds {
		w.trigger(n.End, n.Start)
	} else {
		w.trigger(n.Start, n.Start)
	}
}

// hearInput has the track go on by a message that comes in, if it is one of those that it listens to, and
// reports whether it is.
func (w *walker) hearInput(m midi.Message) bool {
	drives, counts, goesOn := w.hearController(m), w.hearKeys(m), w.hearClock(m)
	return drives || counts || goesOn
}

// hearClock is hearInput for what a track has for its clock.
func (w *walker) hearClock(m midi.Message) bool {
	source := &w.track.Source
	if source.Channel != 0 && int(m.Channel) != source.Channel-1 {
		return false
	}
	switch {
	case source.Kind == score.InputNotes && m.Kind == midi.NoteOn && m.Velocity > 0: // else it was held already
		if int(m.Key) < source.Lowest || int(m.Key) > source.Highest {
			return false
		}
		w.trigger(m.Tick, m.Tick)
		return true
	case source.Kind == score.InputControl && m.Kind == midi.ControlChange && int(m.Key) == source.Controller:
		before := w.control
		w.control = int(m.Value)
		if before < source.Level && w.control >= source.Level {
			w.trigger(m.Tick, m.Tick)
		}
		return true
	}
	return false
}

// trigger has the track go on after its delay, if the odds are with it, by what was heard at a moment. What it hears
// can be known long before; so its luck is held by when that is, and not by which steps are done.
func (w *walker) trigger(at, heard score.Tick) {
	if pass := w.hold.pass(heard); pass > w.hold.heard {
		if w.hold.heard < 0 {
			w.hold.triggered = w.triggered
		}
		w.triggered, w.hold.heard = w.hold.triggered, pass
	}
	address := w.chance
	address.Lane, address.Purpose, address.N = score.Gate.Spec().Number(), chance.Follow, uint64(w.triggered)
	w.triggered++
	if !chance.Happens(address, w.track.Source.Odds) {
		return
	}
	at += w.track.Source.Delay
	place, _ := slices.BinarySearch(w.triggers, at)
	for place < len(w.triggers) && w.triggers[place] == at {
		place++
	}
	w.triggers = slices.Insert(w.triggers, place, at)
	w.findTrigger()
}

// findTrigger finds the trigger by which the track goes on next.
func (w *walker) findTrigger() {
	w.next = never
	if len(w.triggers) > 0 {
		w.next = w.triggers[0]
	}
}

// chainLength returns how many tracks follow each other from the given one on, itself included.
func chainLength(p *score.Project, t *score.Track) int {
	length := 1
	for t.Source.FollowsTrack() {
		t = p.Track(t.Source.Track)
		length++
	}
	return length
}
