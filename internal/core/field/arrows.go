package field

import (
	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// Way is where an arrow can lead from a cell, and how likely.
type Way struct {
	Arrow       score.Arrow
	Column, Row int
	// Share of All is how likely it is.
	Share, All int
}

// Ways returns where arrows lead from a cell: those of some weight to cells in which a traveller can be.
func (m *Machine) Ways(column, row int) (ways []Way) {
	cell := m.cells[row][column]
	if cell == nil {
		return nil
	}
	all := 0
	for _, arrow := range cell.Arrows {
		columns, rows := arrow.To.Step()
		if arrow.Weight > 0 && m.free(column+columns, row+rows) {
			all += arrow.Weight
			ways = append(ways, Way{Arrow: arrow, Column: column + columns, Row: row + rows, Share: arrow.Weight})
		}
	}
	for i := range ways {
		ways[i].All = all
	}
	return ways
}

// followArrow moves a traveller along an arrow of its cell; without one it ends.
func (m *Machine) followArrow(t *Traveller) {
	ways := m.Ways(t.Column, t.Row)
	if len(ways) == 0 {
		t.Due, t.Ended = Never, true
		return
	}
	way := ways[0]
	if len(ways) > 1 {
		drawn := chance.Below(m.draw(t, chance.Fork), way.All)
		for _, way = range ways {
			if drawn -= way.Share; drawn < 0 {
				break
			}
		}
	}
	t.Column, t.Row, t.Direction = way.Column, way.Row, way.Arrow.To
	m.arrive(t)
}

// draw returns the address of a draw of a traveller's present move.
func (m *Machine) draw(t *Traveller, purpose chance.Purpose) chance.Address {
	a := m.address
	a.Purpose, a.Sub, a.N = purpose, uint8(t.ID), uint64(t.Moves)
	return a
}

// arrive leads a traveller on at once where its cell has a letter. The other cell does not lead it on once more.
func (m *Machine) arrive(t *Traveller) {
	cell := m.cells[t.Row][t.Column]
	if cell == nil || cell.Letter == "" {
		return
	}
	all := m.letters[cell.Letter]
	if len(all) < 2 {
		return
	}
	own := 0
	for all[own] != (place{t.Column, t.Row}) {
		own++
	}
	to := (own + 1) % len(all)
	switch cell.Jump {
	case score.NearestLetter:
		best := 0
		for i, other := range all {
			far := square(other.column-t.Column) + square(other.row-t.Row)
			if i != own && (best == 0 || far < best) {
				to, best = i, far
			}
		}
	case score.RandomLetter:
		to = (own + 1 + chance.Below(m.draw(t, chance.Letter), len(all)-1)) % len(all)
	}
	t.Column, t.Row = all[to].column, all[to].row
}

func square(n int) int { return n * n }
