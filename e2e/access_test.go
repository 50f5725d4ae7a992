package e2e

import (
	"fmt"
	"os"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"
)

// sights walks through every view, sheet and dialog of the page and calls look at each.
func (p *page) sights(look func(name string)) {
	p.press(`\+ kit`)
	p.undoable("new kit track")
	p.MustElement("[data-part='0']")
	p.press(`\+ part`)
	p.MustElement("[data-part='1']")
	for _, track := range []string{"Track 7", "Bell buoy"} {
		p.MustElementR("nav button", track).MustClick()
		p.MustElement(fmt.Sprintf("section[aria-label='Chart of %s'] [role=slider] svg", track))
		for _, sheet := range []string{"step", "lane", "part", "track", "roll"} {
			p.sheet(sheet)
			look(track + ", sheet " + sheet)
		}
	}
	p.MustElementR("nav button", "Mooring field").MustClick()
	p.MustElement("[data-field]")
	for _, sheet := range []string{"field", "lane", "part", "track", "roll"} {
		p.sheet(sheet)
		look("a field, sheet " + sheet)
	}
	p.sheet("field")
	p.hand("Traveller 2, straight")
	p.hand("arrows Short round")
	look("a traveller of a field")
	p.MustElementR("nav button", "Bell buoy").MustClick()
	p.lane("velocity").MustFocus()
	p.sheet("lane")
	p.MustElementR("#sheet-page button[aria-pressed=false]", "^\\s*spread").MustClick()
	p.MustElement("[data-drawn]")
	p.press(`\+ value`)
	p.MustElement("[aria-label='Weight of line 1']")
	look("chance of a lane")
	p.MustElement("[aria-label='Mute Bell buoy']").MustClick()
	p.pressed("Mute Bell buoy", true)
	for dialog, open := range map[string]string{
		"key": "[aria-label^='keys:']", "time": "[aria-label$='meter and swing']", "luck": "[data-luck=compare]",
		"live changes": "[data-stage]",
	} {
		p.MustElement(open).MustClick()
		p.MustElement("dialog[open]")
		look(dialog + " dialog")
		p.Keyboard.MustType(input.Escape)
		p.waitFor(`() => !document.querySelector("dialog[open]")`)
	}
	for _, dialog := range []string{"History", "Help"} {
		p.MustElement("[aria-label=" + dialog + "]").MustClick()
		p.MustElement("dialog[open]")
		look(dialog + " dialog")
		p.Keyboard.MustType(input.Escape)
		p.waitFor(`() => !document.querySelector("dialog[open]")`)
	}
	p.MustElement("[aria-label='Dark theme']").MustClick()
	look("dark theme")
	p.library()
	look("library in the dark theme")
	p.MustElementR("nav a", "Connect").MustClick()
	p.hand("Travellers of Mooring field")
	p.press(`\+ output`)
	p.MustElement("[aria-label^='Tide bass to Output 1']").MustClick()
	p.MustElement("[aria-label='Channel of the route']")
	look("connect in the dark theme")
	p.MustElementR("b", "^Output 1$").MustClick()
	p.MustElement("[aria-label='Port of the output']")
	look("an output in the dark theme")
	p.MustElementR("nav a", "Takes").MustClick()
	p.MustElementR("main h1", "Takes")
	look("takes in the dark theme")
	p.MustElementR("nav a", "Perform").MustClick()
	p.press("fields")
	look("fields on perform in the dark theme")
	p.press("fields")
	p.hand("Section Ferry")
	look("perform in the dark theme")
	p.MustElement("[aria-label='Dim theme']").MustClick()
	p.press("arrange")
	p.hand("Section Ferry")
	p.MustElement("[aria-label='Section bars']")
	look("a section in the dim theme")
	p.hand("Scene Ferry 2")
	p.MustElement("[aria-label='Values of the scene'] li")
	look("a scene in the dim theme")
	p.MustElement("[aria-label='Light theme']").MustClick()
	p.press("arrange")
	look("perform")
	p.MustElementR("nav a", "Takes").MustClick()
	look("takes")
	p.enter("Bars to render", "4")
	p.press("render a take")
	p.take("Night opening, bars 1 to 4")
	p.MustElements("[data-note]").Last().MustClick() // nothing lies on it
	for _, page := range []string{"notes", "time", "steps", "numbers", "files"} {
		p.takePage(page)
		look("take, page " + page)
	}
	p.Keyboard.MustType(input.KeyN)
	for _, mode := range []string{"only heard", "one by one", "in time"} {
		p.choice("What becomes of notes", mode)
		look("keyboard, " + mode)
	}
}

// No view has a serious or critical fault by the rules of axe-core (WCAG 2.1 A and AA).
func TestAccessibility(t *testing.T) {
	t.Parallel()
	axe, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	require.NoError(t, err)
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800, string(axe))
	p.sights(func(name string) {
		p.waitFor(`() => document.getAnimations().every(a => a.playState !== "running")`)
		faults := p.MustEval(`async () => {
			const { violations } = await axe.run({ runOnly: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa"] });
			return violations
				.filter((v) => ["serious", "critical"].includes(v.impact))
				.map((v) => v.id + ": " + v.nodes.slice(0, 3).map((n) => n.html.slice(0, 160)).join(" | "));
		}`).Arr()
		for _, fault := range faults {
			t.Errorf("%s: %s", name, fault.Str())
		}
	})
}

// No text is cut off, and nothing leaves the window, from the smallest screen to the largest. Names of
// the user's own may end in an ellipsis, with the whole name in a tooltip or in the status line.
func TestNothingIsCutOff(t *testing.T) {
	for _, size := range [][2]int{{1280, 800}, {1024, 700}, {1920, 1080}, {3840, 2160}} {
		t.Run(fmt.Sprintf("%d×%d", size[0], size[1]), func(t *testing.T) {
			t.Parallel()
			a := start(t, t.TempDir())
			p := a.open("/", size[0], size[1])
			p.sights(func(name string) {
				cut := p.MustEval(`() => {
				const faults = [];
				for (const e of document.querySelectorAll("body *")) {
					if (e.closest("svg") || !e.checkVisibility() || e.matches(".sr-only, option, script, style")) continue;
					const box = e.getBoundingClientRect();
					if (box.width === 0 || box.height === 0) continue;
					const style = getComputedStyle(e);
					const own = [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim());
					const told = style.textOverflow === "ellipsis";
					if (!e.matches("select") && (own || e.matches("input:not([type=file])")) && !told && e.scrollWidth > e.clientWidth + 1 && style.display !== "inline")
						faults.push("cut: " + e.outerHTML.slice(0, 140));
					for (let up = own && e.parentElement; up; up = up.parentElement) {
						const how = getComputedStyle(up).overflowY;
						if (how === "auto" || how === "scroll") break;
						if ((how === "clip" || how === "hidden") && box.bottom > up.getBoundingClientRect().bottom + 2) {
							faults.push("cut below: " + e.outerHTML.slice(0, 140));
							break;
						}
					}
					for (let up = e.matches("button, select, input") && style.opacity !== "0" && e.parentElement; up; up = up.parentElement) {
						const how = getComputedStyle(up).overflowX;
						if (how === "auto" || how === "scroll") break;
						if ((how === "clip" || how === "hidden") && box.right > up.getBoundingClientRect().right + 2) {
							faults.push("cut beside: " + e.outerHTML.slice(0, 140));
							break;
						}
					}
					if (e.matches("select") && style.opacity !== "0" && box.width < 36) faults.push("squeezed: " + e.outerHTML.slice(0, 140));
					if (box.right > innerWidth + 1 || box.left < -1)
						faults.push("outside: " + e.outerHTML.slice(0, 140));
				}
				if (document.documentElement.scrollWidth > innerWidth || document.documentElement.scrollHeight > innerHeight)
					faults.push("the page scrolls");
				return faults.slice(0, 6);
			}`).Arr()
				for _, fault := range cut {
					t.Errorf("%s: %s", name, fault.Str())
				}
			})
		})
	}
}
