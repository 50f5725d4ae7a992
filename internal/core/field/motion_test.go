package field_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/field"
	"jettyfog/internal/core/score"
)

const eighth = score.TicksPerQuarter / 2

// grid returns a field of some size all of whose cells have notes, numbered in rows from the top.
func grid(columns, rows int, travellers ...score.Traveller) *score.Field {
	f := &score.Field{Columns: columns, Rows: rows, Travellers: travellers}
	for row := range rows {
		for column := range columns {
			f.Cells = append(f.Cells, score.Cell{Column: column, Row: row, Note: true, Degree: row*columns + column})
		}
	}
	return f
}

func traveller(id, column, row int, direction score.Direction) score.Traveller {
	t := score.NewTraveller(id, column, row)
	t.Direction = direction
	return t
}

// degrees returns what sounds at each of the first moments.
func degrees(f *score.Field, moments int) (all [][]int) {
	m := field.New(f, chance.Address{Luck: 7, Track: 1})
	s := m.Begin()
	for range moments {
		var now []int
		sounds, _ := m.Move(s, nil)
		for _, sound := range sounds {
			now = append(now, sound.Degree)
		}
		all = append(all, now)
	}
	return all
}

// singly returns each number in a list of its own.
func singly(numbers ...int) (all [][]int) {
	for _, n := range numbers {
		all = append(all, []int{n})
	}
	return all
}

// What one that goes straight does at edges and walls, by hand.
func TestStraight(t *testing.T) {
	at := func(turn score.EdgeTurn, of score.Traveller) score.Traveller {
		of.At = turn
		return of
	}
	wall := func(f *score.Field, column, row int) *score.Field {
		f.Cell(column, row).Wall = true
		return f
	}
	for name, c := range map[string]struct {
		field *score.Field
		want  [][]int
	}{
		"through":              {grid(4, 1, traveller(1, 1, 0, 2)), singly(1, 2, 3, 0, 1)},
		"back":                 {grid(4, 1, at(score.TurnBack, traveller(1, 1, 0, 2))), singly(1, 2, 3, 2, 1, 0, 1)},
		"right":                {grid(2, 2, at(score.TurnRight, traveller(1, 0, 0, 2))), singly(0, 1, 3, 2, 0)},
		"ends":                 {grid(3, 1, at(score.EndThere, traveller(1, 1, 0, 2))), append(singly(1, 2), nil)},
		"aslant through":       {grid(3, 2, traveller(1, 0, 0, 3)), singly(0, 4, 2, 3, 1, 5, 0)},
		"aslant back":          {grid(3, 2, at(score.TurnBack, traveller(1, 0, 0, 3))), singly(0, 4, 0, 4)},
		"over a wall":          {wall(grid(4, 1, traveller(1, 0, 0, 2)), 2, 0), singly(0, 1, 3, 0)},
		"back at a wall":       {wall(grid(4, 1, at(score.TurnBack, traveller(1, 0, 0, 2))), 2, 0), singly(0, 1, 0, 1)},
		"nowhere to go":        {grid(1, 1, at(score.TurnRight, traveller(1, 0, 0, 2))), singly(0, 0)},
		"through its own cell": {grid(1, 1, traveller(1, 0, 0, 2)), singly(0, 0)},
		"up":                   {grid(1, 3, traveller(1, 0, 0, 0)), singly(0, 2, 1, 0)},
	} {
		t.Run(name, func(t *testing.T) { require.Equal(t, c.want, degrees(c.field, len(c.want))) })
	}
}

// One that sounds where it turns has the note of its row at the left and the right, and of its column at the top and the bottom, and no others.
func TestTurnsSound(t *testing.T) {
	of := traveller(1, 0, 1, 2)
	of.At, of.AtTurns = score.TurnBack, true
	f := grid(3, 3, of)
	require.Equal(t, [][]int{nil, nil, nil, {1}, nil, {1}}, degrees(f, 6), "a row is as far up as it is from the last")
	f.RowNotes = []int{9, -4}
	require.Equal(t, []int{-4}, degrees(f, 6)[3])
	f.Travellers[0].Direction, f.Travellers[0].Column = 4, 2
	require.Equal(t, [][]int{nil, nil, {2}, nil, {2}}, degrees(f, 5), "its column")
	f.Travellers[0].Direction, f.Travellers[0].Column, f.Travellers[0].Row = 3, 1, 0 // meets the right
	require.Equal(t, [][]int{nil, nil, {-4}}, degrees(f, 3))
}

// Those that start later, are outside or in a wall wait; rates are their own; all that is due at one moment sounds in the order of the list.
func TestStartsAndRates(t *testing.T) {
	late, slow, outside, walled := traveller(1, 0, 0, 2), traveller(2, 0, 0, 2), traveller(3, 9, 0, 2), traveller(4, 3, 0, 2)
	late.StartsAfter, slow.Rate = 2, "1/4"
	f := grid(4, 1, late, slow, outside, walled)
	f.Cell(3, 0).Wall = true
	m := field.New(f, chance.Address{})
	s := m.Begin()
	var got [][]int
	var at []score.Tick
	for range 5 {
		at = append(at, s.Due()/eighth)
		sounds, _ := m.Move(s, nil)
		now := []int{}
		for _, sound := range sounds {
			now = append(now, 10*sound.Traveller+sound.Degree)
		}
		got = append(got, now)
	}
	require.Equal(t, []score.Tick{0, 2, 3, 4, 5}, at)
	require.Equal(t, [][]int{{10}, {0, 11}, {1}, {2, 12}, {0}}, got)
	require.False(t, s.Travellers[2].Here())
	require.False(t, s.Travellers[3].Here())
}

// Arrows lead on; where none does it ends; a letter leads on at once, once.
func TestArrowsAndLetters(t *testing.T) {
	of := score.NewTraveller(1, 0, 0)
	of.Motion = score.ArrowsMotion
	f := grid(4, 2, of)
	arrow := func(column, row int, to ...score.Direction) {
		for _, direction := range to {
			c := f.Cell(column, row)
			c.Arrows = append(c.Arrows, score.Arrow{To: direction, Weight: 100})
		}
	}
	arrow(0, 0, 2)
	arrow(1, 0, 4)
	arrow(1, 1, 6)
	arrow(0, 1, 0)
	require.Equal(t, singly(0, 1, 5, 4, 0, 1), degrees(f, 6), "a loop")
	f.Cell(0, 1).Arrows[0].Weight = 0
	require.Equal(t, append(singly(0, 1, 5, 4), nil), degrees(f, 5), "an arrow of no weight leads nowhere")
	f.Cell(0, 1).Arrows[0] = score.Arrow{To: 6, Weight: 100}
	require.Equal(t, append(singly(0, 1, 5, 4), nil), degrees(f, 5), "nor one out of the grid")
	f.Cell(0, 1).Arrows[0].To = 0
	f.Cell(1, 1).Letter, f.Cell(3, 1).Letter, f.Cell(3, 0).Letter = "A", "A", "A"
	require.Equal(t, append(singly(0, 1, 7), nil), degrees(f, 4), "to the next in rows from the top")
	f.Cell(1, 1).Jump = score.NearestLetter
	f.Cell(2, 0).Letter = "A"
	require.Equal(t, append(singly(0, 1, 2), nil), degrees(f, 4), "aslant is nearer than two to the right")
}

// Three shapes of waves, ring by ring, by hand: from the middle of a grid of five by five.
func TestWaves(t *testing.T) {
	of := score.NewTraveller(1, 2, 2)
	of.Motion, of.Every = score.WaveMotion, 100
	f := grid(5, 5, of)
	counts := func() (counts []int) {
		for _, now := range degrees(f, 6) {
			counts = append(counts, len(now))
		}
		return counts
	}
	require.Equal(t, []int{1, 8, 12, 4, 0, 0}, counts(), "round: √2 is 1, √5 is 2, √8 is 3")
	f.Travellers[0].Shape = score.SquareRings
	require.Equal(t, []int{1, 8, 16, 0, 0, 0}, counts())
	f.Travellers[0].Shape = score.DiamondRings
	require.Equal(t, []int{1, 4, 8, 8, 4, 0}, counts())
	require.Equal(t, []int{7, 11, 13, 17}, degrees(f, 2)[1], "in rows from the top")
	f.Travellers[0].Every = 2
	require.Equal(t, []int{1, 4, 9, 12, 13, 12}, counts(), "a wave every two steps")
	f.Cell(2, 1).Wall = true
	f.Travellers[0].Shape, f.Travellers[0].Every = score.SquareRings, 100
	require.Equal(t, []int{1, 7, 15, 0, 0, 0}, counts(), "what lies straight behind a wall is not reached; what the line passes by half a cell is")
}

// A repeater starts another wave, which sounds on from there; so it goes for eight generations at most, and with at most 64 waves.
func TestRepeaters(t *testing.T) {
	of := score.NewTraveller(1, 0, 0)
	of.Motion, of.Every = score.WaveMotion, 200
	f := grid(5, 1, of)
	f.Cell(2, 0).Repeater = true
	require.Equal(t, [][]int{{0}, {1}, {2}, {3, 1, 3}, {4, 0, 4}, nil}, degrees(f, 6))
	for column := range 5 {
		f.Cell(column, 0).Repeater = true
	}
	m := field.New(f, chance.Address{})
	s := m.Begin()
	for range 60 {
		_, _ = m.Move(s, nil)
		require.LessOrEqual(t, len(s.Waves), score.MaxWaves)
		for _, w := range s.Waves {
			require.Less(t, w.Generation, score.MaxGenerations)
		}
	}
	require.Positive(t, s.Unstarted)
	require.Empty(t, s.Waves, "they die out")
}
