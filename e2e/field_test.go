package e2e

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

// cell returns where the middle of a cell of the field is on the page, by its column and row from 0.
func (p *page) cell(column, row int) proto.Point {
	p.t.Helper()
	place := p.MustEval(`(column, row) => {
		const grid = document.querySelector("[data-field] > rect").getBoundingClientRect();
		const texts = [...document.querySelectorAll("[data-field] > text")].filter((text) => text.getAttribute("text-anchor") === "middle");
		const size = grid.width / texts.length;
		return [grid.left + (column + 0.5) * size, grid.top + (row + 0.5) * size];
	}`, column, row).Arr()
	return proto.Point{X: place[0].Num(), Y: place[1].Num()}
}

// overCells drags the pointer over cells of the field, each by its column and row from 0.
func (p *page) overCells(cells ...[2]int) {
	p.t.Helper()
	p.MustElement("[data-field] > rect")
	for i, cell := range cells {
		at := p.cell(cell[0], cell[1])
		p.Mouse.MustMoveTo(at.X, at.Y)
		if i == 0 {
			p.Mouse.MustDown(proto.InputMouseButtonLeft)
		}
	}
	p.Mouse.MustUp(proto.InputMouseButtonLeft)
}

// A field is built with the mouse: notes, a loop of arrows with a fork, a wall, a traveller that follows them and one that goes straight; it is heard and recorded as the
// core has it.
func TestAFieldIsBuiltByMouse(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800, tap)
	p.press(`\+ field`)
	p.undoable("new field track")
	field := func() *score.Field { return a.part(6).Field }
	p.overCells([2]int{1, 0}, [2]int{2, 0}, [2]int{3, 0})
	p.undoable("cells")
	require.Equal(t, 22, field().Cell(1, 0).Degree, "the layout: a degree a column, three a row")
	p.press("arrows")
	p.overCells([2]int{1, 0}, [2]int{2, 0}, [2]int{3, 1}, [2]int{2, 2}, [2]int{1, 1}, [2]int{1, 0})
	a.waitFor(func(*score.Project) bool { return field().Cell(1, 1) != nil })
	p.overCells([2]int{2, 0}, [2]int{2, 1})
	a.waitFor(func(*score.Project) bool { return len(field().Cell(2, 0).Arrows) == 2 })
	p.overCells([2]int{2, 1}, [2]int{2, 2})
	p.enter("Weight of arrow 1", "60")
	p.press("walls")
	p.overCells([2]int{4, 3})
	a.waitFor(func(*score.Project) bool { return field().Cell(4, 3) != nil && field().Cell(4, 3).Wall })
	p.press("travellers")
	p.overCells([2]int{1, 0})
	p.undoable("travellers")
	a.waitFor(func(*score.Project) bool {
		return len(field().Travellers) == 2 && field().Travellers[1].Motion == score.ArrowsMotion
	})
	p.overCells([2]int{0, 3}, [2]int{1, 3}) // the one that was there starts elsewhere
	a.waitFor(func(*score.Project) bool { return field().Travellers[0].Column == 1 })
	p.choice("What the traveller does at edges", "turns back")
	a.waitFor(func(*score.Project) bool { return field().Travellers[0].At == score.TurnBack })
	p.press(`\+ rule`)
	p.choice("How it stands, rule 1", "in one column with")
	p.choice("What it does, rule 1", "is silent")
	a.waitFor(func(*score.Project) bool { return len(field().Rules) == 1 && field().Rules[0].Do == score.DoSilence })
	p.fast()
	p.MustElement("[aria-label='Solo Track 7']").MustClick()
	p.pressed("Solo Track 7", true)
	heard := p.heard(a, 7, 6)
	require.Greater(t, len(heard), 20)
	require.Equal(t, a.computed(7, 6), heard)
}

// Another is built by keys alone: cells, a wall, arrows and travellers, turned as a whole; and a smaller grid keeps what lies outside.
func TestAFieldIsBuiltByKeys(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.press(`\+ field`)
	p.undoable("new field track")
	field := func() *score.Field { return a.part(6).Field }
	p.MustElement("[data-field]").MustFocus()
	key := func(keys ...input.Key) { p.Keyboard.MustType(keys...) }
	with := func(modifier, pressed input.Key) {
		require.NoError(t, p.Keyboard.Press(modifier))
		key(pressed)
		require.NoError(t, p.Keyboard.Release(modifier))
	}
	key(input.ArrowRight, input.ArrowDown, input.Enter)
	a.waitFor(func(*score.Project) bool { return field().Cell(1, 1) != nil && field().Cell(1, 1).Note })
	with(input.AltLeft, input.ArrowRight)
	p.MustElement("[data-field][aria-label^='Field, column 3, row 2']")
	with(input.AltLeft, input.ArrowLeft)
	a.waitFor(func(*score.Project) bool {
		return field().Cell(2, 1) != nil && len(field().Cell(1, 1).Arrows) == 1 && field().Cell(2, 1).Arrows[0].To == 6
	})
	with(input.ShiftLeft, input.ArrowRight)
	with(input.ControlLeft, input.KeyC)
	key(input.ArrowDown)
	with(input.ControlLeft, input.KeyV)
	a.waitFor(func(*score.Project) bool { return field().Cell(2, 2) != nil && len(field().Cell(2, 2).Arrows) == 1 })
	p.hand("turn right, turn")
	a.waitFor(func(*score.Project) bool { return field().Cell(6, 1) != nil && field().Cell(6, 1).Arrows[0].To == 4 })
	p.sheet("roll")
	p.choice("What is rolled", "tree")
	p.press("roll the field")
	a.waitFor(func(*score.Project) bool { return len(field().Cells) > 60 })
	p.MustElement("[aria-label^='Undo'][aria-label*='roll of a field']").MustClick()
	a.waitFor(func(*score.Project) bool { return len(field().Cells) < 20 })
	p.sheet("field")
	p.enter("columns of the field", "4")
	p.waitFor(`() => [...document.querySelectorAll("[data-field] text")].some((text) => text.textContent === "waiting: 1")`)
	require.NotNil(t, field().Cell(6, 1), "what lies outside is kept")
	p.MustElement("[aria-label^=Undo]").MustClick()
	a.waitFor(func(*score.Project) bool { return field().Columns == 8 })
}

// A field that ships is used, moves while it plays, and is drawn where it is; another pattern of arrows takes its place while it plays.
func TestAFieldThatShips(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.MustElementR("nav button", "Mooring field").MustClick()
	p.MustElementR("[data-repeats]", "never repeats exactly: chance decides on the field")
	p.MustElement("[aria-label=Play]").MustClick()
	p.MustElement("[data-traveller='1']")
	first := p.MustElement("[data-traveller='1']").MustAttribute("transform")
	p.waitFor(`was => document.querySelector("[data-traveller='1']").getAttribute("transform") !== was`, *first)
	p.press("walls")
	p.overCells([2]int{3, 1})
	a.waitFor(func(s *score.Project) bool { return s.Tracks[5].Parts()[0].Field.Cell(3, 1).Wall })
	p.waitFor(`() => !document.querySelector("[data-traveller='1']")`) // it ends where no arrow leads on
	p.MustElement("[aria-label^=Undo]").MustClick()
	p.MustElement("[data-traveller='1']")
}
