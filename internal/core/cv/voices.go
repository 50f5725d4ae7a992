package cv

import (
	"slices"

	"jettyfog/internal/core/midi"
)

// span is how long a voice plays a note; to is forever while it sounds.
type span struct {
	id       midi.NoteID
	from, to int64
	pitch    float64
	velocity int
	// tied says that the gate stays up from the span before, which ends where this one begins.
	tied bool
	// slides says that the pitch slides to it.
	slides bool
}

func (s span) sounds() bool { return s.to == forever }

// voices gives the notes of a track to voices as they begin and end. With one voice it plays the note that was struck last, and returns
// to the last one that is still held; with several they take turns, or the lowest that is free is taken.
type voices struct {
	lowestFree bool
	spans      []span // of each voice the last; from is before all time before the first
	held       []note
	turn       int
}

func newVoices(count int, lowestFree bool) *voices {
	v := &voices{lowestFree: lowestFree, spans: make([]span, count)}
	for i := range v.spans {
		v.spans[i] = span{from: never, to: never}
	}
	return v
}

func (v *voices) clone() *voices {
	return &voices{v.lowestFree, slices.Clone(v.spans), slices.Clone(v.held), v.turn}
}

// play ends and begins notes at one moment, and returns what spans there were before. Of two that begin together with one voice, the
// first is as if it were none.
func (v *voices) play(ends []midi.NoteID, begins []note, at int64) (before []span) {
	before = slices.Clone(v.spans)
	for _, id := range ends {
		v.end(id, at, before)
	}
	for _, n := range begins {
		switch len(v.spans) {
		case 0:
		case 1:
			v.held = append(v.held, n)
			v.begin(0, n, at, n.slides && before[0].sounds())
		default:
			v.begin(v.free(), n, at, false)
		}
	}
	return before
}

func (v *voices) begin(voice int, n note, at int64, tied bool) {
	v.spans[voice] = span{n.id, at, forever, n.pitch, n.velocity, tied, n.slides && !(tied && at > n.at)}
	v.turn = (voice + 1) % len(v.spans)
}

// end ends a note.
func (v *voices) end(id midi.NoteID, at int64, before []span) {
	v.held = slices.DeleteFunc(v.held, func(n note) bool { return n.id == id })
	for i := range v.spans {
		s := &v.spans[i]
		if s.id != id || !s.sounds() {
			continue
		}
		if last := len(v.held) - 1; last >= 0 {
			v.begin(i, v.held[last], at, before[i].sounds())
		} else {
			s.to = at
		}
		return
	}
}

// free returns the voice for a note, of several: one that is free, or else the next in turn or the one struck first.
func (v *voices) free() int {
	oldest := 0
	for i := range v.spans {
		at := i
		if !v.lowestFree {
			at = (v.turn + i) % len(v.spans)
		}
		if !v.spans[at].sounds() {
			return at
		}
		if v.spans[i].from < v.spans[oldest].from {
			oldest = i
		}
	}
	if v.lowestFree {
		return oldest
	}
	return v.turn
}
