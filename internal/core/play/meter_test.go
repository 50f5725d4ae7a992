package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/period"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// changing returns a project of two bars of 4/4, two of 7/8 and then 3/4, whose gate lane is longer than any bar.
func changing(change func(*score.Project, *score.Track, *score.Part)) *score.Project {
	return testkit.Plain(func(p *score.Project, track *score.Track, part *score.Part) {
		p.MeterChanges = []score.MeterChange{{Bar: 2, Meter: score.Meter{Beats: 7, Unit: 8}}, {Bar: 4, Meter: score.Meter{Beats: 3, Unit: 4}}}
		clear(part.Lanes.Gate.Steps)
		part.Lanes.Gate.Length, part.Lanes.Gate.Steps[0] = 64, score.On
		change(p, track, part)
	})
}

// lines are the first bar lines of such a project, in 16ths.
var lines = []score.Tick{0, 16, 32, 46, 60, 72, 84}

// Realign and hold count the bars that there are, whatever their meters.
func TestBarsAreCountedWhateverTheirMeters(t *testing.T) {
	starts := func(p *score.Project) (starts []score.Tick) {
		for _, n := range play.Render(p, 0, 90*sixteenth, nil) {
			starts = append(starts, n.Start/sixteenth)
		}
		return starts
	}
	require.Equal(t, lines, starts(changing(func(_ *score.Project, track *score.Track, _ *score.Part) { track.Realign = 1 })))
	require.Equal(t, []score.Tick{0, 32, 60, 84}, starts(changing(func(_ *score.Project, track *score.Track, _ *score.Part) { track.Realign = 2 })))

	// Held every bar, the same steps of each bar sound, as far as it reaches.
	held := starts(changing(func(_ *score.Project, track *score.Track, part *score.Part) {
		track.Realign, track.Hold = 1, 1
		for step := range part.Lanes.Gate.Steps {
			part.Lanes.Gate.Steps[step] = score.On
		}
		for step := range part.Lanes.Probability.Steps {
			part.Lanes.Probability.Steps[step] = 50
		}
	}))
	var first, want []score.Tick
	for _, start := range held {
		if start < 16 {
			first = append(first, start)
		}
	}
	require.Greater(t, len(first), 3)
	for bar, line := range lines {
		for _, start := range first {
			if at := line + start; at < 90 && (bar+1 == len(lines) || at < lines[bar+1]) {
				want = append(want, at)
			}
		}
	}
	require.Equal(t, want, held)
	repeats, err := period.Repeats(changing(func(_ *score.Project, track *score.Track, _ *score.Part) { track.Realign = 2 }), &changing(func(_ *score.Project, track *score.Track, _ *score.Part) { track.Realign = 2 }).Tracks[0])
	require.NoError(t, err)
	require.Equal(t, 24*sixteenth, repeats, "two bars of the last meter")
}

// Pairs of swing are counted from each bar line: the last eighth of a bar of 7/8 is straight.
func TestSwingPairsBeginWithEachBar(t *testing.T) {
	p := changing(func(p *score.Project, _ *score.Track, part *score.Part) {
		p.Swing, p.SwingGrid = 600, "1/8"
		for step := range part.Lanes.Gate.Steps {
			part.Lanes.Gate.Steps[step] = score.On
		}
		part.Lanes.Gate.Rate = "1/8"
	})
	var starts []score.Tick
	for _, n := range play.Render(p, 32*sixteenth, 50*sixteenth, nil) {
		starts = append(starts, (n.Start-32*sixteenth)*10/sixteenth)
	}
	require.Equal(t, []score.Tick{0, 24, 40, 64, 80, 104, 120, 140, 164}, starts, "in tenths of a 16th: seven eighths, and the next bar")
}
