package smf

import (
	"fmt"

	"jettyfog/internal/core/play"
)

// dataBytes holds how many data bytes follow the status bytes 0x80, 0x90, … 0xE0 (MIDI 1.0, table I).
var dataBytes = [...]int{2, 2, 2, 2, 1, 1, 2}

// ParseMessage reads one channel message, whole and without running status. A note-on of velocity 0 is a
// note-off, as MIDI 1.0 has it. Polyphonic pressure is refused, because nothing here knows it. The error is a
// *RangeError.
func ParseMessage(data []byte) (play.Message, error) {
	if len(data) == 0 || data[0] < statusNoteOff || data[0] >= 0xF0 || data[0]>>4 == 0xA {
		return play.Message{}, &RangeError{"the message", fmt.Sprintf("% X", data), "a note, a controller, a program, a pressure or a bend"}
	}
	if want := 1 + dataBytes[data[0]>>4-8]; len(data) != want {
		return play.Message{}, &RangeError{"the length of the message", len(data), fmt.Sprint(want)}
	}
	for _, b := range data[1:] {
		if b > 0x7F {
			return play.Message{}, &RangeError{"a data byte", b, "0 to 127"}
		}
	}
	m := play.Message{Channel: data[0] & 0xF, Key: data[1]}
	switch data[0] & 0xF0 {
	case statusNoteOn:
		if m.Velocity = data[2]; m.Velocity > 0 {
			m.Kind = play.NoteOn
		}
	case statusControl:
		m.Kind, m.Value = play.ControlChange, uint16(data[2])
	case statusProgram:
		m.Kind = play.Program
	case statusPressure:
		m.Kind, m.Key, m.Value = play.Pressure, 0, uint16(data[1])
	case statusBend:
		m.Kind, m.Key, m.Value = play.Bend, 0, uint16(data[2])<<7|uint16(data[1])
	}
	return m, nil
}
