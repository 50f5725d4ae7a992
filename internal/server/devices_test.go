package server_test

import (
	"errors"
	"net/http"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/device"
	"jettyfog/internal/server"
)

// workshop has one device, which notes what it is sent.
type workshop struct {
	got  chan []byte
	came chan []byte // what the device sends
	mu   sync.Mutex
	away bool
}

func newWorkshop() *workshop {
	return &workshop{got: make(chan []byte, 10_000), came: make(chan []byte, 10_000)}
}

func (w *workshop) list() ([]device.Device, error) {
	w.mu.Lock()
	defer w.mu.Unlock()
	if w.away {
		return nil, nil
	}
	return []device.Device{{Name: "Quay synth", Place: "card 1, device 0"}}, nil
}

func (w *workshop) listSending() ([]device.Device, error) { return w.list() }

// openFeed opens the device as one that sends.
func (w *workshop) openFeed(device.Device) (device.Feed, error) {
	return &workshopFeed{w, make(chan struct{})}, nil
}

type workshopFeed struct {
	*workshop
	closed chan struct{}
}

// Read implements device.Feed.
func (f *workshopFeed) Read(data []byte) (int, error) {
	select {
	case came := <-f.came:
		return copy(data, came), nil
	case <-f.closed:
		return 0, errors.New("closed")
	}
}

// Close implements device.Feed.
func (f *workshopFeed) Close() error {
	close(f.closed)
	return nil
}

func (w *workshop) open(device.Device) (device.Wire, error) { return w, nil }

func (w *workshop) Write(data []byte) (int, error) {
	w.mu.Lock()
	defer w.mu.Unlock()
	if w.away {
		return 0, errors.New("no such device")
	}
	w.got <- slices.Clone(data)
	return len(data), nil
}

func (w *workshop) Close() error { return nil }

func (w *workshop) unplug(away bool) {
	w.mu.Lock()
	defer w.mu.Unlock()
	w.away = away
}

// next waits for what the device is sent next.
func (w *workshop) next(t *testing.T) []byte {
	t.Helper()
	select {
	case data := <-w.got:
		return data
	case <-time.After(patience):
		require.FailNow(t, "nothing is sent")
		return nil
	}
}

// state waits until an output stands so, in words.
func (s *socket) state(words string) {
	s.next(func(m server.Message) bool {
		return m.Devices != nil && slices.ContainsFunc(m.Devices.Outputs, func(o device.OutputState) bool { return o.Words == words })
	})
}

const toTheQuay = `{"revision":1,"edit":{"all":{"name":"way","edits":[{"setProject":{"outputs":[{"id":1,"name":"Bass","kind":"serverDevice"}]}},` +
	`{"setTrack":{"track":1,"routes":[{"output":1,"lowest":0,"highest":127,"softest":1,"loudest":127}]}}]}}}`

// An output is bound to a device, plays it, loses it and has it back; pages are told each time what to do.
func TestADevicePlaysAnOutput(t *testing.T) {
	h := start(t)
	page := h.connect()
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/edits", toTheQuay).status)
	page.state("no device is selected")
	refused := h.do(http.MethodPost, "/api/devices/test", `{"output":1,"channel":3}`)
	require.Equal(t, http.StatusConflict, refused.status)
	require.Contains(t, refused.body, "nothing plays this output")
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/devices/bind", `{"output":"Bass","device":"Quay synth"}`).status)
	require.Equal(t, map[string]string{"Bass": "Quay synth"}, h.kept.Bindings())
	page.state("plays Quay synth")
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/devices/test", `{"output":1,"channel":3}`).status)
	require.Equal(t, []byte{0x92, 60, 90}, h.devices.next(t))
	require.Equal(t, []byte{0x82, 60, 64}, h.devices.next(t))
	h.devices.unplug(true)
	page.state("Quay synth is not plugged in")
	h.devices.unplug(false)
	page.state("plays Quay synth")
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/devices/bind", `{"output":"Bass","device":""}`).status)
	page.state("no device is selected")
	require.Empty(t, h.kept.Bindings())
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/devices/bind", `{"output":"Bass","device":"/dev/sda"}`).status)
	page.state("/dev/sda is not plugged in") // a device is found, never opened by a path
	file := strings.Replace(h.do(http.MethodGet, "/api/project.json", "").body, `"serverDevice"`, `"serverDevice","path":"/dev/sda"`, 1)
	refused = h.do(http.MethodPost, "/api/projects/file?revision=2", file)
	require.Equal(t, http.StatusBadRequest, refused.status)
	require.Contains(t, refused.body, "path")
	for _, body := range []string{`{"output":"","device":"x"}`, `{"output":"Bass","device":"` + string(make([]byte, 300)) + `"}`, `{`} {
		require.GreaterOrEqual(t, h.do(http.MethodPost, "/api/devices/bind", body).status, 400)
	}
}

// A project from a file plays no device until somebody agrees, nor does its copy; one that is made here does.
func TestAForeignProjectIsHeld(t *testing.T) {
	h := start(t)
	page := h.connect()
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/devices/bind", `{"output":"Bass","device":"Quay synth"}`).status)
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/edits", toTheQuay).status)
	page.state("plays Quay synth")
	file := h.do(http.MethodGet, "/api/project.json", "").body
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/projects/file?revision=2", file).status)
	held := page.next(func(m server.Message) bool {
		return m.Project != nil && m.Project.Document == 2 || m.Devices != nil && m.Devices.Held
	})
	require.NotNil(t, held.Devices, "pages know before they have the project")
	page.state("not active yet")
	require.Equal(t, http.StatusConflict, h.do(http.MethodPost, "/api/devices/test", `{"output":1,"channel":3}`).status)
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/projects/2/copy", `{}`).status)
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/devices/agree", `{}`).status)
	page.state("plays Quay synth")
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/projects/3/open", `{"revision":3}`).status)
	page.state("not active yet")
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/projects/1/open", `{"revision":4}`).status)
	page.state("plays Quay synth")
}

// A setup is kept by name and loaded into another project: outputs and tracks are found by their names, and it is one edit.
func TestASetupIsLoadedIntoAnotherProject(t *testing.T) {
	h := start(t)
	require.Equal(t, "[]\n", h.do(http.MethodGet, "/api/setups", "").body)
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/edits", toTheQuay).status)
	require.Equal(t, "[\"Quay\"]\n", h.do(http.MethodPost, "/api/setups", `{"name":"Quay"}`).body)
	require.Equal(t, http.StatusUnprocessableEntity, h.do(http.MethodPost, "/api/setups", `{"name":""}`).status)
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/undo", `{"revision":2}`).status)
	require.Equal(t, http.StatusNotFound, h.do(http.MethodPost, "/api/setups/load", `{"name":"Pier","revision":3}`).status)
	require.Equal(t, http.StatusConflict, h.do(http.MethodPost, "/api/setups/load", `{"name":"Quay","revision":1}`).status)
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/setups/load", `{"name":"Quay","revision":3}`).status)
	state := h.studio.State()
	require.Equal(t, "Bass", state.Project.Outputs[0].Name)
	require.Equal(t, 1, state.Project.Tracks[0].RouteList()[0].Output)
	require.Equal(t, "setup", state.Undo)
	require.Equal(t, "[]\n", h.do(http.MethodPost, "/api/setups/delete", `{"name":"Quay"}`).body)
	require.Equal(t, http.StatusNotFound, h.do(http.MethodPost, "/api/setups/delete", `{"name":"Quay"}`).status)
}

// Where the disk refuses, nothing is bound, agreed to or kept, and it is said; what was stays.
func TestTheDiskRefusesWhatBelongsToTheMachine(t *testing.T) {
	h := start(t)
	page := h.connect()
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/edits", toTheQuay).status)
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/devices/bind", `{"output":"Bass","device":"Quay synth"}`).status)
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/projects/file?revision=2", h.do(http.MethodGet, "/api/project.json", "").body).status)
	page.state("not active yet")
	h.kept.Fail(true)
	for path, body := range map[string]string{
		"/api/devices/bind": `{"output":"Bass","device":""}`, "/api/devices/agree": `{}`, "/api/setups": `{"name":"Quay"}`, "/api/setups/delete": `{"name":"Quay"}`,
	} {
		refused := h.do(http.MethodPost, path, body)
		require.GreaterOrEqual(t, refused.status, 500, path)
		require.Contains(t, refused.body, "disk is full", path)
	}
	h.kept.Fail(false)
	require.Equal(t, map[string]string{"Bass": "Quay synth"}, h.kept.Bindings())
	require.Equal(t, "[]\n", h.do(http.MethodGet, "/api/setups", "").body)
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/devices/agree", `{}`).status)
	page.state("plays Quay synth")
}
