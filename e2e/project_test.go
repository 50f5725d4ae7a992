package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"testing"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

// Every open page shows an edit without a reload; undo, also after a restart, takes it back on all.
func TestEditsReachEveryPageAndSurviveARestart(t *testing.T) {
	t.Parallel()
	data := t.TempDir()
	a := start(t, data)
	first, second := a.open("/", 1280, 800), a.open("/", 1280, 800)
	first.MustActivate()
	first.enter("Luck", "777")
	second.waitFor(`() => document.querySelector("input[aria-label=Luck]").value === "777"`)
	second.MustActivate()
	second.MustElement("select[aria-label=Scale]").MustSelect("phrygian")
	first.waitFor(`() => document.querySelector("select[aria-label=Scale]").value === "phrygian"`)
	first.waitFor(`() => [...document.querySelectorAll("[data-lane=pitch] text")].some(t => t.textContent === "E♭4")`)

	a.stop()
	first.waitFor(`() => document.querySelector("[role=status]").textContent.includes("does not answer")`)
	again := start(t, data)
	p := again.open("/", 1280, 800)
	require.Equal(t, 777, again.project().Luck.Number)
	p.Keyboard.Press(input.ControlLeft)
	p.Keyboard.MustType(input.KeyZ)
	p.waitFor(`() => document.querySelector("select[aria-label=Scale]").value === "dorian"`)
	p.Keyboard.MustType(input.KeyZ)
	p.Keyboard.Release(input.ControlLeft)
	p.waitFor(`() => document.querySelector("input[aria-label=Luck]").value === "48213"`)
	require.Equal(t, score.Demo(), again.project())
	p.MustElement("[aria-label='Redo luck 777']").MustClick()
	p.waitFor(`() => document.querySelector("input[aria-label=Luck]").value === "777"`)
}

// A project goes out to a file and comes in again as another one; a bad file is refused with a sentence.
func TestProjectFiles(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.library()
	saved := p.download(p.MustElement("[aria-label='Night opening']").MustElementR("a", "export"))
	p.press("new project")
	p.MustElementR("header a", "Untitled")
	p.lane("gate") // the Write screen, to which it goes
	require.Equal(t, score.Blank(), a.project())

	folder := t.TempDir()
	bad, good := filepath.Join(folder, "bad.json"), filepath.Join(folder, "good.json")
	require.NoError(t, os.WriteFile(bad, []byte(`{"format":"jettyfog project","version":9}`), 0o600))
	require.NoError(t, os.WriteFile(good, saved, 0o600))
	p.library()
	p.MustElement("[aria-label='Project file']").MustSetFiles(bad)
	p.MustElementR("main [role=alert]", "Nothing was changed: the project file has version 9; this program reads version 1")
	require.Equal(t, score.Blank(), a.project())
	p.MustElement("[aria-label='Project file']").MustSetFiles(good)
	p.MustElementR("header a", "Night opening")
	require.Equal(t, score.Demo(), a.project())
	p.library()
	p.waitFor(`() => document.querySelectorAll("[aria-label='Projects of the folder'] > li").length === 3`)
}

// A pattern is performed, and another project begun in which the track has no such pattern; the page writes that one, and is told that nothing is performed.
func TestAnotherProjectThanWasPerformed(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.MustElementR("nav a", "Perform").MustClick()
	p.hand("Bell buoy: pattern Fog signal")
	p.MustElement("button[aria-label='Bell buoy: pattern Fog signal'][aria-pressed=true]")
	p.library()
	p.press("new project")
	p.MustElementR("nav button", "Track 1")
	p.lane("pitch").MustFocus()
	p.Keyboard.MustType(input.ArrowUp)
	p.undoable("pitch of step 1")
	p.MustElementR("button", "^0 live$")
}

// Projects are begun, renamed, duplicated, opened while one plays, deleted and brought back. The clock never stops for it, each
// has its own takes and its own undo, and all of it is there after a restart.
func TestSeveralProjects(t *testing.T) {
	t.Parallel()
	data := t.TempDir()
	a := start(t, data)
	p := a.open("/", 1280, 800)
	p.enter("Luck", "777")
	p.undoable("luck 777")
	p.library()
	card := func(name string) *rod.Element { return p.MustElement(fmt.Sprintf("li[aria-label=%q]", name)) }
	card("Night opening").MustElementR("button", "duplicate").MustClick()
	p.rename("Night opening copy", "Ferry quay")

	p.MustElement("[aria-label=Play]").MustClick()
	p.MustElement("[aria-label=Record]").MustClick()
	p.waitForBar(2)
	card("Ferry quay").MustElementR("button", "open").MustClick()
	p.MustElementR("header a", "Ferry quay")
	p.undoable("name, ") // its own history
	p.waitFor(`() => document.querySelector("[data-position]").textContent.startsWith("001")`)
	p.waitForBar(2)
	p.MustElement("[aria-label='Stop']") // it has played all along
	p.enter("Luck", "5")
	p.undoable("luck 5")
	require.Empty(t, a.takes(), "the take is of the other one")
	p.library()
	p.MustElement("[aria-label='When an opened project begins']").MustSelect("at once")
	card("Night opening").MustElementR("button", "open").MustClick()
	p.undoable("luck 777")
	p.waitFor(`() => document.querySelector("[data-position]").textContent.startsWith("001")`)
	p.MustElement("[aria-label='Stop']").MustClick()
	takes := a.takes()
	require.Len(t, takes, 1)
	require.Greater(t, takes[0].Notes, 10)

	p.library()
	card("Ferry quay").MustElementR("button", "delete").MustClick()
	p.MustElement("[aria-label='Bring Ferry quay back']").MustClick()
	card("Ferry quay").MustElementR("button", "delete").MustClick()
	p.MustElement("[aria-label='Bring Ferry quay back']")
	a.stop()
	again := start(t, data)
	q := again.open("/#library", 1280, 800)
	q.MustElement("li[aria-label='Night opening']")
	require.Equal(t, 777, again.project().Luck.Number)
	q.waitFor(`() => !document.querySelector("li[aria-label='Ferry quay']")`)
	q.MustElement("[aria-label='Bring Ferry quay back']").MustClick() // over a restart, too
	q.MustElement("li[aria-label='Ferry quay']")
}

// rename gives a project in the library another name.
func (p *page) rename(from, to string) {
	p.t.Helper()
	name := p.MustElement(fmt.Sprintf("li[aria-label=%q] input", from))
	name.MustSelectAllText().MustInput(to).MustType(input.Enter)
	p.MustElement(fmt.Sprintf("li[aria-label=%q]", to))
}

// library goes to the list of projects.
func (p *page) library() {
	p.t.Helper()
	p.MustElementR("nav a", "Library").MustClick()
	p.MustElement("[aria-label='Projects of the folder'] li")
}

// What was copied goes into another project, and the keyboard that is open stays open when one is opened.
func TestStepsAreCopiedBetweenProjects(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.lane("velocity").MustFocus()
	p.Keyboard.Press(input.ControlLeft)
	p.Keyboard.MustType(input.KeyC)
	p.Keyboard.Release(input.ControlLeft)
	p.MustElementR("[role=alert]", "Copied 7 steps")
	p.Keyboard.MustType(input.KeyN)
	p.MustElement("[aria-label='What becomes of notes']")
	p.library()
	p.press("new project")
	p.waitFor(`() => location.hash === "#write" && document.querySelector("header > a").title === "Untitled"`)
	p.MustElement("[aria-label='What becomes of notes']")
	p.waitFor(`() => document.querySelector("[data-lane=velocity] [role=slider] svg")`)
	p.lane("velocity").MustFocus()
	p.Keyboard.Press(input.ControlLeft)
	p.Keyboard.MustType(input.KeyV)
	p.Keyboard.Release(input.ControlLeft)
	a.waitFor(func(s *score.Project) bool { return s.Tracks[0].Parts()[0].Lanes.Velocity.Steps[1] == 78 })
	require.Equal(t, score.Demo().Tracks[0].Parts()[0].Lanes.Velocity.Steps[:7], a.part(0).Lanes.Velocity.Steps[:7])
}

// While a project waits to come in, a page that is reloaded and one that was open already show it, and that it waits; its edits
// count, and stopping has it open at once.
func TestAPageIsReloadedWhileAProjectWaits(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p, other := a.open("/", 1280, 800), a.open("/", 1280, 800)
	a.edit(`{"setProject":{"tempo":10000}}`) // a bar lasts 24 s
	p.MustActivate()
	p.library()
	p.MustElement("[aria-label='Night opening']").MustElementR("button", "duplicate").MustClick()
	p.MustElement("[aria-label=Play]").MustClick()
	p.MustElement("[aria-label=Stop]")
	p.MustElement("[aria-label='Night opening copy']").MustElementR("button", "open").MustClick()
	waits := func(q *page) {
		q.MustActivate()
		q.waitFor(`() => document.querySelector("header > a")?.title === "Night opening copy" &&
			document.body.textContent.includes("begins with the next bar")`)
	}
	waits(p)
	waits(other)
	other.MustReload()
	waits(other)
	other.enter("Luck", "99")
	other.undoable("luck 99")
	other.MustElement("[aria-label=Stop]").MustClick()
	other.waitFor(`() => !document.body.textContent.includes("begins with the next bar")`)
	other.MustElement("[aria-label=Play]")
	require.Equal(t, "Night opening copy", a.project().Name)
	require.Equal(t, 99, a.project().Luck.Number)
}
