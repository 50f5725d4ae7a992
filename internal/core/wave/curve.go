package wave

import "jettyfog/internal/core/score"

// One is 1 in the numbers of this package, which have 16 bits after the point.
const One = 1 << 16

// Bend returns how far along a curve is at a share x of its travel, both 0 to One: x on a straight line, x² slow first, 1 − (1 − x)²
// fast first, and 3x² − 2x³ slow at both ends.
func Bend(curve score.Curve, x int) int {
	x = max(0, min(One, x))
	switch curve {
	case score.SlowStart:
		return rounded(x*x, One)
	case score.FastStart:
		return One - rounded((One-x)*(One-x), One)
	case score.SCurve:
		return rounded(rounded(x*x, One)*(3*One-2*x), One)
	}
	return x
}

// Between returns where a value is that goes from one to another, at a share 0 to One of the way.
func Between(from, to, share int) int { return from + rounded((to-from)*share, One) }

// rounded divides, rounding halves away from zero.
func rounded(value, by int) int { return score.Rounded(value, by) }
