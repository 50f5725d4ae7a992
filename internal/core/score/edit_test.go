package score_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

// Every edit can be undone, the undoing can be undone, and both survive their JSON form.
func TestEveryEditHasAnInverse(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		before := testkit.Project(t)
		kept := before.Clone()
		edit := throughJSON(t, testkit.Edit(t, before))

		after, undo, err := score.Apply(before, edit)
		require.NoError(t, err)
		require.Equal(t, kept, before, "Apply must leave its argument alone")
		require.NotEmpty(t, edit.Label()+"-")

		undone, redo, err := score.Apply(after, throughJSON(t, undo))
		require.NoError(t, err)
		require.Equal(t, before, undone)

		redone, _, err := score.Apply(undone, throughJSON(t, redo))
		require.NoError(t, err)
		require.Equal(t, after, redone)
	})
}

func throughJSON(t *rapid.T, edit score.Edit) score.Edit {
	data, err := score.EncodeEdit(edit)
	require.NoError(t, err)
	decoded, err := score.DecodeEdit(data)
	require.NoError(t, err)
	return decoded
}

// Invariant 7: what a shorter loop leaves out is kept, and comes back with the length.
func TestAChangeOfLoopKeepsAllSteps(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		before := testkit.Project(t)
		length, linked := rapid.IntRange(1, 64).Draw(t, "length"), rapid.Bool().Draw(t, "linked")
		after, _, err := score.Apply(before, score.SetLane{
			Track: 1, Lane: score.Pitch, Length: &length, Linked: &linked,
		})
		require.NoError(t, err)
		require.Equal(t, before.Tracks[0].Lanes.Pitch.Steps, after.Tracks[0].Lanes.Pitch.Steps)
	})
}

func TestLuckGoesBackThroughAllFormerOnes(t *testing.T) {
	p := score.Demo()
	for _, number := range []int{7, 8, 9} {
		p = apply(t, p, score.ChangeLuck{Number: number})
	}
	for _, want := range []int{8, 7, 48_213} {
		p = apply(t, p, score.BackLuck{})
		require.Equal(t, want, p.Luck.Number)
	}
	_, _, err := score.Apply(p, score.BackLuck{})
	require.ErrorIs(t, err, score.ErrNothingBefore)
}

func TestFormerLucksAreBounded(t *testing.T) {
	p := score.Demo()
	for i := range score.MaxFormerLuck + 5 {
		p = apply(t, p, score.ChangeLuck{Number: i})
	}
	require.Len(t, p.Luck.Former, score.MaxFormerLuck)
}

func apply(t *testing.T, p *score.Project, edit score.Edit) *score.Project {
	t.Helper()
	next, _, err := score.Apply(p, edit)
	require.NoError(t, err)
	return next
}

func TestEditsOutOfRangeAreRefusedByName(t *testing.T) {
	for _, c := range []struct {
		edit score.Edit
		want string
	}{
		{score.SetProject{Tempo: ptr(score.Tempo(9_999))}, "tempo is 9999; it must be 10000 to 400000"},
		{score.SetProject{Name: ptr(" ")}, `name is " "; it must be 1 to 60 printable characters`},
		{score.SetProject{Meter: &score.Meter{Beats: 4, Unit: 3}}, "meter.unit is \"3\"; it must be one of 2, 4, 8, 16"},
		{score.SetProject{Key: &theory.Key{Root: 12, Scale: "major"}}, "key.root is 12; it must be 0 to 11"},
		{score.SetProject{Key: &theory.Key{Scale: "foggy"}}, "key.scale is \"foggy\"; it must be one of major, minor,"},
		{score.ChangeLuck{Number: -1}, "luck.number is -1; it must be 0 to 999999"},
		{score.SetTrack{Track: 1, Channel: ptr(17)}, "tracks[0].channel is 17; it must be 1 to 16"},
		{score.SetTrack{Track: 1, Register: &theory.Register{Lowest: 60, Highest: 70}}, "tracks[0].register.highest is 70; it must be 71 to 127"},
		{score.SetTrack{Track: 2, Mute: ptr(true)}, "track 2: there is no such track"},
		{score.SetLane{Track: 1, Lane: "fog", Length: ptr(3)}, "lane is \"fog\"; it must be one of gate, pitch"},
		{score.SetLane{Track: 1, Lane: score.Gate, Linked: ptr(true)}, "tracks[0].lanes.gate.linked is true; it must be false"},
		{score.SetLane{Track: 1, Lane: score.Pitch, Length: ptr(65)}, "tracks[0].lanes.pitch.length is 65; it must be 1 to 64"},
		{score.SetLane{Track: 1, Lane: score.Pitch, Rate: ptr(score.NoteValue("1/5"))}, "tracks[0].lanes.pitch.rate is \"1/5\""},
		{score.SetLane{Track: 1, Lane: score.Pitch, Order: ptr(score.Order("up"))}, "it must be one of forward, backward"},
		{score.SetSteps{Track: 1, Lane: score.Pitch, Steps: []score.StepValue{{64, 0}}}, "steps[0].step is 64; it must be 0 to 63"},
		{score.SetSteps{Track: 1, Lane: score.Velocity, Steps: []score.StepValue{{3, 0}}}, "tracks[0].lanes.velocity.steps[3] is 0; it must be 1 to 127"},
		{score.SetSteps{Track: 1, Lane: score.Pitch}, "the number of steps is 0; it must be 1 to 64"},
		{score.Replace{}, "name is \"\""},
	} {
		next, inverse, err := score.Apply(score.Demo(), c.edit)
		require.ErrorContains(t, err, c.want)
		require.Nil(t, next)
		require.Nil(t, inverse)
	}
}

func ptr[T any](v T) *T { return &v }
