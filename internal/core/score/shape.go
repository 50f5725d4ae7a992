package score

// Shape is a path over the steps of a loop laid out in rows in a square, for the order Path.
type Shape struct {
	Name string `json:"name"`
	// walk returns the cells of a square of the given side in the order of the shape.
	walk func(side int) []cell
}

type cell struct{ row, column int }

// shapes is in the order in which to offer them.
var shapes = []Shape{
	{Name: "columns", walk: columns},
	{Name: "rows to and fro", walk: toAndFro},
	{Name: "diagonals", walk: diagonals},
	{Name: "spiral in", walk: spiral},
	{Name: "spiral out", walk: func(side int) []cell { return reversed(spiral(side)) }},
	{Name: "corners first", walk: cornersFirst},
	{Name: "every second, then the rest", walk: everySecond},
	{Name: "knight's moves", walk: knight},
}

// Shapes lists the shapes in the order in which to offer them.
func Shapes() []Shape { return append([]Shape(nil), shapes...) }

// shapeOf returns the shape of a name.
func shapeOf(name string) (Shape, error) {
	var names []string
	for _, s := range shapes {
		if s.Name == name {
			return s, nil
		}
		names = append(names, s.Name)
	}
	return Shape{}, checkListed("shape", name, names)
}

// Path returns the steps of a loop of the given length, 1 to MaxSteps, in the order of the shape. The steps
// lie in rows in the smallest square that holds them; each comes exactly once.
func (s Shape) Path(length int) []int {
	side := 1
	for side*side < length {
		side++
	}
	var path []int
	for _, c := range s.walk(side) {
		if step := c.row*side + c.column; step < length {
			path = append(path, step)
		}
	}
	return path
}

func columns(side int) (walk []cell) {
	for column := range side {
		for row := range side {
			walk = append(walk, cell{row, column})
		}
	}
	return walk
}

func toAndFro(side int) (walk []cell) {
	for row := range side {
		for at := range side {
			column := at
			if row%2 == 1 {
				column = side - 1 - at
			}
			walk = append(walk, cell{row, column})
		}
	}
	return walk
}

func diagonals(side int) (walk []cell) {
	for sum := range 2*side - 1 {
		for row := max(0, sum-side+1); row <= min(sum, side-1); row++ {
			walk = append(walk, cell{row, sum - row})
		}
	}
	return walk
}

// spiral goes around clockwise from the first cell, ring by ring.
func spiral(side int) (walk []cell) {
	for ring := 0; 2*ring < side; ring++ {
		low, high := ring, side-1-ring
		for at := low; at <= high; at++ {
			walk = append(walk, cell{low, at})
		}
		for at := low + 1; at <= high; at++ {
			walk = append(walk, cell{at, high})
		}
		for at := high - 1; at >= low; at-- {
			walk = append(walk, cell{high, at})
		}
		for at := high - 1; at > low; at-- {
			walk = append(walk, cell{at, low})
		}
	}
	return walk
}

// cornersFirst takes the corners of each ring, from the outermost in, and then what is between them.
func cornersFirst(side int) (walk []cell) {
	var between []cell
	for _, c := range spiral(side) {
		if c.row == c.column || c.row+c.column == side-1 {
			walk = append(walk, c)
		} else {
			between = append(between, c)
		}
	}
	return append(walk, between...)
}

func everySecond(side int) (walk []cell) {
	var rest []cell
	for row := range side {
		for column := range side {
			if (row+column)%2 == 0 {
				walk = append(walk, cell{row, column})
			} else {
				rest = append(rest, cell{row, column})
			}
		}
	}
	return append(walk, rest...)
}

// knight makes the knight's moves of chess, each to the cell that offers the fewest moves on (Warnsdorff's
// rule, 1823); where there is none left it goes on from the first cell not yet seen.
func knight(side int) (walk []cell) {
	moves := []cell{{1, 2}, {2, 1}, {2, -1}, {1, -2}, {-1, -2}, {-2, -1}, {-2, 1}, {-1, 2}}
	seen := map[cell]bool{}
	open := func(from cell) (next []cell) {
		for _, m := range moves {
			to := cell{from.row + m.row, from.column + m.column}
			inside := to.row >= 0 && to.row < side && to.column >= 0 && to.column < side
			if inside && !seen[to] {
				next = append(next, to)
			}
		}
		return next
	}
	for _, start := range toAndFro(side) {
		for at, found := start, !seen[start]; found; {
			seen[at] = true
			walk = append(walk, at)
			found = false
			fewest := len(moves) + 1
			for _, next := range open(at) {
				if count := len(open(next)); count < fewest {
					at, fewest, found = next, count, true
				}
			}
		}
	}
	return walk
}

func reversed(walk []cell) []cell {
	back := make([]cell, len(walk))
	for i, c := range walk {
		back[len(walk)-1-i] = c
	}
	return back
}
