package e2e

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

// A chord that is held on the keyboard is arpeggiated, stays as it is latched, and is recorded; played again it is the same.
func TestAHeldChordIsArpeggiated(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800, standInForOutputs)
	p.press("S") // solo Bell buoy
	p.sheet("track")
	p.choice("Where pitches are from", "held notes")
	p.press("latched")
	a.waitFor(func(p *score.Project) bool { return p.Tracks[0].Pitches != nil && p.Tracks[0].Pitches.Latched })
	p.enter("Tempo in beats per minute", "240")
	p.lane("gate").MustFocus()
	p.Keyboard.MustType(input.KeyN)
	p.MustElement("button[aria-pressed=true][data-help*='computer']")
	chord := []input.Key{input.KeyS, input.KeyF, input.KeyH} // D3, F3 and A3
	for _, key := range chord {
		require.NoError(t, p.Keyboard.Press(key))
	}
	for _, key := range chord {
		require.NoError(t, p.Keyboard.Release(key))
	}
	p.hand("Record")
	p.waitForBar(9)
	p.hand("Stop")
	require.Eventually(t, func() bool { return len(a.takes()) == 1 && a.takes()[0].Bars > 5 }, patience, 20*time.Millisecond)
	was, classes := a.takeFile(a.takes()[0].ID), map[uint8]int{}
	for _, note := range was {
		classes[note.key%12]++
	}
	require.Len(t, classes, 3, "no other notes than those of the chord")
	for _, class := range []uint8{2, 5, 9} {
		require.Positive(t, classes[class])
	}
	p.MustElementR("nav a", "Takes").MustClick()
	p.take(".").MustClick()
	p.takePage("time")
	p.MustElementR("#take-page button", "^play again$").MustClick()
	require.Eventually(t, func() bool { return len(a.takes()) == 2 }, patience, 20*time.Millisecond)
	require.Equal(t, a.takeFile(a.takes()[0].ID), a.takeFile(a.takes()[1].ID))
}

// Chords are put into a map by name and by degree, inverted, and called by the pitch lane; a track whose notes another has cannot have them back.
func TestAChordMapIsMade(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.sheet("track")
	p.choice("Where pitches are from", "a chord map")
	p.MustElementR("#sheet-page [role=note]", "has no chords")
	p.press("chords…")
	p.press(`\+ by name`)
	p.MustElement("[aria-label='Hear chord 0, C']")
	p.choice("Degree", "4")
	p.press(`\+ by degree`)
	p.MustElement("[aria-label='Hear chord 1, G']")
	p.press(`\+ empty`)
	p.hand("Invert chord 0")
	p.MustElement("[aria-label='Hear chord 0, C/E']")
	file := filepath.Join(t.TempDir(), "Crane.mid")
	require.NoError(t, os.WriteFile(file, []byte("no music"), 0o600))
	p.MustElement("input[aria-label='File with chords']").MustSetFiles(file)
	p.MustElementR("[role=alert]", "Nothing was changed: the MIDI file cannot be read")
	p.Keyboard.MustType(input.Escape)
	p.waitFor(`() => !document.querySelector("dialog[open]")`)
	require.Equal(t, []score.MapChord{{Keys: []int{48, 52, 55}, Inversion: 1}, {Keys: []int{67, 71, 74}}, {Keys: []int{}}}, a.project().ChordMaps[0].Chords)

	p.choice("Chord map", "+ Night ferry")
	a.waitFor(func(p *score.Project) bool { return len(p.ChordMaps) == 2 && p.Tracks[0].Pitches.Map == 2 })
	p.choice("What calls the chords", "time")
	p.press("only while held")
	a.waitFor(func(p *score.Project) bool {
		return p.Tracks[0].Pitches.InTime && p.Tracks[0].Pitches.Order == score.Up && p.Tracks[0].Pitches.OnlyHeld
	})
	p.choice("Where pitches are from", "a track")
	p.choice("Track whose notes are played", "Tide bass")
	p.MustElementR("nav button", "Tide bass").MustClick()
	p.choice("Where pitches are from", "a track")
	p.MustElementR("[role=alert]", "Bell buoy → Tide bass → Bell buoy")
	require.Nil(t, a.project().Tracks[1].Pitches)

	p.press("make tracks")
	p.MustElementR("nav button", "Line 1/16 20 %")
	tracks := a.project().Tracks
	require.Equal(t, 2, tracks[len(tracks)-1].Pitches.Track)
	p.undoable("2 random lines")
}
