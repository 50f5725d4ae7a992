package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// Which of its first 16 passes a step sounds on, by a condition. Beside it a second track plays one chord of three notes
// in bar 2 and one note in bar 3; a bar is four passes.
func TestWhenConditionsHold(t *testing.T) {
	for _, c := range []struct {
		condition score.Condition
		filling   bool
		want      []int // passes, from 1
	}{
		{"pass 3 of 4", false, []int{3, 7, 11, 15}},
		{"pass 1 to 2 of 4", false, []int{1, 2, 5, 6, 9, 10, 13, 14}},
		{"pass 2 to 5", false, []int{2, 3, 4, 5}},
		{"pass from 14", false, []int{14, 15, 16}},
		{"not pass from 3", false, []int{1, 2}},
		{"not pass from 3", true, []int{1, 2}},
		{"filling", false, nil},
		{"not filling and pass 1 of 8", false, []int{1, 9}},
		{"filling and pass 1 of 8", true, []int{1, 9}},
		{"pass 1 of 8 or pass 2 of 8 or filling", false, []int{1, 2, 9, 10}},
		{"pass 1 to 6 and not pass 2 of 2 and not pass 5 of 8", false, []int{1, 3}},
		{"track 2 over 2 notes", false, []int{9, 10, 11, 12}},
		{"track 2 over 0 notes", false, []int{9, 10, 11, 12, 13, 14, 15, 16}},
		{"track 2 under 1 notes", false, []int{1, 2, 3, 4, 5, 6, 7, 8}},
		{"track 1 under 4 notes and pass from 1", false, []int{1, 2, 3, 4, 9, 10, 11, 12}},
		{"not sounded", false, []int{1, 3, 5, 7, 9, 11, 13, 15}},
	} {
		t.Run(string(c.condition), func(t *testing.T) {
			p := testkit.Plain(func(p *score.Project, track *score.Track, part *score.Part) {
				p.Filling = c.filling
				part.Details = map[int]score.StepDetail{0: {Condition: c.condition}}
			})
			other := p.Tracks[0].Clone()
			other.ID, other.Channel, other.Mute = 2, 2, true // what is muted decides all the same
			heard := other.Parts()
			heard[0].Lanes.Gate.Length = 64
			clear(heard[0].Lanes.Gate.Steps)
			heard[0].Details = nil
			heard[0].Lanes.Gate.Steps[20], heard[0].Lanes.Gate.Steps[32] = score.On, score.On
			testkit.SetLane(&heard[0].Lanes.Chord, score.Chord, func(l *score.Lane) { l.Linked, l.Steps[20] = true, 2 })
			p.Tracks = append(p.Tracks, other)
			require.NoError(t, p.Validate())
			var passes []int
			for _, n := range play.Render(p, 0, 64*sixteenth, nil) {
				passes = append(passes, int(n.Start/(4*sixteenth))+1)
			}
			require.Equal(t, c.want, passes)
		})
	}
}

// While filling, steps that are off stay undecided in a part that fills none: they are no last step that was silent.
func TestAFillOfNothingDecidesNothing(t *testing.T) {
	p := testkit.Plain(func(p *score.Project, _ *score.Track, part *score.Part) {
		p.Filling = true
		part.Lanes.Gate.Length = 4
		clear(part.Lanes.Gate.Steps)
		part.Lanes.Gate.Steps[0], part.Lanes.Gate.Steps[2] = score.On, score.On
		part.Details = map[int]score.StepDetail{2: {Condition: "sounded"}}
	})
	require.Len(t, play.Render(p, 0, 4*sixteenth, nil), 2)
	require.Len(t, play.Look(p, 1, 0, 4*sixteenth)[0].Forecasts, 2)
}
