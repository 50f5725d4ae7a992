package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// A realignment cuts what goes beyond it: a stretched step, a ratchet and a tie, unless the realigned loop ties on.
// The bar has 16 steps, and the loop is realigned with each.
func TestARealignmentCutsWhatCrossesIt(t *testing.T) {
	const bar = 16 * sixteenth
	for _, c := range []struct {
		name   string
		change func(part *score.Part)
		starts []score.Tick // of the first two bars, in tenths of a step
		last   score.Tick   // when the last note of the first bar ends, likewise
	}{
		{"a tie that the loop ties on", func(part *score.Part) {
			part.Lanes.Gate.Steps[0], part.Lanes.Gate.Steps[15] = score.Tie, score.On
		}, []score.Tick{150, 310}, 170},
		{"a tie that the loop does not tie on", func(part *score.Part) {
			part.Lanes.Gate.Steps[0], part.Lanes.Gate.Steps[14], part.Lanes.Gate.Steps[15] = score.On, score.On, score.Tie
		}, []score.Tick{0, 140, 160, 300}, 160},
		{"a stretched step", func(part *score.Part) {
			part.Lanes.Gate.Steps[14] = score.On
			part.Details = map[int]score.StepDetail{14: {Stretch: 4, Lengths: "1222"}}
		}, []score.Tick{140, 300}, 160},
		{"each length of a stretched step", func(part *score.Part) {
			part.Lanes.Gate.Steps[14] = score.On
			part.Details = map[int]score.StepDetail{14: {Stretch: 4, Lengths: "1111"}}
		}, []score.Tick{140, 150, 300, 310}, 160},
		{"a length that is struck before and one that would be after", func(part *score.Part) {
			part.Lanes.Gate.Steps[13] = score.On
			part.Details = map[int]score.StepDetail{13: {Stretch: 8, Lengths: "01000100"}}
		}, []score.Tick{140, 300}, 150},
		{"a step that would be struck after it only", func(part *score.Part) {
			part.Lanes.Gate.Steps[0], part.Lanes.Gate.Steps[14] = score.On, score.On
			part.Details = map[int]score.StepDetail{14: {Stretch: 8, Lengths: "00001222"}}
		}, []score.Tick{0, 160}, 10},
		{"a ratchet of a stretched step", func(part *score.Part) {
			part.Lanes.Gate.Steps[14] = score.On
			part.Details = map[int]score.StepDetail{14: {Stretch: 4, Lengths: "1222"}}
			testkit.SetLane(&part.Lanes.Ratchet, score.Ratchet, func(l *score.Lane) { l.Steps[14] = 8 })
		}, []score.Tick{140, 145, 150, 155, 300, 305, 310, 315}, 160},
	} {
		t.Run(c.name, func(t *testing.T) {
			p := testkit.Plain(func(_ *score.Project, track *score.Track, part *score.Part) {
				track.Realign, part.Lanes.Gate.Length = 1, 16
				clear(part.Lanes.Gate.Steps)
				for step := range part.Lanes.Length.Steps {
					part.Lanes.Length.Steps[step] = score.WholeStep
				}
				c.change(part)
			})
			var starts []score.Tick
			last := score.Tick(0)
			for _, n := range play.Render(p, 0, 2*bar, nil) {
				starts = append(starts, n.Start*10/sixteenth)
				if n.Start < bar {
					last = n.End * 10 / sixteenth
				}
			}
			require.Equal(t, c.starts, starts)
			require.Equal(t, c.last, last)
		})
	}
}

// A loop of exactly a bar that is realigned with each bar plays as one that is not.
func TestRealigningALoopOfABarChangesNothing(t *testing.T) {
	p := testkit.Plain(func(_ *score.Project, track *score.Track, part *score.Part) {
		part.Lanes.Gate.Length = 16
		copy(part.Lanes.Gate.Steps, []int{2, 0, 1, 2, 2, 0, 1, 0, 0, 1, 2, 0, 0, 1, 2, 2})
		testkit.SetLane(&part.Lanes.Slide, score.Slide, func(l *score.Lane) { l.Steps[13] = 1 })
	})
	free := play.Render(p, 0, 64*sixteenth, nil)
	p.Tracks[0].Realign = 1
	require.Equal(t, free, play.Render(p, 0, 64*sixteenth, nil))
}
