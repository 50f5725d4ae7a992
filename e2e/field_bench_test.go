package e2e

import (
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

// BenchmarkAFieldMoves shows a field of 16 by 16 notes on which 16 travellers move in sixteenths at 160 beats a minute, each to a note: how long scripts of the page
// run for each frame, in milliseconds. The floor is the same field without travellers, while as much plays.
func BenchmarkAFieldMoves(b *testing.B) {
	a := start(b, b.TempDir())
	still, floor := fieldOfSixteen(a.project(), 0), 0.0
	for _, p := range []*score.Project{still, fieldOfSixteen(a.project(), score.MaxTravellers)} {
		a := start(b, b.TempDir())
		a.replace(p)
		page := a.open("/", 1280, 800)
		response, err := http.Post(a.url+"/api/transport", "application/json", strings.NewReader(`{"do":"play"}`))
		require.NoError(b, err)
		require.NoError(b, response.Body.Close())
		page.MustElement("[data-field]")
		page.waitForBar(2)
		millis := page.scriptsPerFrame(b)
		if p == still {
			floor = millis
			continue
		}
		b.ReportMetric(0, "ns/op")
		b.ReportMetric(millis, "ms/frame")
		b.ReportMetric(floor, "floor-ms/frame")
		b.ReportMetric(millis/floor, "x-floor")
	}
}

// scriptsPerFrame is how long scripts run for each frame in the next ten seconds, in milliseconds.
func (p *page) scriptsPerFrame(b *testing.B) float64 {
	b.Helper()
	require.NoError(b, proto.PerformanceEnable{}.Call(p))
	scripts := func() float64 {
		got, err := proto.PerformanceGetMetrics{}.Call(p)
		require.NoError(b, err)
		for _, metric := range got.Metrics {
			if metric.Name == "ScriptDuration" {
				return metric.Value
			}
		}
		b.Fatal("the browser does not say how long scripts run")
		return 0
	}
	p.MustEval(`() => {
		window.frames = 0;
		requestAnimationFrame(function count() { window.frames++; requestAnimationFrame(count); });
	}`)
	before, frames := scripts(), p.MustEval(`() => window.frames`).Int()
	<-time.NewTimer(10 * time.Second).C
	return 1000 * (scripts() - before) / float64(p.MustEval(`() => window.frames`).Int()-frames)
}

// fieldOfSixteen returns a project whose one track is a field of 16 by 16 notes with so many travellers.
func fieldOfSixteen(p *score.Project, travellers int) *score.Project {
	part := score.NewFieldPart()
	f := &score.Field{Columns: score.MaxFieldSize, Rows: score.MaxFieldSize}
	for i := range score.MaxFieldSize * score.MaxFieldSize {
		f.Cells = append(f.Cells, score.Cell{Column: i % 16, Row: i / 16, Note: true, Degree: i % 15, Arrows: []score.Arrow{{To: 2, Weight: 70}, {To: 4, Weight: 30}}})
	}
	for i := range travellers {
		t := score.NewTraveller(i+1, i, i)
		t.Rate = "1/16"
		if t.Motion = score.ArrowsMotion; i%2 == 1 {
			t.Motion, t.At = score.StraightMotion, score.TurnBack
		}
		f.Travellers = append(f.Travellers, t)
	}
	part.Field = f
	p.Tempo, p.Song, p.Scenes, p.Macros, p.Modulators, p.FieldLayers = 160_000, nil, nil, nil, nil, nil
	p.Tracks = []score.Track{score.TrackOf(p, score.FieldKind, "Field", score.Pattern{Name: "A", Parts: []score.Part{part}})}
	return p
}
