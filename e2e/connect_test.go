package e2e

import (
	"encoding/json"
	"slices"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

// standInForOutputs gives the page two MIDI outputs that can be unplugged, of the interface that browsers have. Each writes down
// the bytes that it is handed, when, and for when.
const standInForOutputs = `
	window.ports = {};
	const outputs = new Map();
	const access = Object.assign(new EventTarget(), { inputs: new Map(), outputs });
	for (const name of ["Harbour synth", "Quay rack"]) {
		const port = { id: name, name, state: "connected", got: [] };
		port.send = (data, at) => port.got.push({ data: [...data], at, now: performance.now() });
		outputs.set(name, port);
		window.ports[name] = {
			port,
			unplug: () => { port.state = "disconnected"; access.dispatchEvent(new Event("statechange")); },
			plug: () => { port.state = "connected"; access.dispatchEvent(new Event("statechange")); },
		};
	}
	navigator.requestMIDIAccess = async (options) => { window.exclusive = options.sysex; return access; };
`

// handed is a message that a stand-in was handed.
type handed struct {
	Data    []int
	At, Now float64
}

// got returns what a stand-in was handed since it was asked last.
func (p *page) got(port string) (messages []handed) {
	data := p.MustEval(`name => JSON.stringify(window.ports[name].port.got.splice(0))`, port).Str()
	if err := json.Unmarshal([]byte(data), &messages); err != nil {
		panic(err)
	}
	return messages
}

// requireTurns checks that note-ons and note-offs of each key take turns, and returns which keys are down in the end.
func requireTurns(t *testing.T, messages []handed, down map[[2]int]bool) {
	t.Helper()
	for _, m := range messages {
		key := [2]int{m.Data[0] & 0xF, m.Data[1]}
		switch m.Data[0] & 0xF0 {
		case 0x90:
			require.False(t, down[key], "%v is struck twice", key)
			down[key] = true
		case 0x80:
			down[key] = false
		}
	}
}

func isDown(down map[[2]int]bool) bool {
	for _, is := range down {
		if is {
			return true
		}
	}
	return false
}

// The first visit to Connect: in four presses a track sounds on a device. Then three tracks go to two ports and the built-in sound,
// what is sent is what the core computes, one port is unplugged and back, and panic reaches both.
func TestTracksGoToPorts(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	a.unwire()
	p := a.open("/", 1280, 800, standInForOutputs)
	p.MustElementR("a", "^Connect$").MustClick()
	p.press("use MIDI ports")
	p.press(`\+ output`)
	p.MustElement("[aria-label^='Tide bass to Harbour synth']").MustClick()
	a.waitFor(func(s *score.Project) bool { return len(s.Tracks[1].RouteList()) == 2 })
	require.Equal(t, []score.Output{{ID: 1, Name: "Harbour synth", Kind: score.BrowserPort}}, a.project().Outputs)
	p.MustElementR("[data-state='Harbour synth']", "plays Harbour synth")

	// The bass goes an octave lower, on channel 5, and to the built-in sound no more; the kit to another output, whole.
	p.enter("Channel of the route", "5")
	p.enter("Octave of the route", "-1")
	p.MustElement("[aria-label^='Tide bass to Built-in sound']").MustFocus()
	p.Keyboard.MustType(input.Delete)
	bass := score.WholeRoute(1)
	bass.Channel, bass.Octave = 5, -1
	a.waitFor(func(s *score.Project) bool { return slices.Equal(s.Tracks[1].RouteList(), []score.Route{bass}) })
	p.press(`\+ output`)
	p.MustElement("[aria-label^='Hull kit to Quay rack']").MustClick()
	a.waitFor(func(s *score.Project) bool { return len(s.Tracks[2].RouteList()) == 2 })
	p.MustElementR("b", "^Quay rack$").MustClick()
	p.press("test note")
	p.waitFor(`() => window.ports["Quay rack"].port.got.length === 2`)
	require.Equal(t, []int{0x90, 60, 90}, p.got("Quay rack")[0].Data)

	p.MustElement("[aria-label=Play]").MustClick()
	p.waitForBar(3)
	synth, rack := p.got("Harbour synth"), p.got("Quay rack")
	var want [][]int
	for _, n := range a.computed(2, 2) {
		want = append(want, []int{0x94, int(n.Key) - 12})
	}
	var ons [][]int
	for _, m := range synth {
		require.LessOrEqual(t, m.At-m.Now, 25.5, "it is handed over too early")
		if m.Data[0] == 0x94 {
			ons = append(ons, m.Data[:2])
		}
	}
	require.Greater(t, len(ons), 4)
	require.Equal(t, want[:min(len(want), len(ons))], ons[:min(len(want), len(ons))])
	down, downRack := map[[2]int]bool{}, map[[2]int]bool{}
	requireTurns(t, synth, down)
	requireTurns(t, rack, downRack)
	p.MustElementR("[aria-label=Monitor] [role=log]", "note on")

	// Unplugged: said, and the other plays on. Back: it plays again, and no key is struck twice.
	p.MustEval(`() => window.ports["Quay rack"].unplug()`)
	p.MustElementR("[role=alert]", "Quay rack is gone")
	p.MustElementR("[data-state='Quay rack']", "Quay rack is not plugged in")
	downRack = map[[2]int]bool{}
	p.got("Quay rack")
	p.waitFor(`() => window.ports["Harbour synth"].port.got.length > 4`)
	require.Empty(t, p.got("Quay rack"))
	p.MustEval(`() => window.ports["Quay rack"].plug()`)
	p.waitFor(`() => window.ports["Quay rack"].port.got.length > 4`)
	requireTurns(t, p.got("Quay rack"), downRack)

	// Another page of the browser takes nothing while this one plays.
	other := &page{Page: p.profile.MustPage().Timeout(journey), t: t, profile: p.profile}
	other.MustEvalOnNewDocument(standInForOutputs)
	other.MustNavigate(a.url + "/#connect")
	other.press("use MIDI ports")
	other.MustElementR("[data-state='Quay rack']", "another page plays it")
	require.Empty(t, other.got("Quay rack"))
	other.MustClose()
	p.MustActivate()

	// A page that is closed in the middle of a note ends it.
	closing := func(port string) (messages []handed) {
		data := p.MustEval(`name => { window.dispatchEvent(new Event("pagehide")); return JSON.stringify(window.ports[name].port.got.splice(0)); }`, port).Str()
		require.NoError(t, json.Unmarshal([]byte(data), &messages))
		return messages
	}
	requireTurns(t, closing("Quay rack"), downRack)
	require.False(t, isDown(downRack), "%v", downRack)

	p.press("panic")
	p.waitFor(`() => window.ports["Quay rack"].port.got.filter(({data}) => data[0] === 0xbf && data[1] === 123).length === 1`)
	p.MustElement("[aria-label=Stop]").MustClick()
	p.waitFor(`() => document.querySelector("[aria-label=Play]")`)
	requireTurns(t, p.got("Harbour synth"), down)
	requireTurns(t, p.got("Quay rack"), downRack)
	p.waitFor(`() => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(() => resolve(true))))`)
	requireTurns(t, p.got("Harbour synth"), down)
	requireTurns(t, p.got("Quay rack"), downRack)
	require.False(t, isDown(down), "%v", down)
	require.False(t, isDown(downRack), "%v", downRack)

	// Two tracks that write one controller of a channel are marked, in words.
	a.edit(`{"all":{"name":"programs","edits":[{"setTrack":{"track":2,"program":1}},{"setTrack":{"track":3,"program":2,"channel":5,"routes":[
		{"output":1,"lowest":0,"highest":127,"softest":1,"loudest":127},{"output":2,"lowest":0,"highest":127,"softest":1,"loudest":127}]}}]}}`)
	p.MustElement("[aria-label^='Tide bass to Harbour synth'] [data-clash]")
	p.MustElement("[aria-label^='Tide bass to Harbour synth']").MustClick()
	p.MustElementR("aside [role=note]", "Hull kit also writes program on channel 5")

	// An output is removed with its routes, and undo brings all back.
	p.MustElementR("b", "^Quay rack$").MustClick()
	p.press("remove the output")
	a.waitFor(func(s *score.Project) bool { return len(s.Outputs) == 1 && len(s.Tracks[2].RouteList()) == 1 })
	p.Keyboard.Press(input.ControlLeft)
	p.Keyboard.MustType(input.KeyZ)
	p.Keyboard.Release(input.ControlLeft)
	a.waitFor(func(s *score.Project) bool { return len(s.Outputs) == 2 && len(s.Tracks[2].RouteList()) == 2 })
}

// A browser that refuses is said, and the built-in sound stays. By keys alone a track is sent to a port; when the program dies in
// the middle of a note, the page ends what sounds on its port.
func TestPortsAreRefusedAndTheProgramDies(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	a.unwire()
	refused := a.open("/#connect", 1280, 800, `navigator.requestMIDIAccess = async () => { throw new Error("the user said no.") }`)
	refused.press("use MIDI ports")
	refused.MustElementR("main [role=alert]", `no MIDI ports: the user said no\. The built-in sound plays on`)

	p := a.open("/#connect", 1280, 800, standInForOutputs)
	p.MustElementR("button", "^use MIDI ports$").MustFocus().MustType(input.Enter)
	p.MustElementR("button", `^\+ output$`).MustFocus().MustType(input.Enter)
	p.MustElement("[aria-label^='Tide bass to Harbour synth']").MustFocus().MustType(input.Enter)
	p.MustElementR("[data-state='Harbour synth']", "plays Harbour synth")

	// Messages that get notes in tune go out once the browser was asked for that.
	a.waitFor(func(s *score.Project) bool { return len(s.Tracks[1].RouteList()) == 2 })
	require.False(t, p.MustEval(`() => window.exclusive`).Bool())
	a.edit(`{"setTrack":{"track":2,"tuned":{"by":"messages"}}}`)
	p.press("allow tuning messages")
	require.True(t, p.MustEval(`() => window.exclusive`).Bool())
	p.waitFor(`() => !document.body.textContent.includes("tuning method of a track is messages")`)
	a.edit(`{"setProject":{"tempo":20000}}`) // a note lasts for seconds
	p.MustElement("[aria-label=Play]").MustFocus().MustType(input.Enter)
	p.waitFor(`() => window.ports["Harbour synth"].port.got.some(({ data }) => data[0] === 0x91)`)
	a.kill()
	p.waitFor(`() => {
		const down = new Set();
		for (const { data: [status, key] } of window.ports["Harbour synth"].port.got) {
			const name = (status & 15) + " " + key;
			if ((status & 0xf0) === 0x90) down.add(name);
			if ((status & 0xf0) === 0x80) down.delete(name);
		}
		return down.size === 0 && document.body.textContent.includes("does not answer");
	}`)
}
