package play

import "jettyfog/internal/core/score"

// loop is a lane's way through its steps, ready to be asked often.
type loop struct {
	length   int64
	rate     score.Tick
	backward bool
	steps    []int
}

// newLoop readies the loop of the named lane: where it stands and what its values are.
func newLoop(lanes *score.Lanes, name score.LaneName) loop {
	mover := lanes.Loop(name)
	return loop{
		length:   int64(mover.Length),
		rate:     mover.Rate.Ticks(),
		backward: mover.Order == score.Backward,
		steps:    lanes.Lane(name).Steps,
	}
}

// step returns the step on which the loop stands after n moves.
func (l *loop) step(n int64) int {
	place := n % l.length
	if l.backward {
		place = l.length - 1 - place
	}
	return int(place)
}

// at returns the value in force at a moment.
func (l *loop) at(t score.Tick) int { return l.steps[l.step(int64(t/l.rate))] }

// firstMove returns the count of the first move at or after t.
func (l *loop) firstMove(t score.Tick) int64 { return int64((t + l.rate - 1) / l.rate) }

// start returns when the n-th move happens.
func (l *loop) start(n int64) score.Tick { return score.Tick(n) * l.rate }

// period returns how long the loop is.
func (l *loop) period() score.Tick { return score.Tick(l.length) * l.rate }
