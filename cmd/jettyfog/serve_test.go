package main

import (
	"bytes"
	"context"
	"encoding/json"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/coder/websocket"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/server"
)

// running is a program that serves.
type running struct {
	url  string
	stop func() (code int, stderr string)
}

// serve starts the program on a folder.
func serve(t *testing.T, folder string, args ...string) running {
	t.Helper()
	ctx, cancel := context.WithCancel(t.Context())
	printed := &lineWriter{lines: make(chan string, 10)}
	var stderr bytes.Buffer
	done := make(chan int, 1)
	go func() {
		done <- run(ctx, append([]string{"serve", "--addr", "127.0.0.1:0", "--data", folder}, args...), printed, &stderr)
	}()
	select {
	case code := <-done:
		t.Fatalf("it ended with %d: %s", code, stderr.String())
	case line := <-printed.lines:
		for !strings.HasPrefix(line, "Jettyfog is at ") {
			line = <-printed.lines
		}
		require.Regexp(t, `^Jettyfog is at http://127\.0\.0\.1:\d+ `, line)
		return running{strings.Fields(line)[3], func() (int, string) {
			cancel()
			return <-done, stderr.String()
		}}
	}
	panic("unreachable")
}

// lineWriter passes each line that is written on.
type lineWriter struct{ lines chan string }

func (w *lineWriter) Write(p []byte) (int, error) {
	w.lines <- string(p)
	return len(p), nil
}

func post(t *testing.T, url, body string) int {
	t.Helper()
	response, err := http.Post(url, "application/json", strings.NewReader(body))
	require.NoError(t, err)
	require.NoError(t, response.Body.Close())
	return response.StatusCode
}

// The server prints where it is, answers there under its own names, and goes when it is asked to.
func TestServe(t *testing.T) {
	r := serve(t, t.TempDir())
	for _, name := range []string{r.url, strings.Replace(r.url, "127.0.0.1", "localhost", 1)} {
		response, err := http.Get(name + "/api/project.json")
		require.NoError(t, err)
		require.NoError(t, response.Body.Close())
		require.Equal(t, http.StatusOK, response.StatusCode)
	}
	code, stderr := r.stop()
	require.Zero(t, code)
	require.Empty(t, stderr)
}

// A second start on the same folder says where the page of the first is, and changes nothing.
func TestASecondStartSaysWhereTheFirstIs(t *testing.T) {
	folder := t.TempDir()
	r := serve(t, folder)
	code, stdout, stderr := jettyfog("demo", "--addr", "127.0.0.1:0", "--data", folder)
	require.Equal(t, 1, code)
	require.Empty(t, stdout)
	require.Contains(t, stderr, "its page is at "+r.url)
	require.Equal(t, 1, strings.Count(stderr, "\n"))
	code, _ = r.stop()
	require.Zero(t, code)
}

// What cannot be kept when the program is stopped is said, in notes, with the reason.
func TestWhatCannotBeKeptIsSaid(t *testing.T) {
	folder := filepath.Join(t.TempDir(), "data")
	r := serve(t, folder)
	require.Equal(t, http.StatusOK, post(t, r.url+"/api/edits", `{"revision":1,"edit":{"setProject":{"tempo":400000}}}`))
	require.NoError(t, os.Rename(folder, folder+" elsewhere"))
	require.Equal(t, http.StatusServiceUnavailable, post(t, r.url+"/api/undo", `{"revision":2}`))
	require.Equal(t, http.StatusOK, post(t, r.url+"/api/transport", `{"do":"record"}`))
	// Once the second bar is announced, much of the first was heard.
	page, _, err := websocket.Dial(t.Context(), r.url+"/ws", nil)
	require.NoError(t, err)
	defer page.CloseNow()
	page.SetReadLimit(1 << 20)
	for bar := score.Demo().Meter.Bar(); ; {
		_, data, err := page.Read(t.Context())
		require.NoError(t, err)
		var m server.Message
		require.NoError(t, json.Unmarshal(data, &m))
		if m.Batch != nil && len(m.Batch.Sounds) > 0 && m.Batch.Sounds[0].Tick > bar {
			break
		}
	}
	require.Equal(t, http.StatusServiceUnavailable, post(t, r.url+"/api/wake", `{"bars":1}`))
	code, stderr := r.stop()
	require.Equal(t, 1, code)
	require.Regexp(t, `jettyfog: \d+ notes of takes and \d+ of the wake could not be kept: the folder of data was moved or deleted`, stderr)
}

// A damaged database is refused with what to do, and doing that starts the program with the latest copy.
func TestRestore(t *testing.T) {
	folder := t.TempDir()
	r := serve(t, folder)
	require.Equal(t, http.StatusOK, post(t, r.url+"/api/edits", `{"revision":1,"edit":{"changeLuck":{"number":7}}}`))
	require.Eventually(t, func() bool {
		copies, err := filepath.Glob(filepath.Join(folder, "copies", "*.db"))
		return err == nil && len(copies) == 1
	}, time.Minute, 10*time.Millisecond, "today's copy is made at the start")
	code, _ := r.stop()
	require.Zero(t, code)
	require.NoError(t, os.WriteFile(filepath.Join(folder, "jettyfog.db"), bytes.Repeat([]byte("fog "), 5000), 0o600))
	code, _, stderr := jettyfog("serve", "--addr", "127.0.0.1:0", "--data", folder)
	require.Equal(t, 1, code)
	require.Contains(t, stderr, "start with --restore")
	r = serve(t, folder, "--restore")
	code, _ = r.stop()
	require.Zero(t, code)
	aside, err := filepath.Glob(filepath.Join(folder, "damaged-*.db"))
	require.NoError(t, err)
	require.Len(t, aside, 1)
}
