package score_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

func given[T any](value T) *T { return &value }

func TestAnEditSaysWhatItChanges(t *testing.T) {
	part, kit := score.PartAddress{Track: 1}, score.PartAddress{Track: 3, Part: 1}
	steps := func(a score.PartAddress, lane score.LaneName, values ...score.StepValue) score.SetSteps {
		return score.SetSteps{LaneAddress: score.LaneAddress{PartAddress: a, Lane: lane}, Steps: values}
	}
	p := testkit.Demo()
	p.Key = theory.Key{Scale: "dorian", Root: 2}
	p.Tracks[0].Parts()[0].Lanes.Pitch.Steps[3] = 0
	p.Tracks[0].Parts()[0].Lanes.Pitch.First = 1
	p.Tracks[0].Parts()[0].Lanes.Pitch.Length = 11
	first, second := p.Tracks[0].Name, p.Tracks[2].Name+", "+p.Tracks[2].Parts()[1].Name
	for _, c := range []struct {
		edit score.Edit
		want string
	}{
		{steps(part, score.Pitch, score.StepValue{Step: 3, Value: 2}), first + ": pitch of step 3, D4 to F4"},
		{steps(part, score.Pitch, score.StepValue{Step: 0, Value: 2}, score.StepValue{Step: 2, Value: 2}), first + ": pitch of 2 steps"},
		{steps(kit, score.Gate, score.StepValue{Step: 63, Value: 2}), second + ": gate of step 64, off to tie"},
		{steps(part, score.Length, score.StepValue{Step: 20, Value: 103}), first + ": length of step 21, 60 % to 4 steps"},
		{steps(part, score.Octave, score.StepValue{Step: 60, Value: -1}), first + ": octave of step 61, 0 to -1"},
		{steps(part, score.Chord, score.StepValue{Step: 60, Value: 2}), first + ": chord of step 61, none to triad"},
		{score.SetProject{Tempo: given(score.Tempo(120_500))}, "tempo, 96.00 bpm to 120.50 bpm"},
		{score.SetProject{Meter: &score.Meter{Beats: 7, Unit: 8}}, "meter, 4/4 to 7/8"},
		{score.SetProject{Key: &theory.Key{Scale: "lydian", Root: 6}}, "key, D dorian to F♯ lydian"},
		{score.SetProject{Swing: given(667), SwingGrid: given(score.NoteValue("1/8"))}, "swing 66.7 %, swing on 1/8"},
		{score.SetTrack{Track: 1, Name: given("Foghorn")}, first + ": name, “Bell buoy” to “Foghorn”"},
		{score.SetTrack{Track: 1, Mute: given(true)}, first + ": mute"},
		{score.SetTrack{Track: 1, Delay: given(score.Tick(-2016))}, first + ": delay, 0 ms to -62 ms"},
		{score.SetTrack{Track: 1, Hold: given(4)}, first + ": hold, 0 bars to 4 bars"},
		{score.SetPart{PartAddress: kit, Note: given(61)}, second + ": note, " + theory.NoteName(p.Tracks[2].Parts()[1].Note) + " to C♯4"},
		{score.SetLane{LaneAddress: score.LaneAddress{PartAddress: part, Lane: score.Pitch}, Length: given(7)}, first + ": pitch length, 11 to 7"},
		{score.SetLane{LaneAddress: score.LaneAddress{PartAddress: part, Lane: score.Pitch}, First: given(0)}, first + ": pitch first step, 2 to 1"},
		{score.RemoveTrack{Track: 1}, first + ": removal of a track"},
		{score.ChangeLuck{Number: 7}, "luck 7"},
	} {
		after, _, err := score.Apply(p, c.edit)
		require.NoError(t, err)
		require.Equal(t, c.want, score.Describe(p, after, c.edit))
	}
}

// Where an edit goes on from another, it alone makes what both make, and the inverse of the first undoes both.
func TestAnEditThatContinuesAnother(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		track := rapid.SampledFrom(p.Tracks).Draw(t, "track")
		spec := rapid.SampledFrom(score.LaneSpecs()).Draw(t, "lane")
		first := testkit.SetSteps(t, track, spec)
		second := score.SetSteps{LaneAddress: first.LaneAddress}
		for _, s := range first.Steps {
			second.Steps = append(second.Steps, score.StepValue{Step: s.Step, Value: rapid.IntRange(spec.Least, spec.Most).Draw(t, "value")})
		}
		pairs := [][2]score.Edit{
			{first, second},
			{score.SetProject{Tempo: given(score.Tempo(90_000))}, score.SetProject{Tempo: given(score.Tempo(91_000))}},
			{score.SetTrack{Track: track.ID, Jitter: given(3)}, score.SetTrack{Track: track.ID, Jitter: given(4)}},
			{score.SetLane{LaneAddress: first.LaneAddress, Amount: given(30)}, score.SetLane{LaneAddress: first.LaneAddress, Amount: given(100)}},
		}
		pair := rapid.SampledFrom(pairs).Draw(t, "pair")
		if !score.Continues(pair[0], pair[1]) {
			require.Equal(t, score.Chord, spec.Name, "a name takes notes away, and none does not")
			return
		}
		between, inverse, err := score.Apply(p, pair[0])
		require.NoError(t, err)
		both, _, err := score.Apply(between, pair[1])
		require.NoError(t, err)
		alone, _, err := score.Apply(p, pair[1])
		require.NoError(t, err)
		require.Equal(t, both, alone)
		undone, _, err := score.Apply(both, inverse)
		require.NoError(t, err)
		require.Equal(t, p, undone)

		other := testkit.Edit(t, p)
		if score.Continues(other, other) { // whatever gives values continues itself
			after, _, err := score.Apply(p, other)
			require.NoError(t, err)
			again, _, err := score.Apply(after, other)
			require.NoError(t, err)
			require.Equal(t, after, again)
		}
	})
}

func TestEditsOfOtherPlacesDoNotContinue(t *testing.T) {
	lane := func(track int, name score.LaneName) score.LaneAddress {
		return score.LaneAddress{PartAddress: score.PartAddress{Track: track}, Lane: name}
	}
	steps := func(a score.LaneAddress, steps ...score.StepValue) score.Edit {
		return score.SetSteps{LaneAddress: a, Steps: steps}
	}
	one := steps(lane(1, score.Pitch), score.StepValue{Step: 2, Value: 2})
	for _, other := range []score.Edit{
		steps(lane(1, score.Pitch), score.StepValue{Step: 3, Value: 2}),
		steps(lane(1, score.Pitch), score.StepValue{Step: 2, Value: 2}, score.StepValue{Step: 3, Value: 2}),
		steps(lane(1, score.Octave), score.StepValue{Step: 2, Value: 2}),
		steps(lane(2, score.Pitch), score.StepValue{Step: 2, Value: 2}),
		score.SetLane{LaneAddress: lane(1, score.Pitch), Length: given(2)},
	} {
		require.False(t, score.Continues(one, other))
		require.True(t, score.Continues(other, other))
	}
	require.False(t, score.Continues(score.SetTrack{Track: 1, Delay: given(score.Tick(1))}, score.SetTrack{Track: 1, Jitter: given(1)}))
	require.False(t, score.Continues(score.SetProject{Tempo: given(score.Tempo(90_000))}, score.SetProject{Tempo: given(score.Tempo(90_000)), Swing: given(600)}))
	named := func(value int) score.Edit { return steps(lane(1, score.Chord), score.StepValue{Step: 2, Value: value}) }
	notes := func(notes ...score.StepNote) score.Edit {
		return score.SetOwn{LaneAddress: lane(1, score.Pitch), Step: 2, Own: score.StepOwn{Notes: notes}}
	}
	both := func(e score.Edit) score.Edit {
		return score.All{Name: "both", Edits: []score.EditJSON{score.FormOf(one), score.FormOf(e)}}
	}
	for _, whole := range []func(score.Edit) score.Edit{func(e score.Edit) score.Edit { return e }, both} {
		require.True(t, score.Continues(whole(named(2)), whole(named(3))))
		require.False(t, score.Continues(whole(named(2)), whole(named(0))), "a named chord takes notes away")
		require.False(t, score.Continues(whole(named(0)), whole(named(2))))
		require.True(t, score.Continues(whole(notes(score.StepNote{}, score.StepNote{Degree: 2})), whole(notes(score.StepNote{}, score.StepNote{Degree: 3}))))
		require.False(t, score.Continues(whole(notes(score.StepNote{Degree: 1})), whole(notes(score.StepNote{}, score.StepNote{Degree: 3}))), "several notes take a named chord away")
	}
	for _, never := range []score.Edit{score.ChangeLuck{Number: 1}, score.AddTrack{Kind: score.Melodic}, score.Reshape{}, score.Replace{Project: *testkit.Buoy()}} {
		require.False(t, score.Continues(never, never))
	}
}
