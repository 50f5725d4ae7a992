package play

import (
	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// mover is where a lane stands, and how it goes on.
type mover struct {
	order  orderCode
	length int32
	place  int32 // the step on which it stands, counted from the loop's first
	first  int32
	moved  int64 // moves since the lanes were aligned
	drawn  int64 // moves since the luck began, from which chance follows
	rate   score.Tick
	fresh  bool // of a gate lane: whether its next move goes to its first step, since the lanes were aligned

	lane     *score.Lane
	chance   chance.Address         // of where it goes on to
	shuffled *[score.MaxSteps]uint8 // the order of the present pass
}

// orderCode stands for a score.Order, which is slower to compare.
type orderCode uint8

const (
	forward orderCode = iota
	backward
	thereAndBack
	turnTwice
	random
	shuffle
	drift
	path
)

var orderCodes = map[score.Order]orderCode{
	score.Forward: forward, score.Backward: backward, score.ThereAndBack: thereAndBack, score.TurnTwice: turnTwice,
	score.Random: random, score.Shuffle: shuffle, score.Drift: drift, score.Path: path,
}

func newMover(lane *score.Lane, address chance.Address) mover {
	address.Purpose = chance.Step
	m := mover{
		order: orderCodes[lane.Order], length: int32(lane.Length), first: int32(lane.First),
		rate: lane.Rate.Ticks(), lane: lane, chance: address,
	}
	if m.order == shuffle {
		m.shuffled = new([score.MaxSteps]uint8)
	}
	m.settle()
	return m
}

// step returns the step on which the lane stands.
func (m *mover) step() int { return int(m.first + m.place) }

// advance goes on by one move.
func (m *mover) advance() {
	m.moved++
	m.drawn++
	// The two commonest orders need no division.
	switch m.order {
	case forward:
		if m.place++; m.place == m.length {
			m.place = 0
		}
	case backward:
		if m.place--; m.place < 0 {
			m.place = m.length - 1
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
	length := int64(m.length)
	last := length - 1
	switch m.order {
	case forward:
		m.place = int32(m.moved % length)
	case backward:
		m.place = int32(last - m.moved%length)
	case thereAndBack:
		at := m.moved % max(1, 2*last)
		m.place = int32(min(at, 2*last-at))
	case turnTwice:
		// Going back, the last step comes again before the others: length … 2·length-1 mirror 0 … last.
		at := m.moved % (2 * length)
		m.place = int32(min(at, 2*length-1-at))
	case random:
		m.place = int32(chance.Below(m.at(m.drawn), int(length)))
	case shuffle:
		if m.moved%length == 0 {
			m.shuffle()
		}
		m.place = int32(m.shuffled[m.moved%length])
	case drift:
		m.drift()
	case path:
		m.place = int32(m.moved % length)
		if steps := m.lane.Path; len(steps) > 0 {
			m.place = int32(int64(steps[m.moved%int64(len(steps))]) % length)
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
		j := chance.Below(m.at(m.drawn*score.MaxSteps+int64(i)), int(i)+1)
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
		m.place += m.length - 1
	}
	m.place %= m.length
}

// fork returns a mover that goes on from here on its own.
func (m *mover) fork() mover {
	forked := *m
	if m.shuffled != nil {
		shuffled := *m.shuffled
		forked.shuffled = &shuffled
	}
	return forked
}

// setMoves sets how often the lane has moved since the beginning.
func (m *mover) setMoves(moves int64) {
	m.moved, m.drawn = moves, moves
	m.settle()
}

// passLength returns how many moves a pass of a lane's order has: as many as until it repeats, and where chance
// keeps it from repeating as many as it has steps.
func passLength(lane *score.Lane) int64 {
	if moves := cycle(lane); moves > 0 {
		return moves
	}
	return int64(lane.Length)
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
