package e2e

import (
	"archive/zip"
	"bytes"
	"fmt"
	"os"
	"path/filepath"
	"testing"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/smf"
	"jettyfog/internal/core/take"
)

// take waits for a take in the list.
func (p *page) take(name string) *rod.Element {
	return p.MustElementR("[aria-label='List of takes'] li button", name)
}

// wakeBar returns the bar from which on the wake was kept, as its take's name has it.
func (p *page) wakeBar() (bar int) {
	p.t.Helper()
	name := p.take("Wake from bar").MustElement("span").MustText()
	_, err := fmt.Sscanf(name, "Wake from bar %d", &bar)
	require.NoError(p.t, err)
	return bar
}

// takePage opens a page of the sheet beside a take.
func (p *page) takePage(name string) {
	p.MustElement("#take-tab-" + name).MustClick()
	p.MustElement("#take-tab-" + name + "[aria-selected=true]")
}

// carry downloads the open take as a file of one track.
func (p *page) carry(division string) []byte {
	p.t.Helper()
	p.takePage("files")
	p.MustElement("select[aria-label=Resolution]").MustSelect(map[string]string{"960": "960", "20160": "20160, exact"}[division])
	p.choice("Format", "all in one")
	return p.download(p.MustElementR("#take-page a", `^\.mid$`))
}

// undoableTake waits until an edit of the open take can be undone.
func (p *page) undoableTake(label string) {
	p.MustElement("[aria-label='Undo " + label + " in the take']")
	p.waitFor(`() => !document.querySelector("[role=listbox][aria-busy=true]")`)
}

// dragBars drags over the bars of the roll, from one to another, each with what of it has gone.
func (p *page) dragBars(from, to, shown float64) {
	box := p.MustElement("[aria-label='Stretch of the take']").MustShape().Box()
	x := func(bar float64) float64 { return box.X + (bar-1)*box.Width/shown }
	p.Mouse.MustMoveTo(x(from), box.Y+box.Height/2)
	p.Mouse.MustDown(proto.InputMouseButtonLeft)
	p.Mouse.MustMoveTo(x((from+to)/2), box.Y+box.Height/2)
	p.Mouse.MustMoveTo(x(to), box.Y+box.Height/2)
	p.Mouse.MustUp(proto.InputMouseButtonLeft)
}

// Play, keep the last bars, trim, quantise, move, delete and draw, and carry it away: the file has what the core
// makes of what it renders by the same edits. All of it is undone and redone, and bringing the project back works.
func TestATakeIsKeptCorrectedAndCarriedAway(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.fast()
	made := a.project()
	p.MustElement("[aria-label=Play]").MustClick()
	p.waitForBar(9)
	p.MustElement("[aria-label=Stop]").MustClick()
	p.press("new") // another luck: what made the take must come from the take
	p.waitFor(`() => document.querySelector("input[aria-label=Luck]").value !== "48213"`)
	p.MustElementR("section[aria-label=Wake] button", "keep last").MustClick()
	p.MustElementR("nav a", "Takes").MustClick()
	bar := p.wakeBar()
	p.MustElement("[data-note]")

	length := made.Meter.Bar()
	edited := take.Cut(take.Render(made, bar+7), score.Tick(bar-1)*length, score.Tick(bar+7)*length)
	make := func(e take.Edit) {
		next, err := take.Apply(edited, e)
		require.NoError(t, err)
		edited = next
	}
	requireSame := func() {
		t.Helper()
		want := encoded(t, edited, smf.Options{Format: 0, Division: smf.ExactDivision})
		require.ElementsMatch(t, startsOf(t, want), startsOf(t, p.carry("20160")))
	}
	requireSame()

	p.takePage("time")
	p.dragBars(2, 6, 8)
	p.MustElementR("#take-page", "from bar 2 to before bar 6")
	p.press("trim to it")
	p.undoableTake("trim")
	make(take.Trim{From: length, To: 5 * length})
	p.takePage("notes")
	p.choice("Grid", "1/8t")
	p.enter("Strength", "75")
	p.press("quantise")
	p.undoableTake("quantisation to 1/8t")
	make(take.Quantise{Grid: "1/8t", Strength: 75, Swing: 500})
	requireSame()

	// The first note is chosen by a press and goes up by keys, an octave, and an eighth later.
	p.waitFor(`count => document.querySelectorAll("[data-note]").length === count`, edited.Count())
	roll := p.MustElement("[role=listbox]")
	roll.MustFocus()
	p.Keyboard.MustType(input.ArrowRight)
	p.waitFor(`() => document.querySelector("[data-note='0'][aria-selected=true]")`)
	p.Keyboard.Press(input.ShiftLeft)
	p.Keyboard.MustType(input.ArrowUp)
	p.Keyboard.Release(input.ShiftLeft)
	p.undoableTake("transposition")
	make(take.MoveNotes{Choice: take.Choice{Notes: []int{0}}, Semitones: 12})
	p.waitFor(`() => document.querySelectorAll("[aria-selected=true][data-note]").length === 1`)
	chosen := func() int {
		return p.MustEval(`() => Number(document.querySelector("[data-note][aria-selected=true]").dataset.note)`).Int()
	}
	place := chosen()
	p.Keyboard.Press(input.AltLeft)
	p.Keyboard.MustType(input.ArrowRight)
	p.Keyboard.Release(input.AltLeft)
	p.undoableTake("move of notes")
	make(take.MoveNotes{Choice: take.Choice{Notes: []int{place}}, Ticks: score.NoteValue("1/8t").Ticks()})
	p.waitFor(`() => document.querySelectorAll("[aria-selected=true][data-note]").length === 1`)
	place = chosen()
	p.Keyboard.MustType(input.Delete)
	p.undoableTake("deletion of notes")
	make(take.DeleteNotes{Choice: take.Choice{Notes: []int{place}}})
	requireSame()

	p.MustElement("[aria-label='Mute Hull kit in the take']").MustClick()
	p.undoableTake("mute of a track")
	make(take.SetTrack{Track: 3, Mute: true})
	edited = edited.Audible()
	requireSame()

	for _, label := range []string{"deletion of notes", "move of notes", "transposition", "quantisation to 1/8t", "trim"} {
		p.MustElement("[role=listbox]").MustFocus()
		p.Keyboard.Press(input.ControlLeft)
		p.Keyboard.MustType(input.KeyZ)
		p.Keyboard.Release(input.ControlLeft)
		p.undoableTake(label)
	}
	p.takePage("time")
	p.MustElementR("#take-page button", "bring the project back").MustClick()
	p.waitFor(`() => document.querySelector("input[aria-label=Luck]").value === "48213"`)
	require.Equal(t, made, a.project())

	p.press("delete")
	p.MustElementR("button", `deleted takes \(1\)`).MustClick()
	p.press("bring back")
	p.take("Wake from bar")
}

// Notes are moved, made longer, boxed and written with the mouse, velocities are drawn, and the take is heard
// while the project stands still.
func TestATakeUnderTheHand(t *testing.T) {
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800, tap)
	p.fast()
	p.MustElement("[aria-label=Record]").MustClick()
	p.waitForBar(4)
	p.MustElement("[aria-label=Stop]").MustClick()
	p.MustElementR("nav a", "Takes").MustClick()
	p.take("Take 1")
	p.MustElement("[data-note='0']")
	p.choice("Bars shown", "4 bars")

	first := p.MustElement("[data-note='0']").MustShape().Box()
	drag := func(x, y, toX, toY float64) {
		p.Mouse.MustMoveTo(x, y)
		p.Mouse.MustDown(proto.InputMouseButtonLeft)
		p.Mouse.MustMoveTo((x+toX)/2, (y+toY)/2)
		p.Mouse.MustMoveTo(toX, toY)
		p.Mouse.MustUp(proto.InputMouseButtonLeft)
	}
	middle := first.Y + first.Height/2
	drag(first.X+2, middle, first.X+2+4*p.sixteenth(), middle-2*first.Height)
	p.undoableTake("move of notes")
	p.waitFor(`() => document.querySelectorAll("[data-note][aria-selected=true]").length === 1`)

	// A box over everything; all become softer by a key, and a velocity is drawn.
	roll := p.MustElement("[role=listbox]").MustShape().Box()
	drag(roll.X+roll.Width-1, roll.Y+1, roll.X+1, roll.Y+roll.Height-2)
	p.MustElementR("[role=note]", `acts on \d\d+ selected notes`)
	p.MustElement("[role=listbox]").MustFocus()
	undoOfTake := `() => document.querySelector("[aria-label$='in the take'][aria-label^=Undo]").ariaLabel`
	before := p.MustEval(undoOfTake).Str()
	for range 3 { // presses that follow each other are one step of undo
		p.Keyboard.MustType(input.Minus)
	}
	p.undoableTake("velocity of notes")
	p.MustElement("[aria-label='Undo velocity of notes in the take']").MustClick()
	p.MustElement("[aria-label='" + before + "']")
	p.MustElement("[aria-label='Redo velocity of notes in the take']").MustClick()
	p.undoableTake("velocity of notes")
	p.Keyboard.MustType(input.Escape)
	stems := p.MustElement("[aria-label=Velocities]").MustShape().Box()
	drag(stems.X+2, stems.Y+20, stems.X+stems.Width/2, stems.Y+60)
	p.MustElementR("button", "undo")
	p.waitFor(`() => /^Undo velocity of \d+ notes in the take$/.test(document.querySelector("[aria-label^='Undo velocity']")?.ariaLabel)`)

	p.choice("Lane below the roll", "length")
	drag(stems.X+2, stems.Y+70, stems.X+stems.Width/2, stems.Y+75)
	p.waitFor(`() => /^Undo length of \d+ notes in the take$/.test(document.querySelector("[aria-label^='Undo length']")?.ariaLabel)`)

	notes := p.MustEval(`() => document.querySelectorAll("[data-note]").length`).Int()
	p.Mouse.MustMoveTo(roll.X+roll.Width/2, roll.Y+3)
	p.Mouse.Click(proto.InputMouseButtonLeft, 2)
	p.undoableTake("1 new note")
	p.waitFor(`count => document.querySelectorAll("[data-note]").length === count`, notes+1)

	struck := p.MustEval(`() => window.struck`).Int()
	p.Keyboard.MustType(input.Space)
	p.MustElement("[aria-label='Stop the take']")
	p.waitFor(`before => window.struck > before + 4`, struck)
	require.Empty(t, p.MustElements("[aria-label=Stop]"), "the project stands still")
	p.Keyboard.MustType(input.Space)
	p.MustElement("[aria-label='Hear the take']")

	// What is kept of the wake is the take as it was before the corrections.
	p.MustElementR("section[aria-label=Wake] button", "keep last").MustClick()
	p.take("Wake from bar").MustClick()
	p.takePage("numbers")
	p.choice("Compare with", "Take 1")
	p.MustElementR("[data-comparison]", `^\d+ the same, \d+ with another`)
}

// sixteenth returns how wide a sixteenth is on a roll of four bars.
func (p *page) sixteenth() float64 {
	return p.MustElement("[role=listbox]").MustShape().Box().Width / 64
}

// Every other way with a take: a controller is seen and thinned, foreign notes go into the scale, a stretch is cut
// out, halves are made, files of tracks and of chosen bars are carried away, its notes become the scale, a rendering
// is given up.
func TestEveryOtherWayWithATake(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/#takes", 1280, 800)
	in := take.Render(score.Demo(), 8)
	for i := range score.Tick(200) {
		in.Messages = append(in.Messages, midi.Message{Tick: i * 3000, Track: 1, Kind: midi.ControlChange, Key: 74, Value: uint16(i * 37 % 128)})
	}
	data := encoded(t, in, smf.Options{Format: 1, Division: smf.DefaultDivision})
	file := filepath.Join(t.TempDir(), "Fog.mid")
	require.NoError(t, os.WriteFile(file, data, 0o600))
	p.MustElement("input[aria-label='File to import']").MustSetFiles(file)
	p.take("Fog")
	p.MustElement("[data-note='0']")
	p.choice("Lane below the roll", "CC 74")
	values := func() int {
		return p.MustEval(`() => parseInt(document.querySelector("svg[aria-label$=values]").ariaLabel)`).Int()
	}
	thick := values()
	require.Equal(t, 200, thick)
	p.press("thin out")
	p.undoableTake("thinning of controllers")
	p.waitFor(`thick => parseInt(document.querySelector("svg[aria-label$=values]").ariaLabel) < thick`, thick)
	p.press("into the scale")
	p.undoableTake("quantisation to the scale")
	p.takePage("time")
	p.dragBars(3, 5, 8)
	p.press("cut it out")
	p.undoableTake("cut")
	require.InDelta(t, 6, a.takes()[0].Bars, 1e-9)
	p.dragBars(2, 4, 8)
	p.press("split at its start")
	p.take("Fog a")
	p.take("Fog b")
	require.InDelta(t, 5, a.takes()[0].Bars, 1e-9)

	p.takePage("files")
	p.MustElement("#take-page input[type=checkbox]").MustClick()
	archive := p.download(p.MustElementR("#take-page a", "each track"))
	files, err := zip.NewReader(bytes.NewReader(archive), int64(len(archive)))
	require.NoError(t, err)
	require.Len(t, files.File, 6)
	table := p.download(p.MustElementR("#take-page a", "^.csv$"))
	require.Contains(t, string(table), "Bell buoy,control,1,74,")
	p.takePage("steps")
	p.press("its notes as the scale")
	a.waitFor(func(p *score.Project) bool { return p.Key.Scale != score.Demo().Key.Scale })

	before := len(a.takes())
	p.enter("Bars to render", "10000")
	p.press("render a take")
	p.MustElementR("button", "^cancel$").MustClick()
	p.MustElementR("[role=alert]", "The rendering was given up")
	require.Len(t, a.takes(), before)
}

// The wake goes back over a stop and on again, and the last notes of a track are looped.
func TestTheWakeOverAStop(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.fast()
	p.MustElement("[aria-label=Play]").MustClick()
	p.waitForBar(5)
	p.sheet("track")
	p.press("loop notes")
	p.MustElementR("#sheet-page p", "and 8 notes")
	require.Len(t, a.project().Tracks[0].Loop.Notes, 8)
	p.MustElement("[aria-label=Stop]").MustClick()
	p.enter("Tempo in beats per minute", "40") // so slow that few notes come before the stop
	p.undoable("tempo, 400.00 bpm to 40.00 bpm")
	p.MustElement("[aria-label=Play]").MustClick()
	p.waitFor(`() => document.querySelector("[data-position]").textContent >= "001.2"`)
	p.MustElement("[aria-label=Stop]").MustClick()
	p.MustElement("[aria-label=Play]")
	shown := func() int {
		return p.MustEval(`() => parseInt(document.querySelector("section[aria-label=Wake] svg").ariaLabel)`).Int()
	}
	p.waitFor(`() => { const n = parseInt(document.querySelector("section[aria-label=Wake] svg").ariaLabel); return n > 0 && n < 200; }`)
	last := shown()
	p.MustElement("[aria-label='Earlier in the wake']").MustClick()
	p.waitFor(`() => parseInt(document.querySelector("section[aria-label=Wake] svg").ariaLabel) >= 200`)
	p.MustElement("[aria-label='Later in the wake']").MustClick()
	// The page asks once more for what was written after the stop, so there can be more by now.
	p.waitFor(`last => { const n = parseInt(document.querySelector("section[aria-label=Wake] svg").ariaLabel); return n >= last && n < 200; }`, last)
}
