package server_test

import (
	"archive/zip"
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	gosmf "gitlab.com/gomidi/midi/v2/smf"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/smf"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/server"
)

// ask posts JSON, or gets without a body, and decodes the answer, which must be a success.
func ask[T any](h *house, path, body string) (into T) {
	h.t.Helper()
	method := http.MethodPost
	if body == "" {
		method = http.MethodGet
	}
	got := h.do(method, path, body)
	require.Equal(h.t, http.StatusOK, got.status, got.body)
	require.NoError(h.t, json.Unmarshal([]byte(got.body), &into))
	return into
}

// bring imports a rendering of the demo as take 1.
func bring(h *house, bars int) *take.Take {
	h.t.Helper()
	rendered := take.Render(testkit.Demo(), bars)
	data, err := encoded(rendered, smf.Options{Format: 1, Division: smf.ExactDivision})
	require.NoError(h.t, err)
	require.Equal(h.t, http.StatusOK, h.do("POST", "/api/takes?name=Tide", string(data), "Content-Type", "audio/midi").status)
	return rendered
}

func TestATakeIsEdited(t *testing.T) {
	h := start(t)
	rendered := bring(h, 8)
	bar := rendered.Meter.Bar()
	page := h.connect()

	trimmed := ask[take.Summary](h, "/api/takes/1/edits", fmt.Sprintf(`{"version":0,"edit":{"trim":{"from":%d,"to":%d}}}`, bar, 5*bar))
	require.Equal(t, "trim", trimmed.Undo)
	page.next(func(m server.Message) bool { return m.Takes != nil && m.Takes.Takes[0].Version == 1 })
	roll := ask[server.Roll](h, "/api/takes/1/roll?from=0&to=99999999", "")
	require.Equal(t, 4*bar, roll.End)
	require.Len(t, roll.Notes, trimmed.Notes)
	require.Equal(t, rendered.Bars().Spans(), roll.Bars)
	require.Equal(t, []server.Pace{{TicksPerMilli: rendered.Tempo[0].Tempo.TicksPerMilli()}}, roll.Paces)
	require.Len(t, roll.Tracks, 3)
	require.Equal(t, trimmed.Notes, roll.Tracks[0].Notes+roll.Tracks[1].Notes+roll.Tracks[2].Notes)
	window := ask[server.Roll](h, fmt.Sprintf("/api/takes/1/roll?from=%d&to=%d", bar, 2*bar), "")
	require.Less(t, len(window.Notes), len(roll.Notes))
	for _, n := range window.Notes {
		require.Equal(t, roll.Notes[n.Place], n)
		require.True(t, n.Start < 2*bar && n.End > bar)
	}

	stale := h.do("POST", "/api/takes/1/edits", `{"version":0,"edit":{"rename":{"name":"Ebb"}}}`)
	require.Equal(t, http.StatusConflict, stale.status)
	require.Contains(t, stale.body, "the take has changed")
	require.Equal(t, http.StatusUnprocessableEntity, h.do("POST", "/api/takes/1/edits", `{"version":1,"edit":{"trim":{"from":5,"to":2}}}`).status)
	require.Equal(t, http.StatusBadRequest, h.do("POST", "/api/takes/1/edits", `{"version":1,"edit":{}}`).status)
	require.Equal(t, "trim", ask[take.Summary](h, "/api/takes/1/undo", `{"version":1}`).Redo)
	require.Equal(t, http.StatusConflict, h.do("POST", "/api/takes/1/undo", `{"version":2}`).status)
	require.Equal(t, trimmed.Notes, ask[take.Summary](h, "/api/takes/1/redo", `{"version":2}`).Notes)
	require.True(t, ask[take.Summary](h, "/api/takes/1/deleted", `{"version":3,"deleted":true}`).Deleted)

	stats := ask[take.Statistics](h, "/api/takes/1/statistics?tracks=2", "")
	require.Len(t, stats.Bars, 4)
	require.Equal(t, roll.Tracks[0].Notes+roll.Tracks[1].Notes+roll.Tracks[2].Notes, ask[take.Statistics](h, "/api/takes/1/statistics", "").Notes)
	require.Equal(t, http.StatusBadRequest, h.do("GET", "/api/takes/1/statistics?tracks=x", "").status)
	require.Equal(t, http.StatusBadRequest, h.do("GET", "/api/takes/1/roll?from=5&to=5", "").status)
}

// Two halves of a take are takes of their own; the whole is compared with the first half.
func TestATakeIsSplitAndCompared(t *testing.T) {
	h := start(t)
	rendered := bring(h, 4)
	bar := rendered.Meter.Bar()
	require.Equal(t, []int64{2, 3}, ask[[]int64](h, "/api/takes/1/split", fmt.Sprintf(`{"tick":%d}`, bar)))
	first := ask[server.Roll](h, "/api/takes/2/roll?from=0&to=99999999", "")
	second := ask[server.Roll](h, "/api/takes/3/roll?from=0&to=99999999", "")
	require.Equal(t, "Tide a", first.Summary.Name)
	require.Equal(t, bar, first.End)
	require.Equal(t, 3*bar, second.End)
	require.Equal(t, rendered.Count(), len(first.Notes)+len(second.Notes))
	compared := ask[server.TakeComparison](h, "/api/takes/2/comparison?with=1", "")
	require.Equal(t, len(first.Notes), compared.Same+len(compared.Changed))
	require.Len(t, compared.Added, len(second.Notes))
	require.Empty(t, compared.Gone)
	require.Equal(t, http.StatusUnprocessableEntity, h.do("POST", "/api/takes/1/split", `{"tick":0}`).status)
	require.Equal(t, http.StatusNotFound, h.do("GET", "/api/takes/2/comparison?with=9", "").status)
	require.Equal(t, http.StatusNotFound, h.do("POST", "/api/takes/1/origin", `{"revision":1}`).status, "no project made it")
}

// Chosen bars and muted tracks: what goes out is what is heard of them, in one file or one for each track.
func TestChosenBarsGoOut(t *testing.T) {
	h := start(t)
	rendered := bring(h, 6)
	bar := rendered.Meter.Bar()
	ask[take.Summary](h, "/api/takes/1/edits", `{"version":0,"edit":{"setTrack":{"track":4,"mute":true}}}`)
	want := take.Cut(rendered, bar, 3*bar)
	got := notesOf(t, h.do("GET", "/api/takes/1.mid?format=0&division=20160&from=2&to=4", "").body)
	require.Len(t, got, take.ByTrack(want)[0].Count()+take.ByTrack(want)[1].Count())

	archive := h.do("GET", "/api/takes/1.zip?division=20160&from=2&to=4&format=0", "")
	require.Equal(t, `attachment; filename=Tide.zip`, archive.header.Get("Content-Disposition"))
	files, err := zip.NewReader(strings.NewReader(archive.body), int64(len(archive.body)))
	require.NoError(t, err)
	require.Len(t, files.File, 2)
	for i, file := range files.File {
		opened, err := file.Open()
		require.NoError(t, err)
		read, err := gosmf.ReadFrom(opened)
		require.NoError(t, err)
		notes := 0
		for _, event := range read.Tracks[0] {
			var channel, key, velocity uint8
			if event.Message.GetNoteOn(&channel, &key, &velocity) {
				notes++
			}
		}
		require.Equal(t, take.ByTrack(want)[i].Count(), notes, file.Name)
	}
	require.Equal(t, "01 Bell buoy.mid", files.File[0].Name)
	for _, bars := range []string{"from=0&to=2", "from=2&to=2", "from=2&to=9", "from=7&to=8", "from=2"} {
		require.Equal(t, http.StatusUnprocessableEntity, h.do("GET", "/api/takes/1.mid?"+bars, "").status, bars)
	}
}

// A take brings the project back as it was when the take began, and that is undone like any edit.
func TestATakeBringsItsProjectBack(t *testing.T) {
	h := start(t)
	page := h.connect()
	h.do("POST", "/api/transport", `{"do":"record"}`)
	page.next(func(m server.Message) bool { return m.Batch != nil && len(m.Batch.Sounds) > 0 })
	require.Equal(t, http.StatusOK, h.do("POST", "/api/edits", `{"revision":1,"edit":{"changeLuck":{"number":7}}}`).status)
	h.do("POST", "/api/transport", `{"do":"stop"}`)
	page.next(func(m server.Message) bool { return m.Takes != nil && len(m.Takes.Takes) == 1 })
	require.Equal(t, http.StatusOK, h.do("POST", "/api/takes/1/origin", `{"revision":2}`).status)
	require.Equal(t, testkit.Buoy(), h.studio.State().Project)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/undo", `{"revision":3}`).status)
	require.Equal(t, 7, h.studio.State().Project.Luck.Number)
}

// A stretch of a take becomes a pattern of a track, or of a new one, and its notes the key; each is one edit.
func TestATakeBecomesAPattern(t *testing.T) {
	h := start(t)
	bar := bring(h, 4).Meter.Bar()
	request := fmt.Sprintf(`{"revision":1,"track":1,"rate":"1/16","notes":{"tracks":[2],"from":%d,"to":%d}}`, bar, 2*bar)
	written := ask[server.PatternAnswer](h, "/api/takes/1/pattern", request)
	require.Equal(t, "It has 16 steps of 1/16", written.Remarks[0])
	track := h.studio.State().Project.Tracks[0]
	require.Len(t, track.Patterns, 2)
	require.Equal(t, 1, track.Playing)
	require.Equal(t, "Tide", track.Patterns[1].Name)

	added := ask[server.PatternAnswer](h, "/api/takes/1/pattern", `{"revision":2,"track":0,"kind":"kit","notes":{"tracks":[4]}}`)
	require.Equal(t, 2, added.Track)
	kit := h.studio.State().Project.Tracks[1]
	require.Equal(t, score.Kit, kit.Kind)
	require.Len(t, kit.Patterns, 1)
	require.Greater(t, len(kit.Patterns[0].Parts), 2)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/undo", `{"revision":3}`).status)
	require.Len(t, h.studio.State().Project.Tracks, 1)
	require.Equal(t, http.StatusNotFound, h.do("POST", "/api/takes/1/pattern", `{"revision":4,"track":9,"notes":{}}`).status)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/takes/1/key", `{"revision":4,"notes":{"tracks":[2]}}`).status)
	require.NotEqual(t, testkit.Buoy().Key, h.studio.State().Project.Key)
}

// What a track played last goes on as a loop, is edited like a take, and is let go of.
func TestWhatWasPlayedIsLooped(t *testing.T) {
	h := start(t)
	page := h.connect()
	require.Equal(t, http.StatusConflict, h.do("POST", "/api/loops", `{"revision":1,"track":1,"bars":2}`).status)
	h.do("POST", "/api/edits", `{"revision":1,"edit":{"setProject":{"tempo":400000}}}`)
	h.do("POST", "/api/transport", `{"do":"play"}`)
	bar := testkit.Buoy().Meter.Bar()
	page.next(func(m server.Message) bool {
		return m.Batch != nil && len(m.Batch.Sounds) > 0 && m.Batch.Sounds[0].Tick > 3*bar
	})
	require.Equal(t, http.StatusUnprocessableEntity, h.do("POST", "/api/loops", `{"revision":2,"track":1,"bars":0}`).status)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/loops", `{"revision":2,"track":1,"bars":2}`).status)
	h.do("POST", "/api/transport", `{"do":"stop"}`)
	loop := h.studio.State().Project.Tracks[0].Loop
	require.Equal(t, 2*bar, loop.Length)
	require.Zero(t, loop.Start%bar)

	roll := ask[server.Roll](h, "/api/loops/1/roll", "")
	require.Len(t, roll.Notes, len(loop.Notes))
	require.Equal(t, http.StatusOK, h.do("POST", "/api/loops/1/edits", `{"revision":3,"edit":{"moveNotes":{"notes":[0],"ticks":0,"semitones":12}}}`).status)
	require.Equal(t, loop.Notes[0].Key+12, h.studio.State().Project.Tracks[0].Loop.Notes[0].Key)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/loops", `{"revision":4,"track":1,"notes":3}`).status)
	require.Len(t, h.studio.State().Project.Tracks[0].Loop.Notes, 3)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/edits", `{"revision":5,"edit":{"setLoop":{"track":1}}}`).status)
	require.Nil(t, h.studio.State().Project.Tracks[0].Loop)
	require.Equal(t, http.StatusUnprocessableEntity, h.do("GET", "/api/loops/1/roll", "").status)
	require.Equal(t, http.StatusNotFound, h.do("GET", "/api/loops/7/roll", "").status)
}

func encoded(t *take.Take, options smf.Options) ([]byte, error) {
	file, err := smf.FromTake(t, options)
	if err != nil {
		return nil, err
	}
	return smf.Encode(file)
}

// The voltages of a take come as a file and as what its channels are; what cannot be is refused with why.
func TestTheVoltagesOfATake(t *testing.T) {
	h := start(t)
	bring(h, 2)
	outputs, err := json.Marshal(score.Demo().Outputs)
	require.NoError(t, err)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/edits", fmt.Sprintf(`{"revision":%d,"edit":{"setProject":{"outputs":%s}}}`, h.studio.State().Revision, outputs)).status)
	const at = "/api/takes/1/"
	file := h.do(http.MethodGet, at+"voltages.wav?output=9&rate=44100", "")
	require.Equal(t, http.StatusOK, file.status)
	require.Equal(t, "audio/wav", file.header.Get("Content-Type"))
	require.Equal(t, "RIFF", file.body[:4])
	require.Contains(t, h.do(http.MethodGet, at+"voltages.json?output=9", "").body, `"signal":"trigger"`)
	short := h.do(http.MethodGet, at+"voltages.wav?output=9&rate=44100&from=2&to=3", "")
	require.InDelta(t, len(file.body)/2, len(short.body), 100)
	for query, why := range map[string]string{
		"output=1": "there is no output of voltages 1", "": "there is no output of voltages", "output=9&rate=8000": "rate is 8000", "output=9&from=9&to=10": "from is 9",
	} {
		refused := h.do(http.MethodGet, at+"voltages.wav?"+query, "")
		require.Equal(t, http.StatusUnprocessableEntity, refused.status, query)
		require.Contains(t, refused.body, why)
	}
	require.Equal(t, http.StatusNotFound, h.do(http.MethodGet, "/api/takes/99/voltages.wav?output=9", "").status)
	scope := ask[server.Scope](h, at+"scope?output=9&channel=10&begin=0&end=40320", "")
	require.Equal(t, server.ScopePoint{Tick: 0, Volts: 5}, scope.Points[0], "the clock")
	require.Len(t, scope.Points, 2*2*8, "eight pulses of two segments")
	require.Contains(t, h.do(http.MethodGet, at+"scope?output=9&channel=1&begin=0&end=9", "").body, "the output has no channel 1")
	require.Equal(t, http.StatusBadRequest, h.do(http.MethodGet, at+"scope?output=9&channel=10&begin=9&end=9", "").status)
}
