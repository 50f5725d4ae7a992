package device_test

import (
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	performed "jettyfog/internal/core/stage"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/device"
	"jettyfog/internal/live"
)

// soft watches a wire for note-ons of a channel softer than a velocity, and for the last note-on of it.
type soft struct {
	device.Wire
	clock device.Clock
	below int
	first atomic.Int64 // when the first soft one was written, since it was set back to 0
	last  atomic.Int64 // when the last one of all was
}

func (s *soft) Write(data []byte) (int, error) {
	for i := 0; i+2 < len(data); i++ {
		if data[i] == 0x90 && data[i+2] > 0 {
			now := s.clock.Now()
			s.last.Store(now)
			if int(data[i+2]) < s.below {
				s.first.CompareAndSwap(0, now)
			}
		}
	}
	return s.Wire.Write(data)
}

// BenchmarkPress presses at once, with nothing attached but a device, and reports how long it takes to the first message on the wire that
// differs: for the amount of the velocities, which counts from the first step that is not decided, and for a mute, which is how long after
// it the last note goes out. The track plays a 64th 25 times a second, so that half of 40 ms is in the first, and none in the other.
func BenchmarkPress(b *testing.B) {
	project := testkit.Plain(func(p *score.Project, track *score.Track, part *score.Part) {
		p.Tempo = 94_000
		for step := range score.MaxSteps {
			part.Lanes.Gate.Steps[step], part.Lanes.Velocity.Steps[step], part.Lanes.Probability.Steps[step] = score.On, 120, 100
		}
		part.Lanes.Gate.Rate = "1/64"
		p.Outputs = []score.Output{{ID: 1, Name: "Synth", Kind: score.ServerDevice}}
		track.Routes, track.Channel = &[]score.Route{score.WholeRoute(1)}, 1
	})
	require.NoError(b, project.Validate())
	track, part := project.Tracks[0], project.Tracks[0].Parts()[0]
	amount := performed.Control{Name: "amount", Track: track.ID, Pattern: track.Playing, Part: part.ID, Lane: score.Velocity}
	mute := performed.Control{Name: "mute", Track: track.ID}
	var presses, mutes []float64
	do := func(transport *live.Transport, c performed.Control, value *int) {
		require.NoError(b, transport.Do([]live.Doing{{Control: c, Value: value}}, live.Now, 0))
	}
	for b.Loop() {
		wire := &soft{below: 100}
		play(b, project, 7*time.Second, func(clock device.Clock, to device.Wire) (device.Clock, device.Wire) {
			wire.clock, wire.Wire = clock, to
			return clock, wire
		}, func(transport *live.Transport) {
			time.Sleep(time.Second)
			for range 20 {
				half, on := 50, 1
				wire.first.Store(0)
				pressed := wire.clock.Now()
				do(transport, amount, &half)
				time.Sleep(120 * time.Millisecond)
				presses = append(presses, float64(wire.first.Load()-pressed)/1e6)
				do(transport, amount, nil)
				time.Sleep(70 * time.Millisecond)
				pressed = wire.clock.Now()
				do(transport, mute, &on)
				time.Sleep(60 * time.Millisecond)
				mutes = append(mutes, max(0, float64(wire.last.Load()-pressed)/1e6))
				do(transport, mute, nil)
				time.Sleep(30 * time.Millisecond)
			}
		})
	}
	for name, values := range map[string][]float64{"press": presses, "mute": mutes} {
		b.ReportMetric(share(values, 50), name+"-p50-ms")
		b.ReportMetric(share(values, 99), name+"-p99-ms")
	}
}
