package play_test

import (
	"math/big"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// At 120 bpm a quarter note lasts half a second; common practice.
func TestTempo(t *testing.T) {
	m := play.TempoMap{{Tick: 0, Tempo: 120_000}}
	require.Equal(t, int64(500_000_000), m.Nanos(score.TicksPerQuarter))
	require.Equal(t, score.TicksPerQuarter, m.TickAt(500_000_000))
	require.Equal(t, score.TicksPerQuarter-1, m.TickAt(499_999_999))
	require.Zero(t, m.TickAt(-5))
	require.Zero(t, play.TempoMap{}.TickAt(5))

	m = append(m, score.TempoChange{Tick: score.TicksPerQuarter, Tempo: 60_000})
	require.Equal(t, int64(1_500_000_000), m.Nanos(2*score.TicksPerQuarter))
	require.Equal(t, 2*score.TicksPerQuarter, m.TickAt(1_500_000_000))
}

// After 24 hours at 137.531 bpm the error is below a microsecond, against exact fractions.
func TestNoDriftInADay(t *testing.T) {
	m := play.TempoMap{{Tick: 0, Tempo: 137_531}}
	day := m.TickAt(24 * 3600 * 1_000_000_000)
	exact := new(big.Rat).SetFrac64(int64(day), int64(score.TicksPerQuarter))
	exact.Mul(exact, new(big.Rat).SetFrac64(60*1000, 137_531))
	exact.Mul(exact, new(big.Rat).SetInt64(1_000_000_000))
	wrong := new(big.Rat).Sub(exact, new(big.Rat).SetInt64(m.Nanos(day)))
	wrong.Abs(wrong)
	require.Negative(t, wrong.Cmp(new(big.Rat).SetInt64(1000)))
}

// Ticks and nanoseconds are inverse to each other over any map, and both ascend.
func TestTickAtInvertsNanos(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var m play.TempoMap
		at := score.Tick(0)
		for range rapid.IntRange(1, 5).Draw(t, "changes") {
			tempo := score.Tempo(rapid.IntRange(int(score.MinTempo), int(score.MaxTempo)).Draw(t, "tempo"))
			m = append(m, score.TempoChange{Tick: at, Tempo: tempo})
			at += score.Tick(rapid.IntRange(1, 1_000_000).Draw(t, "gap"))
		}
		tick := score.Tick(rapid.Int64Range(0, 10_000_000_000).Draw(t, "tick"))
		require.Equal(t, tick, m.TickAt(m.Nanos(tick)))
		require.Less(t, m.Nanos(tick), m.Nanos(tick+1))
	})
}

// A timing says what its map does, however it came to be.
func TestATimingIsItsMap(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var timing play.Timing
		var m play.TempoMap
		for range rapid.IntRange(1, 4).Draw(t, "changes") {
			m = append(play.TempoMap{}, m[:rapid.IntRange(0, len(m)).Draw(t, "kept")]...)
			tick := score.Tick(0)
			if len(m) > 0 {
				tick = m[len(m)-1].Tick + 1
			}
			for range rapid.IntRange(1, 5).Draw(t, "more") {
				m = append(m, score.TempoChange{Tick: tick, Tempo: score.Tempo(rapid.IntRange(10_000, 400_000).Draw(t, "tempo"))})
				tick += score.Tick(rapid.IntRange(1, 100_000).Draw(t, "after"))
			}
			timing = timing.Changed(m)
			for range 5 {
				at := score.Tick(rapid.IntRange(-5, 600_000).Draw(t, "tick"))
				if rapid.Bool().Draw(t, "at a change") {
					at = rapid.SampledFrom(m).Draw(t, "change").Tick
				}
				require.Equal(t, m.Nanos(at), timing.Nanos(at))
				moment := m.Nanos(at) + int64(rapid.IntRange(-2, 2).Draw(t, "off"))
				require.Equal(t, m.TickAt(moment), timing.TickAt(moment))
				index, holds := timing.Segment(at)
				require.Equal(t, m[index], holds)
				require.Equal(t, m.At(at), holds.Tempo)
			}
		}
	})
}
