package e2e

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// BenchmarkEdit edits a step of a project of 32 tracks of 8 patterns in the real program, on its disk, and reports how long
// the answer takes and how large it is; the floor is a request that changes nothing.
func BenchmarkEdit(b *testing.B) {
	a := start(b, b.TempDir())
	project := thirtyTwoTracks(b, a.project())
	for i := range project.Tracks {
		track := &project.Tracks[i]
		for id := 1; id < 8; id++ {
			pattern := track.Patterns[0]
			pattern.ID, pattern.Name = id, fmt.Sprint(id)
			track.Patterns = append(track.Patterns, pattern)
		}
	}
	a.replace(project)
	ask := func(path, body string) (answer []byte, took time.Duration) {
		request, err := http.NewRequest(http.MethodPost, a.url+path, strings.NewReader(body))
		require.NoError(b, err)
		request.Header.Set("Content-Type", "application/json")
		request.Header.Set("Prefer", "return=minimal")
		began := time.Now()
		response, err := http.DefaultClient.Do(request)
		require.NoError(b, err)
		defer response.Body.Close()
		answer, err = io.ReadAll(response.Body)
		took = time.Since(began)
		require.NoError(b, err)
		require.Equal(b, http.StatusOK, response.StatusCode, string(answer))
		return answer, took
	}
	var edits, floor []float64
	size := 0
	state := struct{ Revision int64 }{2}
	for n := 0; b.Loop(); n++ {
		answer, took := ask("/api/edits", fmt.Sprintf(
			`{"revision":%d,"edit":{"setSteps":{"track":%d,"pattern":0,"part":1,"lane":"velocity","steps":[{"step":%d,"value":%d}]}}}`, state.Revision, 1+n%32, n%16, 1+n%127))
		edits, size = append(edits, took.Seconds()*1e3), max(size, len(answer))
		require.NoError(b, json.Unmarshal(answer, &state))
		_, took = ask("/api/stage/reset", `{}`)
		floor = append(floor, took.Seconds()*1e3)
	}
	slices.Sort(edits)
	slices.Sort(floor)
	b.ReportMetric(edits[len(edits)/2], "p50-ms")
	b.ReportMetric(edits[len(edits)*99/100], "p99-ms")
	b.ReportMetric(edits[len(edits)/2]/floor[len(floor)/2], "x-floor")
	b.ReportMetric(float64(size), "bytes")
}
