package play

import (
	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// mover is where a lane stands, and how it goes on.
type mover struct {
	lane   *score.Lane
	length int64
	rate   score.Tick
	chance chance.Address // of where it goes on to

	moved int64 // moves since the lanes were aligned
	drawn int64 // moves since the luck began, from which chance follows
	place int   // the step on which it stands, counted from the loop's first

	shuffled [score.MaxSteps]uint8 // the order of the present pass
}

func newMover(lane *score.Lane, address chance.Address) mover {
	address.Purpose = chance.Step
	m := mover{lane: lane, length: int64(lane.Length), rate: lane.Rate.Ticks(), chance: address}
	m.settle()
	return m
}

// step returns the step on which the lane stands.
func (m *mover) step() int { return m.lane.First + m.place }

// advance goes on by one move.
func (m *mover) advance() {
	m.moved++
	m.drawn++
	// The two commonest orders need no division.
	switch m.lane.Order {
	case score.Forward:
		if m.place++; m.place == int(m.length) {
			m.place = 0
		}
	case score.Backward:
		if m.place--; m.place < 0 {
			m.place = int(m.length) - 1
		}
	default:
		m.settle()
	}
}

// align goes back to the first step.
func (m *mover) align() {
	m.moved = 0
	m.settle()
}

// settle finds the place after a move.
func (m *mover) settle() {
	last := m.length - 1
	switch m.lane.Order {
	case score.Forward:
		m.place = int(m.moved % m.length)
	case score.Backward:
		m.place = int(last - m.moved%m.length)
	case score.ThereAndBack:
		at := m.moved % max(1, 2*last)
		m.place = int(min(at, 2*last-at))
	case score.TurnTwice:
		// Going back, the last step comes again before the others: length … 2·length-1 mirror 0 … last.
		at := m.moved % (2 * m.length)
		m.place = int(min(at, 2*m.length-1-at))
	case score.Random:
		m.place = chance.Below(m.at(m.drawn), int(m.length))
	case score.Shuffle:
		if m.moved%m.length == 0 {
			m.shuffle()
		}
		m.place = int(m.shuffled[m.moved%m.length])
	case score.Drift:
		m.drift()
	case score.Path:
		m.place = int(m.moved % m.length)
		if path := m.lane.Path; len(path) > 0 {
			m.place = path[m.moved%int64(len(path))] % int(m.length)
		}
	}
}

func (m *mover) at(n int64) chance.Address {
	address := m.chance
	address.N = uint64(n)
	return address
}

// shuffle draws the order of a pass (Fisher and Yates, in Durstenfeld's form).
func (m *mover) shuffle() {
	for i := range m.length {
		m.shuffled[i] = uint8(i)
	}
	for i := m.length - 1; i > 0; i-- {
		j := chance.Below(m.at(m.drawn*score.MaxSteps+i), int(i)+1)
		m.shuffled[i], m.shuffled[j] = m.shuffled[j], m.shuffled[i]
	}
}

func (m *mover) drift() {
	if m.moved == 0 {
		m.place = 0
		return
	}
	odds := m.lane.Drift
	switch drawn := chance.Below(m.at(m.drawn), 100); {
	case drawn < odds.Forward:
		m.place++
	case drawn < odds.Forward+odds.Back:
		m.place += int(m.length) - 1
	}
	m.place %= int(m.length)
}

// cycle returns after how many moves the walk repeats; 0 if chance keeps it from repeating.
func cycle(lane *score.Lane) int64 {
	length := int64(lane.Length)
	switch lane.Order {
	case score.ThereAndBack:
		return max(1, 2*length-2)
	case score.TurnTwice:
		return 2 * length
	case score.Random, score.Shuffle, score.Drift:
		if length > 1 {
			return 0
		}
		return 1
	case score.Path:
		if len(lane.Path) > 0 {
			return int64(len(lane.Path))
		}
	}
	return length
}
