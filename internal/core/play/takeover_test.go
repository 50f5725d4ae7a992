package play_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// An edit while a project plays counts as if it had always been: whatever is edited, taken over or replayed, soon
// after it all notes and changes are those that the project has that always was so.
func TestATakeoverLeadsWhereTheProjectAlwaysWas(t *testing.T) {
	taken := 0
	rapid.Check(t, func(t *rapid.T) {
		before := testkit.Project(t)
		after, _, err := score.Apply(before, testkit.Edit(t, before))
		require.NoError(t, err)
		at := score.Tick(rapid.IntRange(0, int(stretch)).Draw(t, "at"))
		running := play.NewPerformerAt(before, 0, play.Past{})
		var past play.Past
		for range rapid.IntRange(0, 3).Draw(t, "inputs") {
			m := testkit.Input(t, 0)
			m.Tick, _ = running.Hear(m)
			past.Inputs = append(past.Inputs, m)
			running.Advance(at*score.Tick(len(past.Inputs))/4, nil)
		}
		running.Advance(at, nil)
		running.Changes(nil)

		ids, _ := play.Replayed(before, after)
		if len(ids) < len(after.Tracks) {
			taken++
		}
		state := running.Save()
		if len(ids) > 0 {
			past.Only = ids
			state = state.With(play.NewPerformerAt(after, at, past).Save(), ids)
			past.Only = nil
		}
		next, always := play.Resume(after, state, nil, nil), play.NewPerformerAt(after, at, past)
		soon := at + 4*score.TicksPerQuarter + 2*score.MaxDelay
		next.Advance(soon, nil)
		always.Advance(soon, nil)
		next.Changes(nil)
		always.Changes(nil)
		require.Equal(t, always.Advance(soon+stretch, nil), next.Advance(soon+stretch, nil), "replayed were %v", ids)
		require.Equal(t, always.Changes(nil), next.Changes(nil))
	})
	require.Greater(t, taken, 3)
}

// What is replayed is what hears of the change, and can stand elsewhere for it.
func TestWhatIsReplayed(t *testing.T) {
	p := testkit.Buoy()
	for _, add := range []score.Edit{score.AddTrack{At: 1, Copy: 1}, score.AddTrack{At: 2, Copy: 1}, score.AddTrack{At: 3, Copy: 1}} {
		p, _, _ = score.Apply(p, add)
	}
	p.Track(2).Source = score.Source{Kind: score.NoteStarts, Track: 1, Odds: 50}
	p.Track(3).Parts()[0].Lanes.Velocity.Order = score.Drift
	p.Track(3).Parts()[0].Lanes.Velocity.Linked = false
	require.NoError(t, p.Validate())
	four := score.PartAddress{Track: 4}
	three := score.PartAddress{Track: 3}
	for name, c := range map[string]struct {
		edit score.Edit
		want []int
	}{
		"the name of a project":                  {score.SetProject{Name: ptr("Ebb")}, nil},
		"a solo":                                 {score.SetTrack{Track: 4, Solo: ptr(true)}, nil},
		"a pitch of a track that can jump":       {score.SetSteps{LaneAddress: score.LaneAddress{PartAddress: four, Lane: score.Pitch}, Steps: []score.StepValue{{Step: 1, Value: 9}}}, []int{4}},
		"a pitch of a track that drifts":         {score.SetSteps{LaneAddress: score.LaneAddress{PartAddress: three, Lane: score.Pitch}, Steps: []score.StepValue{{Step: 1, Value: 9}}}, nil},
		"a gate of a track that drifts":          {score.SetSteps{LaneAddress: score.LaneAddress{PartAddress: three, Lane: score.Gate}, Steps: []score.StepValue{{Step: 1, Value: 2}}}, []int{3}},
		"the length of a loop":                   {score.SetLane{LaneAddress: score.LaneAddress{PartAddress: three, Lane: score.Pitch}, Length: ptr(5)}, []int{3}},
		"a gate of a track that another follows": {score.SetSteps{LaneAddress: score.LaneAddress{PartAddress: score.PartAddress{Track: 1}, Lane: score.Gate}, Steps: []score.StepValue{{Step: 1, Value: 2}}}, []int{1, 2}},
		"the luck":                               {score.ChangeLuck{Number: 5}, []int{1, 2, 3, 4}},
		"a pattern that does not play":           {score.CopyPattern{Track: 3, Name: "B"}, nil},
		"a new track, where the others go on":    {score.AddTrack{At: 0, Kind: score.Kit}, []int{5}},
		"a track's own luck":                     {score.SetTrack{Track: 3, Luck: ptr(7)}, []int{3}},
		"the place of a track in the list":       {score.MoveTrack{Track: 4, To: 0}, nil},
		"a fill that no part has":                {score.SetProject{Filling: ptr(true)}, nil},
		"a channel":                              {score.SetTrack{Track: 3, Channel: ptr(9)}, nil},
	} {
		after, _, err := score.Apply(p, c.edit)
		require.NoError(t, err)
		ids, quick := play.Replayed(p, after)
		require.Equal(t, c.want, ids, name)
		require.Equal(t, !slices.ContainsFunc(ids, func(id int) bool { return id < 4 }), quick, name)
	}
}

func ptr[T any](value T) *T { return &value }
