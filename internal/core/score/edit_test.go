package score_test

import (
	"fmt"
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
		require.NotEmpty(t, edit.Label())
		require.NotEmpty(t, score.Describe(before, after, edit))

		undone, redo, err := score.Apply(after, throughJSON(t, undo))
		require.NoError(t, err)
		require.Equal(t, before, undone)

		redone, _, err := score.Apply(undone, throughJSON(t, redo))
		require.NoError(t, err)
		require.Equal(t, after, redone)
	})
}

// What an edit makes of a project is valid as a whole, though only the tracks that it changes are looked at; what it may not do is refused wherever it is. Two tracks that
// follow each other, and a track that names one which is not there, are refused at the one that is edited.
func TestEditsLeaveValidProjects(t *testing.T) {
	made, refused := 0, 0
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		track := rapid.SampledFrom(p.Tracks).Draw(t, "track")
		other := rapid.IntRange(1, 9).Draw(t, "other track")
		at := score.PartAddress{Track: track.ID, Pattern: track.Playing, Part: track.Parts()[0].ID}
		edit := rapid.SampledFrom([]score.Edit{
			testkit.Edit(t, p),
			score.SetTrack{Track: track.ID, Source: &score.Source{Kind: score.NoteStarts, Track: other, Odds: 100}},
			score.SetTrack{Track: track.ID, Pitches: &score.PitchSource{Kind: score.TrackPitches, Track: other, Highest: 127}},
			score.SetTrack{Track: track.ID, Playing: given(other)},
			score.SetDetail{PartAddress: at, Step: 2, Detail: score.StepDetail{Condition: score.Condition(fmt.Sprintf("track %d sounded", other))}},
			score.SetLane{LaneAddress: score.LaneAddress{PartAddress: at, Lane: score.Gate}, First: given(60), Length: given(other)},
			score.RemoveTrack{Track: other},
		}).Draw(t, "edit")
		after, _, err := score.Apply(p, edit)
		if err != nil {
			refused++
			return
		}
		made++
		require.NoError(t, after.Validate())
	})
	require.Greater(t, min(made, refused), 10)
}

func throughJSON(t *rapid.T, edit score.Edit) score.Edit {
	data, err := score.EncodeEdit(edit)
	require.NoError(t, err)
	decoded, err := score.DecodeEdit(data)
	require.NoError(t, err)
	return decoded
}

func TestLuckGoesBackThroughAllFormerOnes(t *testing.T) {
	p := testkit.Buoy()
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
	p := testkit.Buoy()
	for i := range score.MaxFormerLuck + 5 {
		p = apply(t, p, score.ChangeLuck{Number: i})
	}
	require.Len(t, p.Luck.Former, score.MaxFormerLuck)
}

// at names a lane of the first part of track 1.
func at(lane score.LaneName) score.LaneAddress {
	return score.LaneAddress{PartAddress: score.PartAddress{Track: 1}, Lane: lane}
}

func apply(t *testing.T, p *score.Project, edit score.Edit) *score.Project {
	t.Helper()
	next, _, err := score.Apply(p, edit)
	require.NoError(t, err)
	return next
}

func TestEditsOfNothingAreRefused(t *testing.T) {
	for _, edit := range []score.Edit{score.SetProject{}, score.SetTrack{Track: 1}, score.SetPart{PartAddress: score.PartAddress{Track: 1}}} {
		_, _, err := score.Apply(testkit.Buoy(), edit)
		require.ErrorIs(t, err, score.ErrEmptyEdit)
	}
}

func TestTracksThatFollowEachOtherInALoopAreRefused(t *testing.T) {
	p := testkit.Buoy()
	second := p.Tracks[0].Clone()
	second.ID, second.Name, second.Source = 2, "Tide bass", score.Source{Kind: score.NoteEnds, Track: 1}
	p.Tracks = append(p.Tracks, second)
	require.NoError(t, p.Validate())
	_, _, err := score.Apply(p, score.SetTrack{Track: 1, Source: &score.Source{Kind: score.NoteStarts, Track: 2}})
	require.EqualError(t, err, "tracks[0].source is a loop (Bell buoy, Tide bass, Bell buoy); it must be a chain that ends at a track with a clock of its own")
	_, _, err = score.Apply(p, score.SetTrack{Track: 1, Source: &score.Source{Kind: score.NoteStarts, Track: 7}})
	require.ErrorContains(t, err, "tracks[0].source.track is 7; it must be the id of a track that the project has")
}

func TestEditsOutOfRangeAreRefusedByName(t *testing.T) {
	for _, c := range []struct {
		edit score.Edit
		want string
	}{
		{score.SetProject{Tempo: ptr(score.Tempo(9_999))}, "tempo is 9.999 bpm; it must be 10 to 400 bpm"},
		{score.SetProject{Name: ptr(" ")}, `name is " "; it must be 1 to 60 printable characters`},
		{score.SetProject{Meter: &score.Meter{Beats: 4, Unit: 3}}, "meter.unit is \"3\"; it must be one of 2, 4, 8, 16"},
		{score.SetProject{Key: &theory.Key{Root: 12, Scale: "major"}}, "key.root is 12; it must be 0 to 11"},
		{score.SetProject{Key: &theory.Key{Scale: "foggy"}}, "key.scale is \"foggy\"; it must be one of major, minor,"},
		{score.ChangeLuck{Number: -1}, "luck.number is -1; it must be 0 to 999999"},
		{score.SetTrack{Track: 1, Channel: ptr(17)}, "tracks[0].channel is 17; it must be 1 to 16"},
		{score.SetTrack{Track: 1, Register: &theory.Register{Lowest: 60, Highest: 70}}, "tracks[0].register.highest is 70; it must be 71 to 127"},
		{score.SetTrack{Track: 2, Mute: ptr(true)}, "track 2: there is no such track"},
		{score.SetLane{LaneAddress: at("fog"), Length: ptr(3)}, "lane is \"fog\"; it must be one of gate, pitch"},
		{score.SetLane{LaneAddress: at(score.Gate), Linked: ptr(true)}, "tracks[0].patterns[0].parts[0].lanes.gate.linked is true; it must be false"},
		{score.SetLane{LaneAddress: at(score.Pitch), Length: ptr(65)}, "tracks[0].patterns[0].parts[0].lanes.pitch.length is 65; it must be 1 to 64"},
		{score.SetLane{LaneAddress: at(score.Pitch), Rate: ptr(score.NoteValue("1/5"))}, "tracks[0].patterns[0].parts[0].lanes.pitch.rate is \"1/5\""},
		{score.SetLane{LaneAddress: at(score.Pitch), Order: ptr(score.Order("up"))}, "it must be one of forward, backward"},
		{score.SetSteps{LaneAddress: at(score.Pitch), Steps: []score.StepValue{{64, 0}}}, "steps[0].step is 64; it must be 0 to 63"},
		{score.SetSteps{LaneAddress: at(score.Velocity), Steps: []score.StepValue{{3, 0}}}, "tracks[0].patterns[0].parts[0].lanes.velocity.steps[3] is 0; it must be 1 to 127"},
		{score.SetSteps{LaneAddress: at(score.Pitch)}, "the number of steps is 0; it must be 1 to 64"},
		{score.Replace{}, "name is \"\""},
		{score.SetLane{LaneAddress: at(score.Gate), Moves: ptr(score.ByHit)}, "gate.moves is \"hit\"; it must be one of clock"},
		{score.SetLane{LaneAddress: at(score.Pitch), Shape: ptr("zigzag")}, "shape is \"zigzag\"; it must be one of columns, rows to and fro"},
		{score.SetLane{LaneAddress: at(score.Pitch), First: ptr(60)}, "pitch.first is 60; it must be 0 to 53"},
		{score.SetLane{LaneAddress: at(score.Pitch), Drift: &score.DriftOdds{Forward: 60, Back: 50}}, "drift.back is 50; it must be 0 to 40"},
		{score.SetLane{LaneAddress: at(score.Pitch), Spread: &score.Spread{Highest: -1, Grain: 1}}, "spread.highest is -1; it must be 0 to 200"},
		{score.SetDetail{PartAddress: score.PartAddress{Track: 1}, Step: 64}, "step is 64; it must be 0 to 63"},
		{score.SetDetail{PartAddress: score.PartAddress{Track: 1}, Detail: score.StepDetail{Condition: "pass 5 of 4"}}, "condition is \"pass 5 of 4\"; it must be a sentence of up to 3 terms"},
		{score.SetDetail{PartAddress: score.PartAddress{Track: 1}, Detail: score.StepDetail{Condition: "track 9 sounded"}}, "about a track that the project has"},
		{score.SetPart{PartAddress: score.PartAddress{Track: 1, Part: 1}, Fill: ptr(1)}, "part 1 of track 1: there is no such part"},
		{score.SetPart{PartAddress: score.PartAddress{Track: 1, Pattern: 1}, Fill: ptr(1)}, "pattern 1 of track 1: there is no such part"},
		{score.SetProject{Key: &theory.Key{Scale: theory.Custom, Notes: []int{1, 4}}}, "key.notes is [1 4]; it must be begun by the root"},
		{score.SetProject{Key: &theory.Key{Scale: "major", Allowed: []int{0, 7}}}, "key.allowed[1] is 7; it must be 0 to 6"},
		{score.SetProject{Key: &theory.Key{Scale: "major", Allowed: []int{4, 4}}}, "key.allowed[1] is 4; it must be above 4"},
	} {
		next, inverse, err := score.Apply(testkit.Buoy(), c.edit)
		require.ErrorContains(t, err, c.want)
		require.Nil(t, next)
		require.Nil(t, inverse)
	}
}

func ptr[T any](v T) *T { return &v }
