package take

import (
	"fmt"
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// MaxNotes bounds how many notes can be added, or named one by one, in an edit.
const MaxNotes = 100_000

// change has a function change the chosen notes of a take and what comes with them.
func change(t *Take, c Choice, how func(*midi.Note)) error {
	notes, others := t.Notes(), t.others()
	chosen, err := c.of(notes)
	if err != nil {
		return err
	}
	escorts := escortsOf(others)
	for i := range notes {
		if !chosen[i] {
			continue
		}
		before := notes[i]
		how(&notes[i])
		escorts.follow(before, notes[i])
	}
	t.setContents(notes, others)
	return nil
}

// escorts are the messages that bring single notes in tune; they go where their notes go.
type escorts struct {
	others []midi.Message
	at     map[escort][]int
}

type escort struct {
	tick    score.Tick
	channel uint8
}

func escortsOf(others []midi.Message) escorts {
	e := escorts{others: others, at: map[escort][]int{}}
	for i, m := range others {
		if m.Kind == midi.Bend || m.Kind == midi.KeyTuning {
			at := escort{m.Tick, m.Channel}
			e.at[at] = append(e.at[at], i)
		}
	}
	return e
}

// follow moves what was sent for a note at its start to where the note is now.
func (e escorts) follow(before, after midi.Note) {
	if before.Detune == 0 {
		return
	}
	for _, i := range e.at[escort{before.Start, before.Channel}] {
		m := &e.others[i]
		if m.Kind == midi.KeyTuning {
			if m.Key != before.Key {
				continue
			}
			m.Key, m.Velocity = after.Key, m.Velocity+after.Key-before.Key
		}
		m.Tick = after.Start
	}
}

// AddedNote is a note to be added to a take.
type AddedNote struct {
	Track    uint32     `json:"track"`
	Start    score.Tick `json:"start" jsonschema:"minimum=0"`
	Length   score.Tick `json:"length" jsonschema:"minimum=1"`
	Key      int        `json:"key" jsonschema:"minimum=0,maximum=127"`
	Velocity int        `json:"velocity" jsonschema:"minimum=1,maximum=127"`
}

// AddNotes adds notes, on the channel on which their track has played.
type AddNotes struct {
	Notes []AddedNote `json:"notes" jsonschema:"minItems=1,maxItems=100000"`
}

// Label implements Edit.
func (e AddNotes) Label() string { return score.Counted(len(e.Notes), "new note") }

func (e AddNotes) apply(t *Take) error {
	notes := t.Notes()
	for _, n := range e.Notes {
		if !slices.ContainsFunc(t.Tracks, func(track Track) bool { return track.ID == n.Track }) {
			return &score.FieldError{Field: "track", Got: int(n.Track), Allowed: "the id of a track of the take"}
		}
		if n.Start < 0 || n.Length < 1 || n.Start > score.LastTick || n.Length > score.LastTick-n.Start {
			return &score.FieldError{Field: "start", Got: int(n.Start), Allowed: fmt.Sprintf("0 to %d, and a length of 1 at least", score.LastTick)}
		}
		if n.Key < theory.LowestNote || n.Key > theory.HighestNote {
			return &score.FieldError{Field: "key", Got: n.Key, Allowed: "0 to 127"}
		}
		if n.Velocity < 1 || n.Velocity > 127 {
			return &score.FieldError{Field: "velocity", Got: n.Velocity, Allowed: "1 to 127"}
		}
		notes = append(notes, midi.Note{
			Start: n.Start, End: n.Start + n.Length, Track: n.Track, Channel: t.channelOf(n.Track), Key: uint8(n.Key), Velocity: uint8(n.Velocity),
		})
	}
	t.setContents(notes, t.others())
	return nil
}

// channelOf returns the channel on which a track has played first; one that never has is on the first.
func (t *Take) channelOf(track uint32) uint8 {
	for _, m := range t.Messages {
		if m.Track == track {
			return m.Channel
		}
	}
	return 0
}

// DeleteNotes deletes notes.
type DeleteNotes struct {
	Choice
}

// Label implements Edit.
func (e DeleteNotes) Label() string { return "deletion of notes" }

func (e DeleteNotes) apply(t *Take) error {
	notes := t.Notes()
	chosen, err := e.of(notes)
	if err != nil {
		return err
	}
	kept := notes[:0]
	for i, n := range notes {
		if !chosen[i] {
			kept = append(kept, n)
		}
	}
	t.setContents(kept, t.others())
	return nil
}

// MoveNotes moves notes in time and pitch, all together: as far as they can go without one of them leaving the
// take's beginning or the keyboard. Kits keep their keys unless they or their notes are named.
type MoveNotes struct {
	Choice
	Ticks     score.Tick `json:"ticks"`
	Semitones int        `json:"semitones" jsonschema:"minimum=-127,maximum=127"`
}

// Label implements Edit.
func (e MoveNotes) Label() string {
	if e.Ticks == 0 {
		return "transposition"
	}
	return "move of notes"
}

func (e MoveNotes) apply(t *Take) error {
	notes := t.Notes()
	chosen, err := e.of(notes)
	if err != nil {
		return err
	}
	ticks, semitones := e.Ticks, e.Semitones
	keeps := t.keepsKeys(e.Choice)
	for i, n := range notes {
		if chosen[i] {
			ticks = min(max(ticks, -n.Start), score.LastTick-n.End)
		}
		if chosen[i] && !keeps(n.Track) {
			semitones = min(max(semitones, -int(n.Key)), theory.HighestNote-int(n.Key))
		}
	}
	return change(t, e.Choice, func(n *midi.Note) {
		n.Start, n.End = n.Start+ticks, n.End+ticks
		if !keeps(n.Track) {
			n.Key = uint8(int(n.Key) + semitones)
		}
	})
}

// ShapeNotes makes notes louder or softer, longer or shorter; each stays within its bounds by itself.
type ShapeNotes struct {
	Choice
	// Velocity is added, −126 to 126.
	Velocity int `json:"velocity,omitempty" jsonschema:"minimum=-126,maximum=126"`
	// Length is added, in ticks; a note keeps one at least.
	Length score.Tick `json:"length,omitempty"`
	// Percent scales the length, 1 to 1000; 0 leaves it.
	Percent int `json:"percent,omitempty" jsonschema:"minimum=0,maximum=1000"`
}

// Label implements Edit.
func (e ShapeNotes) Label() string {
	if e.Velocity != 0 {
		return "velocity of notes"
	}
	return "length of notes"
}

func (e ShapeNotes) apply(t *Take) error {
	for _, field := range []struct {
		name             string
		got, least, most int
	}{
		{"percent", e.Percent, 0, 1000}, {"velocity", e.Velocity, -126, 126},
		{"length", int(e.Length), -int(score.LastTick), int(score.LastTick)},
	} {
		if field.got < field.least || field.got > field.most {
			return &score.FieldError{Field: field.name, Got: field.got, Allowed: fmt.Sprintf("%d to %d", field.least, field.most)}
		}
	}
	return change(t, e.Choice, func(n *midi.Note) {
		length := n.End - n.Start
		if e.Percent > 0 {
			length = length * score.Tick(e.Percent) / 100
		}
		length = min(max(1, length+e.Length), score.LastTick-n.Start)
		n.End = n.Start + length
		n.Velocity = uint8(min(127, max(1, int(n.Velocity)+e.Velocity)))
	})
}

// SetNotes gives each of some notes a velocity or a length of its own.
type SetNotes struct {
	// Notes are places among Take.Notes.
	Notes []int `json:"notes" jsonschema:"minItems=1,maxItems=100000"`
	// Velocities are theirs, 1 to 127; none leaves them.
	Velocities []int `json:"velocities,omitempty" jsonschema:"maxItems=100000"`
	// Lengths are theirs, in ticks from 1; none leaves them.
	Lengths []score.Tick `json:"lengths,omitempty" jsonschema:"maxItems=100000"`
}

// Label implements Edit.
func (e SetNotes) Label() string {
	if len(e.Velocities) > 0 {
		return "velocity of " + score.Counted(len(e.Notes), "note")
	}
	return "length of " + score.Counted(len(e.Notes), "note")
}

func (e SetNotes) apply(t *Take) error {
	for what, count := range map[string]int{"velocities": len(e.Velocities), "lengths": len(e.Lengths)} {
		if count != 0 && count != len(e.Notes) {
			return &score.FieldError{Field: what, Got: count, Allowed: "none, or one for each note"}
		}
	}
	if len(e.Notes) == 0 || len(e.Velocities)+len(e.Lengths) == 0 {
		return &score.FieldError{Field: "notes", Got: len(e.Notes), Allowed: "some notes, with velocities or lengths"}
	}
	notes := t.Notes()
	if _, err := (Choice{Notes: e.Notes}).of(notes); err != nil {
		return err
	}
	for i, velocity := range e.Velocities {
		if velocity < 1 || velocity > 127 {
			return &score.FieldError{Field: "velocities", Got: velocity, Allowed: "1 to 127"}
		}
		notes[e.Notes[i]].Velocity = uint8(velocity)
	}
	for i, length := range e.Lengths {
		n := &notes[e.Notes[i]]
		if length < 1 || length > score.LastTick-n.Start {
			return &score.FieldError{Field: "lengths", Got: int(length), Allowed: "1 or more"}
		}
		n.End = n.Start + length
	}
	t.setContents(notes, t.others())
	return nil
}
