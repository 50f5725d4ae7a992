package main

import (
	"bytes"
	"encoding/json"
	"net/http"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/server"
)

// A project of a folder is rendered and served by its name, also while the folder is in use; a name that is not there is
// answered with those that are.
func TestProjectsByName(t *testing.T) {
	folder := t.TempDir()
	ask := func(r running, method, path, body string, into any) {
		request, err := http.NewRequestWithContext(t.Context(), method, r.url+path, strings.NewReader(body))
		require.NoError(t, err)
		request.Header.Set("Content-Type", "application/json")
		response, err := http.DefaultClient.Do(request)
		require.NoError(t, err)
		defer response.Body.Close()
		require.Equal(t, http.StatusOK, response.StatusCode)
		require.NoError(t, json.NewDecoder(response.Body).Decode(into))
	}
	r := serve(t, folder)
	var state server.ProjectState
	ask(r, "POST", "/api/projects", `{"revision":1,"from":"blank"}`, &state)
	require.Equal(t, int64(2), state.Document)
	var listed []server.ListedProject
	ask(r, "POST", "/api/projects/1/name", `{"name":"Ferry quay"}`, &listed)
	require.Len(t, listed, 2)
	for _, one := range listed {
		require.NotEmpty(t, one.Picture)
		require.Equal(t, one.ID == 2, one.Open)
	}

	render := func(name string) (code int, stdout, stderr string) {
		var out, errs bytes.Buffer
		code = run(t.Context(), []string{"render", "--named", name, "--data", folder, "--bars", "2", "--out", filepath.Join(t.TempDir(), "x.mid")}, &out, &errs)
		return code, out.String(), errs.String()
	}
	code, stdout, stderr := render("Ferry quay")
	require.Zero(t, code, stderr)
	require.Contains(t, stdout, "2 bars")
	code, _, stderr = render("Gulls")
	require.Equal(t, 2, code)
	require.Contains(t, stderr, "there is no project “Gulls”; the folder has “")
	code, stderr = r.stop()
	require.Zero(t, code, stderr)

	r = serve(t, folder, "--open", "Ferry quay")
	ask(r, "GET", "/api/project", "", &state)
	require.Equal(t, int64(1), state.Document)
	require.Equal(t, "Ferry quay", state.Project.Name)
	code, stderr = r.stop()
	require.Zero(t, code, stderr)
	var out, errs bytes.Buffer
	require.Equal(t, 2, run(t.Context(), []string{"serve", "--addr", "127.0.0.1:0", "--data", folder, "--open", "Gulls"}, &out, &errs))
	require.Contains(t, errs.String(), "no project “Gulls”")
	code, _, stderr = render("Ferry quay")
	require.Zero(t, code, stderr, "and when nobody has the folder")
	require.Equal(t, 2, run(t.Context(), []string{"render", "--named", "X", "--data", t.TempDir(), "--bars", "1", "--out", "x.mid"}, &out, &errs))
}
