package live

import (
	"context"
	"slices"
	"sort"
	"testing"
	"time"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/memory"
)

// BenchmarkLateness plays a busy project in real time for two seconds a round and reports how long
// after the first possible moment, a look-ahead before its time, each message was handed over. The
// floor is a bare timer loop of the same period that runs beside it: how long after that moment it
// woke next. Both hold half a period on average, since moments fall anywhere between two wakings.
func BenchmarkLateness(b *testing.B) {
	var ours, floor []float64
	for b.Loop() {
		quiet := func() *Recorder { return NewRecorder(memory.New(testkit.Buoy()), Reports{}) }
		transport := New(busyProject(), Options{}, quiet(), quiet())
		heard := &listener{now: transport.Now}
		transport.Connect(heard)
		transport.Attach(heard)
		ctx, stop := context.WithTimeout(context.Background(), 2*time.Second)
		woken := make(chan []int64)
		go func() { woken <- bareLoop(ctx, transport) }()
		transport.Play()
		transport.Run(ctx)
		stop()
		wakings := <-woken
		for i, sound := range heard.sounds {
			due := sound.At - int64(transport.ahead())
			next := sort.Search(len(wakings), func(n int) bool { return wakings[n] >= due })
			if due < 0 || next == len(wakings) {
				continue
			}
			ours = append(ours, float64(heard.arrived[i]-due)/1e3)
			floor = append(floor, float64(wakings[next]-due)/1e3)
		}
	}
	slices.Sort(ours)
	slices.Sort(floor)
	b.ReportMetric(ours[len(ours)/2], "p50-µs")
	b.ReportMetric(ours[len(ours)*99/100], "p99-µs")
	b.ReportMetric(floor[len(floor)/2], "floor-p50-µs")
	b.ReportMetric(floor[len(floor)*99/100], "floor-p99-µs")
}

func bareLoop(ctx context.Context, clock *Transport) []int64 {
	ticker := time.NewTicker(clock.options.Pulse)
	defer ticker.Stop()
	var wakings []int64
	for {
		select {
		case <-ctx.Done():
			return wakings
		case <-ticker.C:
			wakings = append(wakings, clock.Now())
		}
	}
}

// busyProject is 16 tracks that strike a note on every 64th.
func busyProject() *score.Project {
	p := testkit.Buoy()
	for id := 2; id <= 16; id++ {
		track := testkit.Buoy().Tracks[0]
		track.ID, track.Channel = id, id
		p.Tracks = append(p.Tracks, track)
	}
	for i := range p.Tracks {
		gate := p.Tracks[i].Parts()[0].Lanes.Gate
		gate.Rate = "1/64"
		for step := range gate.Steps {
			gate.Steps[step] = score.On
		}
	}
	return p
}
