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
	muted := func(want bool) { a.waitFor(func(s *score.Project) bool { return s.Tracks[0].Mute == want }) }
	soloed := func(want bool) { a.waitFor(func(s *score.Project) bool { return s.Tracks[0].Solo == want }) }

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
	after := a.project()
	after.Tracks[0].Mute = false
	require.Equal(t, before, after)
}
