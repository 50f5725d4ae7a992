package e2e

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// What is drawn is what sounds: each hit of a ratchet whose hits are drawn from a table of weights, come closer and closer and
// are left out by chance, stands where the core plays it; and so does each of a step that is filled in.
func TestRatchetsAreDrawnAsTheySound(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	a.edit(`{"setPart":{"track":1,"pattern":0,"part":0,"fill":60,"ratchet":{"spacing":"gathering","ramp":-60,"odds":60}}}`)
	a.edit(`{"setProject":{"filling":true}}`)
	a.edit(`{"setLane":{"track":1,"pattern":0,"part":0,"lane":"ratchet","linked":true,` +
		`"weights":[{"lowest":1,"highest":1,"weight":1},{"lowest":3,"highest":5,"weight":2}]}}`)
	p.undoable("ratchet")
	for range 2 { // from three bars to one, so that hits are far enough apart to tell
		p.press("−")
	}

	project := a.project()
	bar := project.Meter.Bar()
	var starts []score.Tick
	for _, n := range play.Render(project, 0, bar, nil) {
		if n.Track == 1 {
			starts = append(starts, n.Start)
		}
	}
	require.Greater(t, len(starts), 8)
	p.waitFor(`(starts, bar) => {
		const strip = document.querySelector("[data-lane=gate] [role=slider] svg")
		const scale = strip.clientWidth / bar
		const drawn = [...strip.querySelectorAll("[data-sounds=true]")].map((mark) => mark.x.baseVal.value)
		return drawn.length === starts.length &&
			starts.every((start) => drawn.some((x) => Math.abs(x - start * scale) < 1.5))
	}`, starts, bar)
}

// A gate that is being drawn is seen under the pointer, before the pointer is let up and the core was asked: one that comes,
// and one that goes.
func TestGatesAreSeenWhileTheyAreDrawn(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	const count = `() => document.querySelectorAll("[data-lane=gate] [data-sounds]").length`
	p.waitFor(`() => document.querySelectorAll("[data-lane=gate] [data-sounds]").length > 0`)
	before := p.MustEval(count).Int()
	passes := 3 // of the loop, in the bars that are shown
	for step, more := range map[int]int{1: passes, 0: -passes} {
		p.point("gate", step, 0.5)
		p.Mouse.MustDown("left")
		p.waitFor(`(count) => document.querySelectorAll("[data-lane=gate] [data-sounds]").length === count`, before+more)
		require.Equal(t, score.Demo(), a.project(), "nothing is written yet")
		p.MustEval(`() => document.querySelector("[data-lane=gate] [role=slider]").dispatchEvent(new PointerEvent("pointercancel", { bubbles: true, pointerId: 1 }))`) // 1 is the mouse
		p.waitFor(`(count) => document.querySelectorAll("[data-lane=gate] [data-sounds]").length === count`, before)
		p.Mouse.MustUp("left")
	}
	require.Equal(t, score.Demo(), a.project())
}
