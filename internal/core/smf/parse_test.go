package smf_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"gitlab.com/gomidi/midi/v2"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/smf"
)

// Messages that an independent library makes are read as what they are.
func TestMessagesOfAnIndependentLibraryAreRead(t *testing.T) {
	for _, c := range []struct {
		data midi.Message
		want play.Message
	}{
		{midi.NoteOn(3, 60, 99), play.Message{Kind: play.NoteOn, Channel: 3, Key: 60, Velocity: 99}},
		{midi.NoteOn(3, 60, 0), play.Message{Kind: play.NoteOff, Channel: 3, Key: 60}},
		{midi.NoteOffVelocity(3, 60, 12), play.Message{Kind: play.NoteOff, Channel: 3, Key: 60}},
		{midi.ControlChange(15, 7, 127), play.Message{Kind: play.ControlChange, Channel: 15, Key: 7, Value: 127}},
		{midi.ProgramChange(0, 5), play.Message{Kind: play.Program, Key: 5}},
		{midi.AfterTouch(0, 9), play.Message{Kind: play.Pressure, Value: 9}},
		{midi.Pitchbend(0, 0), play.Message{Kind: play.Bend, Value: 8192}},
		{midi.Pitchbend(0, -8192), play.Message{Kind: play.Bend, Value: 0}},
		{midi.Pitchbend(0, 8191), play.Message{Kind: play.Bend, Value: 16383}},
	} {
		got, err := smf.ParseMessage(c.data.Bytes())
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
		_, err := smf.ParseMessage(data)
		require.ErrorContains(t, err, want)
	}
}
