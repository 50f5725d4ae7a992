package play_test

import (
	"maps"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// A tie goes on over as many steps as a loop has, also where the loop is at its longest, and ends at the step that is on
// again.
func TestTiesOverALongLoop(t *testing.T) {
	for _, length := range []int{2, 33, 64} {
		p := testkit.Plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
			gate := part.Lanes.Gate
			gate.Length = length
			for step := range gate.Steps {
				gate.Steps[step], part.Lanes.Length.Steps[step] = score.Tie, score.WholeStep
			}
			gate.Steps[0] = score.On
		})
		notes := play.Render(p, 0, score.Tick(length+1)*sixteenth, nil)
		require.Len(t, notes, 2)
		require.Equal(t, score.Tick(length)*sixteenth, notes[0].End, "a loop of %d", length)
		require.Equal(t, score.Tick(length)*sixteenth, notes[1].Start)
	}
}

// A length of several steps is that of a ratchet's last strike; those before it end where the next begins.
func TestALongLengthOfARatchet(t *testing.T) {
	p := testkit.Plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
		part.Lanes.Length.Steps[0] = score.WholeStep + 2 // three steps
		testkit.SetLane(&part.Lanes.Ratchet, score.Ratchet, func(l *score.Lane) { l.Steps[0] = 4 })
	})
	var notes [][2]score.Tick
	for _, n := range play.Render(p, 0, 2*sixteenth, nil) {
		notes = append(notes, [2]score.Tick{n.Start * 100 / sixteenth, n.End * 100 / sixteenth})
	}
	require.Equal(t, [][2]score.Tick{{0, 25}, {25, 50}, {50, 75}, {75, 375}}, notes)
}

// Each hit of a ratchet has odds of its own, in each length of a stretched step too: the lengths do not repeat each other.
func TestEachLengthDrawsItsOwnHits(t *testing.T) {
	p := testkit.Buoy()
	part := &p.Tracks[0].Parts()[0]
	id := part.ID
	*part = score.NewPart("Hatch")
	part.ID = id
	part.Ratchet.Odds = 50
	part.Lanes.Gate.Length = 1
	part.Lanes.Gate.Steps[0] = score.On
	part.Details = map[int]score.StepDetail{0: {Stretch: 2, Lengths: "11"}}
	ratchet := part.Lanes.Gate.Clone()
	ratchet.Linked, ratchet.Steps = true, slices.Repeat([]int{4}, score.MaxSteps)
	part.Lanes.Set(score.Ratchet, ratchet)
	require.NoError(t, p.Validate())
	length := score.TicksPerQuarter / 4
	hits := map[score.Tick][2]map[score.Tick]bool{}
	for _, n := range play.Render(p, 0, 16*p.Meter.Bar(), nil) {
		step, of := n.Start/(2*length), n.Start/length%2
		if _, known := hits[step]; !known {
			hits[step] = [2]map[score.Tick]bool{{}, {}}
		}
		hits[step][of][n.Start%length] = true
	}
	require.Len(t, hits, 16*8)
	different := 0
	for _, lengths := range hits {
		if !maps.Equal(lengths[0], lengths[1]) {
			different++
		}
	}
	require.Greater(t, different, 16*8/2, "three hits of each are by chance, so 7 of 8 differ")
}

// What is tied to a stretched step goes on from its last hit; a hit before ends within its own length.
func TestOnlyTheLastHitIsTiedOn(t *testing.T) {
	p := testkit.Buoy()
	part := &p.Tracks[0].Parts()[0]
	id := part.ID
	*part = score.NewPart("Hatch")
	part.ID = id
	part.Lanes.Gate.Length = 4
	part.Lanes.Gate.Steps[0], part.Lanes.Gate.Steps[1] = score.On, score.Tie
	part.Details = map[int]score.StepDetail{0: {Stretch: 2, Lengths: "11"}}
	require.NoError(t, p.Validate())
	length := score.TicksPerQuarter / 4
	notes := play.Render(p, 0, p.Meter.Bar()/4, nil)
	require.Len(t, notes, 2)
	require.Equal(t, []score.Tick{0, length}, []score.Tick{notes[0].Start, notes[1].Start})
	require.Less(t, notes[0].End, length)
	require.Greater(t, notes[1].End, 2*length)
	require.LessOrEqual(t, notes[1].End, 3*length)
}
