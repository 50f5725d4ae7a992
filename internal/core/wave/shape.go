package wave

import "jettyfog/internal/core/score"

// level returns how high a shape is at a share x of a pass, 0 to One − 1.
//
//	sine      sin(2πx)
//	triangle  4x up to a quarter, 2 − 4x up to three quarters, 4x − 4
//	ramp      2x − 1
//	pulse     1 up to a half, −1
//
// Symmetry s, in percent, has the middle of the pass at 50 + s percent: x becomes x/2(0.5 + s/100) before it, and the like after it.
// Skew k bends a level y: with u = (y + 1)/2 it becomes 2(u + k/100·u·(1 − u)) − 1.
func (f *Free) level(x int) int {
	if s := f.of.Symmetry; s != 0 {
		if middle := score.Rounded((50+s)*One, 100); x < middle {
			x = x * (One / 2) / middle
		} else {
			x = One/2 + (x-middle)*(One/2)/(One-middle)
		}
	}
	y := 0
	switch f.of.Shape {
	case score.SineShape:
		y = sine(x)
	case score.TriangleShape:
		switch {
		case x < One/4:
			y = 4 * x
		case x < 3*One/4:
			y = 2*One - 4*x
		default:
			y = 4*x - 4*One
		}
	case score.RampShape:
		y = 2*x - One
	case score.PulseShape:
		if y = -One; x < One/2 {
			y = One
		}
	case score.DrawnShape:
		count := len(f.of.Points)
		at := x * count
		from, to := f.of.Points[at/One], f.of.Points[(at/One+1)%count]
		y = between(f.between, percent(from), percent(to), at%One)
	}
	return f.skewed(y)
}

func (f *Free) skewed(y int) int {
	k := f.of.Skew
	if k == 0 {
		return y
	}
	u := (y + One) / 2
	return 2*(u+rounded(k*rounded(u*(One-u), One), 100)) - One
}

// between returns what lies between two levels, at a share of the way.
func between(how score.Interpolation, from, to, share int) int {
	switch how {
	case score.LineBetween:
		return Between(from, to, share)
	case score.SmoothBetween:
		return Between(from, to, Bend(score.SCurve, share))
	}
	return from
}

func percent(level int) int { return rounded(level*One, 100) }
