package e2e

import (
	"os"
	"path/filepath"
	"slices"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/smf"
	"jettyfog/internal/core/take"
)

// From the first click to the .mid file: write a polymetric, probabilistic sequence with the mouse,
// see its lanes run at their own lengths, record four bars, and find in the downloaded file, with an
// independent reader, what the core computes for the same luck.
func TestFromTheFirstClickToTheFile(t *testing.T) {
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)

	p.point("gate", 1, 0.5)
	p.Mouse.MustClick(proto.InputMouseButtonLeft)
	p.undoable("gate of step 2")
	require.Equal(t, score.On, a.project().Tracks[0].Parts()[0].Lanes.Gate.Steps[1])

	loop := p.MustElement("[data-lane=pitch] [aria-pressed]")
	loop.MustClick()
	p.waitFor(`() => document.querySelector("[data-lane=pitch] [role=slider]").ariaLabel.endsWith("of 16")`)
	loop.MustClick()
	p.enter("pitch loop length in steps", "7")
	p.waitFor(`() => document.querySelector("[data-lane=pitch] [role=slider]").ariaLabel.endsWith("of 7")`)
	p.waitFor(`() => document.querySelector("[data-lane=pitch]").innerText.includes("in step after 7 bars")`)

	// A stroke across three steps of the probability lane is one edit.
	p.point("probability", 2, 0.9)
	p.Mouse.MustDown(proto.InputMouseButtonLeft)
	p.point("probability", 4, 0.5)
	p.Mouse.MustUp(proto.InputMouseButtonLeft)
	p.undoable("probability of 3 steps")
	p.enter("Tempo in beats per minute", "300")
	p.undoable("tempo, 96.00 bpm to 300.00 bpm")

	project := a.project()
	lanes := project.Tracks[0].Parts()[0].Lanes
	require.Equal(t, 7, lanes.Pitch.Length)
	require.False(t, lanes.Pitch.Linked)
	require.Equal(t, score.Tempo(300_000), project.Tempo)
	require.Less(t, lanes.Probability.Steps[2], 15)
	require.InDelta(t, 50, lanes.Probability.Steps[4], 12)
	require.Less(t, lanes.Probability.Steps[2], lanes.Probability.Steps[3])

	p.MustElement("[aria-label=Play]").MustClick()
	requireOwnLoops(p, map[string]int{"gate": 16, "pitch": 7, "velocity": 7, "length": 5, "probability": 9})
	p.MustElement("[aria-label=Stop]").MustClick()
	p.waitFor(`() => !document.querySelector("[data-place]")`)

	p.MustElement("[aria-label=Record]").MustClick()
	p.waitForBar(5)
	p.MustElement("[aria-label=Stop]").MustClick()
	p.MustElementR("nav a", "Takes").MustClick()
	p.take("Take 1")
	recorded := startsOf(t, p.carry("960"))
	fourBars := play.Render(project, 0, 4*project.Meter.Bar(), nil)
	require.Greater(t, len(fourBars), 15)
	var want []struck
	for _, note := range fourBars {
		want = append(want, struck{tick: (int64(note.Start) + 10) / 21, key: note.Key, velocity: note.Velocity})
	}
	end := int64(4*project.Meter.Bar()) / 21
	requirePlayed(t, want, slices.DeleteFunc(recorded, func(note struck) bool { return note.tick >= end }), a.leftOut(a.takes()[0].ID))
}

// A MIDI file that Jettyfog has written comes in as a take, and a corrupt one is refused with its place.
func TestAMIDIFileIsImported(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/#takes", 1280, 800)
	rendered := take.Render(score.Demo(), 8)
	data := encoded(t, rendered, smf.Options{Format: 1, Division: smf.DefaultDivision})
	inOne := encoded(t, rendered, smf.Options{Format: 0, Division: smf.DefaultDivision})
	folder := t.TempDir()
	good, bad := filepath.Join(folder, "Ferry bells.mid"), filepath.Join(folder, "bad.mid")
	require.NoError(t, os.WriteFile(good, data, 0o600))
	require.NoError(t, os.WriteFile(bad, []byte("a letter, and no music"), 0o600))
	p.MustElement("input[aria-label='File to import']").MustSetFiles(bad)
	p.MustElementR("[role=alert]", "Nothing was changed: the MIDI file cannot be read: at byte")
	p.MustElement("input[aria-label='File to import']").MustSetFiles(good)
	p.take("Ferry bells")
	require.ElementsMatch(t, startsOf(t, inOne), startsOf(t, p.carry("960")))
}

// Nothing was recorded, and yet the last bars that were heard can be kept, exported and compared, bar for bar.
func TestTheLastBarsAreKeptAfterwards(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.fast()
	require.NotNil(t, p.MustElement("section[aria-label=Wake] button").MustAttribute("disabled"))
	p.MustElement("[aria-label=Play]").MustClick()
	p.waitForBar(11)
	p.MustElement("[aria-label=Stop]").MustClick()
	p.MustElement("[aria-label=Play]")
	p.waitFor(`() => parseInt(document.querySelector("section[aria-label=Wake] svg").ariaLabel) > 40`)
	p.enter("Bars of the wake to keep", "4")
	p.MustElementR("section[aria-label=Wake] button", "keep last").MustClick()
	p.MustElementR("[role=alert]", "The last bars are a take of")
	p.MustElementR("nav a", "Takes").MustClick()
	bar := p.wakeBar()
	require.GreaterOrEqual(t, bar, 7)

	length := a.project().Meter.Bar()
	rendered := take.Cut(take.Render(a.project(), bar+3), score.Tick(bar-1)*length, score.Tick(bar+3)*length)
	want := encoded(t, rendered, smf.Options{Format: 0, Division: smf.DefaultDivision})
	require.ElementsMatch(t, startsOf(t, want), startsOf(t, p.carry("960")))

	// A stretch of three beats is dragged over in the wake; the bars before it are still there too.
	wake := p.MustElement("section[aria-label=Wake] svg").MustShape().Box()
	beat := wake.Width / 64
	p.Mouse.MustMoveTo(wake.X+wake.Width-7.5*beat, wake.Y+9)
	p.Mouse.MustDown(proto.InputMouseButtonLeft)
	p.Mouse.MustMoveTo(wake.X+wake.Width-6.5*beat, wake.Y+9)
	p.Mouse.MustMoveTo(wake.X+wake.Width-5.5*beat, wake.Y+9)
	p.Mouse.MustUp(proto.InputMouseButtonLeft)
	p.MustElementR("section[aria-label=Wake]", `0\.75 bars`)
	p.press("keep this")
	p.MustElementR("[aria-label='List of takes'] li button", `Wake from bar[^$]*0\.8 bars`)
	require.Equal(t, 2, len(a.takes()))
	require.InDelta(t, 0.75, a.takes()[0].Bars, 1e-9)
}

// requireOwnLoops watches the lanes' playing places until each has gone through its own loop.
func requireOwnLoops(p *page, lengths map[string]int) {
	p.t.Helper()
	p.MustEval(`() => {
		window.seen = {};
		const look = () => {
			for (const mark of document.querySelectorAll("[data-place]")) {
				const lane = mark.closest("[data-lane]").dataset.lane;
				(window.seen[lane] ??= new Set()).add(Number(mark.dataset.place));
			}
			window.watching = requestAnimationFrame(look);
		};
		look();
	}`)
	for lane, length := range lengths {
		p.waitFor(`(lane, length) => window.seen[lane]?.size >= length`, lane, length)
	}
	p.waitForBar(4)
	for lane, length := range lengths {
		steps := p.MustEval(`lane => { cancelAnimationFrame(window.watching); return [...window.seen[lane]] }`, lane).Arr()
		require.Len(p.t, steps, length, lane)
		for _, step := range steps {
			require.Less(p.t, step.Int(), length, lane)
		}
	}
}

// The same without a mouse: write, hear, record and find the take, all by keys.
func TestByKeysAlone(t *testing.T) {
	a := start(t, t.TempDir())
	p := a.open("/", 1024, 700)

	// Tab walks from the top of the page to the gate lane.
	p.MustEval(`() => document.body.focus()`)
	for i := 0; p.focused() != "gate, step 1 of 16"; i++ {
		require.Less(t, i, 100, "the gate lane cannot be reached by Tab")
		p.Keyboard.MustType(input.Tab)
	}
	p.Keyboard.MustType(input.ArrowRight, input.Enter)
	p.undoable("gate of step 2")
	p.Keyboard.MustType(input.ArrowRight, input.ArrowRight, input.ArrowRight, input.KeyT)
	p.undoable("gate of step 5")
	require.Equal(t, "gate, step 5 of 16", p.focused())

	// To the sheet, among its pages, and back to where it was; arrows open a list that adds, and add nothing.
	p.Keyboard.MustType(input.F6)
	require.Equal(t, "step", p.focused())
	p.Keyboard.MustType(input.ArrowLeft)
	require.Equal(t, "roll", p.focused())
	p.Keyboard.MustType(input.ArrowRight)
	p.MustElement("[role=tab][aria-selected=true]#sheet-tab-step")
	p.MustElement("[aria-label='Add a lane']").MustFocus()
	p.Keyboard.MustType(input.ArrowDown)
	p.waitFor(`() => document.querySelector("select:open")`)
	p.MustEval(`() => document.activeElement.blur()`) // as a field that is done with; keys would go to the list's own window, which Rod does not see
	p.waitFor(`() => !document.querySelector("select:open")`)
	p.undoable("gate of step 5")
	p.Keyboard.Press(input.ShiftLeft)
	p.Keyboard.MustType(input.F6, input.F6)
	p.Keyboard.Release(input.ShiftLeft)
	require.Equal(t, "Tracks", p.MustEval(`() => document.activeElement.closest("[data-area]").ariaLabel`).Str())
	p.Keyboard.MustType(input.F6)
	require.Equal(t, "gate, step 5 of 16", p.focused())

	for i := 0; p.focused() != "pitch, step 5 of 11"; i++ {
		require.Less(t, i, 10, "the pitch lane cannot be reached by Tab from the gate lane")
		p.Keyboard.MustType(input.Tab)
	}
	p.Keyboard.MustType(input.ArrowUp)
	p.Keyboard.Press(input.ShiftLeft)
	p.Keyboard.MustType(input.ArrowDown)
	p.Keyboard.Release(input.ShiftLeft)
	p.waitFor(`() => document.activeElement.ariaValueNow === "-2"`)
	a.waitFor(func(p *score.Project) bool { return p.Tracks[0].Parts()[0].Lanes.Pitch.Steps[4] == 4+1-7 })
	lanes := a.project().Tracks[0].Parts()[0].Lanes
	require.Equal(t, score.On, lanes.Gate.Steps[1])
	require.Equal(t, score.Tie, lanes.Gate.Steps[4])

	p.Keyboard.MustType(input.KeyL)
	p.undoable("luck")
	require.NotEqual(t, 48_213, a.project().Luck.Number)
	p.Keyboard.Press(input.ShiftLeft)
	p.Keyboard.MustType(input.KeyL)
	p.Keyboard.Release(input.ShiftLeft)
	p.waitFor(`() => document.querySelector("input[aria-label=Luck]").value === "48213"`)

	p.Keyboard.MustType(input.KeyR)
	p.waitForBar(2)
	p.Keyboard.MustType(input.Space)
	p.waitFor(`() => document.querySelector("[aria-label=Play]")`)
	for i := 0; p.focused() != "Takes"; i++ {
		require.Less(t, i, 100, "the list of takes cannot be reached by Tab")
		p.Keyboard.Press(input.ShiftLeft)
		p.Keyboard.MustType(input.Tab)
		p.Keyboard.Release(input.ShiftLeft)
	}
	p.Keyboard.MustType(input.Enter)
	p.take("Take 1")
	p.waitFor(`() => document.querySelector("#take-tab-notes")`)
	p.MustElement("aside [aria-current], aside li button").MustFocus()
	p.Keyboard.MustType(input.F6)
	require.Contains(t, p.focused(), "Notes of the take")
	p.Keyboard.MustType(input.F6)
	require.Equal(t, "notes", p.focused())
}

// focused names the element that has the focus.
func (p *page) focused() string {
	return p.MustEval(`() => document.activeElement.ariaLabel ?? document.activeElement.textContent.trim()`).Str()
}

func encoded(t *testing.T, one *take.Take, options smf.Options) []byte {
	t.Helper()
	file, err := smf.FromTake(one, options)
	require.NoError(t, err)
	data, err := smf.Encode(file)
	require.NoError(t, err)
	return data
}
