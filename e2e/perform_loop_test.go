package e2e

import (
	"fmt"
	"net"
	"os/exec"
	"slices"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// Steps of a track are chosen by a drag and looped at half speed, in another order; one more is added by the keyboard; then the track
// plays on as it is written. What was played is that.
func TestChosenStepsAreLooped(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	a.edit(`{"setProject":{"tempo":240000}}`)
	p := a.open("/#perform", 1280, 800, standInForOutputs)
	p.hand("Record")
	p.waitForBar(2)
	p.Keyboard.MustType(input.KeyO)
	p.choice("Track that loops", "Bell buoy")
	p.press("bar")
	p.over("Loop step 3")
	p.Mouse.MustDown(proto.InputMouseButtonLeft)
	p.over("Loop step 4")
	p.over("Loop step 5")
	p.Mouse.MustUp(proto.InputMouseButtonLeft)
	p.hand("half speed")
	p.MustElement("button[aria-label='Loop step 5'][aria-pressed=true]")
	p.MustElement("button[aria-label='Loop step 6'][aria-pressed=false]")
	p.MustElement("button[aria-label='half speed'][aria-pressed=true]")
	p.MustSetViewport(1024, 700, 1, false)
	p.press("arrange") // which leaves the rest its room on a narrow screen too
	p.waitFor(`() => document.querySelector("[aria-label=Loop]").getBoundingClientRect().right <= document.querySelector("#arrange-page").getBoundingClientRect().left + 1`)
	p.waitFor(`() => document.querySelector("[aria-label=Loop]").scrollWidth <= document.querySelector("[aria-label=Loop]").clientWidth`)
	p.press("arrange")
	p.MustSetViewport(1280, 800, 1, false)
	p.waitForBar(6)
	p.press("now")
	p.choice("Order of the loop", "backward")
	p.MustElement("button[aria-label='Loop step 9']").MustFocus()
	p.Keyboard.MustType(input.Enter)
	p.MustElement("button[aria-label='Loop step 9'][aria-pressed=true]")
	p.waitForBar(8)
	p.press("clear loop")
	p.MustElement("button[aria-label='Loop step 3'][aria-pressed=false]")
	p.MustElement("button[aria-label='written speed'][aria-pressed=true]")
	p.waitFor(`async () => (await (await fetch("api/stage")).json()).changes.length === 0`)
	p.waitForBar(9)
	file := a.download("/api/transport/log.json")
	logged, _, err := log.Decode(file)
	require.NoError(t, err)
	p.hand("Stop")
	p.MustElement("button[aria-label=Play]")
	require.Empty(t, a.project().Tracks[0].Parts()[0].Held, "nothing was written")

	var values []int
	for _, entry := range logged.Entries {
		if entry.Action.Control.Name == "loop steps 1-16" && entry.Action.Value != nil {
			values = append(values, *entry.Action.Value)
		}
	}
	require.Equal(t, []int{0b11100, 0b100011100}, values)
	p.MustElementR("nav a", "Takes").MustClick()
	p.take(".")
	takes := a.takes()
	require.Len(t, takes, 1)
	const looked = 8 * 4 * int64(score.TicksPerQuarter)
	later := func(note struck) bool { return note.tick >= looked }
	want := slices.DeleteFunc(a.renderedFrom("--log", file), later)
	require.NotEmpty(t, want)
	requirePlayed(t, want, slices.DeleteFunc(a.takeFile(takes[0].ID), later), a.leftOut(takes[0].ID))
}

// over moves the pointer over a button.
func (p *page) over(name string) {
	p.t.Helper()
	box := p.MustElement("button[aria-label='" + name + "']").MustShape().Box()
	p.Mouse.MustMoveTo(box.X+box.Width/2, box.Y+box.Height/2)
}

// A set list of two projects is made, the next project comes in with a bar while the first plays its song, which was recorded, and
// one that is deleted meanwhile is said and left out.
func TestASetListIsPlayed(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800, standInForOutputs)
	p.fast()
	p.library()
	p.MustElement("li[aria-label='Night opening']").MustElementR("button", "duplicate").MustClick()
	p.rename("Night opening copy", "Ferry quay")
	p.MustElement("#library-tab-set-lists").MustClick()
	p.enter("Name of the set list", "Opening night")
	list := p.MustElement("[aria-label='Set list Opening night']")
	list.MustElementR("li", "Night opening")
	p.MustElementR("[role=tab]", "^projects$").MustClick()
	p.MustElement("li[aria-label='Ferry quay']").MustElementR("button", "open").MustClick()
	p.MustElementR("header a", "Ferry quay")
	p.library()
	p.MustElement("#library-tab-set-lists").MustClick()
	p.MustElementR("[aria-label='Set list Opening night'] button", "Ferry quay").MustClick()
	p.MustElementR("[aria-label='Projects of Opening night'] li", "Ferry quay")
	p.MustElementR("[role=tab]", "^projects$").MustClick()
	p.MustElement("li[aria-label='Night opening']").MustElementR("button", "open").MustClick()
	p.MustElementR("header a", "Night opening")

	p.MustElementR("nav a", "Perform").MustClick()
	p.press("song")
	p.MustElementR("button[aria-pressed=true]", "^song$")
	p.hand("Record")
	p.waitForBar(2)
	p.press("next project")
	p.MustElementR("header a", "Ferry quay")
	p.MustElement("button[aria-label=Stop]") // it plays on
	p.MustElement("button[aria-label='Section Doors'][aria-current=true]")
	p.waitForBar(2)
	p.MustElementR("button[disabled]", "^next project$")
	p.hand("Stop")
	require.Empty(t, a.takes(), "the take is of the first project")
	p.library()
	p.MustElement("li[aria-label='Night opening']").MustElementR("button", "open").MustClick()
	p.MustElementR("header a", "Night opening")
	require.Len(t, a.takes(), 1)

	p.library()
	p.MustElement("li[aria-label='Ferry quay']").MustElementR("button", "delete").MustClick()
	p.MustElement("[aria-label='Bring Ferry quay back']")
	p.MustElement("#library-tab-set-lists").MustClick()
	p.MustElementR("[aria-label='Projects of Opening night'] li", "a project that is deleted, or gone")
	p.MustElementR("nav a", "Perform").MustClick()
	p.hand("Play")
	p.waitForBar(1)
	p.press("next project")
	p.MustElementR("[role=alert], [role=status]", "deleted|gone")
	p.MustElement("button[aria-label=Stop]")
	p.MustElementR("header a", "Night opening")
}

// A pad is learned as the switch of a scene and a program as that of a section; what they switch counts
// with the next bar. A pad that is a switch plays no note.
func TestScenesAreSwitchedByAController(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/#perform", 1280, 800, standInForMIDI)
	p.press("arrange")
	p.MustElement("#arrange-tab-scene").MustClick()
	p.hand("Scene Fog signal 4")
	p.hand("Learn a switch of Fog signal")
	p.press("find inputs")
	p.choice("Input", "Pier keys")
	p.waitFor(`() => window.plug.listens()`)
	p.MustEval(`() => { plug.send([0x99, 36, 100]); plug.send([0x89, 36, 0]); }`)
	p.MustElementR("#arrange-page span", "^note 36, channel 10$")
	p.MustElement("#arrange-tab-section").MustClick()
	p.hand("Section Winches")
	p.hand("Learn a switch of Winches")
	p.MustEval(`() => plug.send([0xc0, 4])`)
	p.MustElementR("#arrange-page span", "^program 5, channel 1$")
	p.press("arrange")
	require.Len(t, a.project().Switches, 2)

	p.press("song")
	p.MustElementR("button[aria-pressed=true]", "^song$")
	p.hand("Play")
	p.waitForBar(1)
	p.MustEval(`() => plug.send([0x99, 36, 1])`)
	p.MustElement("button[aria-label='Scene Fog signal 4'][aria-current=true]")
	p.MustElement("button[aria-label='Bell buoy: pattern Fog signal'][aria-pressed=true]")
	p.MustElement("button[aria-label='mute Hull kit'][aria-pressed=true]")
	p.MustEval(`() => plug.send([0xc0, 4])`)
	p.MustElement("button[aria-label='Section Winches'][aria-current=true]")
	p.hand("Stop")
	logged, _, err := log.Decode(a.download("/api/transport/log.json"))
	require.NoError(t, err)
	for _, entry := range logged.Entries {
		require.NotNil(t, entry.Action)
		require.Zero(t, entry.Action.At%(4*score.TicksPerQuarter), entry.Action.Control)
	}
	require.Equal(t, stage.Section, logged.Entries[len(logged.Entries)-1].Action.Control.Name)
}

// A program of this machine switches scenes by OSC, without any page; what cannot be is said.
func TestScenesAreSwitchedByOSC(t *testing.T) {
	t.Parallel()
	free, err := net.ListenUDP("udp", &net.UDPAddr{IP: net.IPv4(127, 0, 0, 1)})
	require.NoError(t, err)
	_, port, err := net.SplitHostPort(free.LocalAddr().String())
	require.NoError(t, err)
	require.NoError(t, free.Close())
	a := start(t, t.TempDir(), "--osc-in", port)
	scene := a.project().Scenes[3]
	a.edit(fmt.Sprintf(`{"setProject":{"switches":[{"message":"control","channel":3,"number":20,"control":{"name":"scene"},"value":%d,"when":"now"}]}}`, scene.ID))
	p := a.open("/#perform", 1280, 800)
	send := func(arguments ...string) {
		said, err := exec.Command("oscsend", append([]string{"127.0.0.1", port}, arguments...)...).CombinedOutput()
		require.NoError(t, err, string(said))
	}
	send("/cc", "iii", "20", "127", "3")
	p.MustElement("button[aria-label^='Scene " + scene.Name + "'][aria-current=true]")
	send("/jump", "i", "1")
	p.MustElementR("[role=alert]", `Of OSC that came in some was left out: nobody hears "/jump": there are /note, /cc, /program`)
	p.MustElementR("a", "^Connect$").MustClick()
	p.MustElementR("[role=note]", "OSC comes in at 127.0.0.1:"+port)
}
