package score_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

func TestProbabilityOfATrackScalesTowardNeverOrAlways(t *testing.T) {
	for _, c := range []struct{ track, step, want int }{
		{0, 0, 0}, {0, 1, 1}, {0, 6000, 6000}, {0, 10_000, 10_000},
		{-100, 10_000, 0}, {-100, 1, 0}, {-25, 10_000, 7500}, {-25, 6000, 4500}, {-50, 0, 0}, {-1, 9999, 9899},
		{100, 1, 10_000}, {100, 0, 0}, {25, 6000, 7000}, {50, 10_000, 10_000}, {33, 9999, 9999}, {1, 1, 100},
	} {
		track := score.Track{Probability: c.track}
		require.Equal(t, c.want, track.Probable(c.step), "%+d %% of %d", c.track, c.step)
	}
}
