package midi_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	gomidi "gitlab.com/gomidi/midi/v2"

	"jettyfog/internal/core/midi"
)

// Messages that an independent library makes are read as what they are.
func TestMessagesOfAnIndependentLibraryAreRead(t *testing.T) {
	for _, c := range []struct {
		data gomidi.Message
		want midi.Message
	}{
		{gomidi.NoteOn(3, 60, 99), midi.Message{Kind: midi.NoteOn, Channel: 3, Key: 60, Velocity: 99}},
		{gomidi.NoteOn(3, 60, 0), midi.Message{Kind: midi.NoteOff, Channel: 3, Key: 60}},
		{gomidi.NoteOffVelocity(3, 60, 12), midi.Message{Kind: midi.NoteOff, Channel: 3, Key: 60}},
		{gomidi.ControlChange(15, 7, 127), midi.Message{Kind: midi.ControlChange, Channel: 15, Key: 7, Value: 127}},
		{gomidi.ProgramChange(0, 5), midi.Message{Kind: midi.Program, Key: 5}},
		{gomidi.AfterTouch(0, 9), midi.Message{Kind: midi.Pressure, Value: 9}},
		{gomidi.Pitchbend(0, 0), midi.Message{Kind: midi.Bend, Value: 8192}},
		{gomidi.Pitchbend(0, -8192), midi.Message{Kind: midi.Bend, Value: 0}},
		{gomidi.Pitchbend(0, 8191), midi.Message{Kind: midi.Bend, Value: 16383}},
	} {
		got, err := midi.Parse(c.data.Bytes())
		require.NoError(t, err, c.data.String())
		require.Equal(t, c.want, got, c.data.String())
	}
}

func TestWhatIsNoChannelMessageIsRefused(t *testing.T) {
	for want, data := range map[string][]byte{
		"the message is ; it must be a note":           {},
		"the message is 40 40; it must be":             {0x40, 0x40},
		"the message is F8; it must be":                {0xF8},
		"the message is A0 40 40; it must be":          {0xA0, 0x40, 0x40},
		"the length of the message is 2; it must be 3": {0x90, 0x40},
		"the length of the message is 3; it must be 2": {0xC0, 1, 1},
		"a data byte is 128; it must be 0 to 127":      {0x90, 0x40, 0x80},
	} {
		_, err := midi.Parse(data)
		require.ErrorContains(t, err, want)
	}
}

// What ends notes that hang, byte by byte (MIDI 1.0, table III: 64 the sustain pedal, 120 all sound off, 123 all notes off; table I: the bend,
// its lower seven bits first), and a note-off as a note-on of velocity 0.
func TestWhatEndsNotes(t *testing.T) {
	require.Equal(t, [][]byte{{0xB9, 64, 0}, {0xB9, 120, 0}, {0xB9, 123, 0}, {0xE9, 0, 64}}, midi.AppendEnding(nil, 9))
	require.Equal(t, []byte{0x93, 60, 0}, midi.ZeroVelocity([]byte{0x83, 60, 64}))
}

// Which messages are values that move, of which a later one takes the place (MIDI 1.0, table III, for the numbers of controllers).
func TestValuesThatMove(t *testing.T) {
	fixed := map[uint8]bool{0: true, 32: true, 5: true, 37: true, 6: true, 38: true}
	for k := uint8(64); k <= 69; k++ {
		fixed[k] = true
	}
	for k := uint8(96); k <= 101; k++ {
		fixed[k] = true
	}
	for k := uint8(120); k <= 127; k++ {
		fixed[k] = true
	}
	for k := range uint8(128) {
		require.Equal(t, !fixed[k], midi.Message{Kind: midi.ControlChange, Key: k}.Moves(), "CC %d", k)
	}
	for kind, moves := range map[midi.Kind]bool{
		midi.NoteOn: false, midi.NoteOff: false, midi.Program: false, midi.Bend: false, midi.BendRange: false, midi.TuningProgram: false,
		midi.KeyTuning: false, midi.Pressure: true, midi.WideControl: true,
	} {
		require.Equal(t, moves, midi.Message{Kind: kind, Key: 7}.Moves(), "%v", kind)
	}
}
