package score_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

// Random lines draw from what a track strikes, at their own rates and as often as they say (four deviations of the binomial), an octave apart; they are one step of undo.
func TestRandomLines(t *testing.T) {
	before := testkit.Buoy()
	after, undo, err := score.Apply(before, score.AddLines{Track: 1, Lines: []score.RandomLine{{Rate: "1/16", Odds: 30}, {Rate: "1/8", Odds: 100, Octave: 1}}})
	require.NoError(t, err)
	require.Len(t, after.Tracks, 3)
	require.Equal(t, "Line 1/16 30 %", after.Tracks[1].Name)
	counts, struck := map[uint32]int{}, map[int]bool{}
	for _, n := range play.Render(after, 0, 64*after.Meter.Bar(), nil) {
		if counts[n.Track]++; n.Track == 1 {
			struck[int(n.Key)] = true
		} else {
			require.True(t, struck[int(n.Key)-12*int(n.Track-2)], "%d", n.Key)
		}
	}
	require.InDelta(t, 64*16*0.3, counts[2], 59)
	require.InDelta(t, 64*8, counts[3], 8, "from the first note of the track on")
	again, _, err := score.Apply(after, undo)
	require.NoError(t, err)
	require.Equal(t, before, again)
	for wants, edit := range map[string]score.AddLines{
		"track 9":       {Track: 9, Lines: []score.RandomLine{{Rate: "1/8"}}},
		"lines[0].rate": {Track: 1, Lines: []score.RandomLine{{Rate: "1/9"}}},
		"lines[0].odds": {Track: 1, Lines: []score.RandomLine{{Rate: "1/8", Odds: 101}}},
	} {
		_, _, err := score.Apply(before, edit)
		require.ErrorContains(t, err, wants)
	}
}

// In a tuning of 24 notes a line that goes up to the highest keys, or down to the lowest, has room for all of them.
func TestRandomLinesHaveRoomForTheirTuning(t *testing.T) {
	before := testkit.Buoy()
	tuning := &theory.Tuning{Name: "quarters"}
	for n := range 24 {
		tuning.Pitches = append(tuning.Pitches, fmt.Sprintf("%d.", 50*(n+1)))
	}
	before.Key = theory.Key{Scale: theory.Chromatic, Tuning: tuning}
	before.Tracks[0].Register = theory.Register{Lowest: 40, Highest: 90}
	for octave, want := range map[int]theory.Register{4: {Lowest: 88, Highest: 127}, -4: {Lowest: 0, Highest: 42}, 0: {Lowest: 40, Highest: 90}} {
		after, _, err := score.Apply(before, score.AddLines{Track: 1, Lines: []score.RandomLine{{Rate: "1/16", Odds: 30, Octave: octave}}})
		require.NoError(t, err)
		require.Equal(t, want, after.Tracks[1].Register)
	}
	before.Tracks[0].Register = theory.Register{Lowest: 100, Highest: 127}
	after, _, err := score.Apply(before, score.AddLines{Track: 1, Lines: []score.RandomLine{{Rate: "1/16", Odds: 30, Octave: 1}}})
	require.NoError(t, err)
	require.Equal(t, theory.Register{Lowest: 104, Highest: 127}, after.Tracks[1].Register)
}
