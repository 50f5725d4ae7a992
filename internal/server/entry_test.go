package server_test

import (
	"bufio"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
	"jettyfog/internal/server"
	"jettyfog/internal/studio"
)

// Notes are entered step by step, as they are or into the scale.
func TestNotesAreEntered(t *testing.T) {
	h := start(t)
	enter := func(revision int, rest string) studio.Snapshot {
		return ask[studio.Snapshot](h, "/api/entry", fmt.Sprintf(`{"revision":%d,"track":1,"pattern":0,"part":0,%s}`, revision, rest))
	}
	lanes := func(s studio.Snapshot) score.Lanes { return s.Project.Tracks[0].Parts()[0].Lanes }
	s := enter(1, `"step":1,"do":"notes","notes":[{"key":61,"velocity":99}],"fit":"up"`)
	require.Equal(t, score.On, lanes(s).Gate.Steps[1])
	require.Equal(t, 0, lanes(s).Pitch.Steps[1], "C sharp goes up to D, the root")
	require.Equal(t, "Bell buoy: notes played into step 2", s.Undo)
	s = enter(2, `"step":2,"do":"tie"`)
	require.Equal(t, score.Tie, lanes(s).Gate.Steps[2])
	s = enter(3, `"step":2,"do":"rest"`)
	require.Equal(t, score.Off, lanes(s).Gate.Steps[2])
	require.Equal(t, int64(4), enter(4, `"step":2,"do":"rest"`).Revision, "what is there already is no edit")
	for _, bad := range []string{`"step":64,"do":"rest"`, `"step":1,"do":"dance"`, `"step":1,"do":"notes"`, `"step":1,"do":"notes","notes":[{"key":1,"velocity":1}],"fit":"x"`} {
		require.Equal(t, http.StatusUnprocessableEntity, h.do("POST", "/api/entry", `{"revision":4,"track":1,"pattern":0,"part":0,`+bad+`}`).status, bad)
	}
	learned := ask[studio.Snapshot](h, "/api/entry/key", `{"revision":4,"notes":[60,64,67,69,62],"do":"scale"}`)
	require.Equal(t, theory.Key{Root: 2, Scale: "egyptian"}, learned.Project.Key)
	learned = ask[studio.Snapshot](h, "/api/entry/key", `{"revision":5,"notes":[55],"do":"root"}`)
	require.Equal(t, 7, learned.Project.Key.Root)
	require.Equal(t, http.StatusUnprocessableEntity, h.do("POST", "/api/entry/key", `{"revision":6,"notes":[],"do":"root"}`).status)
	require.Equal(t, http.StatusUnprocessableEntity, h.do("POST", "/api/entry/key", `{"revision":6,"notes":[200],"do":"root"}`).status)
}

// What is played while the project plays goes into the step that was on its way; what was there is replaced if asked.
func TestWhatIsPlayedGoesIntoSteps(t *testing.T) {
	h := start(t)
	page := h.connect()
	played := `{"track":1,"part":0,"notes":[{"key":62,"velocity":101,"at":%d,"held":1000000}],"strength":100,"replace":true,"after":0}`
	require.Equal(t, http.StatusConflict, h.do("POST", "/api/entry/played", fmt.Sprintf(played, 5)).status)
	h.do("POST", "/api/transport", `{"do":"play"}`)
	// The time of the step after the first that is on, as it was announced.
	place := server.WirePlace{}
	page.next(func(m server.Message) bool {
		for _, p := range placesOf(m) {
			if p.Lane == score.Gate && p.Step == 3 {
				place = p
			}
		}
		return place.Tick > 0
	})
	// It may not be struck in the future.
	page.next(func(m server.Message) bool {
		return m.Batch != nil && len(m.Batch.Places) > 0 && m.Batch.Places[0].At > place.At+300_000_000
	})
	got := ask[server.PlayedAnswer](h, "/api/entry/played", fmt.Sprintf(played, place.At+1_000_000))
	require.Equal(t, 3, got.Step)
	require.Equal(t, place.Tick, got.Began)
	gate := got.Project.Project.Tracks[0].Parts()[0].Lanes.Gate.Steps
	require.Equal(t, []int{score.Off, score.Off, score.On}, gate[1:4])
	require.Equal(t, testkit.Buoy().Tracks[0].Parts()[0].Lanes.Gate.Steps[4:], gate[4:])

	// Unless it is to replace, what was played past stays.
	require.Equal(t, http.StatusOK, h.do("POST", "/api/undo", `{"revision":2}`).status)
	adds := strings.Replace(played, `"replace":true`, `"replace":false`, 1)
	got = ask[server.PlayedAnswer](h, "/api/entry/played", fmt.Sprintf(adds, place.At+1_000_000))
	gate = got.Project.Project.Tracks[0].Parts()[0].Lanes.Gate.Steps
	require.Equal(t, testkit.Buoy().Tracks[0].Parts()[0].Lanes.Gate.Steps[:3], gate[:3])
	require.Equal(t, http.StatusNotFound, h.do("POST", "/api/takes/1/key", `{"revision":1,"notes":{}}`).status)
}

func placesOf(m server.Message) []server.WirePlace {
	if m.Batch == nil {
		return nil
	}
	return m.Batch.Places
}

// Bars are rendered from any bar on, with progress; a rendering that is given up leaves nothing.
func TestBarsAreRendered(t *testing.T) {
	h := start(t)
	got := h.do("POST", "/api/takes/render", `{"from":3,"bars":250}`)
	require.Equal(t, http.StatusOK, got.status, got.body)
	var last server.RenderProgress
	lines := 0
	for scanner := bufio.NewScanner(strings.NewReader(got.body)); scanner.Scan(); lines++ {
		done := last.Done
		require.NoError(t, json.Unmarshal(scanner.Bytes(), &last))
		require.Greater(t, last.Done, done)
	}
	require.Greater(t, lines, 100)
	require.Equal(t, 250, last.Done)
	bar := testkit.Buoy().Meter.Bar()
	roll := ask[server.Roll](h, fmt.Sprintf("/api/takes/%d/roll?from=0&to=%d", last.Take.ID, bar), "")
	require.Equal(t, "Night opening, bars 3 to 252", roll.Summary.Name)
	want := take.Cut(take.Render(testkit.Buoy(), 3), 2*bar, 3*bar).Notes()
	require.Equal(t, len(want), len(roll.Notes))
	for i, n := range roll.Notes {
		require.Equal(t, []score.Tick{want[i].Start, score.Tick(want[i].Key)}, []score.Tick{n.Start, score.Tick(n.Key)})
	}
	require.Equal(t, http.StatusUnprocessableEntity, h.do("POST", "/api/takes/render", `{"from":0,"bars":2}`).status)
	require.Equal(t, http.StatusUnprocessableEntity, h.do("POST", "/api/takes/render", `{"from":1,"bars":10001}`).status)

	ctx, cancel := context.WithCancel(t.Context())
	request, err := http.NewRequestWithContext(ctx, http.MethodPost, h.url+"/api/takes/render", strings.NewReader(`{"from":1,"bars":10000}`))
	require.NoError(t, err)
	request.Header.Set("Content-Type", "application/json")
	response, err := http.DefaultClient.Do(request)
	require.NoError(t, err)
	_, err = bufio.NewReader(response.Body).ReadString('\n')
	require.NoError(t, err)
	cancel()
	require.NoError(t, response.Body.Close())
	page := h.connect()
	takes := page.next(func(m server.Message) bool { return m.Takes != nil }).Takes.Takes
	require.Len(t, takes, 1)
}
