package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// A tie goes on over as many steps as a loop has, also where the loop is at its longest, and ends at the step that is on
// again.
func TestTiesOverALongLoop(t *testing.T) {
	for _, length := range []int{2, 33, 64} {
		p := plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
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
	p := plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
		part.Lanes.Length.Steps[0] = score.WholeStep + 2 // three steps
		set(&part.Lanes.Ratchet, score.Ratchet, func(l *score.Lane) { l.Steps[0] = 4 })
	})
	var notes [][2]score.Tick
	for _, n := range play.Render(p, 0, 2*sixteenth, nil) {
		notes = append(notes, [2]score.Tick{n.Start * 100 / sixteenth, n.End * 100 / sixteenth})
	}
	require.Equal(t, [][2]score.Tick{{0, 25}, {25, 50}, {50, 75}, {75, 375}}, notes)
}
