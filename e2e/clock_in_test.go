package e2e

import (
	"bytes"
	"os"
	"path/filepath"
	"strconv"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/smf"
)

// clockIs waits until things stand so with the clock that is followed.
func (p *page) clockIs(state string) { p.MustElement("[data-clock=" + state + "]") }

// The simulated machine is followed by hand: it is waited for, starts playing, changes its tempo, goes on from a position, is lost and found; and
// the take has its tempo.
func TestAMachineIsFollowed(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.MustElementR("a", "^Connect$").MustClick()
	p.press(`\+ simulated clock`)
	p.MustElementR("[data-input-state]", "^hears simulated clock$")
	p.press("follow its clock")
	p.clockIs("silent")
	p.enter("Jitter of the simulated machine", "3")
	p.MustElement("[aria-label=Record]").MustClick()
	p.clockIs("waits")
	p.hand("Start the simulated machine")
	p.clockIs("leads")
	p.waitForBar(3)
	p.enter("Tempo of the simulated machine", "150")
	p.MustElementR("[aria-label='Tempo that is followed']", `^1(49\.9|50\.[01])`)
	p.waitForBar(5)
	p.hand("Stop the simulated machine")
	p.clockIs("comes")
	p.waitFor(`() => document.querySelector("[aria-label=Play]")`)
	require.Eventually(t, func() bool { return len(a.takes()) == 1 && a.takes()[0].Bars > 3 }, patience, 20*time.Millisecond)
	file, _, err := smf.Decode(a.download("/api/takes/" + strconv.FormatInt(a.takes()[0].ID, 10) + ".mid?format=1&division=960"))
	require.NoError(t, err)
	tempos := 0
	for _, track := range file.Tracks {
		for _, event := range track.Events {
			if bytes.HasPrefix(event.Data, []byte{0xFF, 0x51}) {
				tempos++
			}
		}
	}
	require.Greater(t, tempos, 1, "its tempo map is what was followed")

	p.enter("Position of the simulated machine", "160") // ten bars
	p.press("tell the position")
	p.hand("Continue the simulated machine")
	p.clockIs("leads")
	p.waitForBar(11)
	p.enter("Silence of the simulated machine", "1500")
	p.press("be silent")
	p.MustElementR("[role=alert]", "The clock at Other machine is silent, so playing has stopped")
	p.clockIs("silent")
	p.choice("What happens where the clock is lost", "runs on")
	p.clockIs("comes")
	p.hand("Start the simulated machine")
	p.clockIs("leads")
	a.waitFor(func(p *score.Project) bool { return p.ClockIn.RunsOn })
	p.enter("Silence of the simulated machine", "5000")
	p.press("be silent")
	p.clockIs("lost")
	p.MustElement("[aria-label=Stop]")
	p.clockIs("leads")
	// Reloaded, the page says the same.
	p.hand("Stop the simulated machine")
	p.clockIs("comes")
	p.MustReload()
	p.MustElement("[role=status]")
	p.waitConnected()
	p.clockIs("comes")
	p.MustElementR("a", "^Connect$").MustClick()
	p.MustElementR("[aria-label=Inputs] button", "Other machine").MustClick()
	p.press("follow its clock")
	a.waitFor(func(p *score.Project) bool { return p.ClockIn.Input == 0 })
	p.MustElement("[aria-label='Tap tempo']")
}

// A pedal is learned, and keeps the last four bars; a device that is plugged in at the server plays on through a track to another device, with
// nobody at the page, and into steps with somebody there.
func TestAPedalKeepsTheLastBars(t *testing.T) {
	t.Parallel()
	folder := t.TempDir()
	in, out := filepath.Join(folder, "winch"), &fifo{t: t, path: filepath.Join(folder, "quay")}
	a := start(t, t.TempDir(), "--stand-in-input", in, "--stand-in-device", out.path)
	out.plug()
	a.edit(`{"all":{"name":"ways","edits":[{"setProject":{"outputs":[{"id":1,"name":"Bass","kind":"serverDevice"}],` +
		`"inputs":[{"id":1,"name":"Winch","kind":"serverDevice","playsIn":true,"passesTo":[{"track":2}],"holds":"pedal"}]}},` +
		`{"setTrack":{"track":2,"mute":true,"routes":[{"output":1,"lowest":0,"highest":127,"softest":1,"loudest":127}]}},{"setTrack":{"track":3,"routes":[]}}]}}`)
	require.Equal(t, 200, a.post("/api/devices/bind", `{"output":"Bass","device":"quay"}`))
	require.Equal(t, 200, a.post("/api/inputs/bind", `{"input":"Winch","device":"winch"}`))
	p := a.open("/#connect", 1280, 800)
	p.MustElementR("[data-input-state=Winch]", "^hears winch$")
	p.MustElementR("[data-state=Bass]", "plays quay")
	keys, err := os.OpenFile(in, os.O_WRONLY, 0)
	require.NoError(t, err)
	defer keys.Close()
	plays := func(data ...byte) {
		_, err := keys.Write(data)
		require.NoError(t, err)
	}
	var got []handed
	goesOut := func(want ...[]int) {
		t.Helper()
		require.Eventually(t, func() bool {
			got = append(got, out.messages()...)
			return len(got) >= len(want)
		}, patience, 20*time.Millisecond)
		for i, data := range want {
			require.Equal(t, data, got[i].Data)
		}
		got = nil
	}
	out.messages()
	plays(0xB0, 64, 127, 0x90, 60, 77, 60, 0)
	goesOut([]int{0x91, 60, 77})
	plays(0xB0, 64, 0)
	goesOut([]int{0x81, 60, 64})

	p.press("switches")
	p.choice("What the new switch does", "keep the last bars")
	p.press("learn")
	p.press("knobs")
	p.hand("soft pedal, CC 67")
	a.waitFor(func(p *score.Project) bool { return len(p.Switches) == 1 && p.Switches[0].Number == 67 })
	p.MustElement("[aria-label=Play]").MustClick()
	p.waitForBar(6)
	p.hand("soft pedal, CC 67")
	p.MustElementR("[role=alert]", "Kept the last 4 bars as a take: [0-9]+ notes")
	p.MustElement("[aria-label=Stop]").MustClick()
	require.InDelta(t, 4, a.takes()[0].Bars, 0.01)
	p.choice("What the new switch does", "play, or stop")
	p.press("learn")
	p.Keyboard.MustType(input.F8)
	a.waitFor(func(p *score.Project) bool { return len(p.Switches) == 2 && p.Switches[1].Key == "F8" })
	p.MustElement("[aria-label='Switch key F8']")
	p.Keyboard.MustType(input.F8)
	p.MustElement("[aria-label=Stop]")
	p.Keyboard.MustType(input.F8)
	p.MustElement("[aria-label=Play]")

	p.MustElementR("a", "^Write$").MustClick()
	p.press(`\+ track`)
	p.undoable("new melodic track")
	p.choice("What becomes of notes", "into steps, one by one")
	plays(0x90, 50, 80, 50, 0)
	p.MustElementR("[data-entry]", "step 2 of 16")
	a.waitFor(func(p *score.Project) bool { return p.Tracks[6].Parts()[0].Lanes.Velocity.Steps[0] == 80 })
}

// A clock that comes in at a port of the browser is followed through the page, also while another page is open, and lost when the port is
// unplugged.
func TestAPortOfThePageIsFollowed(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/#connect", 1280, 800, standInForMIDI)
	p.press(`\+ MIDI input`)
	p.press("use MIDI inputs")
	p.choice("Port of the input", "Pier keys")
	p.MustElementR("[data-input-state=Keys]", "^hears Pier keys$")
	p.press("follow its clock")
	p.clockIs("silent")
	p.choice("What happens where the clock is lost", "runs on") // as a busy page can be silent for long
	a.waitFor(func(p *score.Project) bool { return p.ClockIn.RunsOn })
	p.waitFor(`() => window.plug.listens()`)
	p.MustEval(`() => {
		let due = performance.now();
		window.pulse = setInterval(() => {
			for (; due <= performance.now(); due += 20) window.plug.send([0xf8], due);
		}, 5);
	}`)
	p.clockIs("comes")
	other := a.open("/", 1280, 800)
	p.MustEval(`() => window.plug.send([0xfa])`)
	other.clockIs("leads")
	other.waitForBar(3)
	other.MustElementR("[aria-label='Tempo that is followed']", `^12(4\.[5-9]|5\.[0-4])`)
	p.MustEval(`() => { window.plug.unplug(); clearInterval(window.pulse); }`)
	other.clockIs("lost")
	p.MustElementR("[data-input-state=Keys]", "^Pier keys is not plugged in$")
}
