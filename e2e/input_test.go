package e2e

import (
	"fmt"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

// key presses a key of the keyboard on the screen, and lets go of it.
func (p *page) key(note int) {
	box := p.MustElement(fmt.Sprintf("[data-key='%d']", note)).MustShape().Box()
	p.Mouse.MustMoveTo(box.X+box.Width/2, box.Y+box.Height-4)
	p.Mouse.MustDown(proto.InputMouseButtonLeft)
	p.Mouse.MustUp(proto.InputMouseButtonLeft)
}

// Four notes are played into steps on the keyboard on the screen, then a rest, a tie and a chord by the computer's
// keys; the root is learned by playing it.
func TestNotesArePlayedIntoSteps(t *testing.T) {
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.press(`\+ track`)
	p.undoable("new melodic track")
	p.Keyboard.MustType(input.KeyN)
	p.choice("What becomes of notes", "into steps, one by one")
	// D dorian: D3, F3, G3, A3 are its first, third, fourth and fifth note, an octave below D4.
	for i, note := range []int{50, 53, 55, 57} {
		p.key(note)
		p.MustElementR("[data-entry]", fmt.Sprintf("step %d of 16", i+2))
	}
	a.waitFor(func(p *score.Project) bool { return p.Tracks[6].Parts()[0].Lanes.Gate.Steps[3] == score.On })
	p.Keyboard.MustType(input.KeyC)
	p.MustElementR("[data-entry]", "step 6 of 16")
	p.Keyboard.MustType(input.KeyV)
	p.MustElementR("[data-entry]", "step 7 of 16")
	// D3, F3 and A3 are held together: the triad on the first degree.
	require.NoError(t, p.Keyboard.Press(input.KeyE)) // E flat 3 is foreign, and is let go
	require.NoError(t, p.Keyboard.Release(input.KeyE))
	p.MustElementR("[data-entry]", "step 8 of 16")
	for _, key := range []input.Key{input.KeyS, input.KeyF, input.KeyH} {
		require.NoError(t, p.Keyboard.Press(key))
	}
	for _, key := range []input.Key{input.KeyS, input.KeyF, input.KeyH} {
		require.NoError(t, p.Keyboard.Release(key))
	}
	p.MustElementR("[data-entry]", "step 9 of 16")
	a.waitFor(func(p *score.Project) bool { return p.Tracks[6].Parts()[0].Lanes.Gate.Steps[7] == score.On })
	lanes := a.project().Tracks[6].Parts()[0].Lanes
	require.Equal(t, []int{1, 1, 1, 1, 0, 2, 1, 1, 0}, lanes.Gate.Steps[:9])
	require.Equal(t, []int{-7, -5, -4, -3}, lanes.Pitch.Steps[:4])
	require.Greater(t, lanes.Velocity.Steps[0], 110, "pressed at its end, a key is loud")
	require.Equal(t, 92, lanes.Velocity.Steps[7])

	p.MustElement("[aria-label='Learn chord']").MustClick()
	for _, key := range []input.Key{input.KeyS, input.KeyF, input.KeyH, input.KeyK} { // D3, F3, A3, C4
		require.NoError(t, p.Keyboard.Press(key))
	}
	for _, key := range []input.Key{input.KeyS, input.KeyF, input.KeyH, input.KeyK} {
		require.NoError(t, p.Keyboard.Release(key))
	}
	a.waitFor(func(p *score.Project) bool {
		return p.Tracks[6].Parts()[0].Lanes.Lane(score.Chord).Steps[8] == 3 // the seventh of the scale
	})

	p.MustElement("[aria-label='Learn root']").MustClick()
	p.key(55)
	a.waitFor(func(p *score.Project) bool { return p.Key.Root == 7 })
}

// Keys lie in rows a fourth apart, or the scale in rows, moved by semitones; all are struck with the velocity that is set.
func TestLayoutsArePlayedIntoSteps(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.press(`\+ track`)
	p.undoable("new melodic track")
	p.Keyboard.MustType(input.KeyN)
	p.choice("What becomes of notes", "into steps, one by one")
	p.choice("Layout of the keys", "rows in fourths")
	p.press("set velocity")
	p.enter("Velocity of the keys", "71")
	// From C3 up: the third column, and twice the row above it, are D3, G3 and C4, which in D dorian are 1, 4 and 7, an octave below D4.
	box := p.MustElement("svg[aria-label^='Keys C3']").MustShape().Box()
	for row := range 3 {
		p.Mouse.MustMoveTo(box.X+box.Width*2.5/16, box.Y+box.Height*(3.5-float64(row))/4)
		p.Mouse.MustDown(proto.InputMouseButtonLeft)
		p.Mouse.MustUp(proto.InputMouseButtonLeft)
		p.MustElementR("[data-entry]", fmt.Sprintf("step %d of 16", row+2))
	}
	p.choice("Layout of the keys", "scale in rows")
	p.hand("semitone −")
	p.hand("semitone −") // from B flat 2, so that the first row begins at D2
	box = p.MustElement("svg[aria-label^='Keys D2']").MustShape().Box()
	p.Mouse.MustMoveTo(box.X+box.Width*1.5/7, box.Y+box.Height*0.5) // the second note of the second row: E3
	p.Mouse.MustDown(proto.InputMouseButtonLeft)
	p.Mouse.MustUp(proto.InputMouseButtonLeft)
	a.waitFor(func(p *score.Project) bool { return p.Tracks[6].Parts()[0].Lanes.Gate.Steps[3] == score.On })
	lanes := a.project().Tracks[6].Parts()[0].Lanes
	require.Equal(t, []int{-7, -4, -1, -6}, lanes.Pitch.Steps[:4])
	require.Equal(t, []int{71, 71, 71, 71}, lanes.Velocity.Steps[:4])
}

// While the project plays, notes go into the steps that are on their way; a MIDI keyboard that is plugged in plays
// too, and what Jettyfog itself has sent is not entered when it comes back through its port.
func TestNotesArePlayedInTime(t *testing.T) {
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800, standInForMIDI)
	p.MustElementR("button", "^keyboard$").MustClick()
	p.press("find inputs")
	p.choice("Input", "Pier keys")
	p.waitFor(`() => window.plug.listens()`)
	p.choice("What becomes of notes", "into steps, in time")
	p.press(`\+ track`)
	p.undoable("new melodic track")
	p.MustElement("[aria-label=Play]").MustClick()
	p.waitForBar(2)
	p.MustEval(`() => { window.plug.send([0x90, 62, 77]); window.plug.send([0x80, 62, 0]); }`)
	p.undoable("notes played")
	lanes := a.project().Tracks[6].Parts()[0].Lanes
	on := 0
	for step, gate := range lanes.Gate.Steps[:16] {
		if gate == score.On {
			on++
			require.Equal(t, 77, lanes.Velocity.Steps[step])
		}
	}
	require.Equal(t, 1, on)

	// What the bass sends comes back as it is; nothing of it is entered.
	p.MustEval(`() => {
		window.echoed = 0;
		let least = Infinity; // what the page is ahead of the server's clock at most, by a message that it got to at once
		const socket = new WebSocket(location.href.replace("http", "ws").replace(/[#].*/, "") + "ws");
		let greeted = false; // a greeting has notes that go on, which went out before
		let heard = 0;
		socket.onmessage = ({ data }) => {
			const message = JSON.parse(data);
			greeted ||= Boolean(message.problems);
			for (const s of message.batch?.sounds ?? []) {
				if (s.velocity === 0 || !greeted) continue;
				least = Math.min(least, performance.now() - s.at / 1e6);
				if (++heard < 20) continue; // until then it may not be known well
				const back = s.at / 1e6 + least + 125; // as a port stamps it, however late the page gets to it
				setTimeout(() => {
					window.plug.send([0x90 | s.channel, s.key, s.velocity], back);
					window.plug.send([0x80 | s.channel, s.key, 0], back);
					window.echoed++;
				}, 125);
			}
		};
	}`)
	before := a.project()
	p.waitFor(`() => window.echoed > 12`)
	require.Equal(t, before, a.project())
	p.MustEval(`() => window.plug.unplug()`)
	p.MustElementR("[role=alert]", "Pier keys is gone. All that it had down is released")
}

// standInForMIDI gives the page a MIDI keyboard to be plugged in, of the interface that browsers have.
const standInForMIDI = `
	const port = { id: "pier", name: "Pier keys", state: "connected", onmidimessage: null };
	const access = { inputs: new Map([["pier", port]]), outputs: new Map(), onstatechange: null };
	navigator.requestMIDIAccess = async () => access;
	window.plug = {
		listens: () => port.onmidimessage !== null,
		send: (bytes, at) => port.onmidimessage?.({ data: new Uint8Array(bytes), timeStamp: at ?? performance.now() }),
		unplug: () => { port.state = "disconnected"; access.inputs.clear(); access.onstatechange?.(); },
	};
`

// What a track played last is looped, edited and let go of; a take of it is rendered, becomes a pattern, and a take
// of just two bars is recorded after a count-in.
func TestLoopsPatternsAndPlannedTakes(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.fast()
	p.MustElement("[aria-label=Play]").MustClick()
	p.waitForBar(4)
	p.sheet("track")
	p.enter("Bars to loop", "2")
	p.press("loop bars")
	p.MustElementR("#sheet-page p", "It plays a loop of 2 bars")
	p.MustElement("[aria-label=Stop]").MustClick()
	loop := a.project().Tracks[0].Loop
	p.press("edit the loop")
	p.MustElement("[data-note='0']")
	p.press("octave up")
	a.waitFor(func(p *score.Project) bool { return p.Tracks[0].Loop.Notes[0].Key == loop.Notes[0].Key+12 })
	p.press("clear")
	a.waitFor(func(p *score.Project) bool { return p.Tracks[0].Loop == nil })

	p.enter("Render from bar", "3")
	p.enter("Bars to render", "2")
	p.press("render a take")
	p.take("Night opening, bars 3 to 4")
	p.MustElement("[data-note='0']")
	p.MustElementR("[aria-label='Tracks of the take'] button", "Tide bass").MustClick()
	p.takePage("steps")
	p.choice("Pattern for", "Tide bass")
	p.press("write a pattern")
	p.MustElementR("[role=alert]", "“Tide bass” plays it as a pattern now. It has")
	bass := a.project().Tracks[1]
	require.Len(t, bass.Patterns, 3)
	require.Equal(t, bass.Patterns[len(bass.Patterns)-1].ID, bass.Playing)

	p.MustElement("[aria-label='What to record']").MustClick()
	p.enter("Count-in", "1")
	p.enter("Record from bar", "2")
	p.enter("Bars to record", "2")
	p.MustElementR("dialog p", "After a count-in of 1 bar, from bar 2 on, 2 bars.")
	p.Keyboard.MustType(input.Escape)
	p.waitFor(`() => !document.querySelector("dialog[open]")`)
	p.MustElement("[aria-label=Record]").MustClick()
	p.waitForBar(5)
	p.MustElement("[aria-label=Stop]").MustClick()
	p.MustElementR("nav a", "Takes").MustClick()
	p.MustElementR("[aria-label='List of takes'] li button", `Take 2[^$]*2\.0 bars`)
}
