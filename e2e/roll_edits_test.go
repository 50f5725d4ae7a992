package e2e

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/smf"
	"jettyfog/internal/core/take"
)

// slowEdits has every edit of a take, or of the project, be under way for half a second.
const slowEdits = `
	const ask = window.fetch;
	window.fetch = async (address, options) => {
		if (options?.method === "POST" && /(takes\/\d+|api)\/edits/.test(address)) await new Promise((done) => setTimeout(done, 500));
		return ask(address, options);
	};`

// What is asked of a roll while an edit is under way comes after it, and of the take of which it was asked: more edits, undo, and another take.
func TestEditsOfARollFollowEachOther(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/#takes", 1280, 800, slowEdits)
	folder := t.TempDir()
	for name, bars := range map[string]int{"Fog": 4, "Ebb": 3} {
		file := filepath.Join(folder, name+".mid")
		data := encoded(t, take.Render(score.Demo(), bars), smf.Options{Format: 1, Division: smf.DefaultDivision})
		require.NoError(t, os.WriteFile(file, data, 0o600))
		p.MustElement("input[aria-label='File to import']").MustSetFiles(file)
		p.take(name)
	}
	ids := map[string]int64{}
	for _, summary := range a.takes() {
		ids[summary.Name] = summary.ID
	}
	fog, ebb := a.takeFile(ids["Fog"]), a.takeFile(ids["Ebb"])
	show := func(name string) {
		p.take(name).MustClick()
		p.MustElementR("[aria-label='List of takes'] li [aria-current=true]", name)
		p.waitFor(`() => document.querySelector("[data-note]") && !document.querySelector("[role=listbox][aria-busy=true]")`)
	}
	choose := func() {
		p.MustElement("[role=listbox]").MustFocus()
		p.Keyboard.MustType(input.ArrowRight)
		p.waitFor(`() => document.querySelectorAll("[data-note][aria-selected=true]").length === 1`)
	}
	higher := func() int { // by how many semitones all notes of Fog together
		sum := 0
		for _, note := range a.takeFile(ids["Fog"]) {
			sum += int(note.key)
		}
		for _, note := range fog {
			sum -= int(note.key)
		}
		return sum
	}

	show("Fog")
	choose()
	p.Keyboard.MustType(input.ArrowUp, input.ArrowUp, input.ArrowUp)
	require.Eventually(t, func() bool { return higher() == 3 }, patience, patience/400)
	p.undoableTake("transposition")
	p.Keyboard.MustType(input.ArrowUp, input.ArrowUp)
	p.MustElement("[aria-label='Undo transposition in the take']").MustClick()
	p.MustElement("[aria-label='Redo transposition in the take']:not([disabled])")
	require.Equal(t, fog, a.takeFile(ids["Fog"]), "all presses were one step")

	choose()
	p.Keyboard.MustType(input.ArrowUp, input.ArrowUp)
	show("Ebb")
	require.Equal(t, 2, higher())
	require.Equal(t, ebb, a.takeFile(ids["Ebb"]))
}
