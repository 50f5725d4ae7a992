package play_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// pedal is the task that spreads of steps were made for: a pedal on C at every other step stays, and the steps between wander over the scale
// without it.
func pedal() *score.Project {
	return testkit.Plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
		for step := range 4 {
			part.Lanes.Gate.Steps[step] = score.On
		}
		wander := score.StepOwn{Spread: &score.Spread{Chance: 100, Depth: 100, Lowest: 0, Highest: 6, Grain: 1}, Allowed: []int{1, 2, 3, 4, 5, 6}}
		part.Lanes.Pitch.Own = map[int]score.StepOwn{1: wander, 3: wander}
	})
}

// The pedal is never moved, and the steps between go to all notes but the pedal's, as often as arithmetic says: the 0 of seven even numbers goes to the
// nearest degree that is allowed, of -1 and 1 the lower. Chi-square for each step by itself, alpha 0.001.
func TestAPedalStaysAndOthersWander(t *testing.T) {
	const loops = 7000
	var counts [4][128]float64
	for _, n := range play.Render(pedal(), 0, loops*4*sixteenth, nil) {
		counts[n.Step][n.Key]++
	}
	for _, step := range []int{0, 2} {
		require.InDelta(t, loops, counts[step][60], 0)
	}
	const seventh = 1.0 / 7
	for _, step := range []int{1, 3} {
		requireShares(t, counts[step], loops, map[int]float64{59: seventh, 62: seventh, 64: seventh, 65: seventh, 67: seventh, 69: seventh, 71: seventh})
	}
}

// A step's own spread takes the place of the lane's at that step and nowhere else, and a depth of 0 is the written value though the lane's spread would
// move it.
func TestASpreadOfAStep(t *testing.T) {
	p := everyStep(func(l *score.Lane) {
		l.Linked, l.Length = false, 3
		l.Spread = &score.Spread{Chance: 100, Depth: 100, Lowest: 10, Highest: 10, Grain: 1}
		l.Own = map[int]score.StepOwn{
			1: {Spread: &score.Spread{Chance: 100, Grain: 1, Lowest: 5, Highest: 5}},
			2: {Spread: &score.Spread{Chance: 100, Depth: 100, Lowest: -4, Highest: -4, Grain: 1}},
		}
	})
	var velocities []uint8
	for _, n := range play.Render(p, 0, 6*sixteenth, nil) {
		velocities = append(velocities, n.Velocity)
	}
	require.Equal(t, []uint8{106, 96, 92, 106, 96, 92}, velocities)
	_, drawn := play.Draws(p, 1, 0, score.Velocity, 2, 0, 6*sixteenth)
	require.Equal(t, []int{-4, -4}, drawn, "what is told of a step's spread is of the steps that have it")
	_, drawn = play.Draws(p, 1, 0, score.Velocity, 0, 0, 6*sixteenth)
	require.Equal(t, []int{10, 10}, drawn)
}

// A spread with limits bounds the result: whatever is written and scaled, it lands between them as often as its density says (Kolmogorov-Smirnov against
// the density, alpha 0.001), half of the way at half the depth, and at a chance of 60 % in 60 % of the cases.
func TestASpreadWithLimits(t *testing.T) {
	const notes = 20_000
	for _, lean := range []int{-70, 0, 100} {
		p := everyStep(func(l *score.Lane) {
			l.Steps[0], l.Amount = 120, 50
			l.Spread = &score.Spread{Chance: 100, Depth: 100, Lowest: 10, Highest: 110, Lean: lean, Grain: 1, Limits: true}
		})
		var drawn, want []float64
		for i, n := range play.Render(p, 0, notes*sixteenth, nil) {
			drawn = append(drawn, (float64(n.Velocity)-10+0.5)/101)
			want = append(want, inverseLean((float64(i)+0.5)/notes, lean))
		}
		slices.Sort(drawn)
		require.Less(t, stat.KolmogorovSmirnov(drawn, nil, want, nil), 1.95/141+1.0/101, "lean %d", lean) // 1.95/√n at alpha 0.001 (from memory), and half a slot either way
	}
	counts, total := velocities(everyStep(func(l *score.Lane) {
		l.Spread = &score.Spread{Chance: 60, Depth: 50, Lowest: 16, Highest: 36, Grain: 20, Limits: true}
	}))
	requireShares(t, counts, total, map[int]float64{96: 0.4, 56: 0.3, 66: 0.3})
	require.Equal(t, []play.Share{{-40, 0.3}, {-30, 0.3}, {0, 0.4}}, play.Shares(score.Spread{Chance: 60, Depth: 50, Lowest: 16, Highest: 36, Grain: 20, Limits: true}, 96))
}

// inverseLean returns where in its range a share of all numbers of a lean lies below, by halving.
func inverseLean(share float64, lean int) float64 {
	low, high := 0.0, 1.0
	for range 40 {
		if middle := (low + high) / 2; chance.LeanBelow(middle, lean) < share {
			low = middle
		} else {
			high = middle
		}
	}
	return low
}

// Weights of a step are drawn in place of what is written and of the lane's; weights of nothing leave the lane's in force, and a rest silences its step
// only.
func TestWeightsOfAStep(t *testing.T) {
	const loops = 20_000
	p := testkit.Plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
		for step := range 4 {
			part.Lanes.Gate.Steps[step] = score.On
		}
		part.Lanes.Pitch.Weights = []score.Weight{{Lowest: 7, Highest: 7, Weight: 1}}
		part.Lanes.Pitch.Own = map[int]score.StepOwn{
			1: {Weights: []score.Weight{{Lowest: 2, Highest: 2, Weight: 3}, {Lowest: 4, Highest: 4, Weight: 1}, {Weight: 4, Rest: true}}},
			2: {Weights: []score.Weight{{Lowest: 1, Highest: 1}}},
			3: {Weights: []score.Weight{{Lowest: 5, Highest: 5, Weight: 1}}},
		}
	})
	require.NoError(t, p.Validate())
	var counts [4][128]float64
	for _, n := range play.Render(p, 0, loops*4*sixteenth, nil) {
		counts[n.Step][n.Key]++
	}
	require.InDelta(t, loops, counts[0][72], 0)
	require.InDelta(t, loops, counts[2][72], 0)
	require.InDelta(t, loops, counts[3][69], 0)
	counts[1][0] = loops - counts[1][64] - counts[1][67]
	requireShares(t, counts[1], loops, map[int]float64{64: 3.0 / 8, 67: 1.0 / 8, 0: 0.5})
}
