package play

import "jettyfog/internal/core/score"

// spreadGrid are the numbers that a spread can add before its depth scales them: both ends, and between them the
// multiples of the grain, 0 among them, so that the written value stays reachable whatever the ends are.
type spreadGrid struct {
	spread          *score.Spread
	lowest, highest int // of what is added
	first           int // the lowest multiple above the lower end
	slots           int // how many numbers there are
}

// gridOf returns the numbers that a spread can add to a value.
func gridOf(s *score.Spread, value int) spreadGrid {
	lowest, highest := s.Lowest, s.Highest
	if s.Limits {
		lowest, highest = lowest-value, highest-value
	}
	first := floorDiv(lowest, s.Grain)*s.Grain + s.Grain
	last := -floorDiv(-highest, s.Grain)*s.Grain - s.Grain
	g := spreadGrid{spread: s, lowest: lowest, highest: highest, first: first, slots: 1}
	if highest > lowest {
		g.slots = 2 + max(0, (last-first)/s.Grain+1)
	}
	if last < first {
		g.slots = min(g.slots, 2)
	}
	return g
}

// added returns what is added in a slot, from 0.
func (g spreadGrid) added(slot int) int {
	number := g.first + (slot-1)*g.spread.Grain
	switch slot {
	case 0:
		number = g.lowest
	case g.slots - 1:
		number = g.highest
	}
	return score.Rounded(number*g.spread.Depth, 100)
}

// floorDiv divides and rounds down.
func floorDiv(number, by int) int {
	quotient := number / by
	if number%by < 0 {
		quotient--
	}
	return quotient
}
