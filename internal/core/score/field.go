package score

import (
	"fmt"
	"slices"
)

// Bounds of fields.
const (
	MaxFieldSize  = 16
	MaxTravellers = 16
	MaxFieldRules = 16
	// MaxWaves widen at once, and MaxGenerations follow from each other by repeaters; further ones do not start.
	MaxWaves       = 64
	MaxGenerations = 8
)

// Field is a grid of cells on which travellers move and play the notes of the cells that they come to. Its part's lanes say how: each cell that sounds
// is a step of the gate lane, and a pitch is added to the cell's.
type Field struct {
	Columns int `json:"columns" jsonschema:"minimum=1,maximum=16"`
	Rows    int `json:"rows" jsonschema:"minimum=1,maximum=16"`
	// Cells are those that hold something. What lies outside of the grid is kept, and does nothing.
	Cells []Cell `json:"cells,omitempty" jsonschema:"maxItems=256"`
	// RowNotes and ColumnNotes are the degrees of travellers that sound where they turn; those that are not listed are as far up as the row is from the
	// last one, and as the column is from the first.
	RowNotes    []int `json:"rowNotes,omitempty" jsonschema:"maxItems=16"`
	ColumnNotes []int `json:"columnNotes,omitempty" jsonschema:"maxItems=16"`
	// Travellers are in the order in which they come into question at one moment.
	Travellers []Traveller   `json:"travellers,omitempty" jsonschema:"maxItems=16"`
	Rules      []MeetingRule `json:"rules,omitempty" jsonschema:"maxItems=16"`
	// Recalled are the layers of the project that the field was given and still holds.
	Recalled RecalledLayers `json:"recalled,omitzero"`
}

// Cell is a cell of a field, by its column from the left and its row from the top, from 0.
type Cell struct {
	Column int `json:"column" jsonschema:"minimum=0,maximum=15"`
	Row    int `json:"row" jsonschema:"minimum=0,maximum=15"`
	// Note says that the cell has a note: a degree of the key, and octaves.
	Note   bool `json:"note,omitempty"`
	Degree int  `json:"degree,omitempty" jsonschema:"minimum=-28,maximum=28"`
	Octave int  `json:"octave,omitempty" jsonschema:"minimum=-4,maximum=4"`
	// Velocity, Length, Ratchet and Probability take the place of the lanes'; 0 is as the lanes have them.
	Velocity    int `json:"velocity,omitempty" jsonschema:"minimum=0,maximum=127"`
	Length      int `json:"length,omitempty" jsonschema:"minimum=0,maximum=163"`
	Ratchet     int `json:"ratchet,omitempty" jsonschema:"minimum=0,maximum=16"`
	Probability int `json:"probability,omitempty" jsonschema:"minimum=0,maximum=100"`
	// Mods are values of mod lanes of its own.
	Mods []CellMod `json:"mods,omitempty" jsonschema:"maxItems=8"`
	// Arrows are where travellers that follow arrows go on to from here; several are a fork.
	Arrows []Arrow `json:"arrows,omitempty" jsonschema:"maxItems=8"`
	// Letter leads whoever arrives at once to another cell of that letter, which Jump says.
	Letter string     `json:"letter,omitempty" jsonschema:"maxLength=1"`
	Jump   LetterJump `json:"jump,omitempty" jsonschema:"enum=,enum=nearest,enum=random"`
	// Repeater has a wave that reaches the cell start another one.
	Repeater bool `json:"repeater,omitempty"`
	// Wall has no traveller come here, and no wave pass.
	Wall bool `json:"wall,omitempty"`
	// Locked keeps the cell as it is where a field is rolled.
	Locked bool `json:"locked,omitempty"`
}

// CellMod is the value that a mod lane has where a cell sounds, in place of the lane's.
type CellMod struct {
	// Mod is the number of the mod lane; one that the part does not have is not sent.
	Mod   int `json:"mod" jsonschema:"minimum=1,maximum=8"`
	Value int `json:"value" jsonschema:"minimum=0,maximum=127"`
}

// Arrow leads to one of the eight neighbours of a cell.
type Arrow struct {
	To Direction `json:"to" jsonschema:"minimum=0,maximum=7"`
	// Weight is how likely it is among the others of the cell; one of 0 leads nowhere.
	Weight int `json:"weight" jsonschema:"minimum=0,maximum=100"`
}

// Direction is one of eight: 0 is up, 2 right, 4 down, 6 left, and the others between them.
type Direction int

// Step returns by how many columns to the right and rows down the direction leads.
func (d Direction) Step() (columns, rows int) {
	at := [8][2]int{{0, -1}, {1, -1}, {1, 0}, {1, 1}, {0, 1}, {-1, 1}, {-1, 0}, {-1, -1}}[d&7]
	return at[0], at[1]
}

// Turned returns the direction so many eighths of a turn to the right.
func (d Direction) Turned(eighths int) Direction { return Direction((int(d)+eighths)&7+8) & 7 }

// LetterJump is to which cell of its letter a cell leads.
type LetterJump string

// The jumps.
const (
	NextLetter    LetterJump = ""        // the next in rows from the top, round and round
	NearestLetter LetterJump = "nearest" // of equally near ones the first in rows from the top
	RandomLetter  LetterJump = "random"  // by the luck
)

var letterJumps = options[LetterJump]{
	{NextLetter, "the next", "To the next cell of the letter, in rows from the top, round and round."},
	{NearestLetter, "the nearest", "To the nearest cell of the letter."},
	{RandomLetter, "one at random", "To any other cell of the letter, by the luck."},
}

// LetterJumpOptions lists the jumps as options.
func LetterJumpOptions() []Option { return letterJumps.list() }

// Inside reports whether a cell lies in the grid.
func (f *Field) Inside(column, row int) bool {
	return column >= 0 && row >= 0 && column < f.Columns && row < f.Rows
}

// Cell returns what the cell at a place holds; nil is nothing.
func (f *Field) Cell(column, row int) *Cell {
	for i := range f.Cells {
		if f.Cells[i].Column == column && f.Cells[i].Row == row {
			return &f.Cells[i]
		}
	}
	return nil
}

// Traveller returns the traveller with an id; nil is none.
func (f *Field) Traveller(id int) *Traveller {
	for i := range f.Travellers {
		if f.Travellers[i].ID == id {
			return &f.Travellers[i]
		}
	}
	return nil
}

// RowNote returns the degree of a row.
func (f *Field) RowNote(row int) int {
	if row < len(f.RowNotes) {
		return f.RowNotes[row]
	}
	return f.Rows - 1 - row
}

// ColumnNote returns the degree of a column.
func (f *Field) ColumnNote(column int) int {
	if column < len(f.ColumnNotes) {
		return f.ColumnNotes[column]
	}
	return column
}

func (f *Field) clone() *Field {
	if f == nil {
		return nil
	}
	clone := *f
	clone.Cells = slices.Clone(f.Cells)
	for i := range clone.Cells {
		clone.Cells[i].Arrows, clone.Cells[i].Mods = slices.Clone(clone.Cells[i].Arrows), slices.Clone(clone.Cells[i].Mods)
	}
	clone.RowNotes, clone.ColumnNotes = slices.Clone(f.RowNotes), slices.Clone(f.ColumnNotes)
	clone.Travellers, clone.Rules = slices.Clone(f.Travellers), slices.Clone(f.Rules)
	return &clone
}

// wrong returns what of a cell cannot be, beyond the bounds of its fields; the name is empty if all can.
func (c *Cell) wrong() (name string, got any, allowed string) {
	if c.Letter != "" && (c.Letter < "A" || c.Letter > "Z") {
		return "letter", c.Letter, "a letter from A to Z"
	}
	for n, mod := range c.Mods {
		if slices.ContainsFunc(c.Mods[:n], func(other CellMod) bool { return other.Mod == mod.Mod }) {
			return fmt.Sprintf("mods[%d].mod", n), mod.Mod, "different from the cell's other mods"
		}
	}
	for n, arrow := range c.Arrows {
		if slices.ContainsFunc(c.Arrows[:n], func(other Arrow) bool { return other.To == arrow.To }) {
			return fmt.Sprintf("arrows[%d].to", n), int(arrow.To), "different from the cell's other arrows"
		}
	}
	return "", nil, ""
}

func (f *Field) validate(field string) error {
	places := map[[2]int]bool{}
	for i := range f.Cells {
		c := &f.Cells[i]
		if places[[2]int{c.Column, c.Row}] {
			return &FieldError{fmt.Sprintf("%s.cells[%d].column", field, i), c.Column, "of a cell that is listed once"}
		}
		places[[2]int{c.Column, c.Row}] = true
		if name, got, allowed := c.wrong(); name != "" {
			return &FieldError{fmt.Sprintf("%s.cells[%d].%s", field, i, name), got, allowed}
		}
	}
	for _, notes := range []struct {
		name    string
		degrees []int
	}{{"rowNotes", f.RowNotes}, {"columnNotes", f.ColumnNotes}} {
		for i, degree := range notes.degrees {
			if err := checkRange(fmt.Sprintf("%s.%s[%d]", field, notes.name, i), degree, -28, 28); err != nil {
				return err
			}
		}
	}
	ids := map[int]bool{}
	for i := range f.Travellers {
		t, at := &f.Travellers[i], fmt.Sprintf("%s.travellers[%d]", field, i)
		if ids[t.ID] {
			return &FieldError{at + ".id", t.ID, "different from every other traveller's"}
		}
		ids[t.ID] = true
		if err := checkListed(at+".rate", t.Rate, noteValues); err != nil {
			return err
		}
	}
	for i := range f.Rules {
		if err := f.Rules[i].validate(fmt.Sprintf("%s.rules[%d]", field, i)); err != nil {
			return err
		}
	}
	return nil
}
