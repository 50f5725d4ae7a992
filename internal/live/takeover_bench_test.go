package live

import (
	"testing"
	"time"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/memory"
)

// BenchmarkTakeover edits a project of 32 tracks that has played for three hours: a gate of a track whose lanes' places
// follow from the time alone, of one that drifts, of one that moves by hits, and of one that is held; and a pitch of one
// that moves by hits. It reports for how long nobody else has a turn, beside the floor of rendering a slice of it, and
// how long it takes until the edit is heard.
func BenchmarkTakeover(b *testing.B) {
	gate, pitch := score.LaneAddress{PartAddress: score.PartAddress{Track: 1}, Lane: score.Gate}, score.LaneAddress{PartAddress: score.PartAddress{Track: 1}, Lane: score.Pitch}
	for _, c := range []struct {
		name   string
		at     score.LaneAddress
		change func(*score.Track)
	}{
		{"placeable", gate, func(*score.Track) {}},
		{"drift", gate, func(t *score.Track) { t.Parts()[0].Lanes.Pitch.Order = score.Drift }},
		{"hit", gate, func(t *score.Track) { t.Parts()[0].Lanes.Velocity.Moves = score.ByHit }},
		{"hold", gate, func(t *score.Track) { t.Hold = 4 }},
		{"pitch", pitch, func(t *score.Track) { t.Parts()[0].Lanes.Velocity.Moves = score.ByHit }},
	} {
		b.Run(c.name, func(b *testing.B) {
			project := testkit.Buoy()
			for id := 2; id <= score.MaxTracks; id++ {
				track := testkit.Buoy().Tracks[0]
				track.ID = id
				project.Tracks = append(project.Tracks, track)
			}
			for i := range project.Tracks {
				c.change(&project.Tracks[i])
			}
			quiet := func() *Recorder { return NewRecorder(memory.New(testkit.Buoy()), Reports{}) }
			t := New(project, Options{}, quiet(), quiet())
			t.PlayFrom(project.Bars().At(play.TempoMapOf(project).TickAt(int64(3 * time.Hour))))
			blocked, heard, floor := time.Duration(0), time.Duration(0), time.Duration(0)
			for n := 0; b.Loop(); n++ {
				next, _, err := score.Apply(t.project, score.SetSteps{LaneAddress: c.at, Steps: []score.StepValue{{Step: 1, Value: n % 2}}})
				if err != nil {
					b.Fatal(err)
				}
				began := time.Now()
				t.SetProject(next, Change{})
				blocked += time.Since(began)
				for adopted := false; !adopted; {
					t.mu.Lock()
					adopted = t.project == next
					t.mu.Unlock()
				}
				heard += time.Since(began)
				began = time.Now()
				var batch batch
				t.render(t.tickAt(t.timeOf(t.player.Run())+int64(slice)), 0, &batch)
				floor += time.Since(began)
			}
			b.ReportMetric(float64(blocked.Microseconds())/float64(b.N), "blocked-µs")
			b.ReportMetric(float64(heard.Microseconds())/1e3/float64(b.N), "heard-ms")
			b.ReportMetric(float64(blocked)/float64(floor), "x-slice")
		})
	}
}

// BenchmarkPlayFrom starts at bar 4,000 of a project of 32 tracks that move by hits.
func BenchmarkPlayFrom(b *testing.B) {
	project := testkit.Buoy()
	for id := 2; id <= score.MaxTracks; id++ {
		track := testkit.Buoy().Tracks[0]
		track.ID = id
		project.Tracks = append(project.Tracks, track)
	}
	for i := range project.Tracks {
		project.Tracks[i].Parts()[0].Lanes.Velocity.Moves = score.ByHit
	}
	quiet := func() *Recorder { return NewRecorder(memory.New(testkit.Buoy()), Reports{}) }
	for b.Loop() {
		t := New(project, Options{}, quiet(), quiet())
		t.PlayFrom(4000)
		t.Stop()
	}
}
