package score_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// What each way does to a lane of five steps, by hand.
func TestReshape(t *testing.T) {
	for _, c := range []struct {
		do    score.Reshaping
		by    int
		steps []int
		want  []int
	}{
		{do: score.Rotate, by: 1, want: []int{70, 90, 45, 100, 30}},
		{do: score.Rotate, by: -2, want: []int{100, 30, 70, 90, 45}},
		{do: score.Rotate, by: 1, steps: []int{0, 2, 4}, want: []int{70, 45, 90, 30, 100}},
		{do: score.Reverse, want: []int{70, 30, 100, 45, 90}},
		{do: score.Reverse, steps: []int{1, 2}, want: []int{90, 100, 45, 30, 70}},
		{do: score.Invert, want: []int{40, 85, 30, 100, 60}},
		{do: score.Clear, steps: []int{1, 3}, want: []int{90, 60, 100, 60, 70}},
		{do: score.Least, steps: []int{1, 3}, want: []int{90, 1, 100, 1, 70}},
		{do: score.Most, steps: []int{1, 3}, want: []int{90, 163, 100, 163, 70}},
		{do: score.Double, want: []int{90, 45, 100, 30, 70, 90, 45, 100, 30, 70}},
		{do: score.Halve, want: []int{90, 45}},
	} {
		after := apply(t, testkit.Buoy(), score.Reshape{LaneAddress: at(score.Length), Do: c.do, By: c.by, Steps: c.steps})
		lane := after.Tracks[0].Parts()[0].Lanes.Length
		require.Equal(t, c.want, lane.Steps[:lane.Length], "%s %d %v", c.do, c.by, c.steps)
	}
}

// The gates of a loop take what is special of them along, and doubling them doubles what is linked to them.
func TestReshapingGates(t *testing.T) {
	p := testkit.Buoy()
	part := &p.Tracks[0].Parts()[0]
	part.Lanes.Gate.Length, part.Lanes.Velocity.Linked = 4, true
	part.Details = map[int]score.StepDetail{3: {Condition: "pass 1 to 1"}}
	gate := score.Reshape{LaneAddress: at(score.Gate), Do: score.Rotate, By: 2}
	rotated := apply(t, p, gate).Tracks[0].Parts()[0]
	require.Equal(t, []int{score.On, score.On, score.On, score.Off}, rotated.Lanes.Gate.Steps[:4])
	require.Equal(t, map[int]score.StepDetail{1: {Condition: "pass 1 to 1"}}, rotated.Details)

	gate.Do = score.Double
	doubled := apply(t, p, gate).Tracks[0].Parts()[0]
	require.Equal(t, 8, doubled.Lanes.Gate.Length)
	require.Equal(t, doubled.Lanes.Velocity.Steps[:4], doubled.Lanes.Velocity.Steps[4:8])
	require.Equal(t, score.Condition("pass 1 to 1"), doubled.Details[7].Condition)
	require.Equal(t, p.Tracks[0].Parts()[0].Lanes.Probability, doubled.Lanes.Probability, "a lane of its own stays")

	gate.Do = score.Most
	require.Equal(t, []int{score.On, score.On, score.On, score.On}, apply(t, p, gate).Tracks[0].Parts()[0].Lanes.Gate.Steps[:4], "none is tied")
	gate.Do = score.Least
	require.Equal(t, []int{score.Off, score.Off, score.Off, score.Off}, apply(t, p, gate).Tracks[0].Parts()[0].Lanes.Gate.Steps[:4])

	gate.Do, gate.By = score.Euclidean, 3
	require.Equal(t, score.Euclid(3, 4), apply(t, p, gate).Tracks[0].Parts()[0].Lanes.Gate.Steps[:4])
	gate.Lane, gate.Do = score.Velocity, score.Double
	_, _, err := score.Apply(p, gate)
	require.ErrorContains(t, err, "lane is velocity; it must be one with a loop of its own")
	gate.Do = score.Euclidean
	_, _, err = score.Apply(p, gate)
	require.ErrorContains(t, err, "lane is velocity; it must be gate")
}

// Rotating there and back, reversing twice and inverting twice change nothing.
func TestReshapingBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		spec := rapid.SampledFrom(score.LaneSpecs()).Draw(t, "lane")
		by := rapid.IntRange(-score.MaxSteps, score.MaxSteps).Draw(t, "by")
		for _, do := range []score.Reshaping{score.Rotate, score.Reverse, score.Invert} {
			edit := score.Reshape{LaneAddress: at(spec.Name), Do: do, By: by}
			there, _, err := score.Apply(p, edit)
			require.NoError(t, err)
			edit.By = -by
			back, _, err := score.Apply(there, edit)
			require.NoError(t, err)
			lanes := func(p *score.Project) []int { return p.Tracks[0].Patterns[0].Parts[0].Lanes.Lane(spec.Name).Steps }
			require.Equal(t, lanes(p), lanes(back))
			require.Equal(t, p.Tracks[0].Patterns[0].Parts[0].Details, back.Tracks[0].Patterns[0].Parts[0].Details)
		}
	})
}
