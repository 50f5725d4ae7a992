package e2e

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/require"
	gosmf "gitlab.com/gomidi/midi/v2/smf"
)

// struck is a note-on as an independent reader finds it in a file.
type struck struct {
	tick          int64
	key, velocity uint8
}

// startsOf reads all note-ons of a format 0 file.
func startsOf(t *testing.T, file []byte) []struck {
	t.Helper()
	read, err := gosmf.ReadFrom(bytes.NewReader(file))
	require.NoError(t, err)
	require.Len(t, read.Tracks, 1)
	var starts []struck
	var tick int64
	for _, event := range read.Tracks[0] {
		tick += int64(event.Delta)
		var channel, key, velocity uint8
		if event.Message.GetNoteOn(&channel, &key, &velocity) {
			starts = append(starts, struck{tick, key, velocity})
		}
	}
	return starts
}
