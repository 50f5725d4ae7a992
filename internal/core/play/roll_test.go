package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// A roll writes only unlocked steps of the loop, within its range; it repeats with its luck, and undoing
// its one edit brings the old values back.
func TestRoll(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		spec := rapid.SampledFrom(score.LaneSpecs()).Draw(t, "lane")
		lowest := rapid.IntRange(spec.Least-3, spec.Most).Draw(t, "lowest")
		roll := play.Roll{
			LaneAddress: score.LaneAddress{PartAddress: score.PartAddress{Track: 1}, Lane: spec.Name},
			Luck:        uint64(rapid.IntRange(0, 99).Draw(t, "luck")),
			Lowest:      lowest, Highest: rapid.IntRange(lowest, spec.Most+3).Draw(t, "highest"),
			Density: rapid.IntRange(0, 100).Draw(t, "density"), Lean: rapid.IntRange(-100, 100).Draw(t, "lean"),
			Only: rapid.SliceOfN(rapid.IntRange(0, 63), 0, 20).Draw(t, "only"),
		}
		part := &p.Tracks[0].Patterns[0].Parts[0]
		edit, any := roll.Edit(p)
		again, _ := roll.Edit(p)
		require.Equal(t, edit, again)
		require.Equal(t, any, len(edit.Steps) > 0)
		if !any {
			return
		}
		loop := part.Lanes.Loop(spec.Name)
		for _, s := range edit.Steps {
			require.NotContains(t, part.Lanes.Lane(spec.Name).Locked, s.Step)
			if len(roll.Only) > 0 {
				require.Contains(t, roll.Only, s.Step)
			}
			require.GreaterOrEqual(t, s.Step, loop.First)
			require.Less(t, s.Step, loop.First+loop.Length)
			if spec.Name == score.Pitch {
				require.Equal(t, p.Key.Spelling().Allow(s.Value), s.Value, "an allowed note")
			} else if spec.Name != score.Gate {
				require.GreaterOrEqual(t, s.Value, lowest)
				require.LessOrEqual(t, s.Value, roll.Highest)
			}
		}
		forms := []score.EditJSON{{SetSteps: &edit}}
		for _, notes := range roll.Notes(p, edit) {
			forms = append(forms, score.EditJSON{SetOwn: &notes})
			require.NotContains(t, part.Lanes.Pitch.Locked, notes.Step)
		}
		rolled, undo, err := score.Apply(p, score.All{Name: "roll", Edits: forms})
		require.NoError(t, err)
		back, _, err := score.Apply(rolled, undo)
		require.NoError(t, err)
		require.Equal(t, p, back)
	})
}

// Each note of a step that is drawn by itself is rolled to an allowed note of its own, and keeps its velocity and timing; a step whose notes go together
// keeps them as they lie.
func TestNotesAreRolled(t *testing.T) {
	p := testkit.Plain(func(p *score.Project, _ *score.Track, part *score.Part) {
		p.Key.Allowed = []int{0, 3, 4}
		three := []score.StepNote{{Velocity: 5}, {Degree: 2, Nudge: 9}, {Degree: 4, Length: 100}}
		part.Lanes.Pitch.Own = map[int]score.StepOwn{0: {Notes: three, Each: true}, 1: {Notes: three}}
	})
	seen := map[int]bool{}
	for luck := range 200 {
		roll := play.Roll{LaneAddress: score.LaneAddress{PartAddress: score.PartAddress{Track: 1}, Lane: score.Pitch}, Luck: uint64(luck), Highest: 7, Density: 100}
		edit, rolled := roll.Edit(p)
		require.True(t, rolled)
		edits := roll.Notes(p, edit)
		require.Len(t, edits, 1)
		require.Zero(t, edits[0].Step)
		notes, degrees := edits[0].Own.Notes, map[int]bool{}
		for _, note := range notes {
			degree := edit.Steps[0].Value + note.Degree
			require.Equal(t, degree, p.Key.Spelling().Allow(degree))
			degrees[degree], seen[degree] = true, true
		}
		require.Len(t, degrees, 3)
		require.Equal(t, []any{5, score.Tick(9), score.Tick(100), 0}, []any{notes[0].Velocity, notes[1].Nudge, notes[2].Length, notes[0].Degree})
	}
	narrow := play.Roll{LaneAddress: score.LaneAddress{PartAddress: score.PartAddress{Track: 1}, Lane: score.Pitch}, Density: 100}
	edit, _ := narrow.Edit(p)
	var degrees []int
	for _, note := range narrow.Notes(p, edit)[0].Own.Notes {
		degrees = append(degrees, note.Degree)
	}
	require.Equal(t, []int{0, 3, 4}, degrees, "where there is room for one the others take the next above")
	for _, degree := range []int{0, 3, 4, 7} {
		require.True(t, seen[degree], "%d is never rolled", degree)
	}
}

// Over 10,000 rolls of 16 steps a density of 30 percent turns 30 percent of the gates on: chi-square, one
// degree of freedom, alpha 0.001, the lucks fixed.
func TestTheDensityOfARoll(t *testing.T) {
	p := testkit.Buoy()
	on, all := 0.0, 0.0
	for luck := range uint64(10_000) {
		roll := play.Roll{LaneAddress: score.LaneAddress{PartAddress: score.PartAddress{Track: 1}, Lane: score.Gate}, Luck: luck, Density: 30}
		edit, _ := roll.Edit(p)
		for _, s := range edit.Steps {
			all++
			on += float64(s.Value)
		}
	}
	require.InDelta(t, 160_000, all, 0)
	off := on - 0.3*all
	require.Less(t, off*off/(0.3*all)+off*off/(0.7*all), 10.83)
}

// Where rolls of velocities from 1 to 100 land: evenly without a lean, and with one of 100 by the density 3x² (score.Spread);
// chi-square over ten bands, nine degrees of freedom, alpha 0.001, the lucks fixed.
func TestWhereRollsLand(t *testing.T) {
	for lean, below := range map[int]func(x float64) float64{
		0:    func(x float64) float64 { return x },
		100:  func(x float64) float64 { return x * x * x },
		-100: func(x float64) float64 { return 1 - (1-x)*(1-x)*(1-x) },
	} {
		p := testkit.Buoy()
		var bands [10]float64
		all := 0.0
		for luck := range uint64(2000) {
			roll := play.Roll{
				LaneAddress: score.LaneAddress{PartAddress: score.PartAddress{Track: 1}, Lane: score.Velocity},
				Luck:        luck, Lowest: 1, Highest: 100, Density: 100, Lean: lean,
			}
			edit, _ := roll.Edit(p)
			for _, s := range edit.Steps {
				bands[(s.Value-1)/10]++
				all++
			}
		}
		chiSquare := 0.0
		for i, got := range bands {
			want := all * (below(float64(i+1)/10) - below(float64(i)/10))
			chiSquare += (got - want) * (got - want) / want
		}
		require.Less(t, chiSquare, 27.88, "lean %d", lean)
	}
}
