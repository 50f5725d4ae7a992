package server_test

import (
	"encoding/json"
	"fmt"
	"net/http"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/server"
	"jettyfog/internal/studio"
)

// withSong opens the demo, which has scenes and a song.
func withSong(t *testing.T) *house {
	h := start(t)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/projects", `{"revision":1,"from":"example"}`).status)
	return h
}

// Scenes, sections and ramps are asked for, refused in one sentence each where they cannot be, and told to every page.
func TestTheSongByRequests(t *testing.T) {
	h := withSong(t)
	page := h.connect()
	for want, request := range map[string][2]string{
		"there is no such scene":                                  {"/api/stage/scene", `{"scene":99,"when":"now"}`},
		"when is":                                                 {"/api/stage/scene", `{"scene":1,"when":"soon"}`},
		"tempo is 5; it must be 10000 to 400000":                  {"/api/stage/ramp", `{"tempo":5,"bars":4}`},
		"bars is 0; it must be 1 to 64":                           {"/api/stage/ramp", `{"tempo":90000,"bars":0}`},
		"section is missing; it must be there":                    {"/api/transport", `{"do":"section"}`},
		"section is 1000001; it must be 0 to 1000000":             {"/api/stage", `{"do":[{"control":{"name":"section"},"value":1000001}],"when":"bar"}`},
		"there is no set list of that name":                       {"/api/setlists/go", `{"name":"Opening","places":1,"revision":2}`},
		"it must be 1 to 60 printable characters":                 {"/api/setlists", `{"name":"","projects":[1]}`},
		"edit.setSection.section.bars is 0; it must be 1 to 4096": {"/api/edits", `{"revision":2,"edit":{"setSection":{"section":{"id":0,"name":"Ebb","bars":0,"repeats":1}}}}`},
		"an outline needs the number of a bar, from 0":            {"", "/api/roster?bar=0&bars=17"},
	} {
		method, path, body := "POST", request[0], request[1]
		if path == "" {
			method, path, body = "GET", body, ""
		}
		a := h.do(method, path, body)
		require.GreaterOrEqual(t, a.status, 400, want)
		require.Contains(t, a.body, want)
	}
	m := stageOf(t, h.do("POST", "/api/stage/scene", `{"scene":4,"when":"now"}`))
	require.Len(t, m.Changes, 6, "those that differ from what is written, and that it is on")
	require.Equal(t, 1, m.Back)
	require.Empty(t, stageOf(t, h.do("POST", "/api/stage/back", "{}")).Changes)

	require.Equal(t, http.StatusOK, h.do("POST", "/api/edits", `{"revision":2,"edit":{"removeTrack":{"track":3}}}`).status)
	require.Len(t, stageOf(t, h.do("POST", "/api/stage/scene", `{"scene":4,"when":"now"}`)).Changes, 5)
	told := page.next(func(m server.Message) bool { return m.Notice != nil })
	require.Equal(t, "Scene “Fog signal” leaves out 2 values of what is gone, or cannot be now; all others count.", told.Notice.Text)

	require.Equal(t, http.StatusOK, h.do("POST", "/api/transport", `{"do":"song","song":true}`).status)
	song := stageOf(t, h.do("GET", "/api/stage", "")).Song
	require.True(t, song.Plays)
	require.Len(t, song.Sections, 6)
	require.Equal(t, 4*4*score.TicksPerQuarter, song.Sections[1].From)
	var pictures []server.ScenePicture
	require.NoError(t, json.Unmarshal([]byte(h.do("GET", "/api/scenes", "").body), &pictures))
	require.Len(t, pictures, 7)
	require.NotEmpty(t, pictures[0].Notes)
	require.Equal(t, http.StatusOK, h.do("GET", "/api/roster?bar=4&bars=8", "").status)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/transport", `{"do":"play"}`).status)
	page.next(func(m server.Message) bool { return m.Stage != nil && len(m.Stage.Given) > 0 })
	require.Equal(t, http.StatusOK, h.do("POST", "/api/transport", `{"do":"section","section":{"places":1,"when":"bar"}}`).status)
	page.next(func(m server.Message) bool { return m.Stage != nil && len(m.Stage.Queue) == 1 })
	require.Equal(t, http.StatusOK, h.do("GET", "/api/roster?bar=0&bars=8", "").status)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/transport", `{"do":"song"}`).status)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/transport", `{"do":"stop"}`).status)
}

// A set list is played through project by project; one that is deleted is said which, and nothing changes.
func TestASetListIsPlayedThrough(t *testing.T) {
	h := withSong(t)
	require.Equal(t, "[]\n", h.do("GET", "/api/setlists", "").body)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/projects/1/copy", `{}`).status)
	lists := func(body string) (lists []studio.SetList) {
		a := h.do("POST", "/api/setlists", body)
		require.Equal(t, http.StatusOK, a.status, a.body)
		require.NoError(t, json.Unmarshal([]byte(a.body), &lists))
		return lists
	}
	require.Equal(t, []studio.SetList{{Name: "Opening", Projects: []int64{2, 3, 1}}}, lists(`{"name":"Opening","projects":[2,3,1]}`))
	next := func(places int) answer {
		return h.do("POST", "/api/setlists/go", fmt.Sprintf(`{"name":"Opening","places":%d,"revision":%d}`, places, h.studio.State().Revision))
	}
	require.Equal(t, http.StatusOK, next(1).status)
	require.Equal(t, int64(3), h.studio.State().Document)
	require.Equal(t, http.StatusOK, next(1).status)
	require.Equal(t, int64(1), h.studio.State().Document)
	require.Contains(t, next(1).body, "the set list “Opening” has no project there; what plays plays on")
	require.Equal(t, http.StatusOK, h.do("DELETE", "/api/projects/3", "").status)
	missing := next(-1)
	require.Equal(t, http.StatusConflict, missing.status)
	require.Contains(t, missing.body, "number 2 of the set list “Opening” is not in the folder, or was deleted: nothing was opened")
	require.Equal(t, int64(1), h.studio.State().Document)
	require.Equal(t, http.StatusOK, next(-2).status)
	require.Equal(t, int64(2), h.studio.State().Document)
	require.Contains(t, h.do("POST", "/api/setlists/go", `{"name":"Opening","places":1,"revision":1}`).body, "changed")
	h.kept.Fail(true)
	require.GreaterOrEqual(t, h.do("POST", "/api/setlists", `{"name":"Opening","projects":[]}`).status, 500)
	h.kept.Fail(false)
	require.Empty(t, lists(`{"name":"Opening","projects":[]}`))
}
