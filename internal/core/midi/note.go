package midi

import (
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// Note is a note on a key of an instrument.
type Note struct {
	// Start is when it is struck, End when it is released; End is after Start.
	Start, End score.Tick
	// Track is the id of the track that plays it.
	Track uint32
	// Pattern is the id of that of its track of which it is.
	Pattern uint8
	// Channel counts from 0.
	Channel uint8
	// Key is the MIDI note number, Velocity 1 to 127.
	Key, Velocity uint8
	// Traveller is the id of the one of a field that plays it, if that has routes of its own; else 0.
	Traveller uint8
	// Voices is how many notes of its track can sound once it has started, itself included; the oldest end.
	// 0 is any number.
	Voices uint8
	// Overlap is how long those sound on into it, in ticks.
	Overlap uint16
	// Alone lets it end all notes of its track on its channel, which is bent to be in tune with it.
	Alone bool
	// Detune is how far above the pitch that Key has in equal temperament the note is to sound.
	Detune theory.Cents
}

// NoteID tells a note from all others that are down: its note-on and its note-off have the same.
type NoteID struct {
	Track        uint32
	Channel, Key uint8
	// Number tells apart notes of one track on one key, from 0.
	Number uint16
}

// NoteID returns that of a NoteOn or NoteOff.
func (m Message) NoteID() NoteID { return NoteID{m.Track, m.Channel, m.Key, m.Value} }

// Off returns the note-off of the note at a tick.
func (n NoteID) Off(tick score.Tick) Message { return n.message(tick, NoteOff) }

// On returns its note-on.
func (n NoteID) On(tick score.Tick, velocity uint8, detune theory.Cents) Message {
	m := n.message(tick, NoteOn)
	m.Velocity, m.Detune = velocity, detune
	return m
}

func (n NoteID) message(tick score.Tick, kind Kind) Message {
	return Message{Tick: tick, Track: n.Track, Kind: kind, Channel: n.Channel, Key: n.Key, Value: n.Number}
}
