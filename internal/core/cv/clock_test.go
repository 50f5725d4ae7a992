package cv

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// A clock that follows the swing is late by it in the middle of each pair of steps, from the bar line on; what is left of a bar behind the last pair
// is straight. By hand, in 24ths of a quarter note: at two thirds the second of two eighths, which are 12 each, comes after 16.
func TestClockFollowsTheSwing(t *testing.T) {
	const tick = score.TicksPerQuarter / 24
	swung := func(meter score.Meter, swing int, grid score.NoteValue, pulses int) (at []int) {
		p := testkit.Demo()
		p.Meter, p.Swing, p.SwingGrid = meter, swing, grid
		bars := p.Bars()
		bar := func(tick score.Tick) (score.Tick, score.Tick) {
			number := bars.At(tick)
			return bars.Start(number), bars.Start(number + 1)
		}
		c := score.NewVoltageChannel(1, score.ClockSignal)
		c.Pulses, c.Swung = pulses, true
		when := func(tick score.Tick) int64 { return int64(tick) }
		for from := score.Tick(0); from < 2*bars.Start(1); from += 1000 { // however it is cut up
			Pulses(c, p, bar, from, min(from+1000, 2*bars.Start(1)), when, func(e Event) { at = append(at, int(e.At/int64(tick))) })
		}
		return at
	}
	require.Equal(t, []int{0, 16, 24, 40, 48, 64, 72, 88, 96, 112, 120, 136, 144, 160, 168, 184}, swung(score.Meter{Beats: 4, Unit: 4}, 667, "1/8", 2))
	require.Equal(t, []int{0, 8, 16, 20, 24}, swung(score.Meter{Beats: 4, Unit: 4}, 667, "1/8", 4)[:5])
	require.Equal(t, []int{0, 9, 12, 21, 24}, swung(score.Meter{Beats: 4, Unit: 4}, 750, "1/16", 4)[:5])
	// Of 7/8 the last eighth is left over: it is straight, and the next bar begins a pair anew.
	require.Equal(t, []int{0, 18, 24, 42, 48, 66, 72, 84, 102, 108, 126, 132, 150, 156}, swung(score.Meter{Beats: 7, Unit: 8}, 750, "1/8", 2))
	require.Equal(t, []int{0, 12, 24, 36}, swung(score.Meter{Beats: 4, Unit: 4}, 500, "1/8", 2)[:4], "without swing it is even")
}
