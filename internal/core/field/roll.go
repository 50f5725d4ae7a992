package field

import (
	"slices"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// Rolling is what a roll writes into the cells of a field that are not locked.
type Rolling string

// The ways of rolling.
const (
	RollNotes Rolling = "notes" // notes, between two degrees, in some cells
	RollLoops Rolling = "loops" // arrows that lead round in loops
	RollTree  Rolling = "tree"  // arrows that all lead to one end
	RollNoise Rolling = "noise" // walls, and an arrow in each other cell
)

var rollings = []score.Option{
	{Value: string(RollNotes), Label: "notes", Help: "Notes between two degrees, in some of the cells."},
	{Value: string(RollLoops), Label: "loops", Help: "Arrows that lead round in loops of a length."},
	{Value: string(RollTree), Label: "tree", Help: "Arrows that all flow to one end."},
	{Value: string(RollNoise), Label: "noise with walls", Help: "Walls here and there, and an arrow at random in each other cell."},
}

// RollOptions lists the ways of rolling as options.
func RollOptions() []score.Option { return rollings }

// Roll is how to roll a field.
type Roll struct {
	Do Rolling `json:"do" jsonschema:"enum=notes,enum=loops,enum=tree,enum=noise"`
	// Luck is the number from which all follows.
	Luck int `json:"luck" jsonschema:"minimum=0,maximum=999999"`
	// Density is in how many cells there is a note, or a wall, in percent; Lowest and Highest bound the degrees.
	Density int `json:"density" jsonschema:"minimum=0,maximum=100"`
	Lowest  int `json:"lowest" jsonschema:"minimum=-28,maximum=28"`
	Highest int `json:"highest" jsonschema:"minimum=-28,maximum=28"`
	// Loops is how many loops there are to be, and Length how many cells each has.
	Loops  int `json:"loops" jsonschema:"minimum=1,maximum=8"`
	Length int `json:"length" jsonschema:"minimum=2,maximum=64"`
}

// roller draws one number after the other.
type roller struct {
	address chance.Address
	field   *score.Field
	cells   map[place]score.Cell
	used    map[place]bool
}

func (r *roller) below(n int) int {
	drawn := chance.Below(r.address, n)
	r.address.N++
	return drawn
}

// Rolled returns the cells of a field after a roll, and how many loops found no room, or only a shorter way. Cells that are locked, and those outside of the grid, stay; walls
// too, but where noise is rolled.
func Rolled(f *score.Field, roll Roll) (cells []score.Cell, shorter int) {
	r := &roller{
		address: chance.Address{Luck: uint64(roll.Luck), Purpose: chance.RollField}, field: f,
		cells: map[place]score.Cell{}, used: map[place]bool{},
	}
	for _, c := range f.Cells {
		r.cells[place{c.Column, c.Row}] = c
	}
	switch free := r.free(roll.Do == RollNoise); roll.Do {
	case RollNotes:
		r.notes(free, roll)
	case RollLoops:
		r.clearArrows(free)
		for range roll.Loops {
			if !r.loop(free, roll.Length) {
				shorter++
			}
		}
	case RollTree:
		r.clearArrows(free)
		r.tree(free)
	case RollNoise:
		r.noise(free, roll.Density)
	}
	for row := range score.MaxFieldSize {
		for column := range score.MaxFieldSize {
			c, there := r.cells[place{column, row}]
			if there && (c.Note || c.Wall || c.Repeater || c.Locked || c.Letter != "" || len(c.Arrows) > 0) {
				cells = append(cells, c)
			}
		}
	}
	return cells, shorter
}

// free returns the cells of the grid that are not locked and, unless walls count too, are no walls; in rows from the top.
func (r *roller) free(walls bool) (free []place) {
	for row := range r.field.Rows {
		for column := range r.field.Columns {
			at := place{column, row}
			if c := r.cells[at]; !c.Locked && (walls || !c.Wall) {
				free = append(free, at)
			}
		}
	}
	return free
}

func (r *roller) change(at place, change func(*score.Cell)) {
	c := r.cells[at]
	c.Column, c.Row = at.column, at.row
	change(&c)
	r.cells[at] = c
}

func (r *roller) notes(free []place, roll Roll) {
	lowest, highest := min(roll.Lowest, roll.Highest), max(roll.Lowest, roll.Highest)
	for _, at := range free {
		sounds, degree := r.below(100) < roll.Density, lowest+r.below(highest-lowest+1)
		r.change(at, func(c *score.Cell) {
			if c.Note = sounds; sounds {
				c.Degree, c.Octave = degree, 0
			}
		})
	}
}

func (r *roller) clearArrows(free []place) {
	for _, at := range free {
		r.change(at, func(c *score.Cell) { c.Arrows = nil })
	}
}

// lead puts an arrow into a cell, in place of those that it has.
func (r *roller) lead(at place, to score.Direction) {
	r.change(at, func(c *score.Cell) { c.Arrows = []score.Arrow{{To: to, Weight: 100}} })
}

// ways returns the directions from a cell to free neighbours that are not used, in an order that is drawn.
func (r *roller) ways(at place, open map[place]bool) (ways []score.Direction) {
	for to := range score.Direction(8) {
		columns, rows := to.Step()
		if next := (place{at.column + columns, at.row + rows}); open[next] && !r.used[next] {
			ways = append(ways, to)
		}
	}
	for i := len(ways) - 1; i > 0; i-- {
		k := r.below(i + 1)
		ways[i], ways[k] = ways[k], ways[i]
	}
	return ways
}

func opened(free []place) map[place]bool {
	open := map[place]bool{}
	for _, at := range free {
		open[at] = true
	}
	return open
}

// maxTries bounds how many cells are tried for a loop of a length from a cell, before another, or a shorter one is looked for.
const maxTries = 4000

// loop leads round in a loop of a length over cells that are in no other one, or the longest shorter one that it finds; it reports whether it has the length.
func (r *roller) loop(free []place, length int) bool {
	open := opened(free)
	for long := min(length, len(free)); long >= 2; long-- {
		for range 6 {
			left := slices.DeleteFunc(slices.Clone(free), func(at place) bool { return r.used[at] })
			if len(left) < long {
				break
			}
			start, tries := left[r.below(len(left))], maxTries
			if way := r.round(start, []score.Direction{}, start, long, open, &tries); way != nil {
				at := start
				for _, to := range way {
					r.used[at] = true
					r.lead(at, to)
					columns, rows := to.Step()
					at = place{at.column + columns, at.row + rows}
				}
				return long == length
			}
		}
	}
	return false
}

// round finds a way of so many steps from a cell that comes back to the start, and crosses no cell twice.
func (r *roller) round(at place, way []score.Direction, start place, length int, open map[place]bool, tries *int) []score.Direction {
	if *tries--; *tries < 0 {
		return nil
	}
	left := length - len(way)
	if left == 1 {
		for to := range score.Direction(8) {
			if columns, rows := to.Step(); (place{at.column + columns, at.row + rows}) == start {
				return append(way, to)
			}
		}
		return nil
	}
	r.used[at] = true
	defer delete(r.used, at)
	for _, to := range r.ways(at, open) {
		columns, rows := to.Step()
		next := place{at.column + columns, at.row + rows}
		if max(abs(next.column-start.column), abs(next.row-start.row)) > left-1 { // too far to come back
			continue
		}
		if found := r.round(next, append(way, to), start, length, open, tries); found != nil {
			return found
		}
	}
	return nil
}

// tree leads from all cells that can come there to one that is drawn, which has no arrow: each to a neighbour that was reached before it.
func (r *roller) tree(free []place) {
	if len(free) == 0 {
		return
	}
	open, reached := opened(free), []place{free[r.below(len(free))]}
	r.used[reached[0]] = true
	for len(reached) > 0 {
		i := r.below(len(reached))
		at := reached[i]
		ways := r.ways(at, open)
		if len(ways) == 0 {
			reached = append(reached[:i], reached[i+1:]...)
			continue
		}
		columns, rows := ways[0].Step()
		next := place{at.column + columns, at.row + rows}
		r.used[next] = true
		r.lead(next, ways[0].Turned(4))
		reached = append(reached, next)
	}
}

// noise makes some cells walls, and gives each other one an arrow to a neighbour that is none. Cells in which travellers start are no walls.
func (r *roller) noise(free []place, density int) {
	starts := map[place]bool{}
	for _, t := range r.field.Travellers {
		starts[place{t.Column, t.Row}] = true
	}
	var left []place
	for _, at := range free {
		wall := r.below(100) < density && !starts[at]
		r.change(at, func(c *score.Cell) {
			if c.Wall = wall; wall {
				*c = score.Cell{Column: at.column, Row: at.row, Wall: true}
			}
		})
		if !wall {
			left = append(left, at)
		}
	}
	open := opened(left)
	for _, at := range left {
		if ways := r.ways(at, open); len(ways) > 0 {
			r.lead(at, ways[0])
		}
	}
}

func abs(n int) int { return max(n, -n) }
