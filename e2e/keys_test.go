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

// Any lane is reached by the keyboard in a few presses from anywhere: by the list, by its first letters, and from lane to lane.
func TestLanesAreReachedByKeys(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	on := func(label string) {
		p.waitFor(`label => document.activeElement?.ariaLabel?.startsWith(label)`, label)
	}
	p.Keyboard.MustType(input.KeyJ)
	on("Go to")
	p.Keyboard.MustType(input.KeyV, input.Enter)
	on("velocity, step 1 of ")
	p.Keyboard.Press(input.AltLeft)
	p.Keyboard.MustType(input.ArrowDown)
	on("length, step 1 of ")
	p.Keyboard.MustType(input.ArrowUp, input.ArrowUp)
	on("pitch, step 1 of ")
	p.Keyboard.Release(input.AltLeft)
	// A lane is folded to a line, which this browser remembers, and pulled higher.
	height := func(is string) {
		p.waitFor(`is => eval((document.querySelector("[data-lane=velocity] [role=slider]")?.clientHeight ?? NaN) + is)`, is)
	}
	p.MustElement("[aria-label='Fold velocity']").MustFocus().MustType(input.Enter)
	height(" < 30")
	p.MustReload()
	height(" < 30")
	p.MustElement("[aria-label='Fold velocity']").MustFocus().MustType(input.Enter)
	height(" > 60")
	edge := p.MustElement("[aria-label='Height of velocity']").MustShape().Box()
	p.Mouse.MustMoveTo(edge.X+edge.Width/2, edge.Y+2).MustDown("left").MustMoveTo(edge.X+edge.Width/2, edge.Y+152).MustUp("left")
	height(" > 200")

	p.Keyboard.MustType(input.KeyJ)
	on("Go to")
	p.Keyboard.MustType(input.KeyH)
	p.waitFor(`() => document.activeElement.selectedOptions?.[0]?.text === "Hull kit"`)
	p.Keyboard.MustType(input.Enter)
	p.MustElement("section[aria-label='Chart of Hull kit']")
	for range 6 { // beyond eight tracks their rows are lines
		p.press(`\+ track`)
	}
	p.waitFor(`() => document.querySelectorAll("[data-track]").length === 12`)
	p.waitFor(`() => [...document.querySelectorAll("[data-track]")].filter((row) => row.clientHeight < 40).length === 11`)
}
