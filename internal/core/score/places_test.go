package score_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// Edits of before name patterns and parts by where they stood in the project that they were made for.
func TestEditsOfBeforeNameWhatStoodThere(t *testing.T) {
	p := apply(t, testkit.Buoy(), score.AddTrack{At: 1, Kind: score.Kit})
	kit := score.PartAddress{Track: 2}
	p = apply(t, p, score.AddPart{PartAddress: kit, Note: 42})
	p = apply(t, p, score.MovePart{PartAddress: kit, To: 1}) // now the ids are 1, 0
	p = apply(t, p, score.CopyPattern{Track: 2, Name: "B"})
	p = apply(t, p, score.MovePattern{Track: 2, Pattern: 1, To: 0}) // and those of patterns too
	for _, c := range []struct{ before, now string }{
		{`{"setPart":{"track":2,"pattern":0,"part":0,"note":50}}`, `{"setPart":{"track":2,"pattern":1,"part":1,"note":50}}`},
		{`{"setTrack":{"track":2,"playing":1}}`, `{"setTrack":{"track":2,"playing":0}}`},
		{`{"setTrack":{"track":9,"playing":1}}`, `{"setTrack":{"track":9,"playing":1}}`},
		{`{"removePattern":{"track":2,"pattern":1}}`, `{"removePattern":{"track":2,"pattern":0}}`},
		{`{"all":{"name":"two","edits":[{"removePart":{"track":2,"pattern":0,"part":0}},{"removePattern":{"track":2,"pattern":1}},{"setPart":{"track":2,"pattern":0,"part":0,"note":50}}]}}`,
			`{"all":{"name":"two","edits":[{"removePart":{"track":2,"pattern":1,"part":1}},{"removePattern":{"track":2,"pattern":0}},{"setPart":{"track":2,"pattern":1,"part":0,"note":50}}]}}`},
		{`{"setProject":{"swing":600}}`, `{"setProject":{"swing":600}}`},
	} {
		before, err := score.DecodeOldEdit([]byte(c.before))
		require.NoError(t, err)
		now, err := score.FromPlaces(p, before)
		require.NoError(t, err)
		data, err := score.EncodeEdit(now)
		require.NoError(t, err)
		require.JSONEq(t, c.now, string(data))
	}
	for _, gone := range []string{`{"setPart":{"track":2,"pattern":5,"part":0,"note":50}}`, `{"setPart":{"track":2,"pattern":0,"part":2,"note":50}}`} {
		edit, err := score.DecodeOldEdit([]byte(gone))
		require.NoError(t, err)
		_, err = score.FromPlaces(p, edit)
		require.ErrorIs(t, err, score.ErrUnknownPart)
	}
	edit, err := score.DecodeOldEdit([]byte(`{"all":{"name":"one","edits":[{"insertPart":{"track":2,"pattern":0,"part":1,"value":{}}}]}}`))
	require.NoError(t, err)
	require.Equal(t, 1, edit.(score.All).Edits[0].InsertPart.At)
}

// Patterns of a file of before, which have no ids, get their places.
func TestPatternsOfBeforeGetIDs(t *testing.T) {
	p := apply(t, testkit.Buoy(), score.CopyPattern{Track: 1, Name: "B", Plays: true})
	p.Tracks[0].Patterns[1].ID = 0 // as a file of before is read
	data, err := score.Encode(p)
	require.NoError(t, err)
	read, err := score.Decode(data)
	require.NoError(t, err)
	require.Equal(t, "B", read.Tracks[0].Pattern(1).Name)
	require.Equal(t, 1, read.Tracks[0].Playing)
}
