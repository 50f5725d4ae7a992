package e2e

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

// Every open page shows an edit without a reload; undo, also after a restart, takes it back on all.
func TestEditsReachEveryPageAndSurviveARestart(t *testing.T) {
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

// A project goes out to a file and comes in again; a bad file is refused with a sentence.
func TestProjectFiles(t *testing.T) {
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.MustElementR("header button", "Night opening").MustClick()
	wait := p.profile.MustWaitDownload()
	p.MustElementR("dialog a", "Save to a file").MustClick()
	saved := wait()
	p.MustElementR("dialog button", "Start from blank").MustClick()
	p.MustElementR("header button", "Untitled")
	require.Equal(t, score.Blank(), a.project())

	folder := t.TempDir()
	bad, good := filepath.Join(folder, "bad.json"), filepath.Join(folder, "good.json")
	require.NoError(t, os.WriteFile(bad, []byte(`{"format":"jettyfog project","version":9}`), 0o600))
	require.NoError(t, os.WriteFile(good, saved, 0o600))
	p.MustElementR("header button", "Untitled").MustClick()
	p.MustElement("input[type=file]").MustSetFiles(bad)
	p.MustElementR("dialog [role=alert]", "Nothing was changed: the project file has version 9; this program reads version 1")
	require.Equal(t, score.Blank(), a.project())
	p.MustElement("dialog input[type=file]").MustSetFiles(good) // the dialog is still open
	p.MustElementR("header button", "Night opening")
	require.Equal(t, score.Demo(), a.project())
}
