package e2e

import (
	"fmt"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

// BenchmarkTheBuiltInSound plays 32 tracks of sixteenths at 160 beats a minute in a page without sound, which is
// the floor, and then with: how busy the page's process is in percent of a core, all its threads together, and the longest that its main
// thread was blocked for, in milliseconds; 50 is the least that browsers report, and a busy machine adds to it.
func BenchmarkTheBuiltInSound(b *testing.B) {
	a := start(b, b.TempDir())
	a.replace(thirtyTwoTracks(b, a.project()))
	p := a.open("/", 1280, 800, `
		window.longest = 0;
		new PerformanceObserver(tasks => {
			for (const task of tasks.getEntries()) window.longest = Math.max(window.longest, task.duration);
		}).observe({ entryTypes: ["longtask"] });`)
	response, err := http.Post(a.url+"/api/transport", "application/json", strings.NewReader(`{"do":"play"}`))
	require.NoError(b, err)
	require.NoError(b, response.Body.Close())
	p.waitForBar(2)
	silent, longestSilent := p.busy(b)
	p.MustElement("[aria-label='Sound in this page'][aria-pressed=false]").MustClick()
	p.MustElement("[aria-label='Sound in this page'][aria-pressed=true]")
	p.waitForBar(14) // the sound has started
	loud, longest := p.busy(b)
	b.ReportMetric(0, "ns/op")
	b.ReportMetric(loud, "core%")
	b.ReportMetric(loud/silent, "x-silent")
	b.ReportMetric(longest, "longest-ms")
	b.ReportMetric(longestSilent, "silent-longest-ms")
}

// busy is how much of a core the browser's pages need in the next ten seconds, in percent, and the longest task of the
// main thread in them, in milliseconds.
func (p *page) busy(b *testing.B) (core, longest float64) {
	b.Helper()
	used := func() (seconds float64) {
		info, err := proto.SystemInfoGetProcessInfo{}.Call(browser)
		require.NoError(b, err)
		for _, process := range info.ProcessInfo {
			if process.Type == "renderer" {
				seconds += process.CPUTime
			}
		}
		return seconds
	}
	const seconds = 10
	p.MustEval(`() => window.longest = 0`)
	before := used()
	timer := time.NewTimer(seconds * time.Second)
	<-timer.C
	return 100 * (used() - before) / seconds, p.MustEval(`() => window.longest`).Num()
}

func thirtyTwoTracks(b *testing.B, project *score.Project) *score.Project {
	b.Helper()
	pattern := project.Tracks[0].Patterns[0]
	first := project.Tracks[0]
	project.Tempo, project.Tracks = 160_000, nil
	for i := range score.MaxTracks {
		part := score.NewPart("Gull")
		part.ID = 1
		for step := range score.MaxSteps {
			part.Lanes.Gate.Steps[step] = 1
			part.Lanes.Pitch.Steps[step] = (step*3 + i) % 8
		}
		track := first
		track.ID, track.Name, track.Channel, track.Playing = i+1, fmt.Sprintf("Gull %d", i+1), i%16+1, 0
		one := pattern
		one.Parts = []score.Part{part}
		track.Patterns = []score.Pattern{one}
		project.Tracks = append(project.Tracks, track)
	}
	return project
}

// replace puts a project in the place of the one that is there.
func (a *app) replace(project *score.Project) {
	a.t.Helper()
	data, err := score.Encode(project)
	require.NoError(a.t, err)
	response, err := http.Post(a.url+"/api/projects/file?revision=1", "application/json", strings.NewReader(string(data)))
	require.NoError(a.t, err)
	defer response.Body.Close()
	require.Equal(a.t, http.StatusOK, response.StatusCode)
}
