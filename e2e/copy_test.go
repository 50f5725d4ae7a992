package e2e

import (
	"encoding/json"
	"fmt"
	"net/http"
	"sync/atomic"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/server"
)

// revision returns the revision of the project.
func (a *app) revision() int64 {
	a.t.Helper()
	var state server.ProjectState
	require.NoError(a.t, json.Unmarshal(a.download("/api/project"), &state))
	return state.Revision
}

// edit edits the project as another page would: where a page's own edit comes between, it is asked for again.
func (a *app) edit(edit string) {
	a.t.Helper()
	status := http.StatusConflict
	for tries := 0; status == http.StatusConflict && tries < 20; tries++ {
		status = a.post("/api/edits", fmt.Sprintf(`{"revision":%d,"edit":%s}`, a.revision(), edit))
	}
	require.Equal(a.t, http.StatusOK, status, edit)
}

// unwire has all tracks go to the built-in sound alone, and the project know no other output.
func (a *app) unwire() {
	a.t.Helper()
	routes, err := json.Marshal([]score.Route{score.WholeRoute(score.BuiltIn)})
	require.NoError(a.t, err)
	for _, track := range a.project().Tracks {
		a.edit(fmt.Sprintf(`{"setTrack":{"track":%d,"routes":%s}}`, track.ID, routes))
	}
	a.edit(`{"setProject":{"outputs":[]}}`)
}

// A page's copy of the project, to which each edit is added as it comes, is compared with the server's whenever nobody edits:
// where it is the same nothing is fetched, where it is not the whole is.
func TestACopyOfTheProjectIsCompared(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	var asked, fetched atomic.Int64
	wrong := atomic.Bool{}
	router := p.HijackRequests()
	router.MustAdd("*/api/project/digest", func(h *rod.Hijack) {
		h.MustLoadResponse()
		if wrong.CompareAndSwap(true, false) {
			h.Response.SetBody(fmt.Sprintf(`{"revision":%d,"digest":"00"}`, a.revision()))
		}
		asked.Add(1)
	})
	router.MustAdd("*/api/project", func(h *rod.Hijack) {
		fetched.Add(1)
		h.MustLoadResponse()
	})
	go router.Run()
	defer router.MustStop()
	compared := func() {
		before := asked.Load()
		require.Eventually(t, func() bool { return asked.Load() > before }, patience, 20*time.Millisecond)
	}
	for _, edit := range []string{
		`{"setSteps":{"track":1,"pattern":0,"part":0,"lane":"gate","steps":[{"step":12,"value":2}]}}`,
		`{"setDetail":{"track":1,"pattern":0,"part":0,"step":12,"detail":{"skip":true}}}`,
		`{"setDetail":{"track":1,"pattern":0,"part":0,"step":2,"detail":{"stretch":3}}}`,
		`{"addTrack":{"at":1,"copy":3}}`,
		`{"removePart":{"track":3,"pattern":0,"part":1}}`,
		`{"setProject":{"meterChanges":[{"bar":3,"meter":{"beats":7,"unit":8,"groups":[2,2,3]}}]}}`,
		`{"setLane":{"track":2,"pattern":0,"part":0,"lane":"pitch","spread":{"chance":50,"depth":30,"lowest":-3,"highest":4,"lean":0,"grain":1}}}`,
		`{"removeTrack":{"track":2}}`,
	} {
		a.edit(edit)
	}
	require.Equal(t, http.StatusOK, a.post("/api/undo", fmt.Sprintf(`{"revision":%d}`, a.revision())))
	compared()
	p.MustEval(`() => new Promise((resolve) => requestIdleCallback(resolve))`)
	require.Zero(t, fetched.Load(), "the copy is whole")

	wrong.Store(true)
	a.edit(`{"setProject":{"tempo":90000}}`)
	p.MustElementR("[role=alert], [role=status]", "copy of the project had gone wrong; it was fetched anew")
	require.Equal(t, int64(1), fetched.Load())
	a.waitFor(func(s *score.Project) bool { return s.Tempo == 90_000 })
}
