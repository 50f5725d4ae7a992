package orders

import (
	"slices"

	"jettyfog/internal/core/score"
)

// Continue has a lane stand where another state of it stood: on the same step of its loop, taken modulo a new length,
// with its draws numbered on, so that a new length or order holds from the next move on. Its moves count anew if the loop
// is another; Continue returns how many passes of the loop before were over by then.
func (m *Mover) Continue(was State, before *score.Lane) (passes int64) {
	now := m.lane
	if before.Order == now.Order && before.Length == now.Length && before.Drift == now.Drift && slices.Equal(before.Path, now.Path) {
		m.State = was
		return 0
	}
	moved := max(0, was.Moved)
	m.State = State{Position: was.Position % m.Length, DrawIndex: was.DrawIndex, Fresh: was.Fresh}
	switch cycle := Cycle(now); {
	case m.order == shuffle:
		m.Moved = int64(m.Length) - 1 // the next move begins a pass of the new length
	case m.AtRandom():
		m.Moved = moved % int64(m.Length)
	default:
		turned := Cycle(before)
		m.Moved = m.moves(cycle, before.Order == now.Order && turned > 0 && moved%turned > turned/2)
	}
	return moved / Pass(before)
}

// moves returns after how many moves of a cycle the lane stands where it stands, the first or the last time; -1 if it
// never does, as beside its path, so that its next move is to the first step.
func (m *Mover) moves(cycle int64, last bool) int64 {
	found, at := int64(-1), *m
	for moves := range cycle {
		at.Moved = moves
		if table[m.order].position(&at) != m.Position {
			continue
		}
		if found = moves; !last {
			break
		}
	}
	return found
}
