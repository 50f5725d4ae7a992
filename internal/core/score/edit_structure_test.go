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

// state returns the names of the patterns of a project's first track, and that of the one that plays.
func state(p *score.Project) (names string, playing string) {
	for _, pattern := range p.Tracks[0].Patterns {
		names += pattern.Name
	}
	return names, p.Tracks[0].Pattern(p.Tracks[0].Playing).Name
}

// Patterns are named by ids, which stay wherever they come to stand; a new one gets the lowest that is free.
func TestPatternsAreCopiedMovedAndRemoved(t *testing.T) {
	p := testkit.Buoy()
	for _, c := range []struct {
		edit           score.Edit
		names, playing string
	}{
		{score.CopyPattern{Track: 1, Name: "B"}, "AB", "A"},
		{score.CopyPattern{Track: 1, Pattern: 1, Name: "C"}, "ABC", "A"},
		{score.SetTrack{Track: 1, Playing: ptr(1)}, "ABC", "B"},
		{score.MovePattern{Track: 1, Pattern: 0, To: 2}, "BCA", "B"},
		{score.MovePattern{Track: 1, Pattern: 0, To: 0}, "ABC", "B"},
		{score.MovePattern{Track: 1, Pattern: 1, To: 2}, "ACB", "B"},
		{score.RemovePattern{Track: 1, Pattern: 0}, "CB", "B"},
		{score.InsertPattern{Track: 1, At: 0, Pattern: score.Blank().Tracks[0].Patterns[0]}, "ACB", "B"},
		{score.InsertPattern{Track: 1, At: 0, Pattern: score.Blank().Tracks[0].Patterns[0]}, "AACB", "B"},
		{score.RemovePattern{Track: 1, Pattern: 3}, "ACB", "B"},
		{score.RemovePattern{Track: 1, Pattern: 1}, "AC", "C"},
		{score.SetPattern{Track: 1, Pattern: 2, Name: ptr("Z")}, "AZ", "Z"},
		{score.CopyPattern{Track: 1, Pattern: 0, Name: "B", Plays: true}, "ABZ", "B"},
	} {
		p = apply(t, p, c.edit)
		all, playing := state(p)
		require.Equal(t, []string{c.names, c.playing}, []string{all, playing}, "%+v", c.edit)
	}
	_, _, err := score.Apply(p, score.SetTrack{Track: 1, Playing: ptr(9)})
	require.EqualError(t, err, "tracks[0].playing is 9; it must be the id of a pattern of the track")
}

// A part keeps its id, from which its luck follows, and a new one takes an id that no pattern has.
func TestPartsAreAddedMovedAndRemoved(t *testing.T) {
	p := apply(t, testkit.Buoy(), score.AddTrack{At: 1, Kind: score.Kit})
	first := score.PartAddress{Track: 2}
	p = apply(t, p, score.AddPart{PartAddress: first, Note: 42})
	p = apply(t, p, score.AddPart{PartAddress: first, Copy: true})
	parts := func() (names []string, ids []int) {
		for _, part := range p.Tracks[1].Parts() {
			names, ids = append(names, part.Name), append(ids, part.ID)
		}
		return names, ids
	}
	all, ids := parts()
	require.Equal(t, []string{"Bass Drum 1", "Bass Drum 1 copy", "Closed Hi-Hat"}, all)
	require.Equal(t, []int{0, 2, 1}, ids)
	p = apply(t, p, score.MovePart{PartAddress: first, To: 2})
	p = apply(t, p, score.RemovePart{PartAddress: first})
	_, ids = parts()
	require.Equal(t, []int{2, 1}, ids)
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

// Where the pattern that plays is removed the one behind it plays, or the last.
func TestWhatPlaysGoesOnPlaying(t *testing.T) {
	p := testkit.Buoy()
	for id, name := range []string{"B", "C", "D"} {
		p = apply(t, p, score.CopyPattern{Track: 1, Pattern: id, Name: name})
	}
	for id, name := range []string{"A", "B", "C", "D"} {
		p := apply(t, p, score.SetTrack{Track: 1, Playing: &id})
		for from := range 4 {
			want := name
			if from == id {
				want = []string{"B", "C", "D", "C"}[id]
			}
			_, playing := state(apply(t, p, score.RemovePattern{Track: 1, Pattern: from}))
			require.Equal(t, want, playing, "%s plays, %d removed", name, from)
		}
	}
}
