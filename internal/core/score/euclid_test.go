package score_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
)

// The rhythms listed in Toussaint (2005), section 4, written here from memory: x sounds, . is silent.
func TestEuclidMatchesTheRhythmsOfThePaper(t *testing.T) {
	for _, c := range []struct {
		k, n int
		want string
	}{
		{1, 2, "x."},
		{1, 3, "x.."},
		{2, 3, "x.x"},
		{2, 5, "x.x.."},
		{3, 4, "x.xx"},
		{3, 5, "x.x.x"},
		{3, 7, "x.x.x.."},
		{3, 8, "x..x..x."},
		{4, 7, "x.x.x.x"},
		{4, 9, "x.x.x.x.."},
		{4, 11, "x..x..x..x."},
		{5, 6, "x.xxxx"},
		{5, 7, "x.xx.xx"},
		{5, 8, "x.xx.xx."},
		{5, 9, "x.x.x.x.x"},
		{5, 11, "x.x.x.x.x.."},
		{5, 12, "x..x.x..x.x."},
		{5, 16, "x..x..x..x..x..."},
		{7, 8, "x.xxxxxx"},
		{7, 12, "x.xx.x.xx.x."},
		{7, 16, "x..x.x.x..x.x.x."},
		{9, 16, "x.xx.x.x.xx.x.x."},
		{11, 24, "x..x.x.x.x.x..x.x.x.x.x."},
		{13, 24, "x.xx.x.x.x.x.xx.x.x.x.x."},
	} {
		var drawn strings.Builder
		for _, step := range score.Euclid(c.k, c.n) {
			drawn.WriteByte(".x"[step])
		}
		require.Equal(t, c.want, drawn.String(), "E(%d,%d)", c.k, c.n)
	}
}

// k of n steps sound, and the gaps between them differ by no more than one step.
func TestEuclidIsEven(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(1, score.MaxSteps).Draw(t, "n")
		k := rapid.IntRange(0, n).Draw(t, "k")
		rhythm := score.Euclid(k, n)
		require.Len(t, rhythm, n)
		var at []int
		for i, step := range rhythm {
			if step == score.On {
				at = append(at, i)
			}
		}
		require.Len(t, at, k)
		least, most := n, 0
		for i := range at {
			gap := (at[(i+1)%len(at)]-at[i]+n-1)%n + 1
			least, most = min(least, gap), max(most, gap)
		}
		require.LessOrEqual(t, most-least, 1+n*boolToInt(k == 0))
	})
	require.Nil(t, score.Euclid(1, 0))
	require.Equal(t, []int{score.On}, score.Euclid(9, 1))
}

func boolToInt(b bool) int {
	if b {
		return 1
	}
	return 0
}
