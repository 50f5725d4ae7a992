package orders

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

func walked(order score.Order, length, moves int, change func(*score.Lane)) []int {
	lane := &score.Lane{Length: length, Rate: "1/16", Order: order, First: 2}
	if change != nil {
		change(lane)
	}
	m := New(lane, chance.Address{Luck: 3, Track: 1})
	var steps []int
	for range moves {
		steps = append(steps, m.Step()-lane.First)
		m.Advance()
	}
	return steps
}

// Written out by hand.
func TestOrders(t *testing.T) {
	for _, c := range []struct {
		order  score.Order
		length int
		want   []int
	}{
		{score.Forward, 3, []int{0, 1, 2, 0, 1, 2, 0}},
		{score.Backward, 3, []int{2, 1, 0, 2, 1, 0, 2}},
		{score.ThereAndBack, 4, []int{0, 1, 2, 3, 2, 1, 0, 1, 2}},
		{score.ThereAndBack, 2, []int{0, 1, 0, 1}},
		{score.ThereAndBack, 1, []int{0, 0, 0}},
		{score.TurnTwice, 3, []int{0, 1, 2, 2, 1, 0, 0, 1}},
		{score.TurnTwice, 1, []int{0, 0, 0}},
		{score.Path, 3, []int{0, 1, 2, 0}},
	} {
		require.Equal(t, c.want, walked(c.order, c.length, len(c.want), nil), "%s of %d", c.order, c.length)
	}
	path := walked(score.Path, 4, 7, func(l *score.Lane) { l.Path = []int{3, 0, 6} })
	require.Equal(t, []int{3, 0, 2, 3, 0, 2, 3}, path, "a path wraps into the loop")
}

// Shuffle plays every step once a pass, and not always in the same order.
func TestShuffle(t *testing.T) {
	steps := walked(score.Shuffle, 8, 80, nil)
	orders := map[[8]int]bool{}
	for pass := range 10 {
		seen := map[int]bool{}
		for _, step := range steps[pass*8 : pass*8+8] {
			seen[step] = true
		}
		require.Len(t, seen, 8)
		orders[[8]int(steps[pass*8:pass*8+8])] = true
	}
	require.Greater(t, len(orders), 5)
}

// Random and drift at their stated odds: chi-square, alpha 0.001, 70,000 moves, the luck fixed.
func TestRandomIsEven(t *testing.T) {
	counts := make([]int, 7)
	for _, step := range walked(score.Random, 7, 70_000, nil) {
		counts[step]++
	}
	requireOdds(t, counts, []float64{1. / 7, 1. / 7, 1. / 7, 1. / 7, 1. / 7, 1. / 7, 1. / 7}, 22.46)
}

func TestDriftGoesAtItsOdds(t *testing.T) {
	steps := walked(score.Drift, 10, 70_001, func(l *score.Lane) { l.Drift = score.DriftOdds{Forward: 50, Back: 20} })
	require.Zero(t, steps[0])
	counts := make([]int, 3)
	for i := 1; i < len(steps); i++ {
		switch (steps[i] - steps[i-1] + 10) % 10 {
		case 1:
			counts[0]++
		case 9:
			counts[1]++
		case 0:
			counts[2]++
		default:
			require.Fail(t, "a drift jumped", "from %d to %d", steps[i-1], steps[i])
		}
	}
	requireOdds(t, counts, []float64{0.5, 0.2, 0.3}, 13.82)
}

// requireOdds checks counts against shares by chi-square; the limit is its quantile for alpha 0.001
// and one degree of freedom less than there are shares, from any table of the distribution.
func requireOdds(t *testing.T, counts []int, shares []float64, limit float64) {
	t.Helper()
	total := 0
	for _, count := range counts {
		total += count
	}
	chiSquare := 0.0
	for i, count := range counts {
		expected := float64(total) * shares[i]
		chiSquare += (float64(count) - expected) * (float64(count) - expected) / expected
	}
	require.Less(t, chiSquare, limit)
}

// The short cut that advance takes for the commonest orders leads where settle leads.
func TestAdvanceSettles(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		lane := &score.Lane{
			Length: rapid.IntRange(1, 64).Draw(t, "length"), Rate: "1/16",
			Order: rapid.SampledFrom(score.Orders()).Draw(t, "order"),
			Drift: score.DriftOdds{Forward: 40, Back: 30}, Path: []int{4, 1, 1},
		}
		one := New(lane, chance.Address{Luck: 9})
		two := one
		moves := rapid.Int64Range(0, 300).Draw(t, "moves")
		for range moves {
			one.Advance()
		}
		two.update()
		for two.Moved < moves {
			two.Moved++
			two.DrawIndex++
			two.update()
		}
		require.Equal(t, one.Position, two.Position)
	})
}
