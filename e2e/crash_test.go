package e2e

import (
	"context"
	"encoding/json"
	"net/http"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/coder/websocket"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/take"
	"jettyfog/internal/server"
)

// A kill -9 in the middle of recording loses at most the last second: all that was heard a second
// before is in the take that the next start finds, the take is whole, and it can be played again, with what was done.
func TestAKillLosesAtMostASecond(t *testing.T) {
	data := t.TempDir()
	a := start(t, data)
	ctx, cancel := context.WithTimeout(t.Context(), patience)
	defer cancel()
	listening, _, err := websocket.Dial(ctx, a.url+"/ws", nil)
	require.NoError(t, err)
	listening.SetReadLimit(1 << 20)
	require.Equal(t, http.StatusOK, a.post("/api/edits", `{"revision":1,"edit":{"setProject":{"tempo":300000}}}`))
	require.Equal(t, http.StatusOK, a.post("/api/transport", `{"do":"record"}`))

	var sounds []server.WireSound
	ask := func() int64 {
		require.NoError(t, listening.Write(ctx, websocket.MessageText, []byte(`{"sent":0}`)))
		for {
			_, message, err := listening.Read(ctx)
			require.NoError(t, err)
			var m server.Message
			require.NoError(t, json.Unmarshal(message, &m))
			if m.Batch != nil {
				sounds = append(sounds, m.Batch.Sounds...)
			}
			if m.Clock != nil {
				return m.Clock.Server
			}
		}
	}
	var now int64
	done := false
	for began := ask(); now < began+3*time.Second.Nanoseconds(); now = ask() {
		require.NoError(t, ctx.Err())
		if !done && now > began+time.Second.Nanoseconds() {
			done = true
			require.Equal(t, http.StatusOK, a.post("/api/stage", `{"when":"now","do":[{"control":{"name":"swing"},"value":650}]}`))
		}
	}
	a.kill()

	again := start(t, data)
	recorded := again.takes()
	require.Len(t, recorded, 1)
	heard, lost := 0, 0
	for _, sound := range sounds {
		if sound.Velocity == 0 || sound.At > now {
			continue
		}
		heard++
		if sound.At > now-time.Second.Nanoseconds() {
			lost++
		}
	}
	require.GreaterOrEqual(t, recorded[0].Notes, heard-lost)
	require.Greater(t, heard-lost, 10)
	var wake server.WakeView
	require.NoError(t, json.Unmarshal(again.download("/api/wake?bars=16"), &wake))
	require.NotEmpty(t, wake.Notes, "the wake has it too, and can be read")

	midi := again.download("/api/takes/" + strconv.FormatInt(recorded[0].ID, 10) + ".mid?format=0&division=20160")
	starts := startsOf(t, midi)
	require.Len(t, starts, recorded[0].Notes)
	next := 0
	for _, sound := range sounds {
		if sound.Velocity > 0 && next < len(starts) {
			require.Equal(t, int64(sound.Tick), starts[next].tick)
			require.Equal(t, sound.Key, starts[next].key)
			next++
		}
	}
	require.Equal(t, http.StatusOK, again.post("/api/takes/"+strconv.FormatInt(recorded[0].ID, 10)+"/again", "{}"))
	replayed := again.takes()
	require.Len(t, replayed, 2)
	require.Equal(t, starts, startsOf(t, again.download("/api/takes/"+strconv.FormatInt(replayed[0].ID, 10)+".mid?format=0&division=20160")))
}

// takes asks for the list of takes as a page gets it.
func (a *app) takes() (takes []take.Summary) {
	a.t.Helper()
	a.told(func(m server.Message) bool {
		if m.Takes != nil {
			takes = m.Takes.Takes
		}
		return m.Takes != nil
	})
	return takes
}

// told listens to what pages are told from the first on, until a condition holds of it.
func (a *app) told(condition func(server.Message) bool) {
	a.t.Helper()
	ctx, cancel := context.WithTimeout(context.Background(), patience)
	defer cancel()
	socket, _, err := websocket.Dial(ctx, a.url+"/ws", nil)
	require.NoError(a.t, err)
	defer socket.CloseNow()
	socket.SetReadLimit(1 << 20)
	for told := false; !told; {
		_, data, err := socket.Read(ctx)
		require.NoError(a.t, err)
		var m server.Message
		require.NoError(a.t, json.Unmarshal(data, &m))
		told = condition(m)
	}
}

func (a *app) post(path, body string) int {
	a.t.Helper()
	response, err := http.Post(a.url+path, "application/json", strings.NewReader(body))
	require.NoError(a.t, err)
	require.NoError(a.t, response.Body.Close())
	return response.StatusCode
}
