package midi

import (
	"fmt"
	"slices"

	"jettyfog/internal/core/score"
)

// Status bytes (MIDI 1.0, table I).
const (
	statusNoteOff  = 0x80
	statusNoteOn   = 0x90
	statusKeyPress = 0xA0
	statusControl  = 0xB0
	statusProgram  = 0xC0
	statusPressure = 0xD0
	statusBend     = 0xE0

	// StatusExclusive begins a system exclusive message, EndOfExclusive ends it.
	StatusExclusive = 0xF0
	EndOfExclusive  = 0xF7

	statusSongPosition = 0xF2
	statusClock        = 0xF8
	statusStart        = 0xFA
	statusContinue     = 0xFB
	statusStop         = 0xFC
)

// What single note changes of tunings begin with.
const (
	universalReal    = 0x7F // system exclusive messages that are played at once
	allDevices       = 0x7F
	tuningStandard   = 8
	singleNoteChange = 2
)

// releaseVelocity is what MIDI 1.0 asks of a sender that does not measure how a key is let go.
const releaseVelocity = 64

// Append appends the bytes of a message that Split leaves whole to dst, without running status.
func Append(dst []byte, m Message) []byte {
	switch m.Kind {
	case NoteOn:
		return append(dst, statusNoteOn|m.Channel, m.Key, m.Velocity)
	case ControlChange:
		return append(dst, statusControl|m.Channel, m.Key, byte(m.Value))
	case Program:
		return append(dst, statusProgram|m.Channel, m.Key)
	case Pressure:
		return append(dst, statusPressure|m.Channel, byte(m.Value))
	case Bend: // the low seven bits go first
		return append(dst, statusBend|m.Channel, byte(m.Value&0x7F), byte(m.Value>>7))
	case Clock:
		return append(dst, statusClock)
	case Start:
		return append(dst, statusStart)
	case Continue:
		return append(dst, statusContinue)
	case Stop:
		return append(dst, statusStop)
	case SongPosition: // the low seven bits go first
		return append(dst, statusSongPosition, byte(m.Value&0x7F), byte(m.Value>>7&0x7F))
	case KeyTuning: // the tuning program, one change, the key, and its pitch in semitones and 16384ths of one
		return append(dst, StatusExclusive, universalReal, allDevices, tuningStandard, singleNoteChange, m.Channel, 1,
			m.Key, m.Velocity, byte(m.Value>>7), byte(m.Value&0x7F), EndOfExclusive)
	}
	return append(dst, statusNoteOff|m.Channel, m.Key, releaseVelocity)
}

// ZeroVelocity returns the bytes of a note-off as those of a note-on of velocity 0, which means the same.
func ZeroVelocity(noteOff []byte) []byte {
	return []byte{statusNoteOn | noteOff[0]&0xF, noteOff[1], 0}
}

// AppendEnding appends to dst, message by message, what ends notes of a channel, from 0, that hang: the sustain pedal up, all sound off,
// all notes off (MIDI 1.0, table III), and the bend in the middle.
func AppendEnding(dst [][]byte, channel uint8) [][]byte {
	for _, m := range []Message{
		{Kind: ControlChange, Channel: channel, Key: sustain}, {Kind: ControlChange, Channel: channel, Key: allSoundOff},
		{Kind: ControlChange, Channel: channel, Key: allNotesOff}, {Kind: Bend, Channel: channel, Value: bendMiddle},
	} {
		dst = append(dst, Append(nil, m))
	}
	return dst
}

// DataBytes returns how many data bytes follow the status byte of a channel message.
func DataBytes(status byte) int { return [...]int{2, 2, 2, 2, 1, 1, 2}[status>>4-8] }

// Parse reads one channel message, whole and without running status. A note-on of velocity 0 is a
// note-off, as MIDI 1.0 has it. Polyphonic pressure is refused, because nothing here knows it. The error is a
// *score.FieldError.
func Parse(data []byte) (Message, error) {
	if len(data) == 0 || data[0] < statusNoteOff || data[0] >= StatusExclusive || IsKeyPressure(data) {
		return Message{}, &score.FieldError{Field: "the message", Got: fmt.Sprintf("% X", data), Allowed: "a note, a controller, a program, a pressure or a bend"}
	}
	if want := 1 + DataBytes(data[0]); len(data) != want {
		return Message{}, &score.FieldError{Field: "the length of the message", Got: len(data), Allowed: fmt.Sprint(want)}
	}
	for _, b := range data[1:] {
		if b > 0x7F {
			return Message{}, &score.FieldError{Field: "a data byte", Got: b, Allowed: "0 to 127"}
		}
	}
	m := Message{Channel: data[0] & 0xF, Key: data[1]}
	switch data[0] & 0xF0 {
	case statusNoteOn:
		if m.Velocity = data[2]; m.Velocity > 0 {
			m.Kind = NoteOn
		}
	case statusControl:
		m.Kind, m.Value = ControlChange, uint16(data[2])
	case statusProgram:
		m.Kind = Program
	case statusPressure:
		m.Kind, m.Key, m.Value = Pressure, 0, uint16(data[1])
	case statusBend:
		m.Kind, m.Key, m.Value = Bend, 0, uint16(data[2])<<7|uint16(data[1])
	}
	return m, nil
}

// IsKeyPressure reports whether bytes are of a message of polyphonic pressure.
func IsKeyPressure(data []byte) bool { return len(data) > 0 && data[0]&0xF0 == statusKeyPress }

// ParseKeyTuning reads a system exclusive message of one single note change, whole, as Append writes it; ok is false
// for every other.
func ParseKeyTuning(data []byte) (m Message, ok bool) {
	head := []byte{StatusExclusive, universalReal, allDevices, tuningStandard, singleNoteChange}
	if len(data) != 12 || !slices.Equal(data[:5], head) || data[5] > 15 || data[6] != 1 {
		return Message{}, false
	}
	return Message{
		Kind: KeyTuning, Channel: data[5], Key: data[7] & 0x7F, Velocity: data[8] & 0x7F,
		Value: uint16(data[9]&0x7F)<<7 | uint16(data[10]&0x7F),
	}, true
}
