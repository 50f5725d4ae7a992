package cv

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
)

// Wherever events are cut up, what channels do is the same, also when what is over is forgotten and an engine goes on in a clone; and an event
// changes nothing that is longer ago than Reach.
func TestEngineLooksBackOnly(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		output := score.Output{ID: 200, Name: "Voltages", Kind: score.Voltages, Voltages: &score.VoltageSetup{FullScale: 10_000}}
		for number := 1; number <= 12; number++ {
			c := score.NewVoltageChannel(number, rapid.SampledFrom(score.Signals()).Draw(t, "signal"))
			c.Track, c.Voice = rapid.SampledFrom(p.Tracks).Draw(t, "track").ID, rapid.IntRange(1, 3).Draw(t, "voice")
			c.Lead, c.Slew = rapid.SampledFrom([]int{0, 10, 50}).Draw(t, "lead"), rapid.SampledFrom([]int{0, 0, 500}).Draw(t, "slew")
			c.Gap = rapid.SampledFrom([]int{0, 10, 50}).Draw(t, "gap")
			output.Voltages.Channels = append(output.Voltages.Channels, c)
		}
		p.Outputs = append(p.Outputs, output)
		for i := range p.Tracks {
			p.Tracks[i].Routes = &[]score.Route{score.WholeRoute(200)}
		}
		require.NoError(t, p.Validate())
		taken := take.Render(p, 2)
		whole, err := Of(taken, output)
		require.NoError(t, err)
		engine := NewEngine(output.Voltages, whole.From)
		engine.SetTracks(p, output.Voltages)
		events := eventsOf(taken, output)
		for len(events) > 0 {
			cut := rapid.IntRange(1, len(events)).Draw(t, "cut")
			for cut < len(events) && events[cut].At == events[cut-1].At {
				cut++
			}
			engine = engine.Clone()
			engine.Clone().Play(append(events[:cut:cut], Event{Kind: Stop, At: events[cut-1].At})) // moves nothing here
			engine.Play(events[:cut])
			settled := events[cut-1].At - Reach
			for i, c := range engine.Channels {
				requireSame(t, whole.Channels[i].Line, c.Line, settled)
			}
			engine.Forget(settled)
			events = events[cut:]
		}
		for i, c := range engine.Channels {
			requireSame(t, whole.Channels[i].Line, c.Line, forever)
		}
	})
}

// requireSame checks that a line, which may have forgotten its beginning, goes as another before a moment.
func requireSame(t *rapid.T, want, got Line, before int64) {
	for _, s := range got {
		for _, moment := range []int64{s.From, s.From + (min(s.To, before)-s.From)/2, min(s.To, before) - 1} {
			if moment >= s.From && moment < before && moment >= want[0].From {
				require.InDelta(t, want.at(moment), s.At(float64(moment)), 1e-9, "at %d of %+v", moment, s)
			}
		}
	}
}

// A track that was sliding when all stopped does not slide into the first note of the next time.
func TestStopEndsSlides(t *testing.T) {
	p := testkit.Demo()
	pitch := score.NewVoltageChannel(1, score.PitchSignal)
	pitch.Track, pitch.Slide = p.Tracks[0].ID, 1000
	setup := &score.VoltageSetup{FullScale: 10_000, Channels: []score.VoltageChannel{pitch}}
	engine := NewEngine(setup, 0)
	engine.SetTracks(p, setup)
	told := func(at int64, m midi.Message) Event {
		m.Track = uint32(p.Tracks[0].ID)
		return Event{At: at * milli, Message: m}
	}
	on := func(key uint8) midi.Message { return midi.Message{Kind: midi.NoteOn, Key: key, Velocity: 90} }
	engine.Play([]Event{
		told(0, on(60)), told(10, midi.Message{Kind: midi.ControlChange, Key: midi.PortamentoSwitch, Value: 127}), told(20, on(72)),
		{At: 200 * milli, Kind: Stop}, told(300, on(84)), told(400, on(60)),
	})
	require.InDelta(t, 0.5, engine.Channels[0].Line.at(70*milli), 1e-9, "half of a slide of 100 ms")
	require.Equal(t, 2.0, engine.Channels[0].Line.at(300*milli))
	require.Equal(t, 0.0, engine.Channels[0].Line.at(400*milli))
}
