package cv

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

// edgesOf returns when a line changes, in microseconds, and to what.
func edgesOf(l Line) (edges [][2]float64) {
	for i, s := range l {
		if i > 0 && (s.Start != l[i-1].End || s.Start != s.End) {
			edges = append(edges, [2]float64{float64(s.From) / 1000, s.End})
		}
	}
	return edges
}

func channel(signal score.Signal, change func(*score.VoltageChannel)) *Channel {
	c := score.NewVoltageChannel(1, signal)
	if change != nil {
		change(&c)
	}
	return begin(c, 0)
}

// carry has a channel carry spans, and stop.
func (c *Channel) carry(spans []span, end int64) {
	before := span{from: never, to: never}
	for i, s := range spans {
		if i > 0 && before.to < s.from {
			c.ends(before.to)
		}
		c.sounds(before, s)
		before = s
	}
	if before.to < end {
		c.ends(before.to)
	}
	c.stop(end)
}

// A volt an octave: a semitone is 83.33 mV (1/12 V), five octaves are 5 V; as frequency, twice the voltage is an octave. Common practice.
func TestPitchesInVolts(t *testing.T) {
	c := score.NewVoltageChannel(1, score.PitchSignal)
	for pitch, want := range map[float64]float64{60: 0, 61: 0.083333, 59: -0.083333, 72: 1, 120: 5, 0: -5, 60.5: 0.041667} {
		require.InDelta(t, want, pitchOf(c, pitch), 1e-6, pitch)
	}
	worst := 0.0
	for cents := 0; cents <= 10*1200; cents++ { // ten octaves, as samples of full scale 10 V
		exact := float64(cents)/1200 - 5
		sample := float64(float32(pitchOf(c, float64(cents)/100) / 10))
		worst = max(worst, math.Abs(sample*10-exact)*1200)
	}
	require.Less(t, worst, 0.0005, "cents")
	c.HertzPerVolt = true
	for pitch, want := range map[float64]float64{60: 1, 72: 2, 84: 4, 48: 0.5, 67: math.Pow(2, 7.0/12)} {
		require.InDelta(t, want, pitchOf(c, pitch), 1e-12, pitch)
	}
}

// Pitches lead their gates, stay after them, slide where notes do, and are kept within the range, which is said. Times by hand.
func TestPitchLines(t *testing.T) {
	spans := []span{{from: 10 * milli, to: 50 * milli, pitch: 60}, {from: 60 * milli, to: 90 * milli, pitch: 72}, {from: 90 * milli, to: 100 * milli, pitch: 84, tied: true, slides: true}}
	c := channel(score.PitchSignal, func(c *score.VoltageChannel) { c.Zero, c.Lead, c.Slide = 48, 20, 40 })
	c.carry(spans, 200*milli)
	require.Equal(t, [][2]float64{{8000, 1}, {58_000, 2}, {90_000, 3}}, edgesOf(c.Line))
	require.InDelta(t, 2.5, c.Line.at(92*milli), 1e-9, "half of its slide of 4 ms")
	require.Empty(t, c.Beyond())

	c = channel(score.PitchSignal, func(c *score.VoltageChannel) {
		c.Zero, c.Lowest, c.Highest, c.StaysOnStop, c.Rest = 60, 500, 1500, false, 700
	})
	c.carry(spans, 200*milli)
	require.Equal(t, [][2]float64{{10_000, 0.5}, {60_000, 1}, {90_000, 1.5}, {200_000, 0.7}}, edgesOf(c.Line))
	require.Equal(t, "notes from 60 to 84 are beyond 0.5 to 1.5 V and kept there", c.Beyond())

	c = channel(score.PitchSignal, func(c *score.VoltageChannel) { c.Lead = 50 })
	c.carry([]span{{from: milli, to: 2 * milli, pitch: 72}, {from: 3 * milli, to: 4 * milli, pitch: 60}}, 5*milli)
	require.Equal(t, [][2]float64{{1000, 0}}, edgesOf(c.Line), "no pitch changes before the note before it has begun")
}

// Gates are up while a voice sounds; a gap is taken from the note before, at most half of it, and tied notes have none. By hand.
func TestGateLines(t *testing.T) {
	spans := []span{
		{from: 0, to: 100 * milli, velocity: 127}, {from: 100 * milli, to: 101 * milli, velocity: 64}, {from: 101 * milli, to: 150 * milli, velocity: 100},
		{from: 150 * milli, to: 200 * milli, tied: true, velocity: 10}, {from: 210 * milli, to: 400 * milli, velocity: 127},
	}
	up := func(edges ...float64) (want [][2]float64) {
		for i, at := range edges {
			want = append(want, [2]float64{at, []float64{5, 0}[i%2]})
		}
		return want
	}
	c := channel(score.GateSignal, func(c *score.VoltageChannel) { c.Gap = 20 })
	c.carry(spans, 300*milli)
	require.Equal(t, up(0, 98_000, 100_000, 100_500, 101_000, 200_000, 210_000, 300_000)[1:], edgesOf(c.Line))
	require.Equal(t, 5.0, c.Line.at(0))

	c = channel(score.GateSignal, func(c *score.VoltageChannel) { c.Inverted, c.Height = true, 8000 })
	require.Equal(t, 8.0, c.Line.at(0), "low is on")
	c.carry([]span{{from: 10 * milli, to: 20 * milli}}, 30*milli)
	require.Equal(t, [][2]float64{{10_000, 0}, {20_000, 8}}, edgesOf(c.Line))

	c = channel(score.GateSignal, func(c *score.VoltageChannel) { c.ByVelocity, c.Height = true, 10_000 })
	c.carry([]span{{from: 10 * milli, to: 20 * milli, velocity: 127}, {from: 30 * milli, to: 40 * milli, velocity: 64}}, 50*milli)
	require.Equal(t, [][2]float64{{10_000, 10}, {20_000, 0}, {30_000, 10 * 64.0 / 127}, {40_000, 0}}, edgesOf(c.Line))
}

// Triggers are down for a millisecond at least before the next; of those that would leave no time only the first is one.
func TestTriggerLines(t *testing.T) {
	c := channel(score.TriggerSignal, nil)
	for _, at := range []int64{0, 20 * milli, 23 * milli, 23*milli + 500_000, 50 * milli, 99 * milli} {
		c.pulse(at, 1)
	}
	c.stop(100 * milli)
	require.Equal(t, [][2]float64{{5000, 0}, {20_000, 5}, {22_000, 0}, {23_000, 5}, {28_000, 0}, {50_000, 5}, {55_000, 0}, {99_000, 5}, {100_000, 0}}, edgesOf(c.Line))
}

// Mods are unipolar from 0, or bipolar; stepped ones lead, smooth ones go to each value in a line; a slew takes its time.
func TestModLines(t *testing.T) {
	turns := []turn{{0, 20 * milli, 0.5}, {100 * milli, 20 * milli, 1}}
	for _, c := range []struct {
		change func(*score.VoltageChannel)
		want   [][2]float64
		middle float64 // at 110 ms
	}{
		{func(*score.VoltageChannel) {}, [][2]float64{{100_000, 5}, {200_000, 0}}, 5},
		{func(c *score.VoltageChannel) { c.Bipolar, c.StaysOnStop = true, true }, [][2]float64{{100_000, 5}}, 5},
		{func(c *score.VoltageChannel) { c.Bipolar, c.Lead = true, 30 }, [][2]float64{{97_000, 5}, {200_000, 0}}, 5},
		{func(c *score.VoltageChannel) { c.Smooth = true }, [][2]float64{{100_000, 5}, {200_000, 0}}, 3.75},
		{func(c *score.VoltageChannel) { c.Slew = 400 }, [][2]float64{{100_000, 5}, {200_000, 0}}, 3.125},
	} {
		of := channel(score.ModSignal, c.change)
		for _, t := range turns {
			of.mod(t)
		}
		of.stop(200 * milli)
		require.Equal(t, c.want, edgesOf(of.Line))
		require.InDelta(t, c.middle, of.Line.at(110*milli), 1e-9)
	}
}

// at returns the voltage at a moment.
func (l Line) at(moment int64) float64 {
	for _, s := range l {
		if moment < s.To {
			return s.At(float64(moment))
		}
	}
	panic("a line is for ever")
}
