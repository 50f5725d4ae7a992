package e2e

import (
	"slices"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

// Other arrows and other notes are recalled while a field plays, from the next bar on: they are seen where they will count, drawn once they do, and heard and recorded as the
// core has them. What is drawn then is drawn into what is seen.
func TestArrowsAreRecalledWhilePlaying(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	a.edit(`{"setProject":{"tempo":160000}}`)
	p := a.open("/", 1280, 800, standInForOutputs)
	p.MustElementR("nav button", "Mooring field").MustClick()
	field := func() *score.Field { return a.part(5).Field }
	p.MustElement("[aria-label='What to keep of the field']").MustSelect("arrows")
	p.MustElement("[aria-label='Name of what is kept']").MustInput("Long round")
	p.press("keep")
	p.MustElement("button[aria-label='arrows Long round'][aria-pressed=false]")
	require.Len(t, a.project().FieldLayers, 4)
	p.hand("Record")
	p.waitForBar(2)
	p.MustElement("[aria-label='Apply at']").MustSelect("next bar")
	p.hand("arrows Short round")
	p.MustElement("button[aria-label='arrows Short round'][aria-pressed=true]")
	p.MustElement("button[aria-label='back: undo the last live change']:not([disabled])")
	p.MustElementR("nav a", "Perform").MustClick()
	p.press("fields")
	p.hand("Mooring field: values Low water")
	p.MustElement("button[aria-label='Mooring field: values Low water'][aria-pressed=true]")
	p.hand("Mooring field: travellers Ferry and buoy")
	p.hand("Mooring field: travellers Ferry and buoy") // what waits is taken back
	p.waitForBar(7)
	file := a.download("/api/transport/log.json")
	p.hand("Stop")
	p.MustElement("button[aria-label=Play]")
	require.Zero(t, field().Recalled, "nothing was written")
	p.MustElementR("nav a", "Takes").MustClick()
	p.take(".")
	takes := a.takes()
	require.Len(t, takes, 1)
	later := func(note struck) bool { return note.tick >= 6*4*int64(score.TicksPerQuarter) }
	want := slices.DeleteFunc(a.renderedFrom("--log", file), later)
	require.NotEmpty(t, want)
	requirePlayed(t, want, slices.DeleteFunc(a.takeFile(takes[0].ID), later), a.leftOut(takes[0].ID))
	plain := slices.DeleteFunc(a.rendered(a.download("/api/project.json"), "--bars", "6"), later)
	require.NotEqual(t, plain, want)

	p.MustElementR("nav a", "Write").MustClick()
	p.press("arrows")
	p.overCells([2]int{7, 5}, [2]int{8, 5})
	a.waitFor(func(*score.Project) bool { return len(field().Cell(7, 5).Arrows) == 1 })
	require.Equal(t, []score.Arrow{{To: 6, Weight: 100}}, field().Cell(3, 3).Arrows, "of the short round, which was seen")
	p.MustElement("button[aria-label='arrows as written'][aria-pressed=true]")
	p.hand("Delete the values Low water")
	p.waitFor(`() => !document.querySelector("button[aria-label='values Low water']")`)
	a.edit(`{"keepLayer":{"track":6,"pattern":0,"part":0,"kind":"rules","name":"Slack"}}`)
	p.MustElement("button[aria-label='rules Slack']")
}

// Arrows are kept in the library and used for another field, which has them in its project from then on; a field's cells get a note a row; a traveller goes to an output of
// its own.
func TestArrowsAreKeptInTheLibrary(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.library()
	p.MustElementR("[role=tab]", "^presets$").MustClick()
	require.False(t, p.MustHas("[aria-label='What to keep'] option[value=arrows]"), "a melodic track has none")
	p.MustElementR("nav a", "Write").MustClick()
	p.MustElementR("nav button", "Mooring field").MustClick()
	p.library()
	p.MustElementR("[role=tab]", "^presets$").MustClick()
	p.choice("What to keep", "field arrows")
	p.MustElement("[aria-label='Name of the preset']").MustInput("Long round")
	p.press("keep")
	p.choice("Kind of preset", "field arrows")
	p.MustElement("[aria-label='Use Long round']")
	p.MustElementR("nav a", "Write").MustClick()
	p.press(`\+ field`)
	p.undoable("new field track")
	p.library()
	p.MustElementR("[role=tab]", "^presets$").MustClick()
	p.MustElement("[aria-label='Use Long round']").MustClick()
	field := func() *score.Field { return a.part(6).Field }
	a.waitFor(func(project *score.Project) bool {
		return len(project.FieldLayers) == 4 && field().Recalled.Arrows == 4 && field().Cell(1, 1) != nil
	})
	require.Equal(t, a.part(5).Field.Layer(score.ArrowsLayer).Cells, sortedCells(a.part(5).Field, field().Layer(score.ArrowsLayer).Cells))

	p.MustElementR("nav a", "Write").MustClick()
	p.MustElement("button[aria-label='arrows Long round'][aria-pressed=true]")
	p.MustElement("[aria-label=Layout]").MustSelect("a note a row")
	p.overCells([2]int{6, 6})
	a.waitFor(func(*score.Project) bool { return field().Cell(6, 6) != nil })
	require.Equal(t, 1, field().Cell(6, 6).Degree, "the last row but one")
	p.MustElementR("nav a", "Connect").MustClick()
	p.hand("Travellers of Track 7")
	p.MustElement("[aria-label^='Traveller 1 to Modular']").MustClick()
	a.waitFor(func(project *score.Project) bool {
		routes := project.Tracks[6].RouteList()
		return len(routes) == 2 && routes[1].OnlyPart && routes[1].Part == 1
	})
}

// sortedCells returns cells in the order that a field has them in.
func sortedCells(like *score.Field, cells []score.Cell) []score.Cell {
	place := func(c score.Cell) int {
		return slices.IndexFunc(like.Cells, func(o score.Cell) bool { return o.Column == c.Column && o.Row == c.Row })
	}
	return slices.SortedFunc(slices.Values(cells), func(a, b score.Cell) int { return place(a) - place(b) })
}

// A layer that waits for its bar still does in a page that is loaded anew, and counts there; it is undone there too.
func TestALayerWaitsOverAReload(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	a.edit(`{"setProject":{"tempo":48000}}`) // a bar lasts 5 s, so that the page is there again before the layer counts
	p := a.open("/#perform", 1280, 800)
	p.press("fields")
	p.hand("Play")
	p.waitForBar(2)
	p.press("4 bars")
	p.hand("Mooring field: values Low water")
	wait, answer := p.MustHandleDialog() // whether to leave while it plays
	go func() {
		wait()
		answer(true, "")
	}()
	p.MustReload()
	p.MustElement("[role=status]")
	p.waitConnected()
	p.press("fields")
	low := func(counts string) {
		p.MustElement("button[aria-label='Mooring field: values Low water'][aria-pressed=" + counts + "]")
	}
	low("false")
	p.MustElementR("footer button", "1 waiting")
	low("true")
	bar := p.MustEval(`() => parseInt(document.querySelector("[data-position]").textContent)`).Int()
	require.GreaterOrEqual(t, bar, 4, "it counts from bar 5 on, which is told a moment ahead")
	p.Keyboard.MustType(input.KeyB)
	low("false")
	require.Zero(t, a.part(5).Field.Recalled)
}
