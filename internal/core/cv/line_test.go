package cv

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

const milli = 1_000_000

// A line goes where it is told to, from wherever it is by then; what it was to do later is forgotten. By hand.
func TestLines(t *testing.T) {
	l := Steady(-5*milli, 1)
	l.to(0, 5, 0, 0)
	l.to(10*milli, 0, 10*milli, 0)
	l.to(15*milli, 4, 0, 0) // in the middle of the ramp
	l.to(20*milli, 4, 3*milli, 0)
	require.Equal(t, Line{
		{-5 * milli, 0, 1, 1, 0}, {0, 10 * milli, 5, 5, 0}, {10 * milli, 15 * milli, 5, 2.5, 0}, {15 * milli, forever, 4, 4, 0},
	}, l)
	l.to(-9*milli, 2, 0, 0)
	require.Equal(t, Line{{-5 * milli, forever, 2, 2, 0}}, l, "before its beginning is at it")
}

// A bent segment is at 1 - 1/√1000 of the way in the middle, by the formula of charging capacitors, and what is left of one that is cut
// is the same curve.
func TestBends(t *testing.T) {
	l := Steady(0, 0)
	l.to(0, 1, 100*milli, exponential)
	whole := l[0]
	require.InDelta(t, (1-1/math.Sqrt(1000))/(1-1.0/1000), whole.At(50*milli), 1e-12)
	require.InDelta(t, 1, whole.At(100*milli), 1e-12)
	cut := whole.until(30 * milli)
	for at := 0.0; at <= 30; at++ {
		require.InDelta(t, whole.At(at*milli), cut.At(at*milli), 1e-12)
	}
}

// The sample of an edge is the first that is not before it: with whole numbers, at any rate, however samples are asked for.
func TestEdgesAreExact(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		rate := rapid.SampledFrom([]int{44100, 48000, 96000, 192000}).Draw(t, "rate")
		from := -rapid.Int64Range(0, 10*milli).Draw(t, "from")
		l := Steady(from, 0)
		at, edges := from, []int64{}
		for i := range rapid.IntRange(1, 8).Draw(t, "edges") {
			at += rapid.Int64Range(50_000, 5*milli).Draw(t, "apart")
			l.to(at, float64(1+i%2), 0, 0)
			edges = append(edges, at)
		}
		samples := make([]float32, 3*(int(at-from)/(1_000_000_000/rate)+3))
		half := len(samples) / 6 * 3
		l.Samples(from, rate, 0, 1, samples[1:half], 3)
		l.Samples(from, rate, int64(half/3), 1, samples[half+1:], 3)
		for i, edge := range edges {
			first := ((edge-from)*int64(rate) + 999_999_999) / 1_000_000_000 // rounded up
			require.Equal(t, float32(1+i%2), samples[3*first+1])
			require.NotEqual(t, float32(1+i%2), samples[3*(first-1)+1])
		}
	})
}

// What is drawn of a line is where it goes, at its edges twice, cut at what is shown.
func TestPoints(t *testing.T) {
	l := Steady(0, 0)
	l.to(10, 5, 0, 0)
	l.to(20, 3, 10, 0)
	points, whole := l.Points(5, 25, 9)
	require.True(t, whole)
	require.Equal(t, []Point{{5, 0}, {10, 0}, {10, 5}, {20, 5}, {20, 5}, {25, 4}}, points)
	points, whole = l.Points(5, 25, 2)
	require.False(t, whole)
	require.Len(t, points, 4)
	l.to(40, 0, 120, exponential)
	points, _ = l.Points(40, 160, 1)
	require.Len(t, points, 13)
	require.InDelta(t, l.at(100), points[6].Volts, 1e-12)
}
