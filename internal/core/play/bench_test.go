package play_test

import (
	"testing"
	"time"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// BenchmarkRender renders 64 bars of 16 tracks in windows of a bar. It reports notes a second, and
// how many times longer it takes than the floor: drawing as many random numbers and appending as
// many notes in the same run.
func BenchmarkRender(b *testing.B) {
	p := busyProject()
	const bars = 64
	bar := p.Meter.Bar()
	notes := make([]play.Note, 0, 1<<16)
	draws := 0
	for i := range p.Tracks {
		for _, f := range play.Look(p, p.Tracks[i].ID, 0, 0, bars*bar).Forecasts {
			if f.Probability > 0 && f.Probability < 100 {
				draws++
			}
		}
	}
	var rendering, floor time.Duration
	for b.Loop() {
		began := time.Now()
		notes = notes[:0]
		performer := play.NewPerformer(p)
		for n := range score.Tick(bars) {
			notes = performer.Advance((n+1)*bar, notes)
		}
		rendered := time.Now()
		rendering += rendered.Sub(began)
		floor += drawAndAppend(draws, len(notes))
	}
	b.ReportMetric(float64(len(notes))*float64(b.N)/rendering.Seconds(), "notes/s")
	b.ReportMetric(float64(rendering)/float64(floor), "x-floor")
}

var floorNotes = make([]play.Note, 0, 1<<16)
var floorSum uint32

func drawAndAppend(draws, notes int) time.Duration {
	began := time.Now()
	for n := range draws {
		floorSum += chance.Draw(chance.Address{Luck: 1, Track: 1, N: uint64(n)})
	}
	floorNotes = floorNotes[:0]
	for n := range notes {
		floorNotes = append(floorNotes, play.Note{Start: score.Tick(n), Key: uint8(n)})
	}
	return time.Since(began)
}

// busyProject is 16 tracks whose every gate is on and whose every lane runs a loop of its own.
func busyProject() *score.Project {
	p := score.Demo()
	p.Tracks = nil
	for i := range 16 {
		track := score.Demo().Tracks[0]
		track.ID, track.Channel = i+1, i+1
		gate := track.Parts()[0].Lanes.Gate
		gate.Length = 13 + i
		for step := range gate.Steps {
			gate.Steps[step] = score.On
		}
		p.Tracks = append(p.Tracks, track)
	}
	return p
}
