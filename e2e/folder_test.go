package e2e

import (
	"net/http"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"
)

// The folder of data goes while a page is open and records: the page says so and what to do, for as long as it lasts,
// says of each change that it was not stored, and goes on by itself when the folder is back. Nothing is lost.
func TestTheFolderGoesAndComesBack(t *testing.T) {
	t.Parallel()
	folder := filepath.Join(t.TempDir(), "data")
	a := start(t, folder)
	p := a.open("/", 1280, 800)
	p.MustElement("[aria-label=Record]").MustClick()
	p.waitForBar(2)
	require.NoError(t, os.Rename(folder, folder+" elsewhere"))
	p.MustElementR("[role=alert][aria-label=Problems]", "The folder of data was moved or deleted, so nothing more is stored; put it back")
	p.MustElementR("[role=alert][aria-label=Problems]", "What is recorded waits in memory until it can be stored")
	luck := a.project().Luck.Number
	p.MustElement("[data-luck=new]").MustClick()
	p.MustElementR("[aria-label=Notice]", "Nothing was changed: the change was not stored, and the project is as it was")
	require.Equal(t, luck, a.project().Luck.Number)
	require.False(t, p.MustEval(`() => document.documentElement.scrollHeight > innerHeight`).Bool(), "the page does not scroll")
	if folder := os.Getenv("JETTYFOG_LOOK"); folder != "" {
		p.picture(filepath.Join(folder, "problem.png"))
	}
	p.waitForBar(4)
	require.NoError(t, os.Rename(folder+" elsewhere", folder))
	p.waitFor(`() => document.querySelector("[role=alert][aria-label=Problems]").textContent.trim() === ""`)
	p.MustElement("[aria-label=Stop]").MustClick()
	p.waitFor(`() => document.querySelector("[data-position]").textContent.startsWith("001")`)
	takes := a.takes()
	for len(takes) == 0 { // it is told to pages a moment later
		takes = a.takes()
	}
	bars := 0.0
	for _, one := range takes { // one, or two if the folder came back just when the recording was to go on as another
		bars += one.Bars
	}
	require.GreaterOrEqual(t, bars, 3.0)
	require.Equal(t, http.StatusOK, a.post("/api/edits", `{"revision":1,"edit":{"changeLuck":{"number":7}}}`))
}
