package field_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/field"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// Two in a row of cells: what they do where they meet, in a cell or between two, by hand.
func TestMeetings(t *testing.T) {
	left, right := traveller(1, 0, 0, 2), traveller(2, 4, 0, 6)
	f := grid(5, 1, left, right)
	require.Equal(t, [][]int{{0, 4}, {1, 3}, {2, 2}, {3, 1}}, degrees(f, 4), "they pass")
	f.Travellers[0].Meets = score.MeetBack
	require.Equal(t, [][]int{{0, 4}, {1, 3}, {2, 2}, {1, 1}}, degrees(f, 4), "one turns back, and meets the other once more")
	f.Travellers[1].Meets = score.MeetBack
	require.Equal(t, [][]int{{0, 4}, {1, 3}, {2, 2}, {1, 3}}, degrees(f, 4))
	f.Travellers[1].Column = 3
	require.Equal(t, [][]int{{0, 3}, {1, 2}, {1, 2}, {0, 3}}, degrees(f, 4), "they would change places, and turn back")
	f.Travellers[0].Meets, f.Travellers[0].At = score.MeetRight, score.EndThere
	require.Equal(t, [][]int{{0, 3}, {1, 2}, {2, 2}, {3}}, degrees(f, 4), "turned to the right it ends at the edge, and is met no more")
}

// Every way in which two stand to each other, and all that one does by it, by hand.
func TestRulesOfMeetings(t *testing.T) {
	still := func(id, column, row int) score.Traveller { // turns back in a closed cell
		of := traveller(id, column, row, 2)
		of.At = score.TurnBack
		return of
	}
	for when, apart := range map[score.MeetingWhen][][2]int{ // where B stands to A at 2,2, for which it is so
		score.InOneCell:     {{0, 0}},
		score.InOneRow:      {{1, 0}, {-2, 0}, {0, 0}},
		score.InOneColumn:   {{0, 1}, {0, -2}, {0, 0}},
		score.InOneDiagonal: {{1, 1}, {-2, 2}, {0, 0}},
		score.NearEachOther: {{1, 1}, {0, 1}, {0, 0}, {1, 0}},
		score.LeftOf:        {{1, 0}, {1, 1}},
		score.RightOf:       {{-2, 0}, {-2, 2}},
		score.AboveOf:       {{0, 1}, {1, 1}, {-2, 2}},
		score.BelowOf:       {{0, -2}},
	} {
		for _, at := range [][2]int{{0, 0}, {1, 0}, {-2, 0}, {0, 1}, {0, -2}, {1, 1}, {-2, 2}} {
			f := grid(5, 5, still(1, 2, 2), still(2, 2+at[0], 2+at[1]))
			f.Rules = []score.MeetingRule{{A: 1, B: 2, When: when, Distance: 1, Do: score.DoSilence, Odds: 100}}
			require.Equal(t, slices.Contains(apart, at), len(degrees(f, 1)[0]) == 1, "%s %v", when, at)
			f.Rules[0].Odds = 0
			require.Len(t, degrees(f, 1)[0], 2, "never")
		}
	}
	do := func(rule score.MeetingRule, moments int) [][]int {
		f := grid(5, 2, traveller(1, 0, 0, 2), still(2, 4, 1))
		f.Cell(3, 1).Wall = true
		f.Cell(4, 0).Letter = "B"
		f.Travellers[1].StartsAfter = 2
		f.Cell(4, 1).Note = false
		rule.A, rule.B, rule.When, rule.Odds = 1, 2, score.LeftOf, 100
		f.Rules = []score.MeetingRule{rule}
		return degrees(f, moments)
	}
	require.Equal(t, [][]int{{0}, {1}, nil, nil, {4}}, do(score.MeetingRule{Do: score.DoSilence}, 5), "as long as it is so")
	require.Equal(t, [][]int{{0}, {1}, {0}, {0}, {0}}, do(score.MeetingRule{Do: score.DoStart}, 5))
	require.Equal(t, [][]int{{0}, {1}, {4}, {4}, {4}}, do(score.MeetingRule{Do: score.DoLetter, Letter: "B"}, 5))
	require.Equal(t, [][]int{{0}, {1}, {2}, {3}}, do(score.MeetingRule{Do: score.DoLetter, Letter: "C"}, 4), "there is no such letter")
}

// A traveller that is made to sound where it turns at meetings, one that changes its rate, and tracks that are moved on.
func TestRulesThatChangeTime(t *testing.T) {
	f := grid(6, 1, traveller(1, 0, 0, 2), traveller(2, 3, 0, 2))
	f.Travellers[1].At = score.TurnBack
	f.Rules = []score.MeetingRule{
		{A: 1, B: 2, When: score.InOneCell, Do: score.DoRate, Rate: "1/4", Odds: 100},
		{A: 2, B: 1, When: score.InOneCell, Do: score.DoClockTick, Track: 9, Odds: 100},
		{A: 2, B: 77, When: score.InOneRow, Do: score.DoSilence, Odds: 100},
	}
	m := field.New(f, chance.Address{})
	s := m.Begin()
	var met []score.Tick
	for s.Due() < 20*eighth {
		now := s.Due()
		_, clocks := m.Move(s, nil)
		if len(clocks) > 0 {
			require.Equal(t, []int{9}, clocks)
			met = append(met, now/eighth)
		}
	}
	require.Equal(t, score.TicksPerQuarter, s.Travellers[0].Rate)
	require.Equal(t, score.Tick(4), met[0], "0 1 2 3 4 and 3 4 5 4 3 are in one cell at the fifth moment")
	require.Greater(t, len(met), 1, "the slower one is still met")
}

// unstarted returns how many waves do not start in so many moments, because there are too many.
func unstarted(f *score.Field, moments int) int64 {
	m := field.New(f, chance.Address{Luck: 7, Track: 1})
	s := m.Begin()
	for range moments {
		_, _ = m.Move(s, nil)
	}
	return s.Unstarted
}

// Turned and mirrored with their travellers, fields without rows, columns, right turns or letters sound the same, as long as all waves start; back and forth they
// are what they were.
func TestTurnedAndMirrored(t *testing.T) {
	compared := 0
	rapid.Check(t, func(t *rapid.T) {
		f := testkit.Field(t)
		for i := range f.Cells {
			f.Cells[i].Letter, f.Cells[i].Jump = "", ""
		}
		for i := range f.Travellers {
			of := &f.Travellers[i]
			if of.AtTurns = false; of.At == score.TurnRight {
				of.At = score.TurnBack
			}
			if of.Meets == score.MeetRight {
				of.Meets = score.MeetPass
			}
		}
		f.Rules = slices.DeleteFunc(f.Rules, func(rule score.MeetingRule) bool {
			return rule.Do == score.DoTurn || rule.When != score.InOneCell && rule.When != score.InOneDiagonal && rule.When != score.NearEachOther
		})
		if unstarted(f, 30) > 0 { // which these are, their order in rows from the top decides
			return
		}
		change := rapid.SampledFrom([]field.Change{field.TurnRight, field.Mirror}).Draw(t, "change")
		want, got := degrees(f, 30), degrees(field.Changed(f, change), 30)
		for i := range want { // rings sound in rows from the top
			slices.Sort(want[i])
			slices.Sort(got[i])
			compared += len(want[i])
		}
		require.Equal(t, want, got)
	})
	require.Greater(t, compared, 50)
	rapid.Check(t, func(t *rapid.T) {
		f := testkit.Field(t)
		f.Cells = slices.DeleteFunc(f.Cells, func(c score.Cell) bool { return !f.Inside(c.Column, c.Row) })
		f.RowNotes, f.ColumnNotes = make([]int, f.Rows), make([]int, f.Columns)
		f.RowNotes[0], f.ColumnNotes[f.Columns-1] = 5, -7
		for _, back := range [][]field.Change{
			{field.TurnRight, field.TurnRight, field.TurnRight, field.TurnRight}, {field.Mirror, field.Mirror},
			{field.ShiftLeft, field.ShiftRight}, {field.ShiftDown, field.ShiftUp},
		} {
			changed := f
			for _, change := range back {
				changed = field.Changed(changed, change)
			}
			require.ElementsMatch(t, f.Cells, changed.Cells)
			require.Equal(t, [][]int{f.RowNotes, f.ColumnNotes}, [][]int{changed.RowNotes, changed.ColumnNotes})
			for i := range f.Travellers {
				if of := f.Travellers[i]; f.Inside(of.Column, of.Row) {
					require.Equal(t, of, changed.Travellers[i])
				}
			}
		}
	})
}
