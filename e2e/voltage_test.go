package e2e

import (
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

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
