package e2e

import (
	"bytes"
	"os"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"
	gomidi "gitlab.com/gomidi/midi/v2"
	gosmf "gitlab.com/gomidi/midi/v2/smf"

	"jettyfog/internal/core/score"
)

// progressionFile writes a MIDI file of C major for a quarter note and of F major for two, and returns where it is.
func progressionFile(t *testing.T) string {
	t.Helper()
	var track gosmf.Track
	chord := func(quarters uint32, keys ...uint8) {
		for _, key := range keys {
			track.Add(0, gomidi.NoteOn(0, key, 96))
		}
		for i, key := range keys {
			after := uint32(0)
			if i == 0 {
				after = quarters * 96
			}
			track.Add(after, gomidi.NoteOff(0, key))
		}
	}
	chord(1, 60, 64, 67)
	chord(2, 60, 65, 69)
	track.Close(0)
	file := gosmf.New()
	file.TimeFormat = gosmf.MetricTicks(96)
	require.NoError(t, file.Add(track))
	var data bytes.Buffer
	_, err := file.WriteTo(&data)
	require.NoError(t, err)
	path := filepath.Join(t.TempDir(), "Crane.mid")
	require.NoError(t, os.WriteFile(path, data.Bytes(), 0o600))
	return path
}

// firstBars returns the note-ons before so many bars of four quarter notes are over.
func firstBars(starts []struck, bars int) []struck {
	end := int64(bars) * 4 * int64(score.TicksPerQuarter)
	return slices.DeleteFunc(starts, func(s struck) bool { return s.tick >= end })
}

// A chord map is made of a MIDI file, its chords follow each other in time, and a track that arpeggiates them is recorded: the take is what the core makes of the project.
func TestAChordMapIsMadeOfAFile(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800, standInForOutputs)
	p.sheet("track")
	p.choice("Where pitches are from", "a chord map")
	p.press("chords…")
	give := p.MustHandleFileDialog()
	p.press(`\+ progression of a \.mid…`)
	give(progressionFile(t))
	p.MustElement("[aria-label='Hear chord 0, C']")
	p.MustElement("[aria-label='Hear chord 1, F/C']")
	p.Keyboard.MustType(input.Escape)
	p.waitFor(`() => !document.querySelector("dialog[open]")`)
	require.Equal(t, []score.MapChord{{Keys: []int{60, 64, 67}, Beats: 1}, {Keys: []int{60, 65, 69}, Beats: 2}}, a.project().ChordMaps[0].Chords)
	p.choice("What calls the chords", "time")
	a.waitFor(func(project *score.Project) bool { return project.Tracks[0].Pitches.InTime })
	p.enter("Tempo in beats per minute", "240")
	p.hand("Record")
	p.waitForBar(5)
	p.hand("Stop")
	require.Eventually(t, func() bool { return len(a.takes()) == 1 && a.takes()[0].Bars > 3 }, patience, 20*time.Millisecond)
	recorded := firstBars(a.takeFile(a.takes()[0].ID), 4)
	require.Greater(t, len(recorded), 100)
	requirePlayed(t, firstBars(a.rendered(a.download("/api/project.json"), "--bars", "5"), 4), recorded, a.leftOut(a.takes()[0].ID))

	p.press("chords…")
	p.press("delete map")
	p.MustElementR("#sheet-page [role=note]", "No map is selected, so the track is silent")
	require.Empty(t, a.project().ChordMaps)
}
