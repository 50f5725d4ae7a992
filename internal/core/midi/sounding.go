package midi

import (
	"cmp"
	"slices"

	"jettyfog/internal/core/score"
)

// Sounding is the account of the notes that sound, each with what its keeper needs to know of it. The zero value has
// none. It may not be used by two goroutines at once.
type Sounding[T any] struct {
	notes map[NoteID]T
}

// Begin says that the note of a NoteOn sounds.
func (s *Sounding[T]) Begin(note NoteID, about T) {
	if s.notes == nil {
		s.notes = map[NoteID]T{}
	}
	s.notes[note] = about
}

// Of returns what is kept of a note; ok is false if it does not sound.
func (s *Sounding[T]) Of(note NoteID) (about T, ok bool) {
	about, ok = s.notes[note]
	return about, ok
}

// End says that a note sounds no more, and returns what was kept of it; ok is false if it did not sound.
func (s *Sounding[T]) End(note NoteID) (about T, ok bool) {
	about, ok = s.notes[note]
	delete(s.notes, note)
	return about, ok
}

// Release ends all notes, each at the tick that at returns for it, and returns their note-offs in the order of messages,
// of two on one channel and key that of the lower track first.
func (s *Sounding[T]) Release(at func(about T) score.Tick) []Message {
	var releases []Message
	for note, about := range s.notes {
		releases = append(releases, note.Off(at(about)))
	}
	clear(s.notes)
	slices.SortFunc(releases, func(a, b Message) int {
		return cmp.Or(Compare(a, b), cmp.Compare(a.Track, b.Track), cmp.Compare(a.Value, b.Value))
	})
	return releases
}
