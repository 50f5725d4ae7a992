package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

// What is performed lies on top of the project: it counts from the moment that is chosen, can be taken back and undone,
// stays over stop and restart, and is stored or reset.
func TestPerforming(t *testing.T) {
	t.Parallel()
	folder := t.TempDir()
	a := start(t, folder)
	p := a.open("/", 1280, 800)
	before := a.project()
	p.sheet("track")
	p.in(`\+`)
	p.undoable("copy of a pattern")
	p.MustElement("#sheet-page button[aria-label='B'][aria-pressed=true]")
	p.MustElement("#sheet-page button[aria-label='A, plays'][aria-pressed=false]")

	p.MustElement("[aria-label=Record]").MustClick()
	p.MustElement("select[aria-label='Apply at']").MustSelect("next 4 bars")
	p.in("play B")
	p.MustElementR("#sheet-page button", "take back: Bell buoy: pattern B").MustClick()
	p.MustElement("[aria-label='Mute Tide bass']").MustClick()
	p.MustElementR("footer button", "0 live, 1 waiting").MustClick()
	p.MustElement("[aria-label='take back Tide bass: mute on']").MustClick()
	p.waitFor(`() => !document.querySelector("[aria-label='Waiting']")`)
	p.Keyboard.MustType(input.Escape)
	p.pressed("Mute Tide bass", false)

	p.MustElement("select[aria-label='Apply at']").MustSelect("next bar")
	p.in("play B")
	p.MustElement("#sheet-page button[aria-label='B, plays']")
	p.Keyboard.MustType(input.Escape, input.KeyM)
	p.pressed("Mute Bell buoy", true)
	p.MustElement("[aria-label^='back: undo']").MustClick()
	p.pressed("Mute Bell buoy", false)
	p.MustElement("select[aria-label='Apply at']").MustSelect("at once")
	p.MustElement("[aria-label='Active Hull kit']").MustClick()
	p.pressed("Active Hull kit", false)

	p.MustElement("[aria-label='Push the tempo slower']").MustHover()
	p.Mouse.MustDown(proto.InputMouseButtonLeft)
	p.MustElementR("footer button", "3 live")
	p.Mouse.MustUp(proto.InputMouseButtonLeft)
	p.MustElementR("footer button", "2 live")
	p.MustElement("[aria-label=Stop]").MustClick()
	p.MustElement("[aria-label=Play]")

	p.MustElementR("nav a", "Takes").MustClick()
	p.take("Take 1").MustClick()
	p.takePage("time")
	p.press("play again")
	p.take("Take 1, again")
	takes := a.takes() // the latest first
	recorded := string(a.download(fmt.Sprintf("/api/takes/%d.csv", takes[1].ID)))
	require.Greater(t, strings.Count(recorded, "\n"), 10)
	require.Equal(t, recorded, string(a.download(fmt.Sprintf("/api/takes/%d.csv", takes[0].ID))), "played again it is the same")

	after := a.project()
	after.Tracks[0].Patterns = after.Tracks[0].Patterns[:1]
	require.Equal(t, before, after, "nothing of that was written")
	p.MustClose()
	a.stop()

	again := start(t, folder)
	p = again.open("/", 1280, 800)
	p.pressed("Active Hull kit", false)
	p.MustElementR("footer button", "2 live").MustClick()
	p.MustElementR("dialog button", "store in the project").MustClick()
	again.waitFor(func(s *score.Project) bool { return s.Tracks[0].Playing == 1 && s.Tracks[2].OffAir })
	p.MustElementR("dialog li", "Everything plays as it is written")
	p.Keyboard.MustType(input.Escape)
	p.undoable("live changes")
	p.Keyboard.MustType(input.Escape)
	p.MustElement("[aria-label^='Undo Live changes'], [aria-label^='Undo live changes']").MustClick()
	p.MustElementR("footer button", "2 live").MustClick()
	p.MustElementR("dialog button", "reset").MustHover()
	p.Mouse.MustDown(proto.InputMouseButtonLeft)
	p.MustElementR("dialog li", "Everything plays as it is written")
	p.Mouse.MustUp(proto.InputMouseButtonLeft)
	p.Keyboard.MustType(input.Escape)
	p.pressed("Active Hull kit", true)
	require.Equal(t, before, func() *score.Project {
		p := again.project()
		p.Tracks[0].Patterns = p.Tracks[0].Patterns[:1]
		return p
	}())
}

// Chosen steps are looped while they are chosen to be, and the chart shows what plays.
func TestLoopingSteps(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.lane("gate").MustFocus()
	p.Keyboard.MustType(input.Home)
	p.Keyboard.Press(input.ShiftLeft)
	p.Keyboard.MustType(input.ArrowRight, input.ArrowRight)
	p.Keyboard.Release(input.ShiftLeft)
	p.press("loop steps")
	p.MustElementR("footer button", "1 live")
	own := a.computed(1, 2)
	p.fast()
	heard := p.heard(a, 1, 2)
	require.NotEqual(t, own, heard)
	project := a.project()
	project.Tracks[0].Parts()[0].Lanes.Gate.Length = 3
	require.Equal(t, a.computedOf(project, 1, 2), heard, "three steps, over and over")
	p.press("loop steps")
	p.MustElementR("footer button", "0 live")
	require.Equal(t, own, p.heard(a, 1, 2))
}

// A track is realigned once, from the moment that is chosen: it waits, can be taken back, and changes nothing that stays.
func TestRealigningATrackOnce(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.sheet("track")
	p.MustElementR("#sheet-page button[disabled]", "realign now")
	p.MustElement("[aria-label=Play]").MustClick()
	p.choice("Apply at", "next 4 bars")
	p.press("realign now")
	p.MustElementR("#sheet-page button[aria-pressed=true]", "realign now").MustClick()
	p.MustElementR("#sheet-page button[aria-pressed=false]", "realign now")
	p.choice("Apply at", "at once")
	p.press("realign now")
	p.press("evolve now")
	p.MustElementR("footer button", "^0 live$")
	p.MustElement("[aria-label=Stop]").MustClick()
	p.MustElement("[aria-label=Play]")
	logged := string(a.download("/api/transport/log.json"))
	require.Equal(t, 1, strings.Count(logged, `"control":{"name":"realign","track":1},"value":1`))
	require.Equal(t, 1, strings.Count(logged, `"control":{"name":"evolve","track":1},"value":1`))
}
