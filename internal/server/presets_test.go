package server_test

import (
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/preset"
	"jettyfog/internal/core/score"
	"jettyfog/internal/server"
	"jettyfog/internal/studio"
)

// A part is kept by its name, listed before the shipped ones, heard without changing anything, used as one edit in another project, deleted, and comes back from its
// file; a shipped one that somebody keeps anew is theirs from then on.
func TestPresetsAreKeptAndUsed(t *testing.T) {
	h := start(t)
	listed := ask[[]server.ListedPreset](h, "/api/presets/", `{"kind":"part","name":"Bells at eight","words":"Bells.","at":{"track":1,"pattern":0,"part":0,"lane":"pitch"}}`)
	require.Equal(t, server.ListedPreset{Kind: "part", Name: "Bells at eight", Words: "Bells.", Own: true}, listed[0])
	require.Len(t, listed, 63)
	require.False(t, listed[1].Own)

	file := h.do(http.MethodGet, "/api/presets/file?kind=part&name="+url.QueryEscape("Bells at eight"), "")
	require.Equal(t, http.StatusOK, file.status)
	require.Contains(t, file.header.Get("Content-Disposition"), `Bells at eight.preset.json`)
	kept, err := preset.Decode([]byte(file.body))
	require.NoError(t, err)
	require.Equal(t, "Bells at eight", kept.Name)

	now := strconv.FormatInt(h.studio.State().Revision, 10)
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/projects", `{"revision":`+now+`,"from":"blank","atOnce":true}`).status)
	before := h.studio.State()
	const at = `"at":{"track":1,"pattern":0,"part":0,"lane":"velocity"}}`
	heard := ask[preset.HeardPreset](h, "/api/presets/hear", `{"kind":"part","name":"Bells at eight",`+at)
	require.NotEmpty(t, heard.Notes)
	require.Equal(t, before.Project, h.studio.State().Project)
	used := ask[studio.Snapshot](h, "/api/presets/use", `{"kind":"part","name":"Bells at eight","revision":`+strconv.FormatInt(before.Revision, 10)+`,`+at)
	require.Equal(t, kept.Part.Lanes, used.Project.Tracks[0].Parts()[0].Lanes)

	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/presets/delete", `{"kind":"part","name":"Bells at eight",`+at).status)
	require.Equal(t, http.StatusNotFound, h.do(http.MethodPost, "/api/presets/delete", `{"kind":"part","name":"Bells at eight",`+at).status)
	require.Equal(t, http.StatusNotFound, h.do(http.MethodPost, "/api/presets/use", `{"kind":"part","name":"Bells at eight","revision":1,`+at).status)
	back := ask[[]server.ListedPreset](h, "/api/presets/file", file.body)
	require.Equal(t, "Bells at eight", back[0].Name)

	rolled := ask[[]server.ListedPreset](h, "/api/presets/", `{"kind":"roll","name":"Gusts","roll":{"name":"x","lane":"length","lowest":1,"highest":9,"density":50,"lean":0},`+at)
	require.True(t, slices.ContainsFunc(rolled, func(p server.ListedPreset) bool { return p.Kind == preset.RollKind && p.Name == "Gusts" && p.Own }))
	used = ask[studio.Snapshot](h, "/api/presets/use", `{"kind":"roll","name":"Gusts","revision":`+strconv.FormatInt(h.studio.State().Revision, 10)+`,`+at)
	require.Equal(t, []score.Recipe{{Name: "Gusts", Lane: score.Length, Lowest: 1, Highest: 9, Density: 50}}, used.Project.Recipes)
}

// What cannot be kept, heard or used is said, and a disk that is full keeps nothing and loses nothing.
func TestPresetsThatFail(t *testing.T) {
	h := start(t)
	const at = `"at":{"track":1,"pattern":0,"part":0,"lane":"pitch"}}`
	for body, want := range map[string]string{
		`{"kind":"kit","name":"a",` + at:                                                  "what is kept is not there; it must be",
		`{"kind":"weights","name":"a",` + at:                                              "what is kept is not there; it must be a table of weights",
		`{"kind":"tune","name":"a",` + at:                                                 "kind is",
		`{"kind":"part","name":"",` + at:                                                  "name",
		`{"kind":"part","name":"a","at":{"track":9,"pattern":0,"part":0,"lane":"pitch"}}`: "there is no such track",
	} {
		answer := h.do(http.MethodPost, "/api/presets/", body)
		require.GreaterOrEqual(t, answer.status, 400, body)
		require.Contains(t, answer.body, want, body)
	}
	require.Equal(t, http.StatusBadRequest, h.do(http.MethodPost, "/api/presets/file", `{"format":"other"}`).status)
	require.Equal(t, http.StatusNotFound, h.do(http.MethodGet, "/api/presets/file?kind=part&name=none", "").status)
	h.kept.Fail(true)
	for _, path := range []string{"/api/presets/", "/api/presets/delete"} {
		refused := h.do(http.MethodPost, path, `{"kind":"part","name":"a",`+at)
		require.Contains(t, refused.body, "disk is full", path)
	}
	h.kept.Fail(false)
	require.Len(t, ask[[]server.ListedPreset](h, "/api/presets/", `{"kind":"part","name":"a",`+at), 63)
}
