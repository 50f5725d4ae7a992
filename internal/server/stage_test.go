package server_test

import (
	"encoding/json"
	"fmt"
	"net/http"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/server"
)

func stageOf(t *testing.T, a answer) (m server.StageMessage) {
	t.Helper()
	require.Equal(t, http.StatusOK, a.status, a.body)
	require.NoError(t, json.Unmarshal([]byte(a.body), &m))
	return m
}

// What is performed is told to every page, lies on top of the project, and is stored as one edit, whose undo changes
// nothing that plays.
func TestPerformingOnTopOfTheProject(t *testing.T) {
	h := start(t)
	page := h.connect()
	page.next(func(m server.Message) bool { return m.Stage != nil && len(m.Stage.Changes) == 0 })
	m := stageOf(t, h.do("POST", "/api/stage", `{"do":[{"control":{"name":"mute","track":1},"value":1},{"control":{"name":"swing"},"value":583}],"when":"bar"}`))
	require.Len(t, m.Changes, 2, "while standing still it counts at once")
	require.Equal(t, []string{"swing 58.3 %", "Bell buoy: mute on"}, []string{m.Changes[0].Words, m.Changes[1].Words})
	told := page.next(func(m server.Message) bool { return m.Stage != nil && len(m.Stage.Changes) == 2 })
	require.Less(t, told.Stage.Number, m.Number, "the answer says what stood after it was told")
	told.Stage.Number = m.Number
	require.Equal(t, m, *told.Stage)
	require.Equal(t, int64(1), h.studio.State().Revision, "nothing was written")

	require.Equal(t, http.StatusOK, h.do("POST", "/api/stage/store", `{"revision":1}`).status)
	project := h.studio.State().Project
	require.True(t, project.Tracks[0].Mute)
	require.Equal(t, 583, project.Swing)
	require.Empty(t, stageOf(t, h.do("GET", "/api/stage", "")).Changes)
	require.Contains(t, h.do("POST", "/api/stage/store", `{"revision":2}`).body, "there are no live changes to store")
	require.Equal(t, http.StatusOK, h.do("POST", "/api/undo", `{"revision":2}`).status)
	require.Len(t, stageOf(t, h.do("GET", "/api/stage", "")).Changes, 2, "what plays is as it was")
	page.next(func(m server.Message) bool { return m.Stage != nil && len(m.Stage.Changes) == 2 })

	require.Equal(t, http.StatusOK, h.do("POST", "/api/edits", `{"revision":3,"edit":{"setProject":{"swing":600}}}`).status)
	require.Len(t, stageOf(t, h.do("GET", "/api/stage", "")).Changes, 1, "what is written anew has no live change")
	m = stageOf(t, h.do("POST", "/api/stage/back", "{}"))
	require.Empty(t, m.Changes, "swing has no live change any more, so the mute before it is undone")
	require.Len(t, stageOf(t, h.do("POST", "/api/stage", `{"do":[{"control":{"name":"fill"},"value":1}],"when":"now"}`)).Changes, 1)
	require.Empty(t, stageOf(t, h.do("POST", "/api/stage/reset", "{}")).Changes)
}

// While playing things wait for their bar, are taken back, and are drawn in charts from there on.
func TestTheQueue(t *testing.T) {
	h := start(t)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/edits", `{"revision":1,"edit":{"copyPattern":{"track":1,"pattern":0,"name":"B"}}}`).status)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/edits", `{"revision":2,"edit":{"setLane":{"track":1,"pattern":1,"part":0,"lane":"gate","length":5}}}`).status)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/transport", `{"do":"play"}`).status)
	page := h.connect()
	page.next(func(m server.Message) bool { return m.Batch != nil && len(m.Batch.Sounds) > 1 })
	bar := h.studio.State().Project.Bars().Start(1)
	m := stageOf(t, h.do("POST", "/api/stage", `{"do":[{"control":{"name":"pattern","track":1},"value":1}],"when":"bars","bars":8}`))
	require.Len(t, m.Queue, 1)
	require.Equal(t, "Bell buoy: pattern B", m.Queue[0].Words)
	require.Equal(t, 8*bar, m.Queue[0].At)
	require.Empty(t, m.Changes)

	chart := func(pattern string) (c server.Chart) {
		t.Helper()
		a := h.do("GET", fmt.Sprintf("/api/chart?track=1&from=%d&to=%d%s", 8*bar, 9*bar, pattern), "")
		require.Equal(t, http.StatusOK, a.status, a.body)
		require.NoError(t, json.Unmarshal([]byte(a.body), &c))
		return c
	}
	require.Equal(t, 0, chart("").Pattern)
	require.Equal(t, 1, chart("&pattern=1").Pattern, "a pattern that does not play can be looked at")
	m = stageOf(t, h.do("DELETE", fmt.Sprintf("/api/stage/queue/%d", m.Queue[0].ID), ""))
	require.Empty(t, m.Queue)
	m = stageOf(t, h.do("POST", "/api/stage", `{"do":[{"control":{"name":"pattern","track":1},"value":1}],"when":"now"}`))
	require.Len(t, m.Changes, 1)
	require.Equal(t, 1, chart("").Pattern)

	m = stageOf(t, h.do("POST", "/api/stage", `{"do":[{"control":{"name":"realign","track":1},"value":1}],"when":"bars","bars":8}`))
	require.Equal(t, "Bell buoy: realign now", m.Queue[0].Words)
	m = stageOf(t, h.do("POST", "/api/stage", `{"do":[{"control":{"name":"realign","track":1},"value":1}],"when":"now"}`))
	require.Len(t, m.Changes, 1, "what is done once changes nothing that stays")
	refused := h.do("POST", "/api/stage", `{"do":[{"control":{"name":"evolve","track":1},"value":2}],"when":"now"}`)
	require.Contains(t, refused.body, "evolve now is 2; it must be 1")
}

// The refusals of what is performed say what was wrong; nothing is done then, not even a part of it.
func TestWhatIsNotPerformed(t *testing.T) {
	h := start(t)
	for body, want := range map[string]string{
		`{"do":[],"when":"now"}`: "the number of do is 0; it must be 1 to 64",
		`{"do":[{"control":{"name":"mute","track":1},"value":1}],"when":"soon"}`:                                                   `when is \"soon\"`,
		`{"do":[{"control":{"name":"mute","track":1},"value":1}],"when":"bars"}`:                                                   "bars is 0; it must be 1 to 64",
		`{"do":[{"control":{"name":"mute","track":1},"value":1},{"control":{"name":"mute","track":9},"value":1}],"when":"now"}`:    "mute of track 9: what it would change is not there any more",
		`{"do":[{"control":{"name":"speed","track":1},"value":240},{"control":{"name":"hull","track":1},"value":1}],"when":"now"}`: `control.name is \"hull\"`,
		`{"do":[{"control":{"name":"winch"},"value":1}],"when":"now"}`:                                                             "it must be a control of a project",
	} {
		a := h.do("POST", "/api/stage", body)
		require.GreaterOrEqual(t, a.status, 400)
		require.Contains(t, a.body, want)
		require.Empty(t, stageOf(t, h.do("GET", "/api/stage", "")).Changes)
	}
	require.Contains(t, h.do("DELETE", "/api/stage/queue/7", "").body, "that action is done already, or was taken back")
	require.Contains(t, h.do("POST", "/api/stage/back", "{}").body, "there is no action left to undo")
}
