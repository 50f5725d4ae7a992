package smf

import (
	"math/bits"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// Meta event types of the specification.
const (
	metaText          = 0x01
	metaTrackName     = 0x03
	metaMarker        = 0x06
	metaSetTempo      = 0x51
	metaTimeSignature = 0x58
	metaKeySignature  = 0x59
)

// appendMessage appends the bytes of a message that midi.Split leaves whole to dst, as they stand in a file, where the
// length of a system exclusive message stands after its first byte.
func appendMessage(dst []byte, m midi.Message) []byte {
	if m.Kind != midi.KeyTuning {
		return midi.Append(dst, m)
	}
	data := midi.Append(nil, m)
	return append(appendVarLen(append(dst, data[0]), uint32(len(data)-1)), data[1:]...)
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
