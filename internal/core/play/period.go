package play

import "jettyfog/internal/core/score"

// Period returns after how many ticks the named lanes of a track all stand at their first step
// together again: the least common multiple of their loops. It is at most
// 2^9·3^3·5·7 · lcm(1…64 taken five at a time), well within a Tick.
func Period(t *score.Track, lanes ...score.LaneName) score.Tick {
	period := score.Tick(1)
	for _, name := range lanes {
		walk := newLoop(&t.Lanes, name)
		period = period / gcd(period, walk.period()) * walk.period()
	}
	return period
}

func gcd(a, b score.Tick) score.Tick {
	for b != 0 {
		a, b = b, a%b
	}
	return a
}
