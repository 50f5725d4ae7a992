package e2e

import (
	"encoding/base64"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
)

// keepFiles has the page keep the files that it makes, in place of handing them to the user.
const keepFiles = `
	window.files = [];
	const create = URL.createObjectURL;
	URL.createObjectURL = (blob) => { if (blob.type === "audio/wav") window.files.push(blob); return create(blob); };
	HTMLAnchorElement.prototype.click = function () { window.saved = this.download; };
`

// A take becomes a .wav, which the browser reads: as long as the take and what fades, and silent until the first note.
func TestATakeBecomesAWav(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/#takes", 1280, 800, keepFiles)
	p.enter("Bars to render", "4")
	p.press("render a take")
	p.take("Night opening, bars 1 to 4")
	p.MustElement("[data-note='0']")
	p.takePage("files")
	p.press(`\.wav`)
	p.waitFor(`() => window.files.length === 1`)
	require.Equal(t, "Night opening, bars 1 to 4.wav", p.MustEval(`() => window.saved`).Str())
	got := p.MustEval(`async () => {
		const sound = await new OfflineAudioContext(2, 1, 48000).decodeAudioData(await window.files[0].arrayBuffer());
		const samples = sound.getChannelData(0);
		return [sound.numberOfChannels, sound.sampleRate, sound.duration, samples.findIndex((s) => s !== 0) / 48000,
			samples.reduce((most, s) => Math.max(most, Math.abs(s)), 0), Math.abs(samples[samples.length - 1])];
	}`).Arr()
	project := a.project()
	tempo := play.TempoMapOf(project)
	seconds := func(tick score.Tick) float64 { return float64(tempo.Nanos(tick)) / 1e9 }
	first := route.NewPlayer(project, 0, play.Past{}).Advance(project.Meter.Bar(), nil)[0].Tick
	require.Equal(t, []float64{2, 48000}, []float64{got[0].Num(), got[1].Num()})
	require.InDelta(t, seconds(4*project.Meter.Bar())+2, got[2].Num(), 0.01)
	require.InDelta(t, seconds(first), got[3].Num(), 0.01)
	require.Greater(t, got[4].Num(), 0.1)
	require.Less(t, got[5].Num(), 0.01)

	// Another program reads the file as the browser does, to its end and without a warning.
	data, err := base64.StdEncoding.DecodeString(p.MustEval(`async () => new Promise((resolve) => {
		const reader = new FileReader();
		reader.onload = () => resolve(reader.result.split(",")[1]);
		reader.readAsDataURL(window.files[0]);
	})`).Str())
	require.NoError(t, err)
	path := filepath.Join(t.TempDir(), "take.wav")
	require.NoError(t, os.WriteFile(path, data, 0o600))
	for flag, want := range map[string]float64{"-c": 2, "-r": 48000, "-D": got[2].Num()} {
		read, err := exec.Command("sox", "--i", flag, path).CombinedOutput()
		require.NoError(t, err, "`make test-tools` installs sox: %s", read)
		value, err := strconv.ParseFloat(strings.TrimSpace(string(read)), 64)
		require.NoError(t, err, "%s", read)
		require.InDelta(t, want, value, 1e-4, flag)
	}
	statistics, err := exec.Command("sox", path, "-n", "stat").CombinedOutput()
	require.NoError(t, err, "%s", statistics)
	most := regexp.MustCompile(`Maximum amplitude: +([\d.]+)`).FindSubmatch(statistics)
	require.NotNil(t, most, "%s", statistics)
	loudest, err := strconv.ParseFloat(string(most[1]), 64)
	require.NoError(t, err)
	require.Greater(t, loudest, 0.1)
	require.NotContains(t, string(statistics), "WARN")
}
