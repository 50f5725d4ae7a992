package smf

import (
	"math/bits"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// Status bytes and meta event types of the specification.
const (
	statusNoteOff  = 0x80
	statusNoteOn   = 0x90
	statusControl  = 0xB0
	statusProgram  = 0xC0
	statusPressure = 0xD0
	statusBend     = 0xE0

	statusExclusive = 0xF0
	endOfExclusive  = 0xF7

	metaText          = 0x01
	metaTrackName     = 0x03
	metaMarker        = 0x06
	metaSetTempo      = 0x51
	metaTimeSignature = 0x58
	metaKeySignature  = 0x59
)

// releaseVelocity is what MIDI 1.0 asks of a sender that does not measure how a key is let go.
const releaseVelocity = 64

// lsbOffset leads from a controller of 14 bits to the controller of its lower seven.
const lsbOffset = 32

// bankSelect is the controller, of 14 bits, of the bank from which the next program is.
const bankSelect = 0

// Controllers by which registered parameters are set (MIDI 1.0, table III), and what single note changes of
// tunings begin with.
const (
	dataEntry        = 6
	parameterLSB     = 100
	parameterMSB     = 101
	noParameter      = 127
	bendSensitivity  = 0
	selectTuning     = 3
	universalReal    = 0x7F // system exclusive messages that are played at once
	allDevices       = 0x7F
	tuningStandard   = 8
	singleNoteChange = 2
)

// split returns the messages of MIDI 1.0 that a message goes out as.
func split(m play.Message) []play.Message {
	control := func(number uint8, value uint16) play.Message {
		return play.Message{Tick: m.Tick, Track: m.Track, Kind: play.ControlChange, Channel: m.Channel, Key: number, Value: value}
	}
	registered := func(parameter uint16) []play.Message {
		return []play.Message{
			control(parameterMSB, 0), control(parameterLSB, parameter), control(dataEntry, m.Value), control(dataEntry+lsbOffset, 0),
			control(parameterMSB, noParameter), control(parameterLSB, noParameter), // so that nothing else changes it
		}
	}
	switch m.Kind {
	case play.WideControl:
		return []play.Message{control(m.Key, m.Value>>7), control(m.Key+lsbOffset, m.Value&0x7F)}
	case play.Program:
		if m.Value > 0 {
			bank := m.Value - 1
			m.Value = 0
			return []play.Message{control(bankSelect, bank>>7), control(bankSelect+lsbOffset, bank&0x7F), m}
		}
	case play.BendRange:
		return registered(bendSensitivity)
	case play.TuningProgram:
		return registered(selectTuning)
	}
	return []play.Message{m}
}

// keyTuning holds a single note change of the MIDI Tuning Standard (MMA, CA-020), as it stands in a file: the
// tuning program, one change, the key, and its pitch in semitones and 16384ths of one.
func keyTuning(m play.Message) []byte {
	message := []byte{
		universalReal, allDevices, tuningStandard, singleNoteChange, m.Channel, 1,
		m.Key, m.Velocity, byte(m.Value >> 7), byte(m.Value & 0x7F), endOfExclusive,
	}
	return append(appendVarLen([]byte{statusExclusive}, uint32(len(message))), message...)
}

func channelMessage(m play.Message) []byte {
	switch m.Kind {
	case play.NoteOn:
		return []byte{statusNoteOn | m.Channel, m.Key, m.Velocity}
	case play.ControlChange:
		return []byte{statusControl | m.Channel, m.Key, byte(m.Value)}
	case play.Program:
		return []byte{statusProgram | m.Channel, m.Key}
	case play.Pressure:
		return []byte{statusPressure | m.Channel, byte(m.Value)}
	case play.KeyTuning:
		return keyTuning(m)
	case play.Bend: // the low seven bits go first
		return []byte{statusBend | m.Channel, byte(m.Value & 0x7F), byte(m.Value >> 7)}
	}
	return []byte{statusNoteOff | m.Channel, m.Key, releaseVelocity}
}

func text(kind byte, s string) []byte {
	data := appendVarLen([]byte{statusMeta, kind}, uint32(len(s)))
	return append(data, s...)
}

// setTempo holds microseconds a quarter note, rounded to the nearest, in three bytes.
func setTempo(tempo score.Tempo) []byte {
	const minute = 60_000_000 * 1000
	micros := (minute + int64(tempo)/2) / int64(tempo)
	return []byte{statusMeta, metaSetTempo, 3, byte(micros >> 16), byte(micros >> 8), byte(micros)}
}

// timeSignature holds the beats, the beat's note value as a power of two, MIDI clocks a metronome
// click, here one a beat, and the number of 32nd notes in a quarter.
func timeSignature(m score.Meter) []byte {
	clocksPerClick := 24 * 4 / m.Unit
	power := bits.TrailingZeros(uint(m.Unit))
	return []byte{statusMeta, metaTimeSignature, 4, byte(m.Beats), byte(power), byte(clocksPerClick), 8}
}

// keySignature holds the number of sharps, negative for flats, and 1 for a minor key.
func keySignature(sharps int, minor bool) []byte {
	mode := byte(0)
	if minor {
		mode = 1
	}
	return []byte{statusMeta, metaKeySignature, 2, byte(sharps), mode}
}
