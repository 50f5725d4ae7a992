package server_test

import (
	"encoding/json"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/server"
)

// Whatever is wrong with a request: the right status, one clear sentence, and nothing is changed.
func TestBadRequestsChangeNothing(t *testing.T) {
	h := start(t)
	before := h.studio.State()
	const edit = `{"revision":1,"edit":{"changeLuck":{"number":7}}}`
	for _, c := range []struct {
		name, method, path, body string
		headers                  []string
		status                   int
		want                     string
	}{
		{"malformed JSON", "POST", "/api/edits", `{"revision":1,`, nil, 400, "ends too early"},
		{"not JSON", "POST", "/api/edits", `luck=7`, nil, 400, "not valid JSON"},
		{"an unknown field", "POST", "/api/edits", `{"revision":1,"edit":{"fog":{}}}`, nil, 400, `unknown field "fog"`},
		{"no change", "POST", "/api/edits", `{"revision":1,"edit":{}}`, nil, 400, "exactly one change"},
		{"a wrong type", "POST", "/api/edits", `{"revision":"one"}`, nil, 400, "revision holds a JSON string"},
		{"out of range", "POST", "/api/edits", `{"revision":1,"edit":{"changeLuck":{"number":-1}}}`, nil, 422, "it must be 0 to 999999"},
		{"an edit of nothing", "POST", "/api/edits", `{"revision":1,"edit":{"setTrack":{"track":1}}}`, nil, 422, "changes nothing"},
		{"an unknown track", "POST", "/api/edits", `{"revision":1,"edit":{"setTrack":{"track":9,"mute":true}}}`, nil, 404, "there is no such track"},
		{"an old revision", "POST", "/api/edits", strings.Replace(edit, "1", "0", 1), nil, 409, "it is at revision 1, not 0"},
		{"no former luck", "POST", "/api/edits", `{"revision":1,"edit":{"backLuck":{}}}`, nil, 409, "no former luck"},
		{"nothing to undo", "POST", "/api/undo", `{"revision":1}`, nil, 409, "nothing to undo"},
		{"nothing to redo", "POST", "/api/redo", `{"revision":1}`, nil, 409, "nothing to redo"},
		{"a body over the limit", "POST", "/api/edits", strings.Repeat(" ", 4<<20) + edit, nil, 413, "larger than 4 MiB"},
		{"another content type", "POST", "/api/edits", edit, []string{"Content-Type", "text/plain"}, 415, "application/json"},
		{"a foreign origin", "POST", "/api/edits", edit, []string{"Origin", "http://elsewhere.example"}, 403, "may not use this server"},
		{"our own address by another scheme", "POST", "/api/edits", edit, []string{"Origin", strings.Replace(h.url, "http:", "https:", 1)}, 403, "may not use this server"},
		{"an opaque origin", "POST", "/api/edits", edit, []string{"Origin", "null"}, 403, "may not use this server"},
		{"a foreign origin that reads", "GET", "/api/project.json", "", []string{"Origin", "http://elsewhere.example"}, 403, "may not"},
		{"a foreign host", "GET", "/api/project.json", "", []string{"Host", "elsewhere.example"}, 421, "does not answer for the host"},
		{"a foreign page's socket", "GET", "/ws", "", []string{"Origin", "http://elsewhere.example"}, 403, "may not"},
		{"an unknown path", "GET", "/api/fog", "", nil, 404, "there is nothing at /api/fog"},
		{"another method", "DELETE", "/api/edits", "", nil, 405, "does not take DELETE"},
		{"writing the page", "POST", "/", "", nil, 405, "only be read"},
		{"a foreign file", "POST", "/api/projects/file?revision=1", `{"format":"x"}`, nil, 400, "not a project file"},
		{"a file without a revision", "POST", "/api/projects/file", `{}`, nil, 400, "needs the revision"},
		{"a project that is not there", "POST", "/api/projects/9/open", `{"revision":1}`, nil, 404, "no such project"},
		{"a project without a number", "DELETE", "/api/projects/first", "", nil, 404, "no such project"},
		{"the open project deleted", "DELETE", "/api/projects/1", "", nil, 409, "cannot be deleted"},
		{"an old revision opened from", "POST", "/api/projects", `{"revision":0,"from":"blank"}`, nil, 409, "it is at revision 1, not 0"},
		{"a project from nowhere", "POST", "/api/projects", `{"revision":1,"from":"elsewhere"}`, nil, 422, "from"},
		{"a project without a name", "POST", "/api/projects/1/name", `{"name":""}`, nil, 422, "name"},
		{"a chart without numbers", "GET", "/api/chart?track=one", "", nil, 400, "whole numbers"},
		{"a chart that is too long", "GET", "/api/chart?track=1&from=0&to=9007199254740992", "", nil, 422, "at most 64 whole notes"},
		{"a chart of an unknown track", "GET", "/api/chart?track=9&from=0&to=1", "", nil, 404, "no such track"},
		{"a chart of no luck", "GET", "/api/chart?track=1&from=0&to=1&luck=-1", "", nil, 422, "luck must be 0 to 999999"},
		{"draws of an unknown part", "GET", "/api/draws?track=1&part=1&from=0&to=1&lane=velocity", "", nil, 404, "no such part"},
		{"draws of a lane without spread", "GET", "/api/draws?track=1&part=0&from=0&to=1&lane=velocity", "", nil, 404, "has no spread"},
		{"a roster of no bar", "GET", "/api/roster?bar=-1", "", nil, 422, "the number of a bar"},
		{"a roll out of range", "POST", "/api/roll", `{"revision":1,"track":1,"pattern":0,"part":0,"lane":"gate","scope":"lane","luck":1,"density":101}`, nil, 422, "density is 101; it must be 0 to 100"},
		{"a roll of nothing", "POST", "/api/roll", `{"revision":1,"track":1,"pattern":0,"part":0,"lane":"pitch","scope":"lane","luck":1,"density":0}`, nil, 422, "the number of steps to roll is 0"},
		{"a roll of an unknown part", "POST", "/api/roll", `{"revision":1,"track":1,"pattern":0,"part":3,"lane":"gate","scope":"lane","luck":1,"density":1}`, nil, 404, "no such part"},
		{"a place beyond the history", "POST", "/api/history", `{"revision":1,"position":5}`, nil, 409, "nothing to redo"},
		{"a history before nothing", "GET", "/api/history?before=0", "", nil, 422, "before a position from 1"},
		{"a bad scale file", "POST", "/api/tuning", `{"revision":1,"scl":"x"}`, nil, 422, "the scale file cannot be used"},
		{"a luck on trial out of range", "POST", "/api/stage", `{"do":[{"control":{"name":"luck"},"value":1000000}],"when":"now"}`, nil, 422, "luck is 1000000; it must be 0 to 999999"},
		{"an unknown order", "POST", "/api/transport", `{"do":"dance"}`, nil, 422, "can play, goOn, jump, loop, song, section, stop"},
		{"a bar that is too late", "POST", "/api/transport", `{"do":"play","from":10001}`, nil, 422, "from is 10001; it must be 0 to 10000"},
		{"a jump to no bar", "POST", "/api/transport", `{"do":"jump","jump":{"to":0,"when":"bar"}}`, nil, 422, "jump.to is 0; it must be 1 to 10000"},
		{"a jump at no moment", "POST", "/api/transport", `{"do":"jump","jump":{"to":3}}`, nil, 422, "when is"},
		{"a loop from no bar", "POST", "/api/transport", `{"do":"loop","loop":{"from":0,"bars":2}}`, nil, 422, "loop.from is 0; it must be 1 to 10000"},
		{"a log of no take", "GET", "/api/takes/9/log.json", "", nil, 404, "there is no such take"},
		{"no take played again", "POST", "/api/takes/9/again", `{}`, nil, 404, "there is no such take"},
		{"a take played again with no luck", "POST", "/api/takes/9/again", `{"luck":-1}`, nil, 422, "luck is -1; it must be 0 to 999999"},
		{"a log of nothing", "GET", "/api/transport/log.json", "", nil, 409, "there is no log: nothing was played yet"},
		{"a loop of no bars", "POST", "/api/transport", `{"do":"loop","loop":{"from":3,"bars":0}}`, nil, 422, "loop.bars is 0; it must be 1 to 4096"},
		{"an unknown take", "GET", "/api/takes/5.mid", "", nil, 404, "no such take"},
		{"a take without a number", "GET", "/api/takes/x.mid", "", nil, 404, "no such take"},
		{"an unknown format", "GET", "/api/takes/5.mid?format=2", "", nil, 422, "format is 2; it must be 0 or 1"},
		{"an unknown division", "GET", "/api/takes/5.mid?division=96", "", nil, 422, "960 or 20160"},
	} {
		t.Run(c.name, func(t *testing.T) {
			got := h.do(c.method, c.path, c.body, c.headers...)
			require.Equal(t, c.status, got.status, got.body)
			var refusal server.Refusal
			require.NoError(t, json.Unmarshal([]byte(got.body), &refusal))
			require.Contains(t, refusal.Error, c.want)
			require.Equal(t, before, h.studio.State())
		})
	}
	require.Equal(t, http.StatusOK, h.do("POST", "/api/edits", edit, "Origin", h.url).status)
}

func TestThePageIsServedWithItsPolicies(t *testing.T) {
	h := start(t)
	root := h.do("GET", "/", "")
	require.Equal(t, http.StatusOK, root.status)
	require.Contains(t, root.body, "Jettyfog")
	require.Equal(t, "no-cache", root.header.Get("Cache-Control"))
	require.Contains(t, root.header.Get("Content-Security-Policy"), "default-src 'self'")
	require.Contains(t, root.header.Get("Content-Security-Policy"), "frame-ancestors 'none'")
	require.Equal(t, "nosniff", root.header.Get("X-Content-Type-Options"))
	require.Contains(t, h.do("GET", "/assets/a.js", "").header.Get("Cache-Control"), "immutable")
}
