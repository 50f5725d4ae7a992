package e2e

import (
	"encoding/json"
	"fmt"
	"math"
	"net"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/wav"
)

// The demo drives a modular: a take's voltages are those that the command line renders. Then an output is made by hand: channels are marked
// one by one, a track goes there, and its take has a pitch and a gate that sox reads.
func TestVoltagesOfATake(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/#takes", 1280, 800)
	p.enter("Bars to render", "2")
	p.press("render a take")
	p.take("Night opening").MustClick()
	p.takePage("files")
	p.MustElement("#take-page a[href*='voltages.wav?output=9']")
	folder := t.TempDir()
	out := filepath.Join(folder, "demo.wav")
	said, err := exec.Command("../bin/jettyfog", "render", "--demo", "--bars", "2", "--cv", "--out", out).CombinedOutput()
	require.NoError(t, err, string(said))
	want, err := os.ReadFile(out)
	require.NoError(t, err)
	id := a.takes()[0].ID
	require.Equal(t, want, a.download(fmt.Sprintf("/api/takes/%d/voltages.wav?output=9", id)))
	beside, err := os.ReadFile(filepath.Join(folder, "demo.json"))
	require.NoError(t, err)
	require.JSONEq(t, string(beside), string(a.download(fmt.Sprintf("/api/takes/%d/voltages.json?output=9", id))))

	a.unwire()
	p.MustElementR("nav a", "Connect").MustClick()
	p.press(`\+ voltages`)
	p.press(`\+ channel`)
	p.choice("Track of channel 3", "Bell buoy")
	p.enter("note at 0 V of channel 3", "C3")
	p.press(`\+ channel`)
	p.choice("Signal of channel 4", "gate")
	p.enter("on is of channel 4", "8")
	p.MustElement("[aria-label^='Bell buoy to Modular']").MustClick()
	a.waitFor(func(s *score.Project) bool { return len(s.Tracks[0].RouteList()) == 2 })
	p.MustElementR("nav a", "Takes").MustClick()
	p.press("render a take")
	p.waitFor(`() => document.querySelectorAll("[aria-label='List of takes'] li").length === 2`)
	id = a.takes()[0].ID
	var channels []wav.Channel
	require.NoError(t, json.Unmarshal(a.download(fmt.Sprintf("/api/takes/%d/voltages.json?output=1", id)), &channels))
	require.Len(t, channels, 2)
	require.Equal(t, 48, *channels[0].Zero)
	require.Equal(t, score.GateSignal, channels[1].Signal)
	file := filepath.Join(folder, "made.wav")
	require.NoError(t, os.WriteFile(file, a.download(fmt.Sprintf("/api/takes/%d/voltages.wav?output=1&rate=96000", id)), 0o600))
	statistics, err := exec.Command("sox", file, "-n", "remix", "2", "stat").CombinedOutput()
	require.NoError(t, err)
	require.Regexp(t, `Maximum amplitude: +0\.800000`, string(statistics))
}

// The voltage of a channel is drawn under the notes of a take, and read off at the pointer: where the gate is up, its voltage.
func TestVoltagesAreSeen(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/#takes", 1280, 800)
	p.enter("Bars to render", "4")
	p.press("render a take")
	p.take("Night opening").MustClick()
	p.choice("Lane below the roll", "Modular 4 · gate Tide bass")
	box := p.MustElement("svg[aria-label='Voltage of channel 4']").MustShape().Box()
	p.waitFor(`() => document.querySelector("svg[aria-label='Voltage of channel 4'] path").getAttribute("d").length > 100`)
	p.Mouse.MustMoveTo(box.X+box.Width/64, box.Y+20)
	p.waitFor(`() => /^5\.000 V, 0\.1\d\d s$/.test(document.querySelector("svg[aria-label='Voltage of channel 4'] text")?.textContent)`)
}

// The demo's modular is heard through the rack; then an interface is found and calibrated, plays, is unplugged while it plays, upon which the
// rack takes over, and is plugged in again.
func TestVoltagesAreHeard(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/#connect", 1280, 800, standInForInterface)
	stands := func(words string) {
		p.waitFor(`(words) => document.querySelector("[data-ready]")?.textContent === words`, words)
	}
	volts := func(channel int, pattern string) {
		p.waitFor(`(channel, pattern) => new RegExp(pattern).test(document.querySelector("[aria-label^='Channel " + channel + " '] [data-volts]")?.textContent)`, channel, pattern)
	}
	p.MustElementR("button", "Modular").MustClick()
	stands("no interface is selected")
	p.press("rack while missing")
	stands("the rack plays it (simulated)")
	volts(11, `^0\.00 V`)
	p.MustElement("[aria-label=Play]").MustClick()
	volts(11, `^5\.00 V`) // it runs
	volts(4, `^5\.00 V`)  // a gate is up
	volts(6, `^5\.00 V`)  // a drum is struck
	p.waitFor(`() => window.rackLoudness?.() > 0.05`)
	p.MustElement("[aria-label=Stop]").MustClick()
	volts(11, `^0\.00 V`)
	volts(4, `^0\.00 V`)

	p.press("find audio interfaces")
	p.choice("Interface of the output", "Quay interface")
	stands("plays Quay interface, which has no channel 9, 10, 11: nothing is sent there")
	p.MustElement("[aria-label^='Channel 3 pitch']").MustClick()
	p.press("send the test voltage")
	volts(3, `^1\.000 V`)
	p.enter("the meter reads for channel 3", "0.98")
	p.press("add the reading")
	p.enter("test voltage of channel 3", "-2")
	volts(3, `^-2\.000 V`)
	p.press("add the reading") // still 0.98
	p.MustElementR("[role=alert]", "nothing was kept: from -2 to 1 V it read 0.98 to 0.98 V, which no interface gives")
	p.enter("the meter reads for channel 3", "-1.99")
	p.press("add the reading")
	p.waitFor(`() => document.querySelectorAll("[aria-label='Readings of channel 3'] li").length === 2`)

	plays := "plays Quay interface, which has no channel 9, 10, 11: nothing is sent there"
	p.MustElement("[aria-label=Play]").MustClick()
	volts(4, `^5\.00 V`)
	p.MustEval(`() => window.unplug()`)
	p.MustElementR("[role=alert]", "Quay interface is gone; the rest plays on. It is used again once it is back")
	stands("the rack plays it (simulated)")
	volts(11, `^5\.00 V`)
	p.MustEval(`() => window.plugIn()`)
	stands(plays)
	volts(4, `^5\.00 V`)
	p.MustElementR("li", "1.000 V: 0.9800 V") // which stayed with the machine
	p.press("forget the readings")
	p.waitFor(`() => document.querySelectorAll("[aria-label='Readings of channel 3'] li").length === 0`)

	// The interface is the usual audio output too, so the cue may not be on channels of it that carry voltages.
	p.MustElementR("button", "Built-in sound").MustClick()
	p.press("find audio outputs")
	p.choice("Audio output of the cue", "channels 3 and 4")
	p.MustElementR("button", "Modular").MustClick()
	stands("the cue is on channels 3 and 4 of Quay interface: select another cue")
}

// flatOscillator is patched into the audio input: it plays 2 % less than a volt an octave of what channel 3 carries, from middle C at 0 V.
const flatOscillator = `
	navigator.mediaDevices.getUserMedia = async () => {
		const context = new AudioContext();
		const oscillator = new OscillatorNode(context, { type: "sawtooth" });
		const input = context.createMediaStreamDestination();
		oscillator.connect(input);
		oscillator.start();
		setInterval(() => {
			const volts = parseFloat(document.querySelector("[aria-label^='Channel 3 '] [data-volts]")?.textContent);
			if (!isNaN(volts)) oscillator.frequency.value = 261.6256 * 2 ** (0.98 * volts);
		}, 20);
		return input.stream;
	};
`

// An oscillator that is flat is heard at each volt, from the lowest that has a pitch on, and corrected. Not beside others, as the timers by which it follows the
// voltage are slowed down in a page behind another.
func TestAnOscillatorIsMeasured(t *testing.T) {
	a := start(t, t.TempDir())
	p := a.open("/#connect", 1280, 800, standInForInterface, flatOscillator)
	p.MustElementR("button", "Modular").MustClick()
	p.press("find audio interfaces")
	p.choice("Interface of the output", "Quay interface")
	p.MustElement("[aria-label^='Channel 3 pitch'] [data-volts]")
	p.MustElement("[aria-label^='Channel 3 pitch']").MustClick()
	p.press("measure an oscillator")
	p.MustElementR("li", `^5\.000 V: 78\d\d\.`)
	readings := p.MustEval(`() => [...document.querySelectorAll("[aria-label='Readings of channel 3'] li")].map((li) => li.textContent.trim())`).Arr()
	require.GreaterOrEqual(t, len(readings), 9)
	for _, reading := range readings {
		var volts, hertz float64
		_, err := fmt.Sscanf(reading.Str(), "%f V: %f Hz", &volts, &hertz)
		require.NoError(t, err)
		require.InDelta(t, 0.98*volts, math.Log2(hertz/261.6256), 3.0/1200, "within three cents: %s", reading.Str())
	}
}

// An interface that another page plays is waited for. With the rack in its place: the page is loaded anew while it plays, and plays on once it is
// let sound; the program is killed, and what runs is off after the silence that was set.
func TestVoltagesOutliveFaults(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/#connect", 1280, 800, standInForInterface)
	stands := func(words string) {
		p.waitFor(`(words) => document.querySelector("[data-ready]")?.textContent.startsWith(words)`, words)
	}
	runs := func(volts string) {
		p.waitFor(`(volts) => document.querySelector("[aria-label^='Channel 11 '] [data-volts]")?.textContent === volts`, volts)
	}
	p.MustEval(`() => { navigator.locks.request("jettyfog voltages Quay interface", () => new Promise((free) => (window.other = free))); }`)
	p.MustElementR("button", "Modular").MustClick()
	p.press("find audio interfaces")
	p.choice("Interface of the output", "Quay interface")
	stands("another page or output plays Quay interface")
	p.MustEval(`() => window.other()`)
	stands("plays Quay interface")
	p.choice("Interface of the output", "none")
	p.press("rack while missing")
	p.MustElement("[aria-label=Play]").MustClick()
	runs("5.00 V")

	wait, answer := p.MustHandleDialog() // whether to leave while it plays
	go func() {
		wait()
		answer(true, "")
	}()
	p.MustReload()
	p.MustElement("[role=status]")
	p.waitConnected()
	p.MustElementR("button", "Modular").MustClick()
	stands("press Play or “sound” to start it")
	p.press("sound")
	stands("the rack plays it (simulated)")
	runs("5.00 V")
	a.kill()
	runs("0.00 V")
}

// standInForInterface gives the page an audio interface of eight channels that can be unplugged and plugged in; window.unplug and
// window.plugIn do it. What the page plays there is not heard.
const standInForInterface = `
	const there = [{ kind: "audiooutput", deviceId: "quay", groupId: "quay", label: "Quay interface" }];
	const rest = [{ kind: "audiooutput", deviceId: "default", groupId: "quay", label: "Default" }];
	let plugged = true;
	navigator.mediaDevices.getUserMedia = async () => new MediaStream();
	navigator.mediaDevices.enumerateDevices = async () => plugged ? [...rest, ...there] : rest;
	const change = (is) => { plugged = is; navigator.mediaDevices.dispatchEvent(new Event("devicechange")); };
	window.unplug = () => change(false);
	window.plugIn = () => change(true);
	AudioContext.prototype.setSinkId = async function (id) { this.sink = id; };
	Object.defineProperty(AudioDestinationNode.prototype, "maxChannelCount", { get: () => 8 });
	Object.defineProperty(AudioDestinationNode.prototype, "channelCount", { get: () => 8, set: () => {} });
	const connect = AudioNode.prototype.connect;
	AudioNode.prototype.connect = function (to) {
		if (to instanceof AudioDestinationNode && this.channelCount === 11) { // of the rack, which hears as many channels
			const heard = new AnalyserNode(this.context, { fftSize: 32768 });
			connect.call(this, heard);
			window.rackLoudness = () => {
				const samples = new Float32Array(32768);
				heard.getFloatTimeDomainData(samples);
				return Math.max(...samples.map(Math.abs));
			};
		}
		return connect.apply(this, arguments);
	};
`

// A program that understands OSC is given an address, hears the track that goes there with the bars, and its note ends when it stops.
func TestAProgramHearsATrack(t *testing.T) {
	t.Parallel()
	program, err := net.ListenUDP("udp", &net.UDPAddr{IP: net.IPv4(127, 0, 0, 1)})
	require.NoError(t, err)
	defer program.Close()
	a := start(t, t.TempDir())
	p := a.open("/#connect", 1280, 800)
	p.press(`\+ OSC`)
	p.enter("Address of the output", "nowhere")
	p.MustElementR("[role=alert]", "“nowhere” is no address of a program: write an IP address and a port")
	p.enter("Address of the output", program.LocalAddr().String())
	p.MustElementR("p", "^sends to "+program.LocalAddr().String()+"$")
	p.MustElement("[aria-label^='Bell buoy to Program']").MustClick()
	a.waitFor(func(s *score.Project) bool { return len(s.Tracks[0].RouteList()) == 2 })
	p.MustElement("[aria-label=Play]").MustClick()
	heard := func(words string) {
		require.NoError(t, program.SetReadDeadline(time.Now().Add(patience)))
		packet := make([]byte, 2000)
		for {
			n, err := program.Read(packet)
			require.NoError(t, err, words)
			if strings.Contains(string(packet[:n]), words) {
				return
			}
		}
	}
	heard("/run\x00\x00\x00\x00,i\x00\x00\x00\x00\x00\x01")
	heard("/track/1/pitch")
	heard("/bar\x00\x00\x00\x00,i\x00\x00\x00\x00\x00\x02")
	p.MustElement("[aria-label=Stop]").MustClick()
	heard("/run\x00\x00\x00\x00,i\x00\x00\x00\x00\x00\x00")
}
