package orders

import (
	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// Mover is a lane on its way through its loop. Copies of it go on from there on their own.
type Mover struct {
	State
	Length int32
	// Rate is how long a step lasts.
	Rate  score.Tick
	order code
	first int32
	lane  *score.Lane
	// address is that of where it goes on to.
	address chance.Address
}

// State is where a lane stands: all that its next moves depend on besides the lane itself.
type State struct {
	// Position is the step on which it stands, counted from the loop's first.
	Position int32
	// Moved counts the moves since the lanes were aligned, DrawIndex those since the luck began, from which chance follows.
	Moved, DrawIndex int64
	// Fresh, of a gate lane, says that its next move goes to its first step.
	Fresh bool
	// Shuffled is the order of the present pass, where it is shuffled. It is never changed; each pass has its own.
	Shuffled *[score.MaxSteps]uint8
}

// New returns a mover on the first step of a lane, whose chance has an address.
func New(lane *score.Lane, address chance.Address) Mover {
	address.Purpose = chance.Step
	m := Mover{
		order: codeOf(lane.Order), Length: int32(lane.Length), first: int32(lane.First),
		Rate: lane.Rate.Ticks(), lane: lane, address: address,
	}
	if lane.StepAt(lane.Length-1) != lane.First+lane.Length-1 {
		m.first = apart
	}
	m.update()
	return m
}

// Lane returns the lane.
func (m *Mover) Lane() *score.Lane { return m.lane }

// Step returns the step on which the lane stands.
func (m *Mover) Step() int {
	if m.first == apart {
		return m.apartStep()
	}
	return int(m.first + m.Position)
}

// apartStep is not part of Step, so that Step is inlined: nearly all loops need it not.
//
//go:noinline
func (m *Mover) apartStep() int { return m.lane.StepAt(int(m.Position)) }

// apart is the first step of a loop whose steps need not follow each other.
const apart = -1

// Advance goes on by one move.
func (m *Mover) Advance() {
	m.Moved++
	m.DrawIndex++
	// The two commonest orders need no division.
	switch m.order {
	case forward:
		if m.Position++; m.Position == m.Length {
			m.Position = 0
		}
	case backward:
		if m.Position--; m.Position < 0 {
			m.Position = m.Length - 1
		}
	default:
		m.update()
	}
}

// Align goes back to the first step.
func (m *Mover) Align() {
	m.Moved = 0
	m.update()
}

// SetMoves sets how often the lane has moved since the beginning.
func (m *Mover) SetMoves(moves int64) {
	m.Moved, m.DrawIndex = moves, moves
	m.update()
}

// Stand has a lane whose order is fixed stand where so many moves bring it. Its draws stay as they are numbered.
func (m *Mover) Stand(moves int64) {
	m.Moved = moves
	m.update()
}

// IsForward reports whether the lane's order is forward: most are.
func (m *Mover) IsForward() bool { return m.order == forward }

// AtRandom reports whether chance decides where the lane goes.
func (m *Mover) AtRandom() bool { return table[m.order].cycle == nil }

func (m *Mover) update() { m.Position = table[m.order].position(m) }

func (m *Mover) at(n int64) chance.Address {
	address := m.address
	address.N = uint64(n)
	return address
}
