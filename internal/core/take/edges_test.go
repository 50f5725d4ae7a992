package take_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
)

// Whatever numbers an edit names, it is refused or makes a take that is whole: everything lies within it and within
// the time that there is, and every note ends.
func TestNoNumberBreaksATake(t *testing.T) {
	tick := rapid.SampledFrom([]score.Tick{
		math.MinInt64, math.MinInt64 + 1, -score.LastTick, -1, 0, 1, 1000, 80_640, score.LastTick - 1, score.LastTick, score.LastTick + 1, math.MaxInt64 - 1, math.MaxInt64,
	})
	number := rapid.SampledFrom([]int{math.MinInt64, -127, -1, 0, 1, 64, 127, 128, 1000, math.MaxInt64})
	choice := rapid.Custom(func(t *rapid.T) take.Choice {
		return take.Choice{From: tick.Draw(t, "from"), To: tick.Draw(t, "to"), Notes: rapid.SliceOfN(number, 0, 2).Draw(t, "notes")}
	})
	rapid.Check(t, func(t *rapid.T) {
		far := take.Render(testkit.Buoy(), 1)
		if rapid.Bool().Draw(t, "far") {
			next, err := take.Apply(far, take.AddNotes{Notes: []take.AddedNote{{Track: 1, Start: score.LastTick - 5, Length: 5, Key: 60, Velocity: 1}}})
			require.NoError(t, err)
			far = next
		}
		for range rapid.IntRange(1, 4).Draw(t, "edits") {
			edit := rapid.OneOf(
				rapid.Custom(func(t *rapid.T) take.Edit { return take.Trim{From: tick.Draw(t, "from"), To: tick.Draw(t, "to")} }),
				rapid.Custom(func(t *rapid.T) take.Edit { return take.CutOut{From: tick.Draw(t, "from"), To: tick.Draw(t, "to")} }),
				rapid.Custom(func(t *rapid.T) take.Edit {
					return take.AddNotes{Notes: []take.AddedNote{{Track: 1, Start: tick.Draw(t, "start"), Length: tick.Draw(t, "length"), Key: number.Draw(t, "key"), Velocity: number.Draw(t, "velocity")}}}
				}),
				rapid.Custom(func(t *rapid.T) take.Edit { return take.DeleteNotes{Choice: choice.Draw(t, "choice")} }),
				rapid.Custom(func(t *rapid.T) take.Edit {
					return take.MoveNotes{Choice: choice.Draw(t, "choice"), Ticks: tick.Draw(t, "ticks"), Semitones: number.Draw(t, "semitones")}
				}),
				rapid.Custom(func(t *rapid.T) take.Edit {
					return take.ShapeNotes{Choice: choice.Draw(t, "choice"), Velocity: number.Draw(t, "velocity"), Length: tick.Draw(t, "length"), Percent: number.Draw(t, "percent")}
				}),
				rapid.Custom(func(t *rapid.T) take.Edit {
					return take.SetNotes{Notes: []int{number.Draw(t, "note")}, Lengths: []score.Tick{tick.Draw(t, "length")}}
				}),
				rapid.Custom(func(t *rapid.T) take.Edit {
					return take.Quantise{Choice: choice.Draw(t, "choice"), Grid: "1/1", Strength: number.Draw(t, "strength"), Swing: 500}
				}),
				rapid.Just[take.Edit](take.Thin{Grid: "1/64t"}),
			).Draw(t, "edit")
			next, err := take.Apply(far, edit)
			if err != nil {
				var field *score.FieldError
				require.ErrorAs(t, err, &field)
				continue
			}
			far = next
			requireWhole(t, far)
			require.LessOrEqual(t, far.End, score.LastTick)
		}
	})
}

// A grid that would move a note beyond the last moment of all is refused.
func TestNothingIsMovedBeyondTheEndOfTime(t *testing.T) {
	far, err := take.Apply(take.Render(testkit.Buoy(), 1), take.AddNotes{Notes: []take.AddedNote{{Track: 1, Start: score.LastTick - 5, Length: 5, Key: 60, Velocity: 1}}})
	require.NoError(t, err)
	_, err = take.Apply(far, take.Quantise{Grid: "1/1", Strength: 100, Swing: 500})
	require.ErrorContains(t, err, "the end of the take")
}

// What is told of a take is as long as its notes, however far away the last of them is.
func TestAFarNoteCostsNoMoreThanANearOne(t *testing.T) {
	far := take.Of(testkit.Buoy(), "far")
	far.End = score.LastTick
	far, err := take.Apply(far, take.AddNotes{Notes: []take.AddedNote{
		{Track: 1, Start: 0, Length: 5, Key: 60, Velocity: 10}, {Track: 1, Start: score.LastTick - 5, Length: 5, Key: 62, Velocity: 90},
	}})
	require.NoError(t, err)
	s := take.StatisticsOf(far)
	require.Equal(t, 10_000_000, s.Length)
	require.Equal(t, []take.BarStatistics{{Bar: 1, Notes: 1, Velocity: 10}, {Bar: 10_000_000, Notes: 1, Velocity: 90}}, s.Bars)
	require.Less(t, len(take.CSV(far)), 500)
	bytes := testing.Benchmark(func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			take.StatisticsOf(far)
			take.CSV(far)
			take.ByTrack(far)
			_, _ = take.ToPattern(far, take.Choice{}, testkit.Buoy(), &testkit.Buoy().Tracks[0], "")
		}
	}).AllocedBytesPerOp()
	require.Less(t, bytes, int64(4<<20))
}

// Every message is in one of the takes of single tracks, also those of tracks that have no name.
func TestNoTrackIsLeftOut(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		whole := take.Render(testkit.Buoy(), 2)
		for i := range whole.Messages {
			whole.Messages[i].Track = uint32(rapid.IntRange(1, 5).Draw(t, "track"))
		}
		var together int
		names := map[string]bool{}
		for _, one := range take.ByTrack(whole) {
			require.Len(t, one.Tracks, 1)
			require.False(t, names[one.Tracks[0].Name])
			names[one.Tracks[0].Name] = true
			for _, m := range one.Messages {
				require.Equal(t, one.Tracks[0].ID, m.Track)
			}
			together += len(one.Messages)
		}
		require.Equal(t, len(whole.Messages), together)
		require.Len(t, whole.Tracks, 1, "the take itself is as it was")
	})
}

// No name is taken for a formula by a spreadsheet.
func TestNamesInTablesAreHarmless(t *testing.T) {
	one := take.Render(testkit.Buoy(), 1)
	for name, cell := range map[string]string{
		"=1+1": "'=1+1", "+1": "'+1", "-1": "'-1", "@SUM(A1)": "'@SUM(A1)", "Bell": "Bell", "a=1": "a=1", "=HYPERLINK(\"x\",\"y\")": `"'=HYPERLINK(""x"",""y"")"`,
	} {
		one.Tracks = []take.Track{{ID: 1, Name: name}}
		require.Contains(t, string(take.CSV(one)), ","+cell+",")
	}
}
