package cv

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
)

// Two readings are a gain and an offset; more are a table, whose lines go on beyond its ends. By hand.
func TestCalibrate(t *testing.T) {
	c, err := Calibrate([]VoltageReading{{Asked: 30_000, Read: 29_400}, {Asked: 0, Read: 300}})
	require.NoError(t, err) // read = 0.03 + 0.97 · asked
	for _, wanted := range []float64{-5, 0, 1, 4.9} {
		require.InDelta(t, (wanted-0.03)/0.97, c.Sent(wanted), 1e-9)
	}
	c, err = Calibrate([]VoltageReading{{Asked: -10_000, Read: -11_000}, {Asked: 0, Read: 0}, {Asked: 10_000, Read: 9000}})
	require.NoError(t, err)
	for wanted, sent := range map[float64]float64{-1.1: -1, -0.55: -0.5, 0: 0, 0.45: 0.5, 0.9: 1, 1.8: 2, -2.2: -2} {
		require.InDelta(t, sent, c.Sent(wanted), 1e-9, wanted)
	}
	none, err := Calibrate(nil)
	require.NoError(t, err)
	require.Equal(t, 1.25, none.Sent(1.25))
}

// An oscillator that is 2 % flat of a volt an octave is in tune once it was read: an octave is a volt.
func TestCalibrateByFrequency(t *testing.T) {
	var readings []VoltageReading
	for volt := -2; volt <= 3; volt++ {
		hertz := 261_626 * math.Exp2(0.98*float64(volt))
		readings = append(readings, VoltageReading{Asked: volt * 10_000, Hertz: int(math.Round(hertz))})
	}
	c, err := Calibrate(readings)
	require.NoError(t, err)
	for cents := -2400; cents <= 3600; cents += 50 {
		wanted := float64(cents) / 1200
		require.InDelta(t, wanted, 0.98*c.Sent(wanted), 0.1/1200, "a tenth of a cent")
	}
}

func TestReadingsThatCannotBe(t *testing.T) {
	for want, readings := range map[string][]VoltageReading{
		"2 to 24 readings, not of 1": {{Asked: 0, Read: 0}},
		"not of 25":                  make([]VoltageReading, 25),
		"not some of each":           {{Asked: 0, Read: 0}, {Asked: 10_000, Hertz: 440_000}},
		"1 V was read twice":         {{Asked: 10_000, Read: 9000}, {Asked: 10_000, Read: 9100}},
		"from 0 to 1 V it read 0 to 0.1 V, which no inte": {{Asked: 10_000, Read: 1000}, {Asked: 0}},
		"from 0 to 1 V it read 0 to -1 V":                 {{Asked: 10_000, Read: -10_000}, {Asked: 0}},
	} {
		_, err := Calibrate(readings)
		require.ErrorContains(t, err, want)
	}
	c, err := Calibrate([]VoltageReading{{Asked: 0, Read: 0}, {Asked: 10_000, Read: 9000}})
	require.NoError(t, err)
	channel := score.NewVoltageChannel(3, score.PitchSignal)
	require.NoError(t, c.Check(channel, 10_000))
	channel.Highest = 9500
	require.ErrorContains(t, c.Check(channel, 10_000), "for 9.5 V channel 3 would need 10.556 V, and the interface gives 10 V")
}

// A line that is corrected is at each moment what has to be sent for the line, whatever bends and corners there are; a corner is at a nanosecond.
func TestCorrectedLines(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var readings []VoltageReading
		asked, read := -50_000, rapid.IntRange(-52_000, -48_000).Draw(t, "first")
		for range rapid.IntRange(2, 12).Draw(t, "readings") {
			readings = append(readings, VoltageReading{Asked: asked, Read: read})
			asked += 10_000
			read += rapid.IntRange(8000, 12_500).Draw(t, "more")
		}
		c, err := Calibrate(readings)
		require.NoError(t, err)
		line := Steady(0, 0)
		at := int64(0)
		for range rapid.IntRange(1, 6).Draw(t, "edges") {
			at += int64(rapid.IntRange(1, 3_000_000).Draw(t, "after"))
			bend := rapid.SampledFrom([]float64{0, exponential}).Draw(t, "bend")
			line.to(at, rapid.Float64Range(-5, 5).Draw(t, "volts"), int64(rapid.SampledFrom([]int{0, 1, 2_000_000, 20_000_000}).Draw(t, "takes")), bend)
		}
		corrected := c.Correct(line)
		for moment := int64(0); moment < at+21_000_000; moment += 30_011 {
			require.InDelta(t, c.Sent(line.at(moment)), corrected.at(moment), 1e-4, "at %d", moment)
		}
		require.Equal(t, line[0].From, corrected[0].From)
		for i := 1; i < len(corrected); i++ {
			require.Equal(t, corrected[i-1].To, corrected[i].From)
		}
	})
}
