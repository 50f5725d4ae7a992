package e2e

import (
	"bytes"
	"regexp"
	"strconv"
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

// tooLate finds in a marker how many notes were left out, because the machine could not keep up.
var tooLate = regexp.MustCompile(`(\d+) notes? too (?:late|many at once) to be heard`)

// leftOut returns how many notes a take says that the machine left out.
func (a *app) leftOut(id int64) (notes int) {
	a.t.Helper()
	read, err := gosmf.ReadFrom(bytes.NewReader(a.download("/api/takes/" + strconv.FormatInt(id, 10) + ".mid?format=0&division=20160")))
	require.NoError(a.t, err)
	for _, event := range read.Tracks[0] {
		var marker string
		if !event.Message.GetMetaMarker(&marker) {
			continue
		}
		for _, found := range tooLate.FindAllStringSubmatch(marker, -1) {
			n, err := strconv.Atoi(found[1])
			require.NoError(a.t, err)
			notes += n
		}
	}
	return notes
}

// requirePlayed compares the notes of a take with those that the core computes, but for as many as the machine left out.
func requirePlayed(t *testing.T, want, got []struck, leftOut int) {
	t.Helper()
	require.NotEmpty(t, got)
	next := 0
	for _, note := range got {
		for ; next < len(want) && want[next] != note && leftOut > 0; next++ {
			leftOut--
		}
		require.Less(t, next, len(want), "%v was not computed", note)
		require.Equal(t, want[next], note, "note %d", next)
		next++
	}
	require.LessOrEqual(t, len(want)-next, leftOut, "notes at the end")
}
