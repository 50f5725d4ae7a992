package live

import (
	"cmp"
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// maxHeld bounds how many keys of an input are known to be held.
const maxHeld = 128

// held is which keys of an input that is played in are down, whether something plays or not.
type held struct {
	down, chord []midi.Message // as they were pressed; chord has those that are up again since none was down
	at          int64          // when one was pressed last
}

// playIn takes a message that comes in where it may be played in: tracks hear it while they play. A key that is down is let go of whatever the rule is by then.
func (t *Transport) playIn(in Incoming, playsIn bool) {
	m := in.Message
	same := func(other midi.Message) bool { return other.Channel == m.Channel && other.Key == m.Key }
	wasDown := t.sources[in.Source] != nil && slices.ContainsFunc(t.sources[in.Source].held.down, same)
	switch {
	case m.Kind == midi.NoteOff && wasDown:
		h := &t.sources[in.Source].held
		h.down = slices.DeleteFunc(h.down, same)
	case !playsIn:
		return
	case m.Kind == midi.NoteOn:
		h := &t.sourceOf(in.Source).held
		if len(h.down) == 0 {
			h.chord = nil
		}
		h.at = in.At
		if !wasDown && len(h.chord) < maxHeld {
			h.down, h.chord = append(h.down, m), append(h.chord, m)
		}
	}
	if t.playing {
		t.hear(m)
	}
}

// letGo lets go of all keys of an input.
func (t *Transport) letGo(s *source) {
	for _, m := range s.held.down {
		m.Kind, m.Velocity = midi.NoteOff, 0
		if t.playing {
			t.hear(m)
		}
	}
	s.held = held{}
}

// hearHeld has tracks that begin to play hear what is held already, and the chord that was held last, which can be latched.
func (t *Transport) hearHeld() {
	if !slices.ContainsFunc(t.project.Tracks, func(track score.Track) bool { return track.Pitches.HearsKeys() }) {
		return
	}
	var sources []*source
	for _, s := range t.sources {
		sources = append(sources, s)
	}
	slices.SortFunc(sources, func(a, b *source) int { return cmp.Compare(a.held.at, b.held.at) })
	for _, s := range sources {
		for _, m := range s.held.chord {
			t.hear(m)
		}
		for _, m := range s.held.chord {
			if !slices.Contains(s.held.down, m) {
				m.Kind, m.Velocity = midi.NoteOff, 0
				t.hear(m)
			}
		}
	}
}
