package e2e

import (
	"net/http"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

// fifo reads what a program sends to a FIFO that stands in for a MIDI device.
type fifo struct {
	t    *testing.T
	path string
	file *os.File
	mu   sync.Mutex
	got  []byte
}

// plug has the device be there.
func (f *fifo) plug() {
	file, err := os.OpenFile(f.path, os.O_RDWR, 0)
	require.NoError(f.t, err)
	f.file = file
	go func() {
		data := make([]byte, 4096)
		for {
			n, err := file.Read(data)
			if err != nil {
				return
			}
			f.mu.Lock()
			f.got = append(f.got, data[:n]...)
			f.mu.Unlock()
		}
	}()
}

// messages returns what came since it was asked last, as a receiver takes it that knows no running status.
func (f *fifo) messages() (messages []handed) {
	f.mu.Lock()
	defer f.mu.Unlock()
	for _, b := range f.got {
		if b >= 0x80 {
			messages = append(messages, handed{})
		}
		last := &messages[len(messages)-1]
		last.Data = append(last.Data, int(b))
	}
	f.got = nil
	return messages
}

// waitFor waits until messages came for which want is true, and returns those with all before.
func (f *fifo) waitFor(want func([]handed) bool) (messages []handed) {
	f.t.Helper()
	require.Eventually(f.t, func() bool {
		messages = append(messages, f.messages()...)
		return want(messages)
	}, patience, 5*time.Millisecond)
	return messages
}

// On a machine whose browser gives no ports, the first visit to Connect: in three presses a track sounds on a device of the server.
// It vanishes in the middle of a note and is back; panic, a setup and a project from a file are as they are to be.
func TestATrackGoesToADevice(t *testing.T) {
	t.Parallel()
	device := &fifo{t: t, path: filepath.Join(t.TempDir(), "quay.fifo")}
	a := start(t, t.TempDir(), "--stand-in-device", device.path)
	device.plug()
	a.unwire()
	p := a.open("/", 1280, 800)
	p.MustElementR("a", "^Connect$").MustClick()
	p.press(`\+ output`)
	p.MustElement("[aria-label^='Tide bass to quay.fifo']").MustClick()
	p.MustElementR("[data-state='quay.fifo']", "simulated: plays quay.fifo")
	require.Equal(t, score.ServerDevice, a.project().Outputs[0].Kind)

	p.MustElementR("b", "^quay.fifo$").MustClick()
	p.press("test note")
	device.waitFor(func(got []handed) bool { return len(got) == 2 && slices.Equal(got[0].Data, []int{0x90, 60, 90}) })
	p.MustElement("[aria-label=Play]").MustClick()
	down := map[[2]int]bool{}
	got := device.waitFor(func(got []handed) bool { return len(got) > 8 })
	requireTurns(t, got, down)
	var ons []int
	for _, m := range got {
		if m.Data[0] == 0x91 {
			ons = append(ons, m.Data[1])
		}
	}
	var want []int
	for _, n := range a.computed(2, 4) {
		want = append(want, int(n.Key))
	}
	require.Equal(t, want[:min(len(want), len(ons))], ons[:min(len(want), len(ons))])
	p.MustElementR("[aria-label=Monitor] [role=log]", "note on")

	// It vanishes while a key is down: said. It is back: what sounded there ends, and it plays on.
	requireTurns(t, device.waitFor(func(got []handed) bool { return len(got) > 0 && got[len(got)-1].Data[0] == 0x91 }), down)
	require.NoError(t, device.file.Close())
	p.MustElementR("[role=alert]", "quay.fifo is gone: broken pipe. The rest plays on")
	p.MustElementR("[data-state='quay.fifo']", "cannot be used: nobody reads it")
	requireTurns(t, device.messages(), down)
	device.plug()
	back := device.waitFor(func(got []handed) bool { return len(got) > 4 })
	require.True(t, back[0].Data[0]&0xF0 != 0x90 || !isDown(down), "a key that was down goes up first")
	requireTurns(t, back, down)

	// One part of the kit goes there alone, and the bass to four channels in turn.
	p.MustElement("[aria-label='Parts of Hull kit']").MustClick()
	p.MustElement("[aria-label^='Hull boom to quay.fifo']").MustClick()
	p.MustElement("[aria-label^='Tide bass to quay.fifo']").MustClick()
	p.enter("Channels of the route", "4")
	p.enter("Program of the route", "12")
	a.waitFor(func(s *score.Project) bool { return s.Tracks[1].RouteList()[1].Program == 12 })
	boom := a.project().Tracks[2].RouteList()[1]
	require.True(t, boom.OnlyPart)
	var channels []int
	device.waitFor(func(got []handed) bool {
		kit, program := false, false
		channels = nil
		for _, m := range got {
			kit = kit || m.Data[0] == 0x99 && m.Data[1] == 36
			program = program || slices.Equal(m.Data, []int{0xC1, 11})
			if m.Data[0]&0xF0 == 0x90 && m.Data[0] != 0x99 && !slices.Contains(channels, m.Data[0]&0xF) {
				channels = append(channels, m.Data[0]&0xF)
			}
		}
		return kit && program && len(channels) == 4
	})
	require.ElementsMatch(t, []int{1, 2, 3, 4}, channels)

	// On stage nothing that is written changes by a slip, and performing goes on.
	p.press("lock editing")
	p.enter("Octave of the route", "2")
	p.MustElementR("[role=alert]", "editing is locked in this page")
	require.Zero(t, a.project().Tracks[1].RouteList()[1].Octave)
	p.press("unlock editing")

	p.MustElementR("b", "^quay.fifo$").MustClick()
	p.enter("Gap of the output", "5")
	p.press("running status")
	a.waitFor(func(s *score.Project) bool { return s.Outputs[0].RunningStatus && s.Outputs[0].Gap == 5 })
	p.press("running status")
	a.waitFor(func(s *score.Project) bool { return !s.Outputs[0].RunningStatus })
	device.messages()
	p.press("panic")
	device.waitFor(func(got []handed) bool {
		return slices.ContainsFunc(got, func(m handed) bool { return slices.Equal(m.Data, []int{0xBF, 123, 0}) })
	})
	p.MustElement("[aria-label=Stop]").MustClick()

	// Where tracks go is kept by name, and loaded into a project that is made anew.
	p.press("setups")
	p.MustElement("[aria-label='Name of the setup']").MustInput("Quay")
	p.press("keep")
	p.MustElement("[aria-label='Load the setup Quay']")
	file := a.download("/api/project.json")
	a.post("/api/projects", `{"revision":`+strconv.FormatInt(a.revision(), 10)+`,"from":"example"}`)
	a.unwire()
	a.waitFor(func(s *score.Project) bool { return len(s.Outputs) == 0 })
	p.MustElement("[aria-label='Load the setup Quay']").MustClick()
	a.waitFor(func(s *score.Project) bool { return len(s.Outputs) == 1 && s.Tracks[1].RouteList()[1].Output == 1 })
	p.MustElementR("[data-state='quay.fifo']", "simulated: plays quay.fifo")

	// A project from a file plays no device before somebody agrees.
	a.post("/api/projects/file?revision="+strconv.FormatInt(a.revision(), 10), string(file))
	p.MustElementR("[data-state='quay.fifo']", "not active")
	p.press("use its outputs")
	p.MustElementR("[data-state='quay.fifo']", "simulated: plays quay.fifo")
}

// While nothing is there to play an output it is silent, or the built-in sound plays it, which ends what it plays once the device is
// there.
func TestTheBuiltInSoundStandsIn(t *testing.T) {
	t.Parallel()
	device := &fifo{t: t, path: filepath.Join(t.TempDir(), "pier.fifo")}
	a := start(t, t.TempDir(), "--stand-in-device", device.path)
	require.Equal(t, http.StatusOK, a.post("/api/devices/bind", `{"output":"Pier","device":"pier.fifo"}`))
	const only = `"routes":[{"output":1,"lowest":0,"highest":127,"softest":1,"loudest":127}]`
	a.edit(`{"all":{"name":"ways","edits":[{"setProject":{"outputs":[{"id":1,"name":"Pier","kind":"serverDevice"}]}},{"setTrack":{"track":1,` + only +
		`}},{"setTrack":{"track":2,` + only + `}},{"setTrack":{"track":3,` + only + `}},{"setTrack":{"track":4,` + only + `}},{"setTrack":{"track":5,` + only + `}},{"setTrack":{"track":6,` + only + `}}]}}`)
	p := a.open("/#connect", 1280, 800, tap)
	p.MustElement("[aria-label=Play]").MustClick()
	p.waitForBar(2)
	require.Less(t, p.MustEval(`() => window.loudness()`).Num(), 0.0005)
	p.MustElementR("b", "^Pier$").MustClick()
	p.press("built-in sound while missing")
	p.waitFor(`() => window.loudness() > 0.02`)
	p.MustElementR("[data-state='Pier']", "nobody reads it")
	device.plug()
	p.MustElementR("[data-state='Pier']", "plays pier.fifo")
	p.waitFor(`() => window.loudness() < 0.0005`)
	device.waitFor(func(got []handed) bool { return len(got) > 6 })
}
