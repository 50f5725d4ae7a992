package score_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

func names(p *score.Project) (names []string) {
	for _, track := range p.Tracks {
		names = append(names, track.Name)
	}
	return names
}

func TestTracksAreAddedCopiedAndMoved(t *testing.T) {
	p := apply(t, testkit.Buoy(), score.AddTrack{At: 1, Kind: score.Melodic})
	p = apply(t, p, score.AddTrack{At: 0, Kind: score.Kit})
	p = apply(t, p, score.AddTrack{At: 3, Copy: 1})
	require.Equal(t, []string{"Track 3", "Bell buoy", "Track 2", "Bell buoy copy"}, names(p))
	require.Equal(t, []int{10, 1, 2, 1}, []int{p.Tracks[0].Channel, p.Tracks[1].Channel, p.Tracks[2].Channel, p.Tracks[3].Channel})
	require.Equal(t, 4, p.Tracks[3].ID)

	p = apply(t, p, score.MoveTrack{Track: 1, To: 3})
	require.Equal(t, []string{"Track 3", "Track 2", "Bell buoy copy", "Bell buoy"}, names(p))
	p = apply(t, p, score.MoveTrack{Track: 1, To: 0})
	require.Equal(t, []string{"Bell buoy", "Track 3", "Track 2", "Bell buoy copy"}, names(p))
}

// A track can go although others follow it or ask about it, and undo brings all of that back.
func TestRemovingATrackThatOthersFollow(t *testing.T) {
	p := apply(t, testkit.Buoy(), score.AddTrack{At: 1, Kind: score.Melodic})
	p = apply(t, p, score.SetTrack{Track: 2, Source: &score.Source{Kind: score.NoteEnds, Track: 1, Odds: 100}})
	p = apply(t, p, score.SetDetail{
		PartAddress: score.PartAddress{Track: 2}, Step: 5, Detail: score.StepDetail{Condition: score.AfterTrack(1), Stretch: 2},
	})
	without, undo, err := score.Apply(p, score.RemoveTrack{Track: 1})
	require.NoError(t, err)
	require.Equal(t, score.OwnClock, without.Tracks[0].Source.Kind)
	require.Equal(t, score.StepDetail{Stretch: 2}, without.Tracks[0].Parts()[0].Details[5])
	require.Equal(t, p, apply(t, without, undo))
	_, _, err = score.Apply(without, score.RemoveTrack{Track: 2})
	require.EqualError(t, err, "the number of tracks is 0; it must be 1 to 32")
}

// What plays goes on playing, wherever its pattern comes to be.
func TestPatternsAreCopiedMovedAndRemoved(t *testing.T) {
	p := testkit.Buoy()
	state := func() (names string, playing string) {
		for _, pattern := range p.Tracks[0].Patterns {
			names += pattern.Name
		}
		return names, p.Tracks[0].Patterns[p.Tracks[0].Playing].Name
	}
	for _, c := range []struct {
		edit           score.Edit
		names, playing string
	}{
		{score.CopyPattern{Track: 1, Name: "B"}, "AB", "A"},
		{score.CopyPattern{Track: 1, Pattern: 1, Name: "C"}, "ABC", "A"},
		{score.SetTrack{Track: 1, Playing: ptr(1)}, "ABC", "B"},
		{score.MovePattern{Track: 1, Pattern: 0, To: 2}, "BCA", "B"},
		{score.MovePattern{Track: 1, Pattern: 2, To: 0}, "ABC", "B"},
		{score.MovePattern{Track: 1, Pattern: 1, To: 2}, "ACB", "B"},
		{score.RemovePattern{Track: 1, Pattern: 0}, "CB", "B"},
		{score.InsertPattern{Track: 1, At: 0, Pattern: score.Blank().Tracks[0].Patterns[0]}, "ACB", "B"},
		{score.RemovePattern{Track: 1, Pattern: 2}, "AC", "C"},
		{score.SetPattern{Track: 1, Pattern: 1, Name: ptr("Z")}, "AZ", "Z"},
	} {
		p = apply(t, p, c.edit)
		all, playing := state()
		require.Equal(t, []string{c.names, c.playing}, []string{all, playing}, "%T", c.edit)
	}
}

// A part keeps its id, from which its luck follows, and a new one takes an id that no pattern has.
func TestPartsAreAddedMovedAndRemoved(t *testing.T) {
	p := apply(t, testkit.Buoy(), score.AddTrack{At: 1, Kind: score.Kit})
	first := score.PartAddress{Track: 2}
	p = apply(t, p, score.AddPart{PartAddress: first, Note: 42})
	p = apply(t, p, score.AddPart{PartAddress: first, Copy: true})
	state := func() (names []string, ids []int) {
		for _, part := range p.Tracks[1].Parts() {
			names, ids = append(names, part.Name), append(ids, part.ID)
		}
		return names, ids
	}
	all, ids := state()
	require.Equal(t, []string{"Bass Drum 1", "Bass Drum 1 copy", "Closed Hi-Hat"}, all)
	require.Equal(t, []int{0, 2, 1}, ids)
	p = apply(t, p, score.MovePart{PartAddress: first, To: 2})
	p = apply(t, p, score.RemovePart{PartAddress: first})
	_, ids = state()
	require.Equal(t, []int{1, 0}, ids)
	_, _, err := score.Apply(p, score.AddPart{PartAddress: score.PartAddress{Track: 1}, Note: 60})
	require.ErrorContains(t, err, "parts is 2; it must be 1 to 1", "a melodic track has one part")
}

// Several edits are one step of undo, and none of them is made if one of them cannot be.
func TestSeveralEditsAsOne(t *testing.T) {
	p := testkit.Buoy()
	forms := func(edits ...string) (all score.All) {
		all.Name = "roll"
		for _, edit := range edits {
			var form score.EditJSON
			require.NoError(t, score.DecodeJSON([]byte(edit), &form))
			all.Edits = append(all.Edits, form)
		}
		return all
	}
	edit := forms(`{"setTrack":{"track":1,"mute":true}}`, `{"setProject":{"swing":600}}`)
	require.Equal(t, "roll", edit.Label())
	next, undo, err := score.Apply(p, edit)
	require.NoError(t, err)
	require.True(t, next.Tracks[0].Mute)
	require.Equal(t, 600, next.Swing)
	require.Equal(t, p, apply(t, next, undo))

	_, _, err = score.Apply(p, forms(`{"setProject":{"swing":600}}`, `{"setTrack":{"track":9,"mute":true}}`))
	require.EqualError(t, err, "edit 2 of 2: track 9: there is no such track")
	_, _, err = score.Apply(p, forms(`{"setProject":{}}`))
	require.ErrorIs(t, err, score.ErrEmptyEdit)
	_, _, err = score.Apply(p, forms(`{"setProject":{"swing":99}}`))
	require.ErrorContains(t, err, "swing is 9.9 %")
}

// Whatever is inserted, moved or removed, the pattern that plays goes on playing; where it is removed itself the one
// behind it plays, or the last.
func TestWhatPlaysGoesOnPlaying(t *testing.T) {
	p := testkit.Buoy()
	for _, name := range []string{"B", "C", "D"} {
		p = apply(t, p, score.CopyPattern{Track: 1, Pattern: len(p.Tracks[0].Patterns) - 1, Name: name})
	}
	playing := func(p *score.Project) string { return p.Tracks[0].Patterns[p.Tracks[0].Playing].Name }
	for at, name := range []string{"A", "B", "C", "D"} {
		p := apply(t, p, score.SetTrack{Track: 1, Playing: &at})
		for to := range 5 {
			inserted := apply(t, p, score.InsertPattern{Track: 1, At: to, Pattern: score.Blank().Tracks[0].Patterns[0]})
			require.Equal(t, at+map[bool]int{true: 1}[to <= at], inserted.Tracks[0].Playing, "%s plays, inserted at %d", name, to)
		}
		for from := range 4 {
			for to := range 4 {
				require.Equal(t, name, playing(apply(t, p, score.MovePattern{Track: 1, Pattern: from, To: to})), "%d to %d", from, to)
			}
			want := name
			if from == at {
				want = []string{"B", "C", "D", "C"}[at]
			}
			require.Equal(t, want, playing(apply(t, p, score.RemovePattern{Track: 1, Pattern: from})), "%s plays, %d removed", name, from)
		}
	}
}
