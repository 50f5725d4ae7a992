package e2e

import (
	"encoding/json"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/device"
	"jettyfog/internal/input"
	"jettyfog/internal/server"
)

// through returns the edit that has an input of a kind go on to an output of it.
func through(kind string) string {
	return `{"all":{"name":"ways","edits":[{"setProject":{"outputs":[{"id":1,"name":"Bass","kind":"` + kind + `"}],` +
		`"inputs":[{"id":1,"name":"Winch","kind":"` + kind + `","passesTo":[{"track":2}]}]}},` +
		`{"setTrack":{"track":2,"mute":true,"routes":[{"output":1,"lowest":0,"highest":127,"softest":1,"loudest":127}]}}]}}`
}

// presses is how many notes are passed on.
const presses = 400

// reportMillis reports what half and what 99 of 100 take at most.
func reportMillis(b *testing.B, took []float64, what string) {
	slices.Sort(took)
	b.ReportMetric(took[len(took)/2], what+"_p50_ms")
	b.ReportMetric(took[len(took)*99/100], what+"_p99_ms")
}

// betweenDevices starts the program, edits the project, and binds its input to a stand-in for a device that sends, and its output to one that is sent to.
func betweenDevices(b *testing.B, edit func(*app) string) (a *app, keys, heard *os.File) {
	b.Helper()
	folder := b.TempDir()
	in, out := filepath.Join(folder, "winch"), filepath.Join(folder, "quay")
	a = start(b, b.TempDir(), "--stand-in-input", in, "--stand-in-device", out)
	heard, err := os.OpenFile(out, os.O_RDWR, 0)
	require.NoError(b, err)
	a.unwire()
	a.edit(edit(a))
	require.Equal(b, 200, a.post("/api/devices/bind", `{"output":"Bass","device":"quay"}`))
	require.Equal(b, 200, a.post("/api/inputs/bind", `{"input":"Winch","device":"winch"}`))
	keys, err = os.OpenFile(in, os.O_RDWR, 0)
	require.NoError(b, err)
	var sends, plays bool // whether both are taken up
	a.told(func(m server.Message) bool {
		if m.Inputs != nil {
			sends = slices.ContainsFunc(m.Inputs.State.Inputs, func(s input.InputState) bool { return s.Device == "winch" && s.Ready })
		}
		if m.Devices != nil {
			plays = slices.ContainsFunc(m.Devices.State.Outputs, func(s device.OutputState) bool { return s.Device == "quay" && s.Ready })
		}
		return sends && plays
	})
	return a, keys, heard
}

// BenchmarkThru measures how long a note takes that is passed on: from a device of the machine to another one, and from a port of the browser to
// another one, beside a question to the server and back as the page asks it.
func BenchmarkThru(b *testing.B) {
	b.Run("server", func(b *testing.B) {
		_, keys, heard := betweenDevices(b, func(*app) string { return through("serverDevice") })
		var took []float64
		data := make([]byte, 3)
		for n := range presses {
			began := time.Now()
			for _, velocity := range []byte{90, 0} {
				_, err := keys.Write([]byte{0x90, byte(20 + n%80), velocity})
				require.NoError(b, err)
				_, err = io.ReadFull(heard, data)
				require.NoError(b, err)
			}
			took = append(took, float64(time.Since(began).Microseconds())/2000) // of two
			time.Sleep(3 * time.Millisecond)
		}
		reportMillis(b, took, "thru")
	})
	b.Run("page", func(b *testing.B) {
		a := start(b, b.TempDir())
		a.unwire()
		a.edit(through("browserPort"))
		p := a.open("/#connect", 1280, 800, standInForOutputs, `
			const keys = { id: "pier", name: "Pier keys", state: "connected", onmidimessage: null };
			const given = navigator.requestMIDIAccess;
			navigator.requestMIDIAccess = async (options) => {
				const access = await given(options ?? {});
				access.inputs.set("pier", keys);
				return access;
			};
			window.press = (key) => keys.onmidimessage?.({ data: new Uint8Array([0x90, key, 90]), timeStamp: performance.now() });
			if (location.protocol === "http:") {
				localStorage.setItem("jettyfog ports", JSON.stringify({ Bass: "Harbour synth" }));
				localStorage.setItem("jettyfog inputs", JSON.stringify({ Winch: "Pier keys" }));
			}
		`)
		p.press("use MIDI ports")
		p.press("use MIDI inputs")
		p.MustElementR("[data-input-state=Winch]", "^hears Pier keys$")
		p.MustElementR("[data-state=Bass]", "plays Harbour synth")
		var times struct{ Thru, Asked []float64 }
		data := p.MustEval(`async (presses) => {
			const { port } = window.ports["Harbour synth"];
			const thru = [], asked = [];
			const socket = new WebSocket(location.href.replace("http", "ws").replace(/[#].*/, "") + "ws");
			await new Promise((done) => (socket.onopen = done));
			const nap = () => new Promise((done) => setTimeout(done, 13));
			for (let n = 0; n < presses; n++) {
				port.got.length = 0;
				const began = performance.now();
				window.press(20 + (n % 80));
				while (port.got.length === 0) await new Promise((done) => setTimeout(done));
				thru.push(port.got[0].now - began);
				const sent = performance.now();
				const answer = new Promise((done) => (socket.onmessage = ({ data }) => JSON.parse(data).clock && done()));
				socket.send(JSON.stringify({ sent }));
				await answer;
				asked.push(performance.now() - sent);
				await nap();
			}
			return JSON.stringify({ thru, asked });
		}`, presses).Str()
		require.NoError(b, json.Unmarshal([]byte(data), &times))
		reportMillis(b, times.Thru, "thru")
		reportMillis(b, times.Asked, "floor")
	})
}

// arpeggiated returns the edit that adds a track of sixteenths which arpeggiates what is held at an input, to an output.
func arpeggiated(track, tempo int) string {
	on := make([]string, 16)
	for i := range on {
		on[i] = fmt.Sprintf(`{"step":%d,"value":%d}`, i, score.On)
	}
	return fmt.Sprintf(`{"all":{"name":"ways","edits":[{"setProject":{"tempo":%d,"outputs":[{"id":1,"name":"Bass","kind":"serverDevice"}],"inputs":[{"id":1,"name":"Winch","kind":"serverDevice","playsIn":true}]}},`+
		`{"addTrack":{"at":%d,"kind":"melodic"}},{"setSteps":{"track":%d,"pattern":0,"part":0,"lane":"gate","steps":[%s]}},`+
		`{"setTrack":{"track":%d,"pitches":{"kind":"held","highest":127,"order":"up"},"routes":[{"output":1,"lowest":0,"highest":127,"softest":1,"loudest":127}]}}]}}`,
		tempo, track-1, track, strings.Join(on, ","), track)
}

// BenchmarkHeldKey measures how long it takes from a key that goes down on a device to the first note that the track which arpeggiates it sends to another
// one. The floor is half a step, which is how long the next step is away on average.
func BenchmarkHeldKey(b *testing.B) {
	const tempo, stepMillis = 300_000, 50.0 // a 16th at 300 quarter notes a minute
	a, keys, heard := betweenDevices(b, func(a *app) string { return arpeggiated(len(a.project().Tracks)+1, tempo) })
	require.Equal(b, 200, a.post("/api/transport", `{"do":"play"}`))
	starts := make(chan time.Time, 1000)
	go func() {
		data := make([]byte, 3)
		for {
			if _, err := io.ReadFull(heard, data); err != nil {
				return
			}
			if data[0]&0xf0 == 0x90 && data[2] > 0 {
				starts <- time.Now()
			}
		}
	}()
	var took []float64
	for n := range presses / 4 {
		key := byte(40 + n%40)
		began := time.Now()
		_, err := keys.Write([]byte{0x90, key, 90})
		require.NoError(b, err)
		took = append(took, float64((<-starts).Sub(began).Microseconds())/1000)
		_, err = keys.Write([]byte{0x80, key, 0})
		require.NoError(b, err)
		time.Sleep(3*time.Duration(stepMillis)*time.Millisecond + time.Duration(n%17)*3*time.Millisecond) // until nothing is on its way
		for len(starts) > 0 {
			<-starts
		}
	}
	reportMillis(b, took, "held")
	b.ReportMetric(stepMillis/2, "floor_ms")
}
