package play_test

import (
	"cmp"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// Where tracks stand in the list changes nothing that is heard, whatever they hear of each other.
func TestTheListOfTracksIsNoOrder(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		moved := p.Clone()
		moved.Tracks = rapid.Permutation(moved.Tracks).Draw(t, "tracks")
		one, other := play.NewPerformer(p), play.NewPerformer(moved)
		require.Equal(t, one.Advance(stretch, nil), other.Advance(stretch, nil))
		require.Equal(t, one.Changes(nil), other.Changes(nil))
	})
}

// about returns a project of two tracks, whose first has a condition about the other at its only step.
func about(first, second int, mutual bool) *score.Project {
	p := testkit.Plain(func(_ *score.Project, track *score.Track, part *score.Part) {
		track.ID = first
		part.Lanes.Gate.Length = 1
		part.Details = map[int]score.StepDetail{0: {Condition: score.AfterTrack(second)}}
	})
	other := p.Tracks[0].Clone()
	other.ID, other.Channel = second, 2
	other.Patterns[0].Parts[0].Details = map[int]score.StepDetail{0: {Condition: score.EveryPass(1, 3)}}
	if mutual {
		other.Patterns[0].Parts[0].Details = map[int]score.StepDetail{0: {Condition: score.AfterTrack(first)}}
	}
	p.Tracks = append(p.Tracks, other)
	return p
}

// A condition about another track hears what that does at the same tick, whichever has the lower id; of tracks that
// hear each other both hear what was before the tick.
func TestAConditionHearsTheSameTick(t *testing.T) {
	for _, ids := range [][2]int{{1, 2}, {2, 1}} {
		starts := map[uint32][]score.Tick{}
		notes := play.Render(about(ids[0], ids[1], false), 0, 9*sixteenth, nil)
		for _, n := range notes {
			starts[n.Track] = append(starts[n.Track], n.Start/sixteenth)
		}
		require.Equal(t, []score.Tick{0, 3, 6}, starts[uint32(ids[1])])
		require.Equal(t, []score.Tick{0, 3, 6}, starts[uint32(ids[0])])
		require.Empty(t, play.Render(about(ids[0], ids[1], true), 0, 9*sixteenth, nil), "nobody begins")
	}
	// The one sounds at the beginning and never else by itself; what sounded goes to and fro between the two.
	p := about(1, 2, true)
	p.Tracks[0].Patterns[0].Parts[0].Lanes.Gate.Length = 2
	p.Tracks[0].Patterns[0].Parts[0].Lanes.Gate.Steps[1] = score.On
	p.Tracks[0].Patterns[0].Parts[0].Details = map[int]score.StepDetail{0: {Condition: "pass 1 to 1"}, 1: {Condition: score.AfterTrack(2)}}
	var starts []score.Tick
	notes := play.Render(p, 0, 6*sixteenth, nil)
	slices.SortFunc(notes, func(a, b play.Note) int { return cmp.Or(cmp.Compare(a.Track, b.Track), cmp.Compare(a.Start, b.Start)) })
	for _, n := range notes {
		starts = append(starts, score.Tick(n.Track)*100+n.Start/sixteenth)
	}
	require.Equal(t, []score.Tick{100, 201}, starts, "the second hears the first a tick later, and the first by then the second of before")
}
