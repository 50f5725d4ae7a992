package midi_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
)

// By MIDI 1.0: running status, messages of one byte within others, system exclusive messages that are skipped with what is real time within them,
// data that belong to nothing, and a status that breaks off what is incomplete.
func TestBytesFromACable(t *testing.T) {
	on := midi.Message{Kind: midi.NoteOn, Channel: 2, Key: 60, Velocity: 90}
	off := midi.Message{Kind: midi.NoteOff, Channel: 2, Key: 60}
	clock := midi.Message{Kind: midi.Clock}
	for _, of := range []struct {
		what string
		data []byte
		want []midi.Message
	}{
		{"running status", []byte{0x92, 60, 90, 60, 0}, []midi.Message{on, off}},
		{"a clock within", []byte{0x92, 0xF8, 60, 0xF8, 90}, []midi.Message{clock, clock, on}},
		{"system exclusive", []byte{0xF0, 1, 2, 0xF8, 3, 0xF7, 60, 90, 0x92, 60, 90}, []midi.Message{clock, on}},
		{"system exclusive that is broken off", []byte{0xF0, 1, 0x92, 60, 90}, []midi.Message{on}},
		{"data of nothing", []byte{60, 90, 1}, nil},
		{"a status that breaks off", []byte{0x92, 60, 0x92, 60, 90}, []midi.Message{on}},
		{"a position", []byte{0xF2, 0x15, 0x02, 5, 5}, []midi.Message{{Kind: midi.SongPosition, Value: 2<<7 | 0x15}}},
		{"start, continue, stop", []byte{0xFA, 0xFB, 0xFC}, []midi.Message{{Kind: midi.Start}, {Kind: midi.Continue}, {Kind: midi.Stop}}},
		{"active sensing and reset", []byte{0xFE, 0xFF, 0xFE}, nil},
		{"polyphonic pressure", []byte{0xA2, 60, 90, 60, 91}, nil},
		{"a program by running status", []byte{0xC0, 5, 6}, []midi.Message{{Kind: midi.Program, Key: 5}, {Kind: midi.Program, Key: 6}}},
		{"what is not known", []byte{0xF1, 7, 0xF4, 0xF5, 0xF6, 3, 0x92, 60, 90}, []midi.Message{on}},
	} {
		var s midi.Stream
		require.Equal(t, of.want, s.Read(of.data), of.what)
	}
}

// However bytes are cut up, they are the same messages; and a message that is appended is read again.
func TestCutUpBytesAreTheSame(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		data := rapid.SliceOfN(rapid.Custom(func(t *rapid.T) byte {
			if rapid.Bool().Draw(t, "status") {
				return rapid.SampledFrom([]byte{0x80, 0x91, 0xA0, 0xB3, 0xCF, 0xD0, 0xE0, 0xF0, 0xF1, 0xF2, 0xF7, 0xF8, 0xFA, 0xFE, 0xFF}).Draw(t, "which")
			}
			return rapid.Byte().Draw(t, "byte") & 0x7F
		}), 0, 60).Draw(t, "data")
		var whole, cut midi.Stream
		want := whole.Read(data)
		var got []midi.Message
		for len(data) > 0 {
			n := rapid.IntRange(1, len(data)).Draw(t, "piece")
			got = append(got, cut.Read(slices.Clone(data[:n]))...)
			data = data[n:]
		}
		require.Equal(t, want, got)
		for _, m := range want {
			read, ok := midi.ReadWhole(midi.Append(nil, m))
			require.True(t, ok, m)
			require.Equal(t, m, read)
		}
	})
}

// A browser hands over one message at a time; what is more, less or not known is none.
func TestWholeMessages(t *testing.T) {
	for _, data := range [][]byte{nil, {0x90, 60}, {0x90, 60, 90, 0x80}, {60, 90}, {0xFE}, {0xF0, 1, 0xF7}, {0xA0, 60, 1}, {0x90, 60, 90, 61, 90}} {
		_, ok := midi.ReadWhole(data)
		require.False(t, ok, "% X", data)
	}
	m, ok := midi.ReadWhole([]byte{0x80, 60, 64})
	require.True(t, ok)
	require.Equal(t, midi.Message{Kind: midi.NoteOff, Key: 60}, m)
}
