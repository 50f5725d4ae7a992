package field

import "jettyfog/internal/core/score"

// Change is a way to lay a field out anew: with its cells, their arrows, its travellers, and the notes of its rows and columns.
type Change string

// The changes.
const (
	TurnRight  Change = "turn right" // by a quarter
	Mirror     Change = "mirror"     // left and right
	ShiftLeft  Change = "shift left" // by a cell; what goes out comes in across
	ShiftRight Change = "shift right"
	ShiftUp    Change = "shift up"
	ShiftDown  Change = "shift down"
)

// Changes lists the changes.
func Changes() []Change {
	return []Change{TurnRight, Mirror, ShiftLeft, ShiftRight, ShiftUp, ShiftDown}
}

// ChangeOptions lists the changes as options.
func ChangeOptions() (list []score.Option) {
	for _, change := range Changes() {
		list = append(list, score.Option{Value: string(change), Label: string(change)})
	}
	return list
}

// Changed returns a field laid out anew. What lies outside of its grid stays outside. Rules stay as they are. Turned or mirrored it sounds the same, if it has no rules
// about rows, columns and sides, no right turns and no letters, and if all its waves start: which are left out where there are too many depends on rows.
func Changed(f *score.Field, change Change) *score.Field {
	changed := &score.Field{Columns: f.Columns, Rows: f.Rows, Rules: f.Rules}
	if change == TurnRight {
		changed.Columns, changed.Rows = f.Rows, f.Columns
	}
	to := func(column, row int) (int, int) {
		if f.Inside(column, row) {
			return moved(f, change, column, row)
		}
		if change == TurnRight { // it stays outside
			return row, column
		}
		return column, row
	}
	for _, c := range f.Cells {
		c.Column, c.Row = to(c.Column, c.Row)
		arrows := c.Arrows
		c.Arrows = nil
		for _, arrow := range arrows {
			arrow.To = turned(change, arrow.To)
			c.Arrows = append(c.Arrows, arrow)
		}
		changed.Cells = append(changed.Cells, c)
	}
	for _, t := range f.Travellers {
		t.Column, t.Row = to(t.Column, t.Row)
		t.Direction = turned(change, t.Direction)
		changed.Travellers = append(changed.Travellers, t)
	}
	changed.RowNotes, changed.ColumnNotes = make([]int, changed.Rows), make([]int, changed.Columns)
	for row := range f.Rows {
		_, at := moved(f, change, 0, row)
		notes := changed.RowNotes
		if change == TurnRight {
			at, _ = moved(f, change, 0, row)
			notes = changed.ColumnNotes
		}
		notes[at] = f.RowNote(row)
	}
	for column := range f.Columns {
		at, _ := moved(f, change, column, 0)
		notes := changed.ColumnNotes
		if change == TurnRight {
			_, at = moved(f, change, column, 0)
			notes = changed.RowNotes
		}
		notes[at] = f.ColumnNote(column)
	}
	return changed
}

// moved returns where a cell of the grid goes.
func moved(f *score.Field, change Change, column, row int) (toColumn, toRow int) {
	switch change {
	case TurnRight:
		return f.Rows - 1 - row, column
	case Mirror:
		return f.Columns - 1 - column, row
	case ShiftLeft:
		return (column + f.Columns - 1) % f.Columns, row
	case ShiftRight:
		return (column + 1) % f.Columns, row
	case ShiftUp:
		return column, (row + f.Rows - 1) % f.Rows
	case ShiftDown:
		return column, (row + 1) % f.Rows
	}
	return column, row
}

// turned returns where a direction leads after a change.
func turned(change Change, to score.Direction) score.Direction {
	switch change {
	case TurnRight:
		return to.Turned(2)
	case Mirror:
		return (8 - to) % 8
	}
	return to
}
