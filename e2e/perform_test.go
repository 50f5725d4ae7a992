package e2e

import (
	"encoding/json"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
)

// hand presses a button of the Perform screen by its name.
func (p *page) hand(name string) { p.MustElement("button[aria-label='" + name + "']").MustClick() }

// takeFile downloads a take as one track, exactly, from the server.
func (a *app) takeFile(id int64) []struck {
	a.t.Helper()
	return startsOf(a.t.(*testing.T), a.download("/api/takes/"+strconv.FormatInt(id, 10)+".mid?format=0&division=20160"))
}

// rendered renders a project file by the command line, and returns its note-ons.
func (a *app) rendered(project []byte, flags ...string) []struck {
	a.t.Helper()
	return a.renderedFrom("--project", project, flags...)
}

// renderedFrom is rendered of a file that a flag names.
func (a *app) renderedFrom(flag string, content []byte, flags ...string) []struck {
	a.t.Helper()
	folder := a.t.TempDir()
	from, to := filepath.Join(folder, "from.json"), filepath.Join(folder, "song.mid")
	require.NoError(a.t, os.WriteFile(from, content, 0o600))
	said, err := exec.Command("../bin/jettyfog", append([]string{"render", flag, from, "--format", "0", "--ppq", "20160", "--out", to}, flags...)...).CombinedOutput()
	require.NoError(a.t, err, string(said))
	file, err := os.ReadFile(to)
	require.NoError(a.t, err)
	return startsOf(a.t.(*testing.T), file)
}

// A pattern is queued while another plays, seen on its strip before it plays, taken back, queued again by touch of its button, and
// plays from a bar line on. A scene by its key is undone as one.
func TestAPatternChangesOnTheBar(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/#perform", 1280, 800, standInForOutputs)
	p.hand("Play")
	p.waitForBar(1)
	p.press("4 bars")
	p.hand("Bell buoy: pattern Far bells")
	p.hand("Take back Far bells of Bell buoy")
	p.waitFor(`() => !document.querySelector("[aria-label='Take back Far bells of Bell buoy']")`)
	p.press("bar")
	p.hand("Bell buoy: pattern Far bells")
	p.MustElement("button[aria-label='Bell buoy: pattern Far bells'][aria-pressed=true]")
	logged, _, err := log.Decode(a.download("/api/transport/log.json"))
	require.NoError(t, err)
	require.Len(t, logged.Entries, 1)
	require.Equal(t, "pattern", logged.Entries[0].Action.Control.Name)
	require.Zero(t, logged.Entries[0].Action.At%(4*score.TicksPerQuarter))

	p.press("now")
	p.Keyboard.MustType(input.Digit4)
	p.MustElement("button[aria-label='Bell buoy: pattern Fog signal'][aria-pressed=true]")
	p.MustElement("button[aria-label='mute Hull kit'][aria-pressed=true]")
	p.Keyboard.MustType(input.KeyB)
	p.MustElement("button[aria-label='Bell buoy: pattern Far bells'][aria-pressed=true]")
	p.MustElement("button[aria-label='mute Hull kit'][aria-pressed=false]")
}

// lateAnswers has what a page asks of the stage be answered two seconds late, as a busy machine can.
const lateAnswers = `
	const ask = window.fetch;
	window.answered = 0;
	window.fetch = async (...args) => {
		const answer = await ask(...args);
		if (String(args[0]?.url ?? args[0]).includes("api/stage")) {
			await new Promise(resolve => setTimeout(resolve, 2000));
			setTimeout(() => window.answered++, 500); // once the page has taken it
		}
		return answer;
	};
`

// An answer that comes after newer news does not bring the old state back: what has been done by then stays shown as done.
func TestALateAnswerIsOld(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	a.edit(`{"setProject":{"tempo":240000}}`)
	p := a.open("/#perform", 1280, 800, standInForOutputs, lateAnswers)
	p.hand("Play")
	p.waitForBar(1)
	p.press("bar")
	p.hand("mute Hull kit")
	p.MustElement("button[aria-label='mute Hull kit'][aria-pressed=true]")
	p.waitFor(`() => window.answered === 1`)
	require.Equal(t, "true", *p.MustElement("button[aria-label='mute Hull kit']").MustAttribute("aria-pressed"))
	p.hand("Stop")
}

// A song of three sections is built of two scenes, played to its end while it is recorded, and is what the command line renders.
func TestASongIsBuiltAndRendered(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	for section := range 7 {
		a.edit(`{"removeSection":{"section":` + strconv.Itoa(section+1) + `}}`)
	}
	for scene := range 7 {
		a.edit(`{"removeScene":{"scene":` + strconv.Itoa(scene+1) + `}}`)
	}
	for _, track := range []string{"5", "4", "6"} { // three are enough, also where other journeys take most of the time
		a.edit(`{"removeTrack":{"track":` + track + `}}`)
	}
	p := a.open("/#perform", 1280, 800, standInForOutputs)
	p.enter("Tempo in beats per minute", "240")
	p.press("arrange")
	p.MustElement("#arrange-tab-scene").MustClick()
	p.MustElementR("button", "scene of what plays").MustClick()
	p.MustElement("[aria-label='Scene Scene 1 1']")
	p.hand("mute Hull kit")
	p.hand("Bell buoy: pattern Fog signal")
	p.MustElement("button[aria-label='Bell buoy: pattern Fog signal'][aria-pressed=true]")
	p.MustElementR("button", "scene of what plays").MustClick()
	p.MustElement("[aria-label='Scene Scene 2 2']")
	p.Keyboard.MustType(input.KeyB, input.KeyB) // what is performed is let go of
	p.MustElement("button[aria-label='mute Hull kit'][aria-pressed=false]")
	p.MustElement("#arrange-tab-section").MustClick()
	for n, scene := range []string{"Scene 1", "Scene 2", "Scene 1"} {
		p.hand("Add a section")
		a.waitFor(func(project *score.Project) bool { return len(project.Song) == n+1 })
		p.enter("Section bars", strconv.Itoa(n%2+1))
		p.choice("Scene of the section", scene)
		a.waitFor(func(project *score.Project) bool {
			return project.Song[n].Bars == n%2+1 && project.Scene(project.Song[n].Scene).Name == scene
		})
	}
	p.press("song")
	p.MustElementR("button[aria-pressed=true]", "^song$")
	p.hand("Record")
	p.MustElement("button[aria-label=Stop]")
	p.MustElement("button[aria-label=Play]") // the song has come to its end
	p.MustElementR("nav a", "Takes").MustClick()
	p.take(".")
	recorded := a.takes()
	require.Len(t, recorded, 1)
	want := a.rendered(a.download("/api/project.json"), "--song")
	require.NotEmpty(t, want)
	requirePlayed(t, want, a.takeFile(recorded[0].ID), a.leftOut(recorded[0].ID))
}

// What was performed while a take was recorded is on its ruler; one action is moved by a beat, and the take is played again: it differs
// only between where the action was and where it is.
func TestAPerformanceIsMended(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/#perform", 1280, 800, standInForOutputs)
	p.enter("Tempo in beats per minute", "240")
	p.hand("Record")
	p.waitForBar(2)
	p.press("bar")
	p.hand("mute Hull kit")
	p.MustElement("button[aria-label='mute Hull kit'][aria-pressed=true]")
	p.waitForBar(5)
	p.hand("Stop")
	p.MustElementR("nav a", "Takes").MustClick()
	p.take(".").MustClick()
	before := a.takes()
	require.Len(t, before, 1)
	flag := p.MustElement("[aria-label='What was performed'] [aria-label='Hull kit: mute on']")
	at, err := strconv.ParseInt(*flag.MustAttribute("aria-valuenow"), 10, 64)
	require.NoError(t, err)
	flag.MustFocus()
	to := at
	for range 8 { // by what the grid is
		p.Keyboard.MustType(input.ArrowRight)
		p.waitFor(`at => +document.querySelector("[aria-label='What was performed'] [aria-label='Hull kit: mute on']").ariaValueNow > at`, to)
		to, err = strconv.ParseInt(*flag.MustAttribute("aria-valuenow"), 10, 64)
		require.NoError(t, err)
	}
	p.takePage("time")
	p.MustElementR("#take-page button", "^play again$").MustClick()
	p.take("mended")
	after := a.takes()
	require.Len(t, after, 2)
	was, is := a.takeFile(before[0].ID), a.takeFile(after[0].ID)
	require.Greater(t, len(is), len(was))
	next := 0
	for _, note := range is {
		if next < len(was) && was[next] == note {
			next++
			continue
		}
		require.GreaterOrEqual(t, note.tick, at)
		require.Less(t, note.tick, to)
	}
	require.Equal(t, len(was), next, "all that was heard is heard again")

	revision := a.revision()
	require.Equal(t, http.StatusOK, a.post("/api/takes/"+strconv.FormatInt(after[0].ID, 10)+"/stage", `{"revision":`+strconv.FormatInt(revision, 10)+`}`))
	require.True(t, a.project().Tracks[2].Mute, "what differs at its end is stored")
	require.False(t, a.project().Tracks[1].Mute)
}

// The program is killed while the song plays in a later section; the next one offers to go on in that bar, and does, with the section
// and the live changes as they were.
func TestTheSongGoesOnAfterACrash(t *testing.T) {
	t.Parallel()
	data := t.TempDir()
	a := start(t, data)
	a.edit(`{"setProject":{"tempo":240000}}`)
	p := a.open("/#perform", 1280, 800, standInForOutputs)
	p.press("song")
	p.MustElementR("button[aria-pressed=true]", "^song$")
	p.hand("solo Bell buoy")
	p.MustElement("button[aria-label='solo Bell buoy'][aria-pressed=true]")
	p.hand("Play")
	p.waitForBar(9)
	p.MustElement("button[aria-label='Section Ferry'][aria-current=true]")
	p.waitFor(`async () => (await (await fetch("api/stage")).json()).changes.length === 1`)
	p.waitForBar(10) // what was in bar 9 is stored
	a.kill()

	again := start(t, data)
	q := again.open("/#perform", 1280, 800, standInForOutputs)
	button := q.MustElementR("[aria-label=Problems] button", "^go on at bar (9|10|11)$")
	bar, err := strconv.Atoi(button.MustText()[len("go on at bar "):])
	require.NoError(t, err)
	button.MustClick()
	q.MustElement("button[aria-label=Stop]")
	q.waitForBar(bar)
	q.MustElement("button[aria-label='Section Ferry'][aria-current=true]")
	q.MustElement("button[aria-label='solo Bell buoy'][aria-pressed=true]")
	q.waitFor(`() => !document.querySelector("[aria-label=Problems] button")`)
	var m struct {
		Song struct {
			Sections []struct{ Section, Bar int }
		}
	}
	require.NoError(t, json.Unmarshal(again.download("/api/stage"), &m))
	require.Len(t, m.Song.Sections, 6)
	require.Equal(t, 4, m.Song.Sections[1].Bar)
}
