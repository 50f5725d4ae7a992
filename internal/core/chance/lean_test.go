package chance

import (
	"fmt"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/integrate/quad"
)

// 100,000 draws for each lean against the stated distribution, Kolmogorov-Smirnov: the largest
// distance stays below the critical value 1.95/√n of alpha 0.001 (Smirnov 1948, a value from
// memory). The luck is fixed, so the test gives one answer for ever.
func TestLeanFollowsItsDensity(t *testing.T) {
	const draws = 100_000
	for _, lean := range []int{-100, -60, 0, 30, 100} {
		t.Run(fmt.Sprint(lean), func(t *testing.T) {
			sample := make([]float64, draws)
			for n := range sample {
				sample[n] = float64(Lean(Address{Luck: 11, Purpose: Spread, N: uint64(n)}, lean)) / (1 << 32)
			}
			slices.Sort(sample)
			distance := 0.0
			for i, x := range sample {
				expected := LeanBelow(x, lean)
				distance = max(distance, math.Abs(expected-float64(i)/draws), math.Abs(expected-float64(i+1)/draws))
			}
			require.Less(t, distance, 1.95/math.Sqrt(draws))
		})
	}
}

// The curve that is drawn and the distribution that is tested are one formula.
func TestLeanDensityAndDistributionAgree(t *testing.T) {
	for _, lean := range []int{-100, -35, 0, 50, 100} {
		for _, x := range []float64{0.1, 0.5, 0.9, 1} {
			integral := quad.Fixed(func(y float64) float64 { return LeanDensity(y, lean) }, 0, x, 20, nil, 0)
			require.InDelta(t, integral, LeanBelow(x, lean), 1e-12)
		}
	}
}

func TestBelowIsEven(t *testing.T) {
	var counts [7]int
	const draws = 70_000
	for n := range uint64(draws) {
		counts[Below(Address{Luck: 2, Purpose: Step, N: n}, len(counts))]++
	}
	chiSquare := 0.0
	for _, count := range counts {
		off := float64(count) - draws/7
		chiSquare += off * off / (draws / 7)
	}
	require.Less(t, chiSquare, 22.46, "chi-square, 6 degrees of freedom, alpha 0.001")
}
