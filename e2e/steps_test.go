package e2e

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/preset"
	"jettyfog/internal/core/score"
)

// The whole way of a piece made step by step: a chord of four keys is played into a step and one finger's note comes later; another step wanders without the
// pedal's note; a third stutters, speeding up, in 60 % of its hits. The pattern is kept by its name and used in another project, where it is recorded: the take
// is what the core computes.
func TestStepsOfTheirOwnAreKeptForAnotherProject(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.library()
	p.press("new project")
	p.waitFor(`() => location.hash === "#write" && document.querySelector("header > a").title === "Untitled"`)
	p.waitFor(`() => document.querySelector("[data-lane=pitch] [role=slider] svg")`)
	part := func() *score.Part { return a.part(0) }
	notes := func() []score.StepNote { return part().Lanes.Pitch.Own[0].Notes }

	p.Keyboard.MustType(input.KeyN)
	p.choice("What becomes of notes", "into steps, one by one")
	chord := []input.Key{input.KeyS, input.KeyF, input.KeyH, input.KeyK} // D, F, A and C
	for _, key := range chord {
		require.NoError(t, p.Keyboard.Press(key))
	}
	for _, key := range chord {
		require.NoError(t, p.Keyboard.Release(key))
	}
	a.waitFor(func(*score.Project) bool { return part().Lanes.Lane(score.Chord).Steps[0] > 0 })
	require.Equal(t, "m7", score.Chords()[part().Lanes.Chord.Steps[0]].Name, "struck alike, and it has a name")
	p.MustElementR("button", "^keyboard$").MustClick()
	p.lane("pitch").MustFocus()
	p.Keyboard.MustType(input.Home)
	p.sheet("step")
	p.press("as degrees")
	a.waitFor(func(*score.Project) bool { return len(notes()) == 4 })
	require.Zero(t, part().Lanes.Chord.Steps[0])
	p.enter("nudge of note 3", "120")
	a.waitFor(func(*score.Project) bool { return notes()[2].Nudge == 120*21 })

	p.lane("gate").MustFocus()
	p.Keyboard.MustType(input.Home, input.ArrowRight, input.Enter)
	a.waitFor(func(*score.Project) bool { return part().Lanes.Gate.Steps[1] == score.On })
	p.lane("pitch").MustFocus()
	p.press("own spread")
	a.waitFor(func(*score.Project) bool { return part().Lanes.Pitch.Own[1].Spread != nil })
	p.MustElement("[aria-label='Allow C']").MustClick()
	a.waitFor(func(*score.Project) bool { return len(part().Lanes.Pitch.Own[1].Allowed) == 6 })
	p.MustElement("[data-own='1']")
	p.MustElement("[data-reach='1']")
	p.waitFor(`() => document.querySelector("[data-forecast-notes]").getAttribute("d").split("M").length > 8`)

	p.lane("gate").MustFocus()
	for range 6 {
		p.Keyboard.MustType(input.ArrowRight)
	}
	p.Keyboard.MustType(input.Enter)
	a.waitFor(func(*score.Project) bool { return part().Lanes.Gate.Steps[7] == score.On })
	p.press("own ratchet")
	p.choice("Spacing of the step", "speeding up")
	p.enter("Odds of the step", "60")
	p.enter("hits drawn", "0 0 0 1")
	a.waitFor(func(*score.Project) bool {
		r := part().Details[7].Ratchet
		return r != nil && len(r.Counts) == 4 && r.Odds == 60
	})
	p.MustElement("[data-ratchet='7']")

	p.library()
	p.MustElementR("[role=tab]", "^presets$").MustClick()
	p.choice("What to keep", "pattern")
	p.MustElement("input[aria-label='Name of the preset']").MustInput("Chord and stutter").MustType(input.Enter)
	p.MustElement("li[aria-label='Chord and stutter']")
	p.MustElementR("[role=tab]", "^projects$").MustClick()
	p.press("new from the example")
	p.waitFor(`() => location.hash === "#write" && document.querySelector("header > a").title === "Night opening"`)
	p.library()
	p.MustElementR("[role=tab]", "^presets$").MustClick()
	p.MustElement("input[aria-label='Search presets']").MustInput("stutter chord")
	p.waitFor(`() => document.querySelectorAll("ul[aria-label=Presets] > li").length === 1`)
	p.MustElement("[aria-label='Use Chord and stutter']").MustClick()
	p.undoable("pattern “Chord and stutter”")
	p.MustElementR("nav a", "Write").MustClick()
	used := a.project().Tracks[0]
	require.Equal(t, "Chord and stutter", used.Pattern(used.Playing).Name)
	require.Len(t, used.Parts()[0].Lanes.Pitch.Own[0].Notes, 4)

	p.fast()
	p.MustElement("[aria-label=Record]").MustClick()
	p.waitForBar(5)
	p.MustElement("[aria-label=Stop]").MustClick()
	p.MustElementR("nav a", "Takes").MustClick()
	p.take("Take 1")
	recorded := startsOf(t, p.carry("20160"))
	fourBars := play.Render(a.project(), 0, 4*a.project().Meter.Bar(), nil)
	require.Greater(t, len(fourBars), 40)
	var want []struck
	for _, note := range fourBars {
		want = append(want, struck{tick: int64(note.Start), key: note.Key, velocity: note.Velocity})
	}
	require.Subset(t, recorded, want)
}

// On the strip a note is added by Shift and a click and taken away by another, and by + and -; whole steps are rotated and copied with all that they have;
// several steps get a spread together, differ, show their range, and are as the lane again.
func TestNotesAndChanceOnTheStrip(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	pitch := func() *score.Lane { return a.part(1).Lanes.Pitch }
	p.MustElementR("nav button", "Tide bass").MustClick()
	a.edit(`{"setLane":{"track":2,"pattern":0,"part":0,"lane":"pitch","linked":true}}`)
	p.waitFor(`() => document.querySelector("[data-lane=pitch] [aria-pressed=false]")`)
	p.lane("pitch").MustFocus()
	p.Keyboard.MustType(input.Home)
	require.NoError(t, p.Keyboard.Press(input.ShiftLeft))
	p.point("pitch", 0, 0.2)
	p.Mouse.MustClick(proto.InputMouseButtonLeft)
	a.waitFor(func(*score.Project) bool { return len(pitch().Own[0].Notes) == 2 })
	p.Mouse.MustClick(proto.InputMouseButtonLeft)
	a.waitFor(func(*score.Project) bool { return len(pitch().Own[0].Notes) == 0 })
	require.NoError(t, p.Keyboard.Release(input.ShiftLeft))
	p.lane("pitch").MustFocus()
	p.Keyboard.MustType('+')
	a.waitFor(func(*score.Project) bool { return len(pitch().Own[0].Notes) == 2 })
	p.Keyboard.MustType('+')
	a.waitFor(func(*score.Project) bool { return len(pitch().Own[0].Notes) == 3 })
	p.Keyboard.MustType('-')
	a.waitFor(func(*score.Project) bool { return len(pitch().Own[0].Notes) == 2 })

	a.edit(`{"setDetail":{"track":2,"pattern":0,"part":0,"step":0,"detail":{"stretch":2}}}`)
	p.sheet("lane")
	p.choice("What copying and reshaping act on", "whole steps")
	p.MustElement("[aria-label='Rotate right']").MustClick()
	p.undoable("rotate steps")
	part := a.part(1)
	require.Equal(t, 2, part.Details[1].Stretch)
	require.Len(t, part.Lanes.Pitch.Own[1].Notes, 2)
	require.Equal(t, []int{score.On, score.On, score.Tie}, part.Lanes.Gate.Steps[:3])

	p.lane("pitch").MustFocus()
	require.NoError(t, p.Keyboard.Press(input.ControlLeft))
	p.Keyboard.MustType(input.KeyC)
	require.NoError(t, p.Keyboard.Release(input.ControlLeft))
	p.MustElementR("[role=alert]", `Copied \d+ steps of \d lanes`)
	p.press(`\+ track`)
	p.undoable("new melodic track")
	p.lane("pitch").MustFocus()
	require.NoError(t, p.Keyboard.Press(input.ControlLeft))
	p.Keyboard.MustType(input.KeyV)
	require.NoError(t, p.Keyboard.Release(input.ControlLeft))
	p.undoable("paste")
	pasted := a.part(6)
	require.Equal(t, 2, pasted.Details[1].Stretch)
	require.Equal(t, part.Lanes.Pitch.Own[1], pasted.Lanes.Pitch.Own[1])

	p.lane("velocity").MustFocus()
	require.NoError(t, p.Keyboard.Press(input.ShiftLeft))
	p.Keyboard.MustType(input.ArrowRight, input.ArrowRight)
	require.NoError(t, p.Keyboard.Release(input.ShiftLeft))
	p.sheet("step")
	p.press("own spread")
	own := func(step int) score.StepOwn { return a.part(6).Lanes.Velocity.Own[step] }
	a.waitFor(func(*score.Project) bool { return own(0).Spread != nil && own(2).Spread != nil })
	a.edit(`{"setOwn":{"track":7,"pattern":0,"part":0,"lane":"velocity","step":1,"own":{"spread":{"chance":40,"depth":100,"lowest":-3,"highest":50,"lean":0,"grain":1}}}}`)
	p.waitFor(`() => document.querySelector('input[aria-label="velocity step spread highest"]').value === "16–50"`)
	p.enter("velocity step spread chance", "70")
	a.waitFor(func(*score.Project) bool {
		return own(0).Spread.Chance == 70 && own(1).Spread.Chance == 70 && own(1).Spread.Highest == 50
	})
	p.press("as the lane")
	a.waitFor(func(*score.Project) bool { return len(a.part(6).Lanes.Velocity.Own) == 0 })
}

// A shipped kit is heard before it is used and nothing changes; one comes in as a file; a file that is none is refused in a sentence.
func TestPresetsAreHeardAndComeAsFiles(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800, tap)
	before := a.revision()
	p.library()
	p.MustElementR("[role=tab]", "^presets$").MustClick()
	p.choice("Kind of preset", "kit")
	p.MustElement("[aria-label='Hear Seven buoys']").MustClick()
	p.MustElement("[aria-label='Stop Seven buoys']").MustClick()
	p.MustElement("[aria-label='Hear Seven buoys']")
	require.Equal(t, before, a.revision())
	p.MustElement("[aria-label='Use Seven buoys']").MustClick()
	a.waitFor(func(s *score.Project) bool { return len(s.Tracks) == 7 && s.Tracks[6].Name == "Seven buoys" })

	shipped, _ := preset.Find(preset.PartKind, "Ghosts")
	shipped.Name = "Ghosts of mine"
	data, err := preset.Encode(shipped)
	require.NoError(t, err)
	folder := t.TempDir()
	good, bad := filepath.Join(folder, "ghosts.json"), filepath.Join(folder, "bad.json")
	require.NoError(t, os.WriteFile(good, data, 0o600))
	require.NoError(t, os.WriteFile(bad, []byte(`{"format":"jettyfog project","version":1}`), 0o600))
	p.MustElement("input[aria-label='Preset file']").MustSetFiles(bad)
	p.MustElementR("[role=alert]", "not a preset file")
	p.MustElement("input[aria-label='Preset file']").MustSetFiles(good)
	p.choice("Kind of preset", "part")
	p.MustElement("[aria-label='Delete Ghosts of mine']").MustClick()
	p.waitFor(`() => !document.querySelector("[aria-label='Delete Ghosts of mine']")`)
}
