package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// What is said of where a step's values can lead holds: in 3,000 passes none lies outside.
func TestReachesAreKept(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		spec := score.Velocity.Spec()
		p := everyStep(func(l *score.Lane) {
			l.Steps[0], l.Amount = rapid.IntRange(spec.Least, spec.Most).Draw(t, "written"), rapid.SampledFrom([]int{100, 50, 200}).Draw(t, "amount")
			spread := testkit.Spread(t)
			l.Spread = &spread
			l.Own = map[int]score.StepOwn{0: testkit.Own(t, spec)}
		})
		require.NoError(t, p.Validate())
		reaches := play.Reaches(p, &p.Tracks[0].Parts()[0].Lanes, score.Velocity)
		lowest, highest := 127, 1
		for _, n := range play.Render(p, 0, 3000*sixteenth, nil) {
			lowest, highest = min(lowest, int(n.Velocity)), max(highest, int(n.Velocity))
		}
		if len(reaches) == 0 {
			require.Equal(t, lowest, highest)
			return
		}
		require.LessOrEqual(t, reaches[0].Lowest, lowest)
		require.GreaterOrEqual(t, reaches[0].Highest, highest)
	})
	p := pedal()
	reaches := play.Reaches(p, &p.Tracks[0].Parts()[0].Lanes, score.Pitch)
	words := "spread 0 to +6, only D E F G A B"
	require.Equal(t, []play.Reach{{Step: 1, Highest: 6, Own: true, Words: words}, {Step: 3, Highest: 6, Own: true, Words: words}}, reaches)
	require.Empty(t, play.Reaches(p, &p.Tracks[0].Parts()[0].Lanes, score.Velocity))
}

// What steps have of their own, in words.
func TestWordsOfSteps(t *testing.T) {
	p := testkit.Buoy()
	for want, own := range map[string]score.StepOwn{
		"2 notes, each by itself": {Notes: []score.StepNote{{}, {Degree: 1}}, Each: true}, "a note with its own timing": {Notes: []score.StepNote{{Nudge: 3}}, Each: true},
		"no spread": {Spread: &score.Spread{Chance: 100, Grain: 1}}, "spread -2 to +3 in 40 %, depth 60 %": {Spread: &score.Spread{Chance: 40, Depth: 60, Lowest: -2, Highest: 3, Grain: 1}},
		"drawn from 1 line": {Weights: []score.Weight{{Weight: 3}, {}}}, "": {Weights: []score.Weight{{}}, Allowed: []int{99}},
	} {
		require.Equal(t, want, own.Words(p, score.Pitch.Spec()))
	}
	limits := score.StepOwn{Spread: &score.Spread{Chance: 100, Depth: 100, Lowest: -100, Highest: 64, Limits: true, Grain: 1}}
	require.Equal(t, "spread from 1 to 64", limits.Words(p, score.Velocity.Spec()))
}
