package device_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	performed "jettyfog/internal/core/stage"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/device"
	"jettyfog/internal/live"
)

// struck is a note-on that was written: when, and how loud.
type struck struct {
	at       int64
	velocity int
}

// watched is a wire that tells of the note-ons of the first channel.
type watched struct {
	device.Wire
	clock device.Clock
	notes chan struck
}

func (w *watched) Write(data []byte) (int, error) {
	for i := 0; i+2 < len(data); i++ {
		if data[i] == 0x90 && data[i+2] > 0 {
			w.notes <- struck{w.clock.Now(), int(data[i+2])}
		}
	}
	return w.Wire.Write(data)
}

// next waits for a note-on that is softer than half as loud as can be, or is not, and returns when it was.
func (w *watched) next(soft bool) int64 {
	for note := range w.notes {
		if (note.velocity < 64) == soft {
			return note.at
		}
	}
	return 0
}

// last returns when the last note-on was, after which there is none for as long as some steps last.
func (w *watched) last() (at int64) {
	for {
		select {
		case note := <-w.notes:
			at = note.at
		case <-time.After(100 * time.Millisecond):
			return at
		}
	}
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
		wire := &watched{notes: make(chan struck, 10_000)}
		play(b, project, 9*time.Second, func(clock device.Clock, to device.Wire) (device.Clock, device.Wire) {
			wire.clock, wire.Wire = clock, to
			return clock, wire
		}, func(transport *live.Transport) {
			half, on := 50, 1
			for range 20 {
				wire.next(false)
				pressed := wire.clock.Now()
				do(transport, amount, &half)
				presses = append(presses, float64(wire.next(true)-pressed)/1e6)
				do(transport, amount, nil)
				wire.next(false)
				pressed = wire.clock.Now()
				do(transport, mute, &on)
				mutes = append(mutes, max(0, float64(wire.last()-pressed)/1e6))
				do(transport, mute, nil)
			}
		})
	}
	for name, values := range map[string][]float64{"press": presses, "mute": mutes} {
		b.ReportMetric(share(values, 50), name+"-p50-ms")
		b.ReportMetric(share(values, 99), name+"-p99-ms")
	}
}
