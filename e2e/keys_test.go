package e2e

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

// After Enter, Escape or a choice in a list the keys mean what help says; a number takes no space; and while the
// keyboard on the screen is open its letters play and do nothing else.
func TestKeysBelongToTheInstrument(t *testing.T) {
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800, tap)
	muted := func(want bool) { p.pressed("Mute Bell buoy", want) }
	soloed := func(want bool) { p.pressed("Solo Bell buoy", want) }

	p.enter("Tempo in beats per minute", "131")
	p.Keyboard.MustType(input.KeyM)
	muted(true)
	tempo := p.field("Tempo in beats per minute")
	tempo.MustSelectAllText().MustInput("90").MustType(input.Escape)
	p.Keyboard.MustType(input.KeyM)
	muted(false)
	require.Equal(t, "131.00", tempo.MustProperty("value").Str())
	require.Equal(t, score.Tempo(131_000), a.project().Tempo)

	scale := p.MustElement("select[aria-label=Scale]")
	scale.MustSelect("dorian")
	a.waitFor(func(s *score.Project) bool { return s.Key.Scale == "dorian" })
	p.Keyboard.MustType(input.KeyS)
	soloed(true)
	scale.MustFocus()
	p.Keyboard.MustType(input.ArrowDown)
	a.waitFor(func(s *score.Project) bool { return s.Key.Scale != "dorian" })
	require.True(t, scale.MustEval(`() => document.activeElement === this`).Bool(), "a list that is stepped through keeps the keys")
	p.Keyboard.MustType(input.Escape)
	p.Keyboard.MustType(input.KeyS)
	soloed(false)

	tempo.MustSelectAllText().MustInput("96").MustType(input.Space)
	p.MustElement("[aria-label=Stop]")
	a.waitFor(func(s *score.Project) bool { return s.Tempo == 96_000 })
	require.Equal(t, "96.00", tempo.MustProperty("value").Str())
	tempo.MustType(input.Space)
	p.MustElement("[aria-label=Play]")

	p.Keyboard.MustType(input.KeyN)
	p.MustElement("button[aria-pressed=true][data-help*='computer']")
	p.lane("gate").MustFocus()
	before := a.project()
	struck := p.MustEval(`() => window.struck`).Int()
	p.Keyboard.MustType(input.KeyS, input.KeyT, input.KeyO, input.KeyK)
	p.waitFor(`before => window.struck === before + 4`, struck)
	p.MustElementR("section[aria-label=Keyboard] button", "computer keys").MustClick()
	p.Keyboard.MustType(input.KeyM)
	muted(true)
	require.Equal(t, before, a.project())
}

// A run of presses of an arrow key, and a run of taps, is one step of undo, which says what it changes.
func TestARunOfPressesIsOneStepOfUndo(t *testing.T) {
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	before := a.project()
	p.lane("velocity").MustFocus()
	for range 4 {
		p.Keyboard.MustType(input.ArrowDown)
	}
	p.undoable("velocity of step 1, 112 to 108")
	tempo := p.field("Tempo in beats per minute")
	tempo.MustFocus()
	for range 3 {
		p.Keyboard.MustType(input.ArrowUp)
	}
	p.undoable("tempo, 96.00 bpm to 99.00 bpm")
	tempo.MustType(input.Escape)
	p.MustElement("[aria-label^=Undo]").MustClick()
	p.undoable("velocity of step 1, 112 to 108")
	require.Equal(t, "Undo Bell buoy: velocity of step 1, 112 to 108", *p.MustElement("[aria-label^=Undo]").MustAttribute("aria-label"))
	p.MustElement("[aria-label^=Undo]").MustClick()
	p.MustElement("[aria-label=Undo]:disabled")
	require.Equal(t, before, a.project())

	// Two taps are enough, and those after them go on setting the same step of undo.
	p.Keyboard.MustType(input.KeyB)
	p.Keyboard.MustType(input.KeyB)
	a.waitFor(func(s *score.Project) bool { return s.Tempo != before.Tempo })
	p.Keyboard.MustType(input.KeyB)
	p.waitFor(`() => document.querySelector("[aria-label^=Undo]").ariaLabel.includes("tempo")`)
	p.MustElement("[aria-label^=Undo]").MustClick()
	p.MustElement("[aria-label=Undo]:disabled")
}
