package score_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

func TestDemoAndBlankAreValid(t *testing.T) {
	require.NoError(t, score.Demo().Validate())
	require.NoError(t, score.Blank().Validate())
}

func TestTheDemosLoopsDoNotDivideEachOther(t *testing.T) {
	lanes := score.Demo().Tracks[0].Parts()[0].Lanes
	for _, a := range score.LaneSpecs() {
		for _, b := range score.LaneSpecs() {
			if a.Always && b.Always && a.Name != b.Name {
				require.NotZero(t, lanes.Loop(a.Name).Length%lanes.Loop(b.Name).Length, "%s and %s", a.Name, b.Name)
			}
		}
	}
}

// A 16th is a quarter of a quarter, a dot adds half, and three triplet notes fill two plain ones.
func TestNoteValues(t *testing.T) {
	require.Len(t, score.NoteValues(), 21)
	for _, v := range score.NoteValues() {
		require.Positive(t, v.Ticks(), v)
	}
	require.Equal(t, score.TicksPerQuarter/4, score.NoteValue("1/16").Ticks())
	require.Equal(t, score.TicksPerQuarter*3/2, score.NoteValue("1/4.").Ticks())
	require.Equal(t, score.NoteValue("1/8").Ticks()*2, score.NoteValue("1/8t").Ticks()*3)
	require.Zero(t, score.NoteValue("1/5").Ticks())
	require.Equal(t, score.TicksPerQuarter*7/2, score.Meter{Beats: 7, Unit: 8}.Bar())
}
