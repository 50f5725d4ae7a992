package server_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"reflect"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	gosmf "gitlab.com/gomidi/midi/v2/smf"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/period"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/smf"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
	"jettyfog/internal/server"
	"jettyfog/internal/studio"
)

func TestEditUndoRedo(t *testing.T) {
	h := start(t)
	luck := func(a answer) (int, studio.Snapshot) {
		require.Equal(t, http.StatusOK, a.status, a.body)
		var s studio.Snapshot
		require.NoError(t, json.Unmarshal([]byte(a.body), &s))
		return s.Project.Luck.Number, s
	}
	number, s := luck(h.do("POST", "/api/edits", `{"revision":1,"edit":{"changeLuck":{"number":7}}}`))
	require.Equal(t, 7, number)
	require.Equal(t, "luck 7", s.Undo)
	number, s = luck(h.do("POST", "/api/undo", `{"revision":2}`))
	require.Equal(t, 48_213, number)
	require.Equal(t, "luck 7", s.Redo)
	number, _ = luck(h.do("POST", "/api/redo", `{"revision":3}`))
	require.Equal(t, 7, number)
}

func TestAProjectFileGoesOutAndComesIn(t *testing.T) {
	h := start(t)
	file := h.do("GET", "/api/project.json", "")
	require.Equal(t, `attachment; filename="Night opening.json"`, file.header.Get("Content-Disposition"))
	require.Equal(t, http.StatusOK, h.do("POST", "/api/projects", `{"revision":1,"from":"blank"}`).status)
	require.Equal(t, "Untitled", h.studio.State().Project.Name)
	opened := h.do("POST", "/api/projects/file?revision=2", file.body)
	require.Equal(t, http.StatusOK, opened.status, opened.body)
	require.Equal(t, testkit.Buoy(), h.studio.State().Project)
	require.Empty(t, h.studio.State().Undo, "it is another project, with a history of its own")
}

// The chart tells what the core computes, and each strip's first move is on screen from its left edge.
func TestChart(t *testing.T) {
	h := start(t)
	var chart server.Chart
	got := h.do("GET", "/api/chart?track=1&from=100000&to=181000", "")
	require.Equal(t, http.StatusOK, got.status, got.body)
	require.NoError(t, json.Unmarshal([]byte(got.body), &chart))
	project := testkit.Buoy()
	outlook := play.Look(project, 1, 100_000, 181_000)[0]
	require.Len(t, chart.Parts, 1)
	part := chart.Parts[0]
	require.Equal(t, outlook.Forecasts, part.Forecasts)
	require.Len(t, part.Lanes, 5)
	for _, lane := range part.Lanes {
		require.Equal(t, outlook.Moves[lane.Lane], lane.Moves)
		require.LessOrEqual(t, lane.Moves[0].Tick, score.Tick(100_000))
		require.Greater(t, lane.Moves[1].Tick, score.Tick(100_000))
	}
	require.Equal(t, server.Period{Ticks: 3465 * project.Meter.Bar()}, chart.Period)
	require.Equal(t, server.Period{Never: period.ErrChance.Error()}, chart.Repeats)
	require.Equal(t, server.Period{Ticks: 11 * project.Meter.Bar()}, part.Lanes[1].MeetsGate)
	require.Equal(t, server.Degree{Degree: 4, Name: "A4", Key: 69}, chart.Degrees[28+4])
	require.Equal(t, server.Degree{Degree: -7, Name: "D3", Root: true, Key: 50}, chart.Degrees[28-7])

	// Under another luck it is the chart of that.
	project.Luck.Number = 7
	var other server.Chart
	require.NoError(t, json.Unmarshal([]byte(h.do("GET", "/api/chart?track=1&from=100000&to=181000&luck=7", "").body), &other))
	require.Equal(t, play.Look(project, 1, 100_000, 181_000)[0].Forecasts, other.Parts[0].Forecasts)
	require.NotEqual(t, part.Forecasts, other.Parts[0].Forecasts)
}

func TestLists(t *testing.T) {
	h := start(t)
	var lists server.Lists
	require.NoError(t, json.Unmarshal([]byte(h.do("GET", "/api/lists", "").body), &lists))
	require.Len(t, lists.Lanes, len(score.LaneSpecs()))
	require.Len(t, lists.Percussion, theory.HighestPercussion-theory.LowestPercussion+1)
	require.Len(t, lists.Notes, 128)
	require.Equal(t, "C4", lists.Notes[60].Name)
	require.Equal(t, score.Gate, lists.Lanes[0].Name)
	require.Len(t, lists.Rates, 21)
	require.Contains(t, lists.Scales, server.Scale{Name: "dorian", Semitones: []int{0, 2, 3, 5, 7, 9, 10}})
	require.Equal(t, server.PercussionKey{Note: 36, Name: "Bass Drum 1"}, lists.Percussion[1])
	require.Len(t, lists.Roots, 12)
}

// The roster outlines what every track will play, as the renderer plays it.
func TestRoster(t *testing.T) {
	h := start(t)
	var outlines []server.Outline
	require.NoError(t, json.Unmarshal([]byte(h.do("GET", "/api/roster?bar=3", "").body), &outlines))
	bar := testkit.Buoy().Meter.Bar()
	var want []server.OutlineNote
	for _, n := range play.Render(testkit.Buoy(), 3*bar, 5*bar, nil) {
		want = append(want, server.OutlineNote{Start: n.Start, End: n.End, Key: int(n.Key)})
	}
	require.Equal(t, []server.Outline{{Track: 1, Notes: want}}, outlines)
}

// A roll is one edit that repeats with its luck; what is locked stays, and undo brings back the rest.
func TestRoll(t *testing.T) {
	h := start(t)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/edits",
		`{"revision":1,"edit":{"setLane":{"track":1,"pattern":0,"part":0,"lane":"pitch","locked":[0,1,2]}}}`).status)
	const roll = `{"revision":%d,"track":1,"pattern":0,"part":0,"lane":"pitch","scope":%q,"luck":5,"lowest":10,"highest":20,"density":100,"lean":0}`
	pitches := func() []int { return h.studio.State().Project.Tracks[0].Parts()[0].Lanes.Pitch.Steps[:11] }
	before := pitches()
	got := h.do("POST", "/api/roll", fmt.Sprintf(roll, 2, "lane"))
	require.Equal(t, http.StatusOK, got.status, got.body)
	rolled := pitches()
	require.Equal(t, before[:3], rolled[:3])
	for _, pitch := range rolled[3:] {
		require.GreaterOrEqual(t, pitch, 10)
		require.LessOrEqual(t, pitch, 20)
	}
	require.Equal(t, "Bell buoy: roll of pitch", h.studio.State().Undo)
	h.do("POST", "/api/undo", `{"revision":3}`)
	require.Equal(t, before, pitches())
	for revision, scope := range []string{"part", "track", "all"} {
		got = h.do("POST", "/api/roll", fmt.Sprintf(roll, revision+4, scope))
		require.Equal(t, http.StatusOK, got.status, got.body)
		require.LessOrEqual(t, slices.Max(pitches()), 9, "a wider roll keeps to the values that each lane has")
	}
}

// The history lists what was done, and any place of it can be gone to.
func TestHistoryIsListed(t *testing.T) {
	h := start(t)
	for i := range 3 {
		h.do("POST", "/api/edits", fmt.Sprintf(`{"revision":%d,"edit":{"changeLuck":{"number":%d}}}`, i+1, i))
	}
	require.Equal(t, http.StatusOK, h.do("POST", "/api/history", `{"revision":4,"position":1}`).status)
	require.Equal(t, 0, h.studio.State().Project.Luck.Number)
	var entries []studio.Entry
	require.NoError(t, json.Unmarshal([]byte(h.do("GET", "/api/history", "").body), &entries))
	require.Equal(t, []studio.Entry{
		{Position: 3, Label: "luck 2"}, {Position: 2, Label: "luck 1"}, {Position: 1, Label: "luck 0", Done: true},
	}, entries)
}

// A tuning comes in as text and goes out as files.
func TestTuningFiles(t *testing.T) {
	h := start(t)
	got := h.do("POST", "/api/tuning", `{"revision":1,"scl":"! x\nfive\n 5\n 240.\n 480.\n 720.\n 960.\n 2/1\n"}`)
	require.Equal(t, http.StatusOK, got.status, got.body)
	require.Equal(t, theory.Chromatic, h.studio.State().Project.Key.Scale)
	require.Contains(t, h.do("GET", "/api/tuning/tuning.scl", "").body, " 240.\n")
	require.Contains(t, h.do("GET", "/api/tuning/tuning.kbm", "").body, "261.625565")
	h.do("POST", "/api/tuning", `{"revision":2,"scl":""}`)
	require.Nil(t, h.studio.State().Project.Key.Tuning)
}

// The draws of a spread come with the shares that they should have.
func TestDraws(t *testing.T) {
	h := start(t)
	h.do("POST", "/api/edits", `{"revision":1,"edit":{"setLane":{"track":1,"pattern":0,"part":0,"lane":"velocity",
		"spread":{"chance":100,"depth":100,"lowest":-3,"highest":3,"lean":0,"grain":1}}}}`)
	var draws server.Draws
	require.NoError(t, json.Unmarshal([]byte(h.do("GET", "/api/draws?track=1&part=0&lane=velocity&from=0&to=1000000", "").body), &draws))
	require.Len(t, draws.Shares, 7)
	require.Greater(t, len(draws.Drawn), 50)
	require.Less(t, slices.Max(draws.Drawn), 4)
}

// A MIDI file comes in as a take and goes out as the same file, and as a table; what is wrong with it is said.
func TestAMIDIFileComesInAsATake(t *testing.T) {
	h := start(t)
	rendered := take.Render(testkit.Buoy(), 4)
	data, err := encoded(rendered, smf.Options{Format: 1, Division: smf.ExactDivision})
	require.NoError(t, err)
	got := h.do("POST", "/api/takes?name=Ferry%20bells", string(data), "Content-Type", "audio/midi")
	require.Equal(t, http.StatusOK, got.status, got.body)
	var imported server.Imported
	require.NoError(t, json.Unmarshal([]byte(got.body), &imported))
	require.Equal(t, server.Imported{ID: 1, Notes: rendered.Count(), Remarks: []string{}}, imported)
	again, err := gosmf.ReadFrom(strings.NewReader(h.do("GET", "/api/takes/1.mid?division=20160", "").body))
	require.NoError(t, err)
	first, err := gosmf.ReadFrom(bytes.NewReader(data))
	require.NoError(t, err)
	require.Equal(t, first.Tracks[1], again.Tracks[1])
	table := h.do("GET", "/api/takes/1.csv", "")
	require.Equal(t, `attachment; filename="Ferry bells.csv"`, table.header.Get("Content-Disposition"))
	require.Equal(t, 1+len(rendered.Messages), strings.Count(table.body, "\r\n"))

	got = h.do("POST", "/api/takes", string(data)+"?", "Content-Type", "audio/midi")
	require.Contains(t, got.body, "1 bytes after the last chunk were left out")
	got = h.do("POST", "/api/takes", string(data[:14])+"MTrk\x00\x00\x00\x02\x00\xf8", "Content-Type", "audio/midi")
	require.Equal(t, http.StatusUnprocessableEntity, got.status)
	require.Contains(t, got.body, "the MIDI file cannot be read: at byte 23 there is the status 0xf8")
	require.Equal(t, http.StatusUnsupportedMediaType, h.do("POST", "/api/takes", "{}").status)
}

// A roll of a part leaves the other parts of its kit alone, and a roll of a track the other tracks.
func TestARollKeepsToItsScope(t *testing.T) {
	h := start(t)
	project := testkit.Demo()
	file, err := score.Encode(project)
	require.NoError(t, err)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/projects/file?revision=1", string(file)).status)
	roll := func(revision int, scope string) *score.Project {
		got := h.do("POST", "/api/roll", fmt.Sprintf(
			`{"revision":%d,"track":3,"pattern":0,"part":1,"lane":"velocity","scope":%q,"luck":5,"density":100,"lean":0}`, revision, scope))
		require.Equal(t, http.StatusOK, got.status, got.body)
		return h.studio.State().Project
	}
	rolled := roll(2, "part")
	require.Equal(t, project.Tracks[:2], rolled.Tracks[:2])
	for i := range project.Tracks[2].Parts() {
		same := reflect.DeepEqual(project.Tracks[2].Parts()[i], rolled.Tracks[2].Parts()[i])
		require.Equal(t, i != 1, same, "part %d", i)
	}
	rolled = roll(3, "track")
	require.Equal(t, project.Tracks[:2], rolled.Tracks[:2])
	require.NotEqual(t, project.Tracks[2].Parts()[0], rolled.Tracks[2].Parts()[0])
	require.NotEqual(t, project.Tracks[1], roll(4, "all").Tracks[1])
}

// A page that prefers it is answered with what leads to the project from the revision before (RFC 7240), which is small
// however large the project is; who does not say so has the whole.
func TestAPageIsToldWhatChanges(t *testing.T) {
	h := start(t)
	whole := ask[server.ProjectState](h, "/api/edits", `{"revision":1,"edit":{"changeLuck":{"number":7}}}`)
	require.Equal(t, 7, whole.Project.Luck.Number)
	require.Empty(t, whole.Changes)
	edit := func(body string) string {
		request, err := http.NewRequest(http.MethodPost, h.url+"/api/edits", strings.NewReader(body))
		require.NoError(t, err)
		request.Header.Set("Content-Type", "application/json")
		request.Header.Set("Prefer", "return=minimal")
		answer, err := http.DefaultClient.Do(request)
		require.NoError(t, err)
		defer answer.Body.Close()
		changes, err := io.ReadAll(answer.Body)
		require.NoError(t, err)
		return string(changes)
	}
	require.JSONEq(t, `{"document":1,"revision":3,"undo":"Bell buoy: mute","redo":"","from":2,"changes":[{"op":"replace","path":["tracks",0,"mute"],"value":true}]}`,
		edit(`{"revision":2,"edit":{"setTrack":{"track":1,"mute":true}}}`))
	require.True(t, ask[server.ProjectState](h, "/api/project", "").Project.Tracks[0].Mute)

	// Bars and the tempo's pace come along where they change: at 60 a minute a quarter note lasts 1000 ms.
	var timed server.ProjectState
	require.NoError(t, json.Unmarshal([]byte(edit(`{"revision":3,"edit":{"setProject":{"tempo":60000}}}`)), &timed))
	require.InDelta(t, float64(score.TicksPerQuarter)/1000, timed.TicksPerMilli, 1e-9)
	require.NoError(t, json.Unmarshal([]byte(edit(`{"revision":4,"edit":{"setProject":{"meter":{"beats":7,"unit":8,"groups":[2,2,3]}}}}`)), &timed))
	require.Nil(t, timed.Project)
	require.Equal(t, 7*score.TicksPerQuarter/2, timed.Bars[0].Length)
	require.Equal(t, []int{0, 2, 4}, timed.Bars[0].Groups)
	require.NoError(t, json.Unmarshal([]byte(edit(`{"revision":5,"edit":{"setProject":{"meterChanges":[{"bar":2,"meter":{"beats":3,"unit":4}}]}}}`)), &timed))
	require.Equal(t, 7*score.TicksPerQuarter, timed.Bars[1].Tick)
}

// Tracks that write the same thing at one place are told.
func TestClashesAreTold(t *testing.T) {
	h := start(t)
	require.Equal(t, "[]\n", h.do("GET", "/api/project/clashes", "").body)
	ask[server.ProjectState](h, "/api/edits", `{"revision":1,"edit":{"all":{"name":"programs","edits":[
		{"addTrack":{"at":1,"kind":"melodic"}},
		{"setProject":{"outputs":[{"id":1,"name":"Synth","kind":"browserPort"}]}},
		{"setTrack":{"track":1,"program":1,"routes":[{"output":1,"channel":2,"lowest":0,"highest":127,"softest":1,"loudest":127}]}},
		{"setTrack":{"track":2,"program":2,"routes":[{"output":1,"lowest":0,"highest":127,"softest":1,"loudest":127}]}}]}}}`)
	require.Equal(t, []score.Clash{{Output: 1, Channel: 2, What: "program", Tracks: []int{1, 2}}}, ask[[]score.Clash](h, "/api/project/clashes", ""))
}

// What is done while a project plays can be had as a log, which plays what was played.
func TestTheLogOfWhatWasPlayed(t *testing.T) {
	h := start(t)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/transport", `{"do":"play","from":3}`).status)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/edits", `{"revision":1,"edit":{"setTrack":{"track":1,"mute":true}}}`).status)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/transport", `{"do":"stop"}`).status)
	logged, end, err := log.Decode([]byte(h.do("GET", "/api/transport/log.json", "").body))
	require.NoError(t, err)
	require.Positive(t, end)
	require.Equal(t, testkit.Buoy().Bars().Start(2), logged.From)
	require.Len(t, logged.Entries, 1)
	require.True(t, logged.Entries[0].Project.Tracks[0].Mute)
}
