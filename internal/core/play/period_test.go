package play_test

import (
	"math/big"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// Invariant 5: two lanes of lengths a and b at one rate meet again after lcm(a, b) steps.
func TestTwoLanesMeetAfterTheLeastCommonMultiple(t *testing.T) {
	for _, c := range []struct{ a, b, want int }{{16, 7, 112}, {16, 12, 48}, {8, 8, 8}, {63, 64, 4032}, {1, 5, 5}} {
		p := score.Demo()
		lanes := &p.Tracks[0].Lanes
		lanes.Gate.Length, lanes.Pitch.Length = c.a, c.b
		lanes.Pitch.Rate = lanes.Gate.Rate
		require.Equal(t, score.Tick(c.want)*lanes.Gate.Rate.Ticks(), play.Period(&p.Tracks[0], score.Gate, score.Pitch))
	}
}

// The demo's loops are 16, 11, 2·7, 2·5 and 9 sixteenths: 55,440 of them, or 3,465 bars.
func TestTheDemosPeriod(t *testing.T) {
	p := score.Demo()
	period := play.Period(&p.Tracks[0], score.Gate, score.Pitch, score.Velocity, score.Length, score.Probability)
	require.Equal(t, 3465*p.Meter.Bar(), period)
}

// The period is a multiple of every loop, no divisor of it is, and after it the moves repeat.
func TestPeriodAgainstBigIntegers(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		track := &testkit.Project(t).Tracks[0]
		want := big.NewInt(1)
		var names []score.LaneName
		for _, spec := range score.LaneSpecs() {
			names = append(names, spec.Name)
			loop := track.Lanes.Loop(spec.Name)
			length := big.NewInt(int64(loop.Length) * int64(loop.Rate.Ticks()))
			common := new(big.Int).GCD(nil, nil, want, length)
			want.Mul(want, length.Div(length, common))
		}
		period := play.Period(track, names...)
		require.Equal(t, want.Int64(), int64(period))
		require.True(t, want.IsInt64())
		for _, name := range names {
			first, again := play.Moves(track, name, 0, stretch), play.Moves(track, name, period, period+stretch)
			for i := range again {
				again[i].Tick -= period
			}
			require.Equal(t, first, again)
		}
	})
}
