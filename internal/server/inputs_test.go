package server_test

import (
	"fmt"
	"net/http"
	"slices"
	"testing"
	"time"

	"github.com/coder/websocket"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/input"
	"jettyfog/internal/live"
	"jettyfog/internal/server"
)

const withInputs = `{"revision":1,"edit":{"setProject":{"inputs":[{"id":1,"name":"Keys","kind":"serverDevice","playsIn":true,"switches":true},` +
	`{"id":2,"name":"Pads","kind":"browserPort","switches":true}],` +
	`"switches":[{"message":"note","channel":0,"number":36,"control":{"name":"fill"},"value":1,"way":"momentary","when":"now"},` +
	`{"message":"control","channel":0,"number":67,"control":{"name":"keep"},"do":"keep","value":2,"when":"now"},` +
	`{"message":"program","channel":0,"number":3,"control":{"name":"mute","track":9},"value":1,"when":"now"}]}}}`

// changes waits until there are so many live changes.
func (s *socket) changes(count int) {
	s.next(func(m server.Message) bool { return m.Stage != nil && len(m.Stage.Changes) == count })
}

// What comes in at a page presses switches; what it leaves down when it goes, or its port does, is released.
func TestAPageSendsWhatComesIn(t *testing.T) {
	h := start(t)
	page, other := h.joined(), h.joined()
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/edits", withInputs).status)
	page.in(`{"kind":"screen","at":0,"message":[144,36,90]}`)
	other.changes(1)
	page.in(`{"kind":"screen","at":0,"message":[144,36,0]}`)
	other.changes(0)
	page.in(`{"kind":"browserPort","id":2,"at":99000000000000,"message":[153,36,90]}`)
	other.changes(1)
	page.in(`{"kind":"browserPort","id":2,"at":0,"message":[]}`)
	other.changes(0)
	for _, nothing := range []string{`[248,0,0]`, `[400,36,90]`, `[144,36]`, `[254]`, `[-5,36,90]`} {
		page.in(fmt.Sprintf(`{"kind":"screen","at":0,"message":%s}`, nothing))
	}
	page.in(`{"kind":"screen","at":0,"message":[192,3]}`)
	notice := page.next(func(m server.Message) bool { return m.Notice != nil }).Notice.Text
	require.Contains(t, notice, "What came in did nothing: ")
	page.in(`{"kind":"osc","at":0,"message":[144,36,90]}`)
	notice = page.next(func(m server.Message) bool { return m.Notice != nil }).Notice.Text
	require.Equal(t, "What came in did nothing: only the keyboard on the screen and ports of the browser are inputs of a page.", notice)
	page.in(`{"kind":"screen","at":0,"message":[144,36,90]}`)
	other.changes(1)
	require.NoError(t, page.Close(websocket.StatusNormalClosure, ""))
	other.changes(0)
}

// A device is bound to an input, heard, shown to pages, and released when it is unplugged; a pedal on it keeps the last bars.
func TestADeviceIsHeard(t *testing.T) {
	h := start(t)
	page := h.joined()
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/edits", withInputs).status)
	stands := func(words string) {
		page.next(func(m server.Message) bool {
			return m.Inputs != nil && slices.ContainsFunc(m.Inputs.Inputs, func(i input.InputState) bool { return i.Input == 1 && i.Words == words })
		})
	}
	stands("no device is selected")
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/inputs/bind", `{"input":"Keys","device":"Quay synth"}`).status)
	require.Equal(t, map[string]string{"Keys": "Quay synth"}, h.kept.InputBindings())
	stands("hears Quay synth")
	h.devices.came <- []byte{0x92, 36, 80}
	heard := page.next(func(m server.Message) bool { return m.Heard != nil }).Heard
	require.Equal(t, 1, heard.ID)
	require.Equal(t, []int{0x92, 36, 80}, heard.Message)
	page.changes(1)
	h.devices.unplug(true)
	page.changes(0)
	stands("Quay synth is not plugged in")
	h.devices.unplug(false)
	stands("hears Quay synth")

	h.devices.came <- []byte{0xB0, 67, 127, 67, 0}
	notice := page.next(func(m server.Message) bool { return m.Notice != nil && m.Notice.Text[:8] == "The last" }).Notice.Text
	require.Contains(t, notice, "The last 2 bars could not be kept: nothing was played yet that could be kept.")
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/transport", `{"do":"play"}`).status)
	page.next(func(m server.Message) bool { return m.Batch != nil && len(m.Batch.Sounds) > 0 })
	require.Eventually(t, func() bool { return h.do(http.MethodGet, "/api/wake?bars=2", "").body != "null\n" }, patience, time.Millisecond)
	h.devices.came <- []byte{0xB0, 67, 127, 67, 0}
	notice = page.next(func(m server.Message) bool { return m.Notice != nil }).Notice.Text
	require.Contains(t, notice, "Kept the last 2 bars as a take: ")
	require.NotEmpty(t, h.connect().next(isTakes).Takes.Takes)

	require.Equal(t, http.StatusUnprocessableEntity, h.do(http.MethodPost, "/api/inputs/bind", `{"input":"","device":"Quay synth"}`).status)
}

// The simulated clock is followed: its start begins playing, which pages are told, and what is refused of it is said.
func TestTheSimulatedClockIsFollowed(t *testing.T) {
	h := start(t)
	page := h.joined()
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/edits", `{"revision":1,"edit":{"setProject":{"inputs":[{"id":1,"name":"Other","kind":"serverDevice"}],"clockIn":{"input":1}}}}`).status)
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/inputs/bind", `{"input":"Other","device":"simulated clock"}`).status)
	clock := func(state live.ClockState) live.Status {
		return *page.next(func(m server.Message) bool {
			return m.Transport != nil && m.Transport.Clock != nil && m.Transport.Clock.State == state
		}).Transport
	}
	clock(live.ClockSilent)
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/transport", `{"do":"play"}`).status)
	require.False(t, clock(live.ClockWaits).Playing)
	require.Eventually(t, func() bool { // once it is heard
		h.do(http.MethodPost, "/api/inputs/clock", `{"do":"start"}`)
		return clock(live.ClockWaits).Clock.State == live.ClockWaits
	}, patience, 1)
	require.True(t, clock(live.ClockLeads).Playing)
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/transport", `{"do":"move","millis":5}`).status)
	require.Equal(t, http.StatusUnprocessableEntity, h.do(http.MethodPost, "/api/transport", `{"do":"move","millis":101}`).status)
	require.Equal(t, http.StatusUnprocessableEntity, h.do(http.MethodPost, "/api/transport", `{"do":"one","beats":3}`).status)
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/inputs/clock", `{"do":"stop"}`).status)
	require.False(t, clock(live.ClockComes).Playing)
	refused := h.do(http.MethodPost, "/api/inputs/clock", `{"do":"position","position":20000}`)
	require.Equal(t, http.StatusUnprocessableEntity, refused.status)
	require.Contains(t, refused.body, "0 to 16383")
}
