package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// A pass is a whole pass of the gate's order, and passes count on where the lanes are realigned. The steps are
// 16ths, and the first one of the loop sounds on every second pass only.
func TestPasses(t *testing.T) {
	for _, c := range []struct {
		name   string
		change func(track *score.Track, gate *score.Lane)
		want   []score.Tick // in 16ths
	}{
		{"forward", func(*score.Track, *score.Lane) {}, []score.Tick{4, 12, 20, 28}},
		{"there and back, which is six steps of four", func(_ *score.Track, l *score.Lane) { l.Order = score.ThereAndBack }, []score.Tick{6, 18, 30}},
		{"there and back with its ends twice, which is eight", func(_ *score.Track, l *score.Lane) { l.Order = score.TurnTwice }, []score.Tick{8, 15, 24, 31}},
		{"a path of three", func(_ *score.Track, l *score.Lane) { l.Order, l.Path = score.Path, []int{0, 2, 3} }, []score.Tick{3, 9, 15, 21, 27}},
		{"realigned with each bar, which has four passes", func(track *score.Track, _ *score.Lane) { track.Realign = 1 }, []score.Tick{4, 12, 20, 28}},
		{"of a bar, realigned with each bar", func(track *score.Track, l *score.Lane) { track.Realign, l.Length = 1, 16 }, []score.Tick{16}},
		{"cut short by a realignment", func(track *score.Track, l *score.Lane) { track.Realign, l.Length = 1, 10 }, []score.Tick{10, 26}},
	} {
		t.Run(c.name, func(t *testing.T) {
			p := testkit.Plain(func(_ *score.Project, track *score.Track, part *score.Part) {
				clear(part.Lanes.Gate.Steps)
				part.Lanes.Gate.Steps[0] = score.On
				part.Details = map[int]score.StepDetail{0: {Condition: score.EveryPass(2, 2)}}
				c.change(track, part.Lanes.Gate)
			})
			var got []score.Tick
			for _, n := range play.Render(p, 0, 32*sixteenth, nil) {
				got = append(got, n.Start/sixteenth)
			}
			require.Equal(t, c.want, got)
		})
	}
}

// The first pass comes once, however often the lanes are realigned.
func TestTheFirstPassComesOnce(t *testing.T) {
	p := testkit.Plain(func(_ *score.Project, track *score.Track, part *score.Part) {
		track.Realign, part.Lanes.Gate.Length = 1, 16
		part.Details = map[int]score.StepDetail{0: {Condition: "pass 1 to 1"}}
	})
	notes := play.Render(p, 0, 64*sixteenth, nil)
	require.Zero(t, notes[0].Start)
	for _, n := range notes[1:] {
		require.NotZero(t, n.Step)
	}
}
