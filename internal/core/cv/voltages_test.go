package cv_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/cv"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
)

// modular returns the output of voltages of a project, and its channel of a signal.
func modular(t require.TestingT, p *score.Project, taken *take.Take) *cv.Voltages {
	for _, output := range p.Outputs {
		if output.Kind == score.Voltages {
			voltages, err := cv.Of(taken, output)
			require.NoError(t, err)
			return voltages
		}
	}
	require.Fail(t, "the project has no output of voltages")
	return nil
}

func signal(v *cv.Voltages, signal score.Signal) *cv.Channel {
	for _, c := range v.Channels {
		if c.Signal == signal {
			return c
		}
	}
	return nil
}

// The demo's bass is monophonic and slides nowhere: at each of its notes the pitch is the note's, a volt an octave around middle C, the gate
// is up, and the velocity is the note's; before each the gate is down. Its kit triggers, its clock pulses four times a quarter.
func TestTheDemosVoltages(t *testing.T) {
	p := score.Demo()
	taken := take.Render(p, 8)
	v := modular(t, p, taken)
	require.Len(t, v.Channels, 9)
	pitch, gate, velocity := signal(v, score.PitchSignal), signal(v, score.GateSignal), signal(v, score.VelocitySignal)
	notes, strikes := 0, 0
	for _, m := range taken.Messages {
		if m.Kind != midi.NoteOn {
			continue
		}
		at := taken.Tempo.Nanos(m.Tick)
		switch m.Track {
		case 2:
			notes++
			require.InDelta(t, (float64(m.Key)-60)/12, valueAt(pitch.Line, at), 1e-12)
			require.InDelta(t, 5*float64(m.Velocity)/127, valueAt(velocity.Line, at), 1e-12)
			require.Equal(t, 5.0, valueAt(gate.Line, at))
			if m.Tick > 0 {
				require.Equal(t, 0.0, valueAt(gate.Line, at-1))
				require.InDelta(t, valueAt(pitch.Line, at), valueAt(pitch.Line, at-1_000_000), 1e-12, "the pitch leads by a millisecond")
			}
		case 3:
			strikes++
			up := false
			for _, c := range v.Channels {
				up = up || c.Signal == score.TriggerSignal && valueAt(c.Line, at) == 5
			}
			require.True(t, up)
		}
	}
	require.Greater(t, notes, 3)
	require.Greater(t, strikes, 5)
	clock, pulses := signal(v, score.ClockSignal), 0
	for i, s := range clock.Line {
		if s.Start == 5 {
			pulses++
			require.Equal(t, taken.Tempo.Nanos(score.Tick(pulses-1)*score.TicksPerQuarter/4), s.From, i)
		}
	}
	require.Equal(t, 8*16, pulses)
	run := signal(v, score.RunSignal)
	require.Equal(t, 5.0, valueAt(run.Line, 0))
	require.Equal(t, 0.0, valueAt(run.Line, v.End))
}

func valueAt(l cv.Line, moment int64) float64 {
	for _, s := range l {
		if moment < s.To {
			return s.At(float64(moment))
		}
	}
	return math.NaN()
}

// Whatever a project plays: segments follow each other without gaps, no voltage leaves its channel's range, and at the end all gates are
// off and all else rests or stays.
func TestVoltagesOfAnyProject(t *testing.T) {
	heard := 0
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		output := score.Output{ID: 200, Name: "Voltages", Kind: score.Voltages, Voltages: &score.VoltageSetup{FullScale: 10_000, LowestFree: rapid.Bool().Draw(t, "lowest free")}}
		for number := 1; number <= 12; number++ {
			c := score.NewVoltageChannel(number, rapid.SampledFrom(score.Signals()).Draw(t, "signal"))
			c.Track, c.Voice, c.Mod = rapid.SampledFrom(p.Tracks).Draw(t, "track").ID, rapid.IntRange(1, 3).Draw(t, "voice"), rapid.IntRange(1, 15).Draw(t, "mod")
			c.Lead, c.Slew = rapid.SampledFrom([]int{0, 10, 50}).Draw(t, "lead"), rapid.SampledFrom([]int{0, 0, 500}).Draw(t, "slew")
			c.Inverted, c.ByVelocity, c.Exponential = rapid.Bool().Draw(t, "inverted"), rapid.Bool().Draw(t, "by velocity"), rapid.Bool().Draw(t, "exponential")
			c.Bipolar, c.Smooth, c.StaysOnStop = rapid.Bool().Draw(t, "bipolar"), rapid.Bool().Draw(t, "smooth"), rapid.Bool().Draw(t, "stays")
			output.Voltages.Channels = append(output.Voltages.Channels, c)
		}
		p.Outputs = append(p.Outputs, output)
		for i := range p.Tracks {
			p.Tracks[i].Routes = &[]score.Route{score.WholeRoute(200)}
		}
		require.NoError(t, p.Validate())
		v, err := cv.Of(take.Render(p, 3), output)
		require.NoError(t, err)
		for _, c := range v.Channels {
			lowest, highest := min(0, float64(c.Lowest)/1000), max(float64(c.Height)/1000, float64(c.Highest)/1000)
			heard += len(c.Line) - 1
			require.Equal(t, v.From, c.Line[0].From)
			for i, s := range c.Line {
				require.Less(t, s.From, s.To)
				if i > 0 {
					require.Equal(t, c.Line[i-1].To, s.From)
				}
				for _, value := range []float64{s.Start, s.End} {
					require.GreaterOrEqual(t, value, lowest-1e-9, c.Signal)
					require.LessOrEqual(t, value, highest+1e-9, c.Signal)
				}
			}
			rests := 0.0
			last := c.Line[len(c.Line)-1]
			switch c.Signal {
			case score.PitchSignal, score.VelocitySignal, score.ModSignal:
				if c.StaysOnStop {
					continue
				}
			default:
				if c.Inverted {
					rests = 5
				}
			}
			require.Equal(t, rests, last.End, c.Signal)
			require.LessOrEqual(t, last.From, v.End+50*1_000_000)
		}
	})
	require.Greater(t, heard, 50)
}

// A reset leads the first pulse of the clock, which is when bar 1 begins, and comes before each bar in which its track is realigned.
func TestResets(t *testing.T) {
	p := testkit.Demo()
	p.Tracks[0].Realign = 2
	reset := score.NewVoltageChannel(1, score.ResetSignal)
	reset.Track, reset.Lead = 1, 100
	p.Outputs = []score.Output{{ID: 1, Name: "Modular", Kind: score.Voltages, Voltages: &score.VoltageSetup{FullScale: 10_000, Channels: []score.VoltageChannel{reset, score.NewVoltageChannel(2, score.ClockSignal)}}}}
	require.NoError(t, p.Validate())
	taken := take.Render(p, 5)
	v := modular(t, p, taken)
	require.Equal(t, int64(-10_000_000), v.From)
	require.Equal(t, 0.0, valueAt(v.Channels[1].Line, -1), "the clock waits")
	bar := taken.Tempo.Nanos(p.Bars().Start(1))
	for _, line := range []int64{0, 2 * bar, 4 * bar} {
		require.Equal(t, 5.0, valueAt(v.Channels[0].Line, line-10_000_000))
		if line > 0 {
			require.Equal(t, 0.0, valueAt(v.Channels[0].Line, line-10_000_001), line)
		}
		require.Equal(t, 0.0, valueAt(v.Channels[0].Line, line-5_000_000))
		require.Equal(t, 5.0, valueAt(v.Channels[1].Line, line))
	}
}

// A take of which no project is known drives nothing.
func TestATakeWithoutAProject(t *testing.T) {
	taken := take.Render(score.Demo(), 1)
	taken.Project = nil
	_, err := cv.Of(taken, score.Demo().Outputs[0])
	require.ErrorIs(t, err, cv.ErrNoProject)
}

// of returns the voltages of two bars of a project of one track that goes to some channels.
func of(t *testing.T, p *score.Project, channels ...score.VoltageChannel) *cv.Voltages {
	for i := range channels {
		channels[i].Channel, channels[i].Track = i+1, p.Tracks[0].ID
	}
	p.Outputs = []score.Output{{ID: 1, Name: "Modular", Kind: score.Voltages, Voltages: &score.VoltageSetup{FullScale: 10_000, Channels: channels}}}
	p.Tracks[0].Routes = &[]score.Route{score.WholeRoute(1)}
	require.NoError(t, p.Validate())
	return modular(t, p, take.Render(p, 2))
}

// A step that slides ties its gate to the next one, to whose pitch it takes the time of a slide; others have a gap between them.
func TestSlidesTieGates(t *testing.T) {
	p := testkit.Plain(func(p *score.Project, track *score.Track, part *score.Part) {
		p.Tempo = 60_000 // a sixteenth is 250 ms
		track.Voices = 1
		lanes := &part.Lanes
		lanes.Slide = lanes.Gate.Clone()
		clear(lanes.Slide.Steps)
		lanes.Slide.Steps[0] = 1
		for step := range 3 {
			lanes.Gate.Steps[step], lanes.Pitch.Steps[step], lanes.Length.Steps[step] = score.On, step, 100
		}
		lanes.Pitch.Length, lanes.Pitch.Linked = 16, true
		track.Register.Lowest, track.Register.Highest = 0, 127
	})
	v := of(t, p, score.NewVoltageChannel(0, score.PitchSignal), score.NewVoltageChannel(0, score.GateSignal))
	const ms = 1_000_000
	pitch, gate := v.Channels[0].Line, v.Channels[1].Line
	require.InDelta(t, 1.0/12, valueAt(pitch, 280*ms), 1e-9, "half of the slide of 60 ms: D is two semitones up")
	require.InDelta(t, 2.0/12, valueAt(pitch, 310*ms), 1e-9)
	require.Equal(t, 5.0, valueAt(gate, 249_999_999), "tied")
	require.Equal(t, 5.0, valueAt(gate, 250*ms))
	require.Equal(t, 0.0, valueAt(gate, 499_500_000), "a gap of 1 ms")
	require.Equal(t, 5.0, valueAt(gate, 500*ms))
}

// A trigger is of its part alone; a mod lane that bends is at 0 V in its middle.
func TestTriggersAndBends(t *testing.T) {
	p := score.Demo()
	taken := take.Render(p, 4)
	keys := map[int]uint8{}
	for _, part := range p.Tracks[2].Parts() {
		keys[part.ID] = uint8(part.Note)
	}
	for _, c := range modular(t, p, taken).Channels {
		if c.Signal != score.TriggerSignal {
			continue
		}
		struck, rises := map[score.Tick]bool{}, 0
		for _, m := range taken.Messages {
			if m.Track == 3 && m.Kind == midi.NoteOn && m.Key == keys[c.Part] {
				struck[m.Tick] = true
				require.Equal(t, 5.0, valueAt(c.Line, taken.Tempo.Nanos(m.Tick)))
			}
		}
		for _, s := range c.Line {
			if s.Start == 5 {
				rises++
			}
		}
		require.Equal(t, len(struck), rises, "part %d", c.Part)
	}
	bent := testkit.Plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
		part.Mods = []score.Mod{{Target: score.BendTarget, Least: 8192, Most: 8192}}
	})
	mod := score.NewVoltageChannel(0, score.ModSignal)
	mod.Bipolar, mod.Rest, mod.StaysOnStop = true, -5000, true
	require.Equal(t, 0.0, valueAt(of(t, bent, mod).Channels[0].Line, 1_000_000_000))
}
