package orders

import (
	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// rule is how lanes of an order walk.
type rule struct {
	name score.Order
	// position returns where a lane of a loop of some steps stands that has made its last move; 0 is its first step.
	position func(m *Mover) int32
	// cycle returns after how many moves the walk of so many steps repeats; nil if chance keeps it from repeating.
	cycle func(lane *score.Lane, steps int64) int64
	// jumps says that the place follows from the number of moves.
	jumps bool
}

// code is the place of an order in the table, which is faster to look up than its name.
type code uint8

// The orders, in the order of the table.
const (
	forward code = iota
	backward
	thereAndBack
	turnTwice
	random
	shuffle
	drift
	path
)

// table has all orders. It is filled when the program starts, because the rules speak of movers and movers of rules.
var table [8]rule

func init() {
	table = [...]rule{
		forward:      {score.Forward, func(m *Mover) int32 { return int32(m.Moved % int64(m.Length)) }, once, true},
		backward:     {score.Backward, func(m *Mover) int32 { return m.Length - 1 - int32(m.Moved%int64(m.Length)) }, once, true},
		thereAndBack: {score.ThereAndBack, placeThereAndBack, func(_ *score.Lane, steps int64) int64 { return max(1, 2*steps-2) }, true},
		turnTwice:    {score.TurnTwice, placeTurnTwice, func(_ *score.Lane, steps int64) int64 { return 2 * steps }, true},
		random:       {score.Random, func(m *Mover) int32 { return int32(chance.Below(m.at(m.DrawIndex), int(m.Length))) }, nil, true},
		shuffle:      {score.Shuffle, placeShuffle, nil, false},
		drift:        {score.Drift, placeDrift, nil, false},
		path:         {score.Path, placePath, cyclePath, true},
	}
}

func codeOf(order score.Order) code {
	for i := range table {
		if table[i].name == order {
			return code(i)
		}
	}
	panic("orders: there is no order " + string(order))
}

func once(_ *score.Lane, steps int64) int64 { return steps }

// placeThereAndBack has the ends come once: 0 1 2 1 0 1 …
func placeThereAndBack(m *Mover) int32 {
	last := int64(m.Length) - 1
	at := m.Moved % max(1, 2*last)
	return int32(min(at, 2*last-at))
}

// placeTurnTwice has the ends come twice: 0 1 2 2 1 0 0 …; length … 2·length-1 mirror 0 … length-1.
func placeTurnTwice(m *Mover) int32 {
	length := int64(m.Length)
	at := m.Moved % (2 * length)
	return int32(min(at, 2*length-1-at))
}

// placeShuffle draws the order of a pass where one begins (Fisher and Yates, in Durstenfeld's form).
func placeShuffle(m *Mover) int32 {
	at := m.Moved % int64(m.Length)
	if at == 0 {
		m.Shuffled = new([score.MaxSteps]uint8)
		for i := range m.Length {
			m.Shuffled[i] = uint8(i)
		}
		for i := m.Length - 1; i > 0; i-- {
			j := chance.Below(m.at(m.DrawIndex*score.MaxSteps+int64(i)), int(i)+1)
			m.Shuffled[i], m.Shuffled[j] = m.Shuffled[j], m.Shuffled[i]
		}
	}
	return int32(m.Shuffled[at])
}

// placeDrift goes on, back, or stays, by the lane's odds.
func placeDrift(m *Mover) int32 {
	if m.Moved == 0 {
		return 0
	}
	odds := m.lane.Drift
	place := m.Position
	switch drawn := chance.Below(m.at(m.DrawIndex), 100); {
	case drawn < odds.Forward:
		place++
	case drawn < odds.Forward+odds.Back:
		place += m.Length - 1
	}
	return place % m.Length
}

// placePath goes along the steps that the lane names, over and over.
func placePath(m *Mover) int32 {
	steps := m.lane.Path
	if len(steps) == 0 {
		return int32(m.Moved % int64(m.Length))
	}
	return int32(int64(steps[m.Moved%int64(len(steps))]) % int64(m.Length))
}

func cyclePath(lane *score.Lane, steps int64) int64 {
	if len(lane.Path) > 0 {
		return int64(len(lane.Path))
	}
	return steps
}

// Cycle returns after how many moves a lane's walk repeats; 0 if chance keeps it from repeating.
func Cycle(lane *score.Lane) int64 {
	cycle := table[codeOf(lane.Order)].cycle
	switch {
	case cycle != nil:
		return cycle(lane, int64(lane.Length))
	case lane.Length > 1:
		return 0
	}
	return 1
}

// Pass returns how many moves a pass of a lane's order has: as many as until it repeats, and where chance keeps it from
// repeating as many as it has steps.
func Pass(lane *score.Lane) int64 {
	if moves := Cycle(lane); moves > 0 {
		return moves
	}
	return int64(lane.Length)
}

// Jumps reports whether a lane's place follows from how often it has moved.
func Jumps(lane *score.Lane) bool { return table[codeOf(lane.Order)].jumps }
