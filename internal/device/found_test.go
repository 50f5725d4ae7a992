package device

import (
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/require"
)

// Devices are found as the kernel lists them; those that only play us, and what else there is, are left out; two of one name are told
// apart by where they are plugged in. The files are as the kernel's documentation of ALSA's proc files has them (from memory).
func TestDevicesAreFound(t *testing.T) {
	both := "Harbour synth\n\nOutput 0\n  Tx bytes     : 0\nInput 0\n  Rx bytes     : 0\n"
	proc := fstest.MapFS{
		"asound/card0/id":       {Data: []byte("PCH\n")},
		"asound/card1/midi0":    {Data: []byte(both)},
		"asound/card1/midi1":    {Data: []byte("Pads\n\nInput 0\n  Rx bytes     : 0\n")},
		"asound/card10/midi2":   {Data: []byte(both)},
		"asound/card2/midi0":    {Data: []byte("\n\nOutput 0\n")},
		"asound/card2/midizero": {Data: []byte(both)},
	}
	found, err := list(proc, plays)
	require.NoError(t, err)
	require.Equal(t, []Device{
		{Name: "Harbour synth (card 1, device 0)", Place: "card 1, device 0", path: "/dev/snd/midiC1D0"},
		{Name: "Harbour synth (card 10, device 2)", Place: "card 10, device 2", path: "/dev/snd/midiC10D2"},
		{Name: "MIDI device", Place: "card 2, device 0", path: "/dev/snd/midiC2D0"},
	}, found)
	none, err := list(fstest.MapFS{}, plays)
	require.NoError(t, err)
	require.Empty(t, none)
}
