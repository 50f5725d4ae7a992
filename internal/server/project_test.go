package server_test

import (
	"encoding/json"
	"net/http"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
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
	require.Equal(t, http.StatusOK, h.do("POST", "/api/blank", `{"revision":1}`).status)
	require.Equal(t, "Untitled", h.studio.State().Project.Name)
	opened := h.do("POST", "/api/project.json?revision=2", file.body)
	require.Equal(t, http.StatusOK, opened.status, opened.body)
	require.Equal(t, score.Demo(), h.studio.State().Project)
	require.Equal(t, `open “Night opening”`, h.studio.State().Undo)
}

// The chart tells what the core computes, and each strip's first move is on screen from its left edge.
func TestChart(t *testing.T) {
	h := start(t)
	var chart server.Chart
	got := h.do("GET", "/api/chart?track=1&part=0&from=100000&to=181000", "")
	require.Equal(t, http.StatusOK, got.status, got.body)
	require.NoError(t, json.Unmarshal([]byte(got.body), &chart))
	project := score.Demo()
	outlook := play.Look(project, 1, 100_000, 181_000)[0]
	require.Equal(t, outlook.Forecasts, chart.Forecasts)
	require.Len(t, chart.Lanes, 5)
	for _, lane := range chart.Lanes {
		require.Equal(t, outlook.Moves[lane.Lane], lane.Moves)
		require.LessOrEqual(t, lane.Moves[0].Tick, score.Tick(100_000))
		require.Greater(t, lane.Moves[1].Tick, score.Tick(100_000))
	}
	require.Equal(t, server.Period{Ticks: 3465 * project.Meter.Bar()}, chart.Period)
	require.Equal(t, server.Period{Ticks: 11 * project.Meter.Bar()}, chart.Lanes[1].MeetsGate)
	require.Equal(t, server.Degree{Degree: 4, Name: "A4"}, chart.Degrees[28+4])
	require.Equal(t, server.Degree{Degree: -7, Name: "D3", Root: true}, chart.Degrees[28-7])
}

func TestLists(t *testing.T) {
	h := start(t)
	var lists server.Lists
	require.NoError(t, json.Unmarshal([]byte(h.do("GET", "/api/lists", "").body), &lists))
	require.Len(t, lists.Lanes, len(score.LaneSpecs()))
	require.Equal(t, score.Gate, lists.Lanes[0].Name)
	require.Len(t, lists.Rates, 21)
	require.Contains(t, lists.Scales, "dorian")
	require.Len(t, lists.Roots, 12)
}
