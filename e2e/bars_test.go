package e2e

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
)

// A bar that is pressed on the ruler is where playing starts, bars that are dragged over are looped, and playing goes on
// where it stopped, or jumps; by keys too.
func TestPlayingFromABarAndLoopingBars(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	ruler := p.MustElement("[aria-label='Bar from which to play']")
	ruler.MustFocus()
	p.Keyboard.MustType(input.ArrowRight)
	p.waitFor(`() => document.querySelector("[data-position]").textContent === "002.1.1"`)
	box := ruler.MustShape().Box()
	y := box.Y + box.Height/2
	p.Mouse.MustMoveTo(box.X+5, y).MustDown(proto.InputMouseButtonLeft)
	p.Mouse.MustMoveTo(box.X+box.Width-5, y)
	p.Mouse.MustUp(proto.InputMouseButtonLeft)
	loop := func(option string) { p.MustElement("select[aria-label='Loop of bars']").MustSelect(option) }
	p.MustElementR("select[aria-label='Loop of bars'] option", `^loop 1–3$`)

	p.Mouse.MustMoveTo(box.X+box.Width-5, y).MustClick(proto.InputMouseButtonLeft)
	p.MustElement("[aria-label=Play]").MustClick()
	p.waitFor(`() => /^003/.test(document.querySelector("[data-position]").textContent)`)
	p.waitFor(`() => /^001/.test(document.querySelector("[data-position]").textContent)`) // it has gone back
	loop("loop 1–3, new chance")
	p.waitFor(`() => document.querySelector("select[aria-label='Loop of bars']").value === "goesOn"`)
	p.choice("Apply at", "next beat")
	p.MustElementR("button", "^to bar 3$").MustClick()
	p.waitFor(`() => /^003/.test(document.querySelector("[data-position]").textContent)`)
	p.MustElementR("button[aria-pressed=false]", "^to bar 3$")
	p.choice("Apply at", "next 4 bars")
	p.MustElement("[aria-label='Bar from which to play']").MustFocus()
	p.Keyboard.MustType(input.Enter)
	p.MustElementR("button[aria-pressed=true]", "^to bar 3$")
	p.MustElement("[data-waiting='jump to bar 3']")
	p.Keyboard.MustType(input.ArrowLeft, input.Enter)
	p.MustElementR("button[aria-pressed=true]", "^to bar 2$").MustClick() // the last counts, and is taken back
	p.MustElementR("button[aria-pressed=false]", "^to bar 2$")
	loop("no loop")
	p.waitFor(`() => !document.querySelector("[data-looped]")`)
	p.waitForBar(4)
	p.enter("Tempo in beats per minute", "20") // so slow that the next bar but one is far
	p.undoable("tempo, 96.00 bpm to 20.00 bpm")
	bar := p.MustEval(`() => parseInt(document.querySelector("[data-position]").textContent)`).Int()
	p.MustElement("[aria-label=Stop]").MustClick()
	p.MustElement("[aria-label=Play]")
	p.MustElement("body").MustFocus()
	p.KeyActions().Press(input.ShiftLeft).Type(input.Space).MustDo()
	p.MustElement("[aria-label=Stop]")
	p.waitFor(`bar => [bar, bar + 1].includes(parseInt(document.querySelector("[data-position]").textContent))`, bar)
}
