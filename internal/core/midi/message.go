package midi

import (
	"cmp"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// Message is a channel message of a MIDI port.
type Message struct {
	Tick score.Tick
	// Track is the id of the track whose message it is.
	Track uint32
	Kind  Kind
	// Channel counts from 0.
	Channel uint8
	// Key is the MIDI note number, the controller of a ControlChange or WideControl, the program of a Program,
	// or the key of a KeyTuning.
	Key uint8
	// Velocity is 1 to 127 for a NoteOn. For a KeyTuning it is the note of equal temperament at or below the
	// key's new pitch. Otherwise it is 0.
	Velocity uint8
	// Value of a NoteOn and of its NoteOff tells the note from others of its track on its key; see NoteID.
	// Otherwise it is that of a ControlChange or Pressure, 0 to 127, of a WideControl, 0 to 16383, or of a Bend, 0
	// to 16383 with 8192 in the middle. For a Program it is the bank that is chosen before, from 1, or 0 for
	// none. For a BendRange it counts semitones, for a TuningProgram it is the
	// program, and for a KeyTuning how far above Velocity the pitch is, in 16384ths of a semitone.
	Value uint16
	// Traveller of a NoteOn is the id of the one of a field that plays it, if that has routes of its own; else 0.
	Traveller uint8
	// Detune of a NoteOn is how far above the pitch that Key has in equal temperament it is meant to sound.
	Detune theory.Cents
}

// Kind is what a message does.
type Kind uint8

// The kinds. Their numbers are stored with takes, so they never change.
const (
	NoteOff       Kind = 0
	Program       Kind = 1
	ControlChange Kind = 2
	Bend          Kind = 3
	Pressure      Kind = 4
	NoteOn        Kind = 5
	WideControl   Kind = 6 // a controller of 14 bits, which goes out as two messages, MSB first
	BendRange     Kind = 7 // registered parameter 0, how far a Bend bends
	TuningProgram Kind = 8 // registered parameter 3, which tuning program the channel plays
	KeyTuning     Kind = 9 // a single note change of the MIDI Tuning Standard, in the tuning program of the channel's number

	// Of no channel: what machines that play in time tell each other. No take has them.
	Clock        Kind = 10 // 24 a quarter note
	Start        Kind = 11 // the next Clock is the song's beginning
	Continue     Kind = 12 // the next Clock is where the song stands
	Stop         Kind = 13
	SongPosition Kind = 14 // Value is how many sixteenths from the song's beginning the next Continue goes on
)

// MaxSongPosition is the last song position that can be told (MIDI 1.0: 14 bits).
const MaxSongPosition = 1<<14 - 1

// ranks holds the place of each kind among the messages of one tick: keys are let go before anything
// changes, and struck after.
var ranks = [...]uint8{
	NoteOff: 0, Program: 1, BendRange: 2, TuningProgram: 2, ControlChange: 3, WideControl: 4, Bend: 5, KeyTuning: 5, Pressure: 6, NoteOn: 7,
	Clock: 0, Start: 0, Continue: 0, Stop: 0, SongPosition: 0,
}

// RealTime reports whether a message is of a single byte that may come between those of any other (MIDI 1.0, system real time).
func (k Kind) RealTime() bool { return k >= Clock && k <= Stop }

// Rank returns the place of a kind among the messages of one tick, from 0.
func (k Kind) Rank() int { return int(ranks[k]) }

// Compare orders messages by tick, then by what their kind does, channel and key.
func Compare(a, b Message) int {
	return cmp.Or(
		cmp.Compare(a.Tick, b.Tick), cmp.Compare(a.Kind.Rank(), b.Kind.Rank()),
		cmp.Compare(a.Channel, b.Channel), cmp.Compare(a.Key, b.Key),
	)
}

// CompareKinds orders messages by tick, then by what their kind does.
func CompareKinds(a, b Message) int {
	return cmp.Or(cmp.Compare(a.Tick, b.Tick), cmp.Compare(a.Kind.Rank(), b.Kind.Rank()))
}

// Merge appends two lists of messages to dst, each ordered by tick and kind, as one so ordered.
func Merge(a, b, dst []Message) []Message {
	for len(a) > 0 && len(b) > 0 {
		if CompareKinds(a[0], b[0]) <= 0 {
			dst, a = append(dst, a[0]), a[1:]
		} else {
			dst, b = append(dst, b[0]), b[1:]
		}
	}
	return append(append(dst, a...), b...)
}
