package play

import "jettyfog/internal/core/score"

// spreadGrid are the numbers that a spread can add before its depth scales them: both ends, and between them the
// multiples of the grain, 0 among them, so that the written value stays reachable whatever the ends are.
type spreadGrid struct {
	spread *score.Spread
	first  int // the lowest multiple above the lower end
	slots  int // how many numbers there are
}

func gridOf(s *score.Spread) spreadGrid {
	first := floorDiv(s.Lowest, s.Grain)*s.Grain + s.Grain
	last := -floorDiv(-s.Highest, s.Grain)*s.Grain - s.Grain
	g := spreadGrid{spread: s, first: first, slots: 1}
	if s.Highest > s.Lowest {
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
		number = g.spread.Lowest
	case g.slots - 1:
		number = g.spread.Highest
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
