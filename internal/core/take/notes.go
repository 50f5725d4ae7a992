package take

import (
	"cmp"
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
)

// Notes returns the take's notes in the order in which they were struck. Edits name a note by its place in this
// list, from 0. The lists of a take and of its edited successor are different lists.
func (t *Take) Notes() []midi.Note {
	notes := make([]midi.Note, 0, len(t.Messages)/2)
	var sounding midi.Sounding[int]
	for _, m := range t.Messages {
		switch m.Kind {
		case midi.NoteOn:
			sounding.Begin(m.NoteID(), len(notes))
			notes = append(notes, midi.Note{
				Start: m.Tick, End: t.End, Track: m.Track, Channel: m.Channel, Key: m.Key, Velocity: m.Velocity, Detune: m.Detune, Traveller: m.Traveller,
			})
		case midi.NoteOff:
			if place, ok := sounding.End(m.NoteID()); ok {
				notes[place].End = m.Tick
			}
		}
	}
	return notes
}

// others returns the messages that are no notes.
func (t *Take) others() []midi.Message {
	var others []midi.Message
	for _, m := range t.Messages {
		if m.Kind != midi.NoteOn && m.Kind != midi.NoteOff {
			others = append(others, m)
		}
	}
	return others
}

// setContents puts notes and other messages in the place of those of the take, which lasts as long as it did, or
// to the end of its last note.
func (t *Take) setContents(notes []midi.Note, others []midi.Message) {
	slices.SortStableFunc(notes, func(a, b midi.Note) int {
		return cmp.Or(cmp.Compare(a.Start, b.Start), cmp.Compare(a.Track, b.Track), cmp.Compare(a.Channel, b.Channel), cmp.Compare(a.Key, b.Key))
	})
	slices.SortStableFunc(others, midi.Compare)
	for _, n := range notes {
		t.End = max(t.End, n.End)
	}
	var keys route.Keys
	struck := keys.Release(t.End, keys.Play(notes, t.End+1, nil))
	t.Messages = midi.Merge(struck, others, nil)
}

// Audible returns the take without what its muted tracks play.
func (t *Take) Audible() *Take {
	audible := *t
	audible.Messages = slices.DeleteFunc(slices.Clone(t.Messages), func(m midi.Message) bool { return t.mutes(m.Track) })
	return &audible
}

func (t *Take) mutes(id uint32) bool {
	return slices.ContainsFunc(t.Tracks, func(track Track) bool { return track.ID == id && track.Mute })
}

// Choice says which notes an edit is about.
type Choice struct {
	// Notes are their places among Take.Notes. Without them the notes are those of the tracks that start
	// within From and To.
	Notes []int `json:"notes,omitempty" jsonschema:"maxItems=100000"`
	// Tracks are ids; none stands for all.
	Tracks []uint32 `json:"tracks,omitempty" jsonschema:"maxItems=64"`
	// From and To bound the starts; a To of 0 is the end of the take.
	From score.Tick `json:"from,omitempty" jsonschema:"minimum=0"`
	To   score.Tick `json:"to,omitempty" jsonschema:"minimum=0"`
}

// keepsKeys returns which tracks a change of pitch leaves alone: kits, where the choice names no notes and no tracks.
func (t *Take) keepsKeys(c Choice) func(track uint32) bool {
	named := len(c.Notes)+len(c.Tracks) > 0
	return func(id uint32) bool {
		return !named && slices.ContainsFunc(t.Tracks, func(track Track) bool { return track.ID == id && track.Kit })
	}
}

// of returns whether each of some notes is chosen. The error is a *score.FieldError.
func (c Choice) of(notes []midi.Note) ([]bool, error) {
	chosen := make([]bool, len(notes))
	for _, place := range c.Notes {
		if place < 0 || place >= len(notes) {
			return nil, &score.FieldError{Field: "notes", Got: place, Allowed: "places in the list of notes"}
		}
		chosen[place] = true
	}
	if len(c.Notes) > 0 {
		return chosen, nil
	}
	for i, n := range notes {
		chosen[i] = c.includes(n.Track, n.Start)
	}
	return chosen, nil
}

// includes reports whether something of a track at a moment is chosen, where the choice lists no notes.
func (c Choice) includes(track uint32, at score.Tick) bool {
	return (len(c.Tracks) == 0 || slices.Contains(c.Tracks, track)) && at >= c.From && (c.To == 0 || at < c.To)
}
