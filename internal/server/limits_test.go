package server_test

import (
	"bufio"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net"
	"net/http"
	"net/http/httptest"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/health"
	"jettyfog/internal/memory"
	"jettyfog/internal/server"
)

// A body that does not come within its time is answered, and nothing was changed.
func TestASlowBody(t *testing.T) {
	h := startLimited(t, impatient)
	connection, err := net.Dial("tcp", h.host)
	require.NoError(t, err)
	defer connection.Close()
	_, err = fmt.Fprintf(connection, "POST /api/edits HTTP/1.1\r\nHost: %s\r\nContent-Type: application/json\r\nContent-Length: 60\r\n\r\n{\"revision\":1,", h.host)
	require.NoError(t, err)
	response, err := http.ReadResponse(bufio.NewReader(connection), nil)
	require.NoError(t, err)
	defer response.Body.Close()
	require.Equal(t, http.StatusRequestTimeout, response.StatusCode)
	var refusal server.Refusal
	require.NoError(t, json.NewDecoder(response.Body).Decode(&refusal))
	require.Equal(t, "the request came too slowly; nothing was changed; send it again", refusal.Error)
	require.Equal(t, int64(1), h.studio.State().Revision)
}

// A client that asks for much and reads nothing is hung up on.
func TestAClientThatDoesNotRead(t *testing.T) {
	h := startLimited(t, impatient)
	request, err := net.Dial("tcp", h.host)
	require.NoError(t, err)
	defer request.Close()
	require.NoError(t, request.(*net.TCPConn).SetReadBuffer(4096))
	require.NoError(t, request.SetWriteDeadline(time.Now().Add(patience)))
	// It asks on until every buffer between them is full of answers, and is hung up on.
	for err == nil {
		_, err = fmt.Fprintf(request, "GET /api/lists HTTP/1.1\r\nHost: %s\r\n\r\n", h.host)
	}
	require.NotErrorIs(t, err, os.ErrDeadlineExceeded)
}

// A handler that panics is answered for, with a body; what it was said before is all that is said.
func TestAPanicIsAnswered(t *testing.T) {
	panics := server.Watched(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.URL.Path == "/begun" {
			w.WriteHeader(http.StatusAccepted)
		}
		panic("fog")
	}))
	w := httptest.NewRecorder()
	panics.ServeHTTP(w, httptest.NewRequest(http.MethodGet, "/", nil))
	require.Equal(t, http.StatusInternalServerError, w.Code)
	var refusal server.Refusal
	require.NoError(t, json.NewDecoder(w.Body).Decode(&refusal))
	require.Contains(t, refusal.Error, "Jettyfog has made a mistake")
	w = httptest.NewRecorder()
	panics.ServeHTTP(w, httptest.NewRequest(http.MethodGet, "/begun", nil))
	require.Equal(t, http.StatusAccepted, w.Code)
	require.Empty(t, w.Body.String())
}

// Nothing is listed, what is missing is missing, and only what is there may be kept for ever.
func TestAssets(t *testing.T) {
	h := start(t)
	for path, status := range map[string]int{
		"/": 200, "/index.html": 301, "/assets/a.js": 200, "/assets/": 404, "/assets": 404, "/assets/b.js": 404, "/assets/../index.html": 404,
		"/assets/a.js/": 404, "/nothing": 404,
	} {
		request, err := http.NewRequestWithContext(t.Context(), http.MethodGet, h.url+path, nil)
		require.NoError(t, err)
		request.URL.Opaque = path // as it is
		response, err := http.DefaultTransport.RoundTrip(request)
		require.NoError(t, err)
		require.NoError(t, response.Body.Close())
		if path == "/assets/../index.html" {
			require.NotEqual(t, 200, response.StatusCode)
		} else {
			require.Equal(t, status, response.StatusCode, path)
		}
		require.Equal(t, path == "/assets/a.js", strings.Contains(response.Header.Get("Cache-Control"), "immutable"), path)
		require.Equal(t, "same-origin", response.Header.Get("Cross-Origin-Resource-Policy"))
		require.Contains(t, response.Header.Get("Content-Security-Policy"), "form-action 'none'")
	}
}

// A problem is on every page as long as it lasts, on those that come later too, and refused changes say why.
func TestAProblemIsOnEveryPage(t *testing.T) {
	h := start(t)
	hasProblems := func(count int) func(server.Message) bool {
		return func(m server.Message) bool { return m.Problems != nil && len(m.Problems.Problems) == count }
	}
	first := h.connect()
	first.next(hasProblems(0))
	full := &health.Problem{Kind: health.Full, Sentence: "the disk is full", Cause: errors.New("13")}
	h.board.Report(health.Folder, full)
	h.board.Report(health.Folder, full)
	h.board.Report(health.Wake, full)
	second := h.connect()
	for _, page := range []*socket{first, second} {
		require.Equal(t, []string{"the disk is full"}, page.next(hasProblems(1)).Problems.Problems)
	}
	h.board.Report(health.Folder, nil)
	h.board.Report(health.Wake, nil)
	first.next(hasProblems(0))
	second.next(hasProblems(0))

	h.kept.SetFault(func(string) memory.Fault { return memory.Refused })
	got := h.do("POST", "/api/edits", `{"revision":1,"edit":{"changeLuck":{"number":7}}}`)
	require.Equal(t, http.StatusInternalServerError, got.status)
	require.Contains(t, got.body, "the change was not stored, and the project is as it was: the disk is full")
}

// A request that is given up while its edit is stored: the edit is in memory and on every page all the same.
func TestAGivenUpEditIsOnEveryPage(t *testing.T) {
	h := start(t)
	page := h.connect()
	page.next(func(m server.Message) bool { return m.Project != nil && m.Project.Revision == 1 }) // it has been greeted
	ctx, giveUp := context.WithCancel(t.Context())
	release := make(chan struct{})
	h.kept.SetFault(func(string) memory.Fault {
		giveUp()
		<-release
		return memory.None
	})
	request, err := http.NewRequestWithContext(ctx, http.MethodPost, h.url+"/api/edits", strings.NewReader(`{"revision":1,"edit":{"changeLuck":{"number":7}}}`))
	require.NoError(t, err)
	request.Header.Set("Content-Type", "application/json")
	_, err = http.DefaultClient.Do(request)
	require.ErrorIs(t, err, context.Canceled)
	h.kept.SetFault(nil)
	close(release)
	told := page.next(func(m server.Message) bool { return m.Project != nil && m.Project.Revision == 2 || m.Clock != nil })
	require.Equal(t, []any{"luck", "number"}, told.Project.Changes[0].Path)
	require.Equal(t, h.kept.Opened().Revision, h.studio.State().Revision)
}

// Groups within groups count towards the limit of edits.
func TestNestedGroupsCount(t *testing.T) {
	h := start(t)
	group := `{"changeLuck":{"number":7}}`
	inner := `{"all":{"name":"a","edits":[` + strings.Repeat(group+",", 99) + group + `]}}`
	outer := `{"revision":1,"edit":{"all":{"name":"b","edits":[` + strings.Repeat(inner+",", 99) + inner + `]}}}`
	got := h.do("POST", "/api/edits", outer)
	require.Equal(t, http.StatusUnprocessableEntity, got.status)
	require.Contains(t, got.body, "the number of edits in all groups")
	require.Contains(t, got.body, fmt.Sprint(score.MaxEdits))
}
