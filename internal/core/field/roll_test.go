package field_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/field"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// Whatever is rolled, cells that are locked and what lies outside of the grid stay, and the same number rolls the same.
func TestRollsKeepWhatIsLocked(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		f := testkit.Field(t)
		for i := range f.Cells {
			f.Cells[i].Locked = rapid.Bool().Draw(t, "locked")
		}
		roll := field.Roll{
			Do:   rapid.SampledFrom([]field.Rolling{field.RollNotes, field.RollLoops, field.RollTree, field.RollNoise}).Draw(t, "do"),
			Luck: rapid.IntRange(0, 999).Draw(t, "luck"), Density: rapid.IntRange(0, 100).Draw(t, "density"), Lowest: 3, Highest: -4,
			Loops: rapid.IntRange(1, 3).Draw(t, "loops"), Length: rapid.IntRange(2, 12).Draw(t, "length"),
		}
		cells, _ := field.Rolled(f, roll)
		again, _ := field.Rolled(f, roll)
		require.Equal(t, cells, again)
		rolled := *f
		rolled.Cells = cells
		p := score.Blank()
		track := score.TrackOf(p, score.FieldKind, "Field", score.Pattern{Name: "A", Parts: []score.Part{score.NewFieldPart()}})
		track.Patterns[0].Parts[0].Field = &rolled
		p.Tracks = []score.Track{track}
		require.NoError(t, p.Validate())
		for _, c := range f.Cells {
			if c.Locked || !f.Inside(c.Column, c.Row) && (c.Note || c.Wall || c.Repeater || c.Letter != "" || len(c.Arrows) > 0) {
				require.Equal(t, c, *rolled.Cell(c.Column, c.Row))
			}
			if after := rolled.Cell(c.Column, c.Row); roll.Do == field.RollNotes && after != nil && after.Note && !c.Locked && f.Inside(c.Column, c.Row) {
				require.LessOrEqual(t, after.Degree, 3)
				require.GreaterOrEqual(t, after.Degree, -4)
			}
		}
	})
}

// Loops have the length that is wished for, and lead round; where there is no room for one it is shorter, which is counted.
func TestRolledLoops(t *testing.T) {
	for luck := range 40 {
		for _, length := range []int{2, 3, 7, 16} {
			f := grid(8, 8, score.NewTraveller(1, 0, 0))
			cells, shorter := field.Rolled(f, field.Roll{Do: field.RollLoops, Luck: luck, Loops: 2, Length: length})
			require.Zero(t, shorter, "luck %d, length %d", luck, length)
			f.Cells = cells
			f.Travellers[0].Motion = score.ArrowsMotion
			on := 0
			for _, c := range cells {
				if len(c.Arrows) == 0 {
					continue
				}
				on++
				f.Travellers[0].Column, f.Travellers[0].Row = c.Column, c.Row
				_, period, err := field.Period(f)
				require.NoError(t, err)
				require.Equal(t, score.Tick(length)*eighth, period)
			}
			require.Equal(t, 2*length, on)
		}
	}
	_, shorter := field.Rolled(grid(2, 2), field.Roll{Do: field.RollLoops, Loops: 2, Length: 9})
	require.Equal(t, 2, shorter, "one of four, and none")
}

// A tree leads from wherever one starts to its one end.
func TestRolledTrees(t *testing.T) {
	for luck := range 40 {
		f := grid(6, 5)
		f.Cells, _ = field.Rolled(f, field.Roll{Do: field.RollTree, Luck: luck})
		ends := map[[2]int]bool{}
		for _, c := range f.Cells {
			of := score.NewTraveller(1, c.Column, c.Row)
			of.Motion = score.ArrowsMotion
			f.Travellers = []score.Traveller{of}
			m := field.New(f, chance.Address{})
			s := m.Begin()
			for moves := 0; s.Due() != field.Never; moves++ {
				require.Less(t, moves, 30)
				_, _ = m.Move(s, nil)
			}
			ends[[2]int{s.Travellers[0].Column, s.Travellers[0].Row}] = true
		}
		require.Len(t, ends, 1)
	}
}
