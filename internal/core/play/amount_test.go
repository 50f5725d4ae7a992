package play_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat/distuv"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// always returns a project whose every 16th is on, at a value of a lane.
func always(lane score.LaneName, value, amount int) *score.Project {
	p := testkit.Buoy()
	lanes := &p.Tracks[0].Parts()[0].Lanes
	for name, all := range map[score.LaneName]int{score.Gate: score.On, score.Probability: 100, lane: value} {
		one := lanes.Lane(name).Clone()
		for step := range one.Steps {
			one.Steps[step] = all
		}
		lanes.Set(name, one)
	}
	lanes.Lane(lane).Amount = amount
	return p
}

// A probability times its amount counts to a ten-thousandth: how often notes sound is within four deviations of the
// binomial distribution, and what cannot be is never.
func TestProbabilityTimesAmountIsExact(t *testing.T) {
	const steps = 200_000
	for _, c := range []struct{ value, amount int }{{1, 99}, {1, 1}, {5, 50}, {33, 101}, {99, 99}, {50, 0}, {100, 100}, {60, 200}} {
		t.Run(fmt.Sprintf("%d at %d", c.value, c.amount), func(t *testing.T) {
			p := always(score.Probability, c.value, c.amount)
			notes := len(play.Render(p, 0, steps*score.NoteValue("1/16").Ticks(), nil))
			odds := min(1, float64(c.value*c.amount)/10_000)
			expected := distuv.Binomial{N: steps, P: odds}
			if odds == 0 || odds == 1 {
				require.Equal(t, int(odds*steps), notes)
				return
			}
			require.InDelta(t, expected.Mean(), notes, 4*expected.StdDev())
			look := play.Look(p, 1, 0, p.Meter.Bar())[0].Forecasts[0]
			require.InDelta(t, 100*odds, look.Probability, 1e-9)
		})
	}
}

// With a probability of the track, steps sound exactly as often, and at the same moments, as with their own lane set so.
func TestProbabilityOfATrackIsThatOfItsSteps(t *testing.T) {
	for _, c := range []struct{ value, track, as int }{{60, -25, 45}, {60, 25, 70}, {100, -40, 60}, {20, 100, 100}, {0, 100, 0}, {80, -100, 0}} {
		t.Run(fmt.Sprintf("%d at %+d", c.value, c.track), func(t *testing.T) {
			scaled := always(score.Probability, c.value, 100)
			scaled.Tracks[0].Probability = c.track
			same := always(score.Probability, c.as, 100)
			bars := 64 * scaled.Meter.Bar()
			require.Equal(t, play.Render(same, 0, bars, nil), play.Render(scaled, 0, bars, nil))
			require.Equal(t, play.Look(same, 1, 0, bars), play.Look(scaled, 1, 0, bars))
		})
	}
}

// A velocity times its amount is rounded, and what a spread adds comes after that: 35 at 150 % is 53.
func TestVelocityTimesAmountIsRounded(t *testing.T) {
	for _, c := range []struct{ value, amount, added, want int }{
		{35, 150, 0, 53}, {35, 150, 10, 63}, {1, 40, 0, 1}, {101, 50, 0, 51}, {100, 50, -7, 43}, {127, 200, -7, 127}, {64, 0, 5, 5},
	} {
		p := always(score.Velocity, c.value, c.amount)
		p.Tracks[0].Parts()[0].Lanes.Velocity.Spread = &score.Spread{Chance: 100, Depth: 100, Lowest: c.added, Highest: c.added, Grain: 1}
		require.Equal(t, c.want, int(play.Render(p, 0, 1, nil)[0].Velocity), c)
	}
}

// Whatever the grain, what a spread adds are both ends and the multiples between them, 0 among them if it is between.
func TestTheGrainReachesBothEndsAndTheWrittenValue(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := score.Spread{Chance: 100, Depth: 100, Grain: rapid.IntRange(1, 64).Draw(t, "grain")}
		s.Lowest = rapid.IntRange(-100, 100).Draw(t, "lowest")
		s.Highest = rapid.IntRange(s.Lowest, 100).Draw(t, "highest")
		var want, got []int
		for added := s.Lowest; added <= s.Highest; added++ {
			if added == s.Lowest || added == s.Highest || added%s.Grain == 0 {
				want = append(want, added)
			}
		}
		sum := 0.0
		for _, share := range play.Shares(s, 0) {
			sum += share.Share
			if share.Share > 0 {
				got = append(got, share.Added)
			}
		}
		require.Equal(t, want, got)
		require.InDelta(t, 1, sum, 1e-9)
	})
}
