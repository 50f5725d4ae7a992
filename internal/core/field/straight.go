package field

import "jettyfog/internal/core/score"

// goStraight moves a traveller on in its direction, and does what it does at an edge or a wall.
func (m *Machine) goStraight(now *moment, i int) {
	t, of := &now.Travellers[i], &m.field.Travellers[i]
	if m.step(t) {
		return
	}
	side := m.noteAtTurn(t)
	switch of.At {
	case score.TurnBack:
		t.Direction = t.Direction.Turned(4)
		_ = m.step(t) // where both ways are closed it stays
	case score.TurnRight:
		for range 3 {
			if t.Direction = t.Direction.Turned(2); m.step(t) {
				break
			}
		}
	case score.EndThere:
		t.Due, t.Ended = Never, true
		return
	default:
		m.goThrough(t)
		return
	}
	if of.AtTurns {
		now.turned[i] = side
	}
}

// step moves a traveller by a cell if the way is free, and reports whether it was.
func (m *Machine) step(t *Traveller) bool {
	columns, rows := t.Direction.Step()
	if !m.free(t.Column+columns, t.Row+rows) {
		return false
	}
	t.Column, t.Row = t.Column+columns, t.Row+rows
	m.arrive(t)
	return true
}

// goThrough moves a traveller to the first free cell in its direction, over walls and from an edge to the one across; at the latest that is its own.
func (m *Machine) goThrough(t *Traveller) {
	columns, rows := t.Direction.Step()
	for {
		t.Column, t.Row = (t.Column+columns+m.field.Columns)%m.field.Columns, (t.Row+rows+m.field.Rows)%m.field.Rows
		if m.free(t.Column, t.Row) {
			break
		}
	}
	m.arrive(t)
}

// noteAtTurn returns the degree that a traveller sounds that turns where it is: of its row if the way is closed to the left or the right, else of its column.
func (m *Machine) noteAtTurn(t *Traveller) int {
	columns, rows := t.Direction.Step()
	if rows == 0 || columns != 0 && !m.free(t.Column+columns, t.Row) {
		return m.field.RowNote(t.Row)
	}
	return m.field.ColumnNote(t.Column)
}
