package follow

import "math"

// How far pulses are from the line at least, and before that is known, in nanoseconds.
const minNoise, startNoise = 300_000, 1_500_000

// enough is from how many pulses the noise is known.
const enough = 24

// fit is the straight line through pulses with the least sum of squares (linear regression): times by numbers.
type fit struct {
	origin       pulse
	count        float64
	middle       float64 // of the numbers, from the origin's
	time, period float64 // at the middle, from the origin's; and of a pulse
	spread       float64 // sum of the squares of the numbers' distances from their middle
}

func fitOf(pulses []pulse) fit {
	f := fit{origin: pulses[0], count: float64(len(pulses))}
	for _, p := range pulses {
		f.middle += float64(p.index-f.origin.index) / f.count
		f.time += float64(p.at-f.origin.at) / f.count
	}
	var both float64
	for _, p := range pulses {
		x := float64(p.index-f.origin.index) - f.middle
		f.spread += x * x
		both += x * (float64(p.at-f.origin.at) - f.time)
	}
	if f.spread > 0 {
		f.period = both / f.spread
	}
	return f
}

// residual returns how much later than on the line a pulse came.
func (f fit) residual(p pulse) float64 {
	return float64(p.at-f.origin.at) - f.time - f.period*(float64(p.index-f.origin.index)-f.middle)
}

// squares returns the sum of the squares of the residuals.
func (f fit) squares(pulses []pulse) (sum float64) {
	for _, p := range pulses {
		sum += f.residual(p) * f.residual(p)
	}
	return sum
}

// deviation returns how far pulses are from the line: the root of the mean square.
func (f fit) deviation(pulses []pulse) float64 { return math.Sqrt(f.squares(pulses) / (f.count - 2)) }

// uncertainty returns how uncertain the mean of so many pulses after the line is, in parts of the noise (standard error of a prediction).
func (f fit) uncertainty(pulses []pulse) float64 {
	var ahead float64
	for _, p := range pulses {
		ahead += (float64(p.index-f.origin.index) - f.middle) / float64(len(pulses))
	}
	return math.Sqrt(1/float64(len(pulses)) + 1/f.count + ahead*ahead/f.spread)
}

// tests are by how many times its uncertainty the mean of the newest pulses has to be off the line of those before, for a tempo that has
// changed: the fewer, the more.
var tests = []struct {
	newest int
	times  float64
}{{3, 5}, {6, 4.5}, {12, 4.5}}

// minBefore is how many pulses those before are at least.
const minBefore = 4

// changed returns the index in the window from which on another tempo holds, or the same one from elsewhere; 0 if none does.
func (f *Follower) changed() int {
	for _, test := range tests {
		before := len(f.window) - test.newest
		if before < minBefore {
			return 0
		}
		older, newest := f.window[:before], f.window[before:]
		line := fitOf(older)
		var mean float64
		for _, p := range newest {
			mean += line.residual(p) / float64(len(newest))
		}
		if math.Abs(mean) > test.times*f.noise*line.uncertainty(newest) {
			return f.turn(2 * test.newest)
		}
	}
	return 0
}

// turn returns from which pulse of the newest on a line of their own fits best.
func (f *Follower) turn(newest int) (first int) {
	least := math.Inf(1)
	for at := max(minBefore, len(f.window)-newest); at < len(f.window); at++ {
		older, newer := f.window[:at], f.window[at:]
		if sum := fitOf(older).squares(older) + fitOf(newer).squares(newer); sum < least {
			first, least = at, sum
		}
	}
	return first
}
