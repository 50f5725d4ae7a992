package score

import (
	"cmp"
	"errors"
	"strings"
)

// ErrNoField is returned for an edit of the field of a part that has none.
var ErrNoField = errors.New("the part has no field")

// SetField changes the given properties of a field, each whole, and leaves the others.
type SetField struct {
	PartAddress
	Columns     *int           `json:"columns,omitempty"`
	Rows        *int           `json:"rows,omitempty"`
	Cells       *[]Cell        `json:"cells,omitempty"`
	RowNotes    *[]int         `json:"rowNotes,omitempty"`
	ColumnNotes *[]int         `json:"columnNotes,omitempty"`
	Travellers  *[]Traveller   `json:"travellers,omitempty"`
	Rules       *[]MeetingRule `json:"rules,omitempty"`
	// Recalled are the layers that the field holds unchanged; without it those count no more of which something is changed.
	Recalled *RecalledLayers `json:"recalled,omitempty"`
}

// Label implements Edit.
func (e SetField) Label() string {
	var what []string
	add := func(given bool, words string) {
		if given {
			what = append(what, words)
		}
	}
	add(e.Columns != nil || e.Rows != nil, "size of the field")
	add(e.Cells != nil, "cells")
	add(e.RowNotes != nil || e.ColumnNotes != nil, "notes of rows and columns")
	add(e.Travellers != nil, "travellers")
	add(e.Rules != nil, "rules of meetings")
	add(e.Recalled != nil && len(what) == 0, "layers of the field")
	return strings.Join(what, ", ")
}

func (e SetField) apply(p *Project) (Edit, error) {
	part, err := p.Part(e.PartAddress)
	if err != nil {
		return nil, err
	}
	f := part.Field.clone()
	if f == nil {
		return nil, ErrNoField
	}
	part.Field = f
	recalled := cmp.Or(e.Recalled, e.unchanged(f.Recalled))
	return SetField{
		PartAddress: e.PartAddress,
		Columns:     swap(&f.Columns, e.Columns),
		Rows:        swap(&f.Rows, e.Rows),
		Cells:       swapList(&f.Cells, e.Cells),
		RowNotes:    swapList(&f.RowNotes, e.RowNotes),
		ColumnNotes: swapList(&f.ColumnNotes, e.ColumnNotes),
		Travellers:  swapList(&f.Travellers, e.Travellers),
		Rules:       swapList(&f.Rules, e.Rules),
		Recalled:    swap(&f.Recalled, recalled),
	}, nil
}

// unchanged returns the layers of which the edit changes nothing.
func (e SetField) unchanged(recalled RecalledLayers) *RecalledLayers {
	if e.Cells != nil || e.RowNotes != nil || e.ColumnNotes != nil {
		recalled.Values = 0
	}
	if e.Cells != nil {
		recalled.Arrows = 0
	}
	if e.Travellers != nil {
		recalled.Travellers = 0
	}
	if e.Rules != nil {
		recalled.Rules = 0
	}
	return &recalled
}

// NewFieldPart returns a part of a field of eight by eight cells: a row of notes, over which a traveller goes.
func NewFieldPart() Part {
	part := NewPart("Field")
	gate := part.Lanes.Gate
	gate.Length, gate.Rate, gate.Steps[0] = 1, "1/8", On
	part.byCells(Velocity, 4, 104, 84, 92, 76)
	part.byCells(Length, 3, 60, 60, 60)
	part.byCells(Probability, 5, 100, 100, 100, 100, 100)
	const size, row = 8, 3
	part.Field = &Field{Columns: size, Rows: size, Travellers: []Traveller{NewTraveller(1, 0, row)}}
	for i, column := range []int{0, 2, 3, 5, 6} {
		part.Field.Cells = append(part.Field.Cells, Cell{Column: column, Row: row, Note: true, Degree: 2 * i})
	}
	return part
}

// byCells gives a lane a loop of its own that each cell that sounds moves.
func (part *Part) byCells(name LaneName, length int, values ...int) {
	lane := part.Lanes.Lane(name)
	lane.Linked, lane.Moves, lane.Length, lane.Rate = false, ByStep, length, "1/8"
	copy(lane.Steps, values)
}

// NewTraveller returns a traveller that goes straight to the right from a cell.
func NewTraveller(id, column, row int) Traveller {
	return Traveller{ID: id, Motion: StraightMotion, Column: column, Row: row, Direction: 2, Rate: "1/8", Velocity: 100, Length: 100}
}
