package e2e

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/go-rod/rod/lib/input"
)

// pictures returns the folder that JETTYFOG_SCREENSHOTS names for the pictures of docs/screenshots
// (`make screenshots`). Without it, they are taken the same way and thrown away, so that the way stays open.
func pictures(t *testing.T) string {
	folder := os.Getenv("JETTYFOG_SCREENSHOTS")
	if folder == "" {
		t.Parallel()
		folder = t.TempDir()
	}
	return folder
}

func TestScreenshotsOfWriting(t *testing.T) {
	folder := pictures(t)
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.lane("pitch").MustFocus()
	p.picture(filepath.Join(folder, "write.png"))

	p.MustElementR("nav button", "Hull kit").MustClick()
	p.MustElement("[data-part='2'] [role=slider] svg")
	p.MustElement("[data-part='2'] [role=slider]").MustFocus()
	p.sheet("part")
	p.picture(filepath.Join(folder, "kit.png"))

	p.MustElementR("nav button", "Tide bass").MustClick()
	p.lane("velocity").MustFocus()
	p.sheet("lane")
	p.MustElement("[data-drawn]").MustScrollIntoView()
	p.picture(filepath.Join(folder, "chance.png"))

	p.MustElement("[aria-label^='keys:']").MustClick()
	p.MustElement("dialog [role=checkbox]")
	p.picture(filepath.Join(folder, "key.png"))
	p.Keyboard.MustType(input.Escape)
	p.waitFor(`() => !document.querySelector("dialog[open]")`)
	p.MustElement("[data-luck=compare]").MustClick()
	p.enter("The other luck", "7")
	p.waitFor(`() => document.querySelector("dialog svg[aria-label^='Luck 7:']")`)
	p.picture(filepath.Join(folder, "luck.png"))
	p.Keyboard.MustType(input.Escape)
	p.waitFor(`() => !document.querySelector("dialog[open]")`)
}

func TestScreenshotsOfSteps(t *testing.T) {
	folder := pictures(t)
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	a.edit(`{"setOwn":{"track":1,"pattern":0,"part":0,"lane":"pitch","step":3,"own":{"notes":[{},{"degree":2,"nudge":1000},{"degree":4,"nudge":2000,"velocity":-20}],"spread":{"chance":70,"depth":100,"lowest":-4,"highest":2,"lean":0,"grain":1},"allowed":[1,2,3,4,5,6]}}}`)
	a.edit(`{"setDetail":{"track":1,"pattern":0,"part":0,"step":5,"detail":{"ratchet":{"spacing":"gathering","ramp":-40,"odds":60,"counts":[0,0,1,1]}}}}`)
	p.MustElementR("nav button", "Bell buoy").MustClick()
	p.MustElement("[data-own='3']")
	p.MustElement("[data-ratchet='5']")
	p.lane("pitch").MustFocus()
	p.Keyboard.MustType(input.Home, input.ArrowRight, input.ArrowRight, input.ArrowRight)
	p.sheet("step")
	p.MustElement("[aria-label='Note 3']")
	p.picture(filepath.Join(folder, "steps.png"))
	p.lane("gate").MustFocus()
	p.Keyboard.MustType(input.Home)
	p.Keyboard.MustType(input.KeyN)
	p.choice("What becomes of notes", "into steps, one by one")
	p.key(62)
	p.MustElementR("[data-entry]", "step 2 of 16")
	p.lane("gate").MustFocus()
	p.picture(filepath.Join(folder, "keyboard.png"))
}

func TestScreenshotsOfConnecting(t *testing.T) {
	folder := pictures(t)
	a := start(t, t.TempDir())
	c := a.open("/#connect", 1280, 800, standInForOutputs)
	c.press("use MIDI ports")
	for _, way := range []string{"Tide bass to Harbour synth", "Hull kit to Quay rack"} {
		c.press(`\+ output`)
		c.MustElement("[aria-label^='" + way + "']").MustClick()
	}
	c.enter("Channel of the route", "3")
	c.MustElement("[aria-label=Play]").MustClick()
	c.waitForBar(3)
	c.picture(filepath.Join(folder, "connect.png"))
	c.MustElement("[aria-label=Stop]").MustClick()
	c.MustElement("[aria-label=Play]")
	c.MustElementR("b", "^Modular$").MustClick()
	c.MustElement("button[aria-label='Channel 3 pitch Tide bass']").MustClick()
	c.MustElement("select[aria-label='Signal of channel 3']")
	c.picture(filepath.Join(folder, "voltages.png"))
	c.press(`\+ keyboard`)
	c.press(`\+ simulated clock`)
	c.MustElementR("[data-input-state]", "^hears simulated clock$")
	c.press("follow its clock")
	c.enter("Jitter of the simulated machine", "3")
	c.hand("Start the simulated machine")
	c.MustElement("[data-clock=leads]")
	c.waitForBar(3)
	c.picture(filepath.Join(folder, "inputs.png"))
}

func TestScreenshotsOfPlaying(t *testing.T) {
	folder := pictures(t)
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.MustElementR("nav button", "Bell buoy").MustClick()
	p.sheet("step")
	p.lane("pitch").MustFocus()
	p.Keyboard.MustType(input.KeyF, input.Space)
	p.MustElement("[data-playhead]")
	p.MustElementR("nav button", "Mooring field").MustClick()
	p.MustElement("[data-traveller='3']")
	p.waitForBar(2)
	p.picture(filepath.Join(folder, "field.png"))
	p.MustElementR("nav button", "Bell buoy").MustClick()
	p.MustElement("[data-playhead]")

	p.MustElement("[aria-label='Dark theme']").MustClick()
	p.Keyboard.MustType(input.KeyR)
	p.waitForBar(3)
	p.picture(filepath.Join(folder, "night.png"))

	p.MustElement("[aria-label='Dim theme']").MustClick()
	p.Keyboard.MustType(input.Space)
	p.MustElementR("nav a", "Perform").MustClick()
	p.press("song")
	p.MustElementR("button[aria-pressed=true]", "^song$")
	a.post("/api/controls", `{"address":"/macro/3","value":600}`)
	p.hand("Play")
	p.waitForBar(5) // the next fourth bar is far enough
	p.press("4 bars")
	p.hand("Bell buoy: pattern Fog signal")
	p.hand("Section Winches")
	p.MustElement("[aria-label='Take back Fog signal of Bell buoy']")
	p.picture(filepath.Join(folder, "perform-dim.png"))
	p.MustElement("[aria-label='Light theme']").MustClick()
	p.MustElement("button[aria-label='Section Winches'][aria-current=true]")
	p.hand("Tide bass: pattern Ebb")
	p.MustElement("[aria-label='Take back Ebb of Tide bass']")
	p.picture(filepath.Join(folder, "perform.png"))
	p.press("arrange")
	p.hand("Section Low water")
	p.MustElement("[aria-label='Section bars']")
	p.picture(filepath.Join(folder, "arrange.png"))
}

func TestScreenshotsOfTakes(t *testing.T) {
	folder := pictures(t)
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.Keyboard.MustType(input.KeyR, input.Space)
	p.waitForBar(3)
	p.Keyboard.MustType(input.Space)
	p.MustElementR("a", "Takes").MustClick()
	p.take("Take 1")
	p.MustElement("[data-note]")
	p.enter("Bars to render", "8")
	p.press("render a take")
	p.take("Night opening, bars 1 to 8")
	p.MustElement("[data-note='60']")
	p.MustElement("[role=listbox]").MustFocus()
	p.Keyboard.MustType(input.ArrowRight, input.ArrowRight)
	p.takePage("numbers")
	p.MustElementR("summary", "Intervals")
	p.picture(filepath.Join(folder, "takes.png"))
	p.choice("Lane below the roll", "Modular 3 · pitch Tide bass")
	p.waitFor(`() => document.querySelector("svg[aria-label='Voltage of channel 3'] path")?.getAttribute("d").length > 100`)
	p.picture(filepath.Join(folder, "scope.png"))
}

func TestScreenshotsOfTheLibrary(t *testing.T) {
	folder := pictures(t)
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.library()
	p.press("duplicate")
	copied := p.MustElement("[aria-label='Name of Night opening copy']")
	copied.MustSelectAllText().MustInput("Ferry quay").MustType(input.Enter)
	p.MustElement("li[aria-label='Ferry quay']")
	p.picture(filepath.Join(folder, "library.png"))
	p.MustElementR("[role=tab]", "^presets$").MustClick()
	p.MustElement("[aria-label='Use Quay at noon']")
	p.picture(filepath.Join(folder, "presets.png"))
}
