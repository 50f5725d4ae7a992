package e2e

import (
	"net/http"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

// fader moves a fader of the keyboard on the screen.
func (p *page) fader(name string, value int) {
	p.MustElement("input[aria-label^='"+name+",']").MustEval(`value => { this.value = value; this.dispatchEvent(new Event("input", { bubbles: true })); }`, value)
}

// control selects a control of a track to be moved.
func (p *page) control(list, track, words string) {
	p.MustElement("select[aria-label='"+list+"']").MustEval(`(track, words) => {
		const option = [...this.querySelectorAll("optgroup[label='" + track + "'] option")].find(o => o.textContent.trim() === words);
		this.value = option.value;
		this.dispatchEvent(new Event("change", { bubbles: true }));
	}`, track, words)
}

// stands waits until a macro stands at a percentage.
func (p *page) stands(macro, percent string) {
	p.waitFor(`(macro, percent) => document.querySelector("[aria-label='Macro " + macro + "']").ariaValueText === percent`, macro, percent)
}

// A fader is learned onto a macro, taken over softly and moved while a take is recorded: the notes get fewer; the take is played again and is the
// same. By mouse, the macro itself by keys.
func TestAFaderMovesAMacro(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/#perform", 1280, 800, standInForOutputs)
	p.MustElementR("button", "^moves").MustClick()
	p.hand("Learn a fader for Fog")
	p.press("knobs")
	p.fader("fader 1", 60)
	p.MustElementR("#movers-page p", "CC 7, channel 1")
	require.Equal(t, []score.Mapping{{Message: score.MappedControl, Channel: 1, Number: 7, Control: score.ControlAddress{Name: "macro", ID: 1}, To: 1000}}, a.project().Mappings)

	p.fader("fader 1", 64)
	p.MustElement("[aria-label='Macro Fog'] [data-fader='504']")
	p.stands("Fog", "0.0 %")
	p.fader("fader 1", 0)
	p.fader("fader 1", 127)
	p.stands("Fog", "100.0 %")
	p.MustElement("[aria-label='Macro Fog']").MustFocus()
	p.Keyboard.MustType(input.PageDown)
	p.stands("Fog", "90.0 %")
	p.Keyboard.MustType(input.Delete)
	p.stands("Fog", "0.0 %")
	box := p.MustElement("[aria-label='Macro Tide']").MustShape().Box()
	p.Mouse.MustMoveTo(box.X+box.Width/2, box.Y+20)
	p.Mouse.MustDown(proto.InputMouseButtonLeft)
	for i := range 20 {
		p.Mouse.MustMoveTo(box.X+box.Width*(0.5+float64(i)/80), box.Y+20)
	}
	p.Mouse.MustMoveTo(box.X+box.Width, box.Y+20)
	p.Mouse.MustUp(proto.InputMouseButtonLeft)
	p.stands("Tide", "100.0 %")
	p.MustElementR("[aria-label=Hands] button", "^back").MustClick()
	p.stands("Tide", "50.0 %")
	p.fader("fader 1", 0)

	a.edit(`{"all":{"name":"those that fog moves","edits":[{"setTrack":{"track":4,"mute":true}},{"setTrack":{"track":5,"mute":true}},{"setTrack":{"track":6,"mute":true}}]}}`)
	p.enter("Tempo in beats per minute", "240")
	p.hand("Record")
	p.waitForBar(5)
	p.fader("fader 1", 127)
	p.stands("Fog", "100.0 %")
	p.waitForBar(11)
	p.hand("Stop")
	require.Eventually(t, func() bool { return len(a.takes()) == 1 && a.takes()[0].Bars > 8 }, patience, 20*time.Millisecond)
	was := a.takeFile(a.takes()[0].ID)
	bar := 4 * int64(score.TicksPerQuarter)
	in := func(from, to int64) (notes int) {
		for _, note := range was {
			if note.tick >= from*bar && note.tick < to*bar {
				notes++
			}
		}
		return notes
	}
	require.Greater(t, in(0, 4), 4*in(6, 10)/3, "in fog fewer of them sound")

	p.MustElementR("nav a", "Takes").MustClick()
	p.take(".").MustClick()
	p.MustElement("[aria-label='What was performed'] [aria-label='Fog 100.0 %']")
	p.takePage("time")
	p.MustElementR("#take-page button", "^play again$").MustClick()
	require.Eventually(t, func() bool { return len(a.takes()) == 2 }, patience, 20*time.Millisecond)
	require.Equal(t, a.takeFile(a.takes()[0].ID), a.takeFile(a.takes()[1].ID))
}

// A modulator is made and drawn ahead; what it moves is drawn as it will be; one that would reach itself is refused by name. Programs turn its amount by address.
func TestAModulatorIsMade(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/#perform", 1280, 800, standInForOutputs)
	p.MustElementR("button", "^moves").MustClick()
	p.MustElement("#movers-tab-modulator").MustClick()
	p.hand("Add a modulator")
	p.MustElement("[aria-label='Curve of Modulator 3'][data-levels='768']")
	p.choice("Modulator shape", "by notes")
	p.choice("Track that drives the modulator", "Hull kit")
	p.control("Add a control to the modulator", "Bell buoy", "transpose by degrees")
	p.MustElement("input[aria-label='Depth on Bell buoy: transpose by degrees']")
	p.MustElement("[aria-label='Curve of Modulator 3'][data-levels='768']")
	revision := a.revision()
	p.choice("Track that drives the modulator", "Bell buoy")
	p.MustElementR("[role=alert]", "Modulator 3 → Bell buoy → Modulator 3")
	require.Equal(t, revision, a.revision(), "it stays as it was")
	require.Equal(t, http.StatusOK, a.post("/api/controls", `{"address":"/modulation/3","value":0}`))
	p.MustElementR("[aria-label=Modulators] button", `Modulator 3[^%]*\D0 %`)
	require.Equal(t, http.StatusUnprocessableEntity, a.post("/api/controls", `{"address":"/modulation/3","value":101}`))
	require.Equal(t, http.StatusUnprocessableEntity, a.post("/api/controls", `{"address":"/modulation/x","value":1}`))

	for _, modulator := range []string{"1", "2"} {
		require.Equal(t, http.StatusOK, a.post("/api/controls", `{"address":"/modulation/`+modulator+`","value":100}`))
	}
	p.MustElementR("nav a", "Write").MustClick()
	p.MustElement("[aria-label='Curve of Swell'] path")
	p.lane("velocity").MustFocus()
	for range 4 {
		p.Keyboard.MustType(input.ArrowRight)
	}
	p.waitFor(`() => /^102 → \d+$/.test(document.querySelector("[data-cursor-value]")?.textContent)`)
}
