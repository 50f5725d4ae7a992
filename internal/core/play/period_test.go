package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

func period(p *score.Project, lanes ...score.LaneName) (score.Tick, error) {
	return play.Period(p, &p.Tracks[0], &p.Tracks[0].Parts()[0], lanes...)
}

// Invariant 5: two lanes of lengths a and b at one rate meet again after lcm(a, b) steps.
func TestTwoLanesMeetAfterTheLeastCommonMultiple(t *testing.T) {
	for _, c := range []struct{ a, b, want int }{{16, 7, 112}, {16, 12, 48}, {8, 8, 8}, {63, 64, 4032}, {1, 5, 5}} {
		p := score.Demo()
		lanes := &p.Tracks[0].Parts()[0].Lanes
		lanes.Gate.Length, lanes.Pitch.Length = c.a, c.b
		got, err := period(p, score.Gate, score.Pitch)
		require.NoError(t, err)
		require.Equal(t, score.Tick(c.want)*lanes.Gate.Rate.Ticks(), got)
	}
}

// The demo's loops are 16, 11, 2·7, 2·5 and 9 sixteenths: 55,440 of them, or 3,465 bars.
func TestTheDemosPeriod(t *testing.T) {
	p := score.Demo()
	got, err := period(p, score.Gate, score.Pitch, score.Velocity, score.Length, score.Probability)
	require.NoError(t, err)
	require.Equal(t, 3465*p.Meter.Bar(), got)
}

func TestPeriodsByHand(t *testing.T) {
	bar := score.Demo().Meter.Bar()
	step := bar / 16
	for _, c := range []struct {
		name   string
		change func(*score.Project, *score.Track, *score.Part)
		want   score.Tick
		err    error
	}{
		{"the gate alone", func(*score.Project, *score.Track, *score.Part) {}, bar, nil},
		{"there and back", func(_ *score.Project, _ *score.Track, part *score.Part) { part.Lanes.Gate.Order = score.ThereAndBack }, 30 * step, nil},
		{"the ends twice", func(_ *score.Project, _ *score.Track, part *score.Part) { part.Lanes.Gate.Order = score.TurnTwice }, 32 * step, nil},
		{"a skipped and a stretched step", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Details = map[int]score.StepDetail{1: {Skip: true}, 4: {Stretch: 3}}
		}, 17 * step, nil},
		{"three times as fast", func(_ *score.Project, track *score.Track, _ *score.Part) { track.Speed = score.Ratio{N: 3, M: 1} }, 16 * step / 3, nil},
		{"at 16:7 in 1/64t, which has no whole ticks", func(_ *score.Project, track *score.Track, part *score.Part) {
			track.Speed, part.Lanes.Gate.Rate, part.Lanes.Gate.Length = score.Ratio{N: 16, M: 7}, "1/64t", 1
		}, 840 * 7 * 2 / 16, nil},
		{"random", func(_ *score.Project, _ *score.Track, part *score.Part) { part.Lanes.Gate.Order = score.Random }, 0, play.ErrRandomOrder},
		{"random and realigned", func(_ *score.Project, track *score.Track, part *score.Part) {
			track.Realign, part.Lanes.Gate.Order = 4, score.Random
		}, 4 * bar, nil},
	} {
		t.Run(c.name, func(t *testing.T) {
			p := score.Demo()
			c.change(p, &p.Tracks[0], &p.Tracks[0].Parts()[0])
			got, err := period(p, score.Gate)
			require.ErrorIs(t, err, c.err)
			require.Equal(t, c.want, got)
		})
	}
	p := score.Demo()
	p.Tracks[0].Parts()[0].Durations = []score.Duration{{Value: "1/8", Weight: 1}}
	_, drawn := period(p, score.Gate)
	require.ErrorIs(t, drawn, play.ErrDurations)
	p = score.Demo()
	p.Tracks[0].Parts()[0].Lanes.Pitch.Moves = score.ByHit
	_, err := period(p, score.Gate, score.Pitch)
	require.ErrorIs(t, err, play.ErrMovesByHits)
	p.Tracks[0].Parts()[0].Lanes.Pitch.Moves = score.ByStep
	got, err := period(p, score.Gate, score.Pitch)
	require.NoError(t, err)
	require.Equal(t, 11*bar, got)
}

// After the stated period every lane's moves repeat, and so do the notes if nothing is left to chance.
func TestAfterThePeriodAllRepeats(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		makePlain(t, p)
		lanes := &p.Tracks[0].Parts()[0].Lanes
		var names []score.LaneName
		for _, spec := range score.LaneSpecs() {
			if !lanes.Has(spec.Name) {
				continue
			}
			names = append(names, spec.Name)
			lane := lanes.Lane(spec.Name)
			lane.First, lane.Length, lane.Rate = 0, 1+lane.Length%4, rapid.SampledFrom([]score.NoteValue{"1/16", "1/8", "1/8t"}).Draw(t, "short rate")
			lane.Order = rapid.SampledFrom([]score.Order{score.Forward, score.Backward, score.ThereAndBack, score.TurnTwice, score.Path}).Draw(t, "order")
			lane.Path = []int{0, 3, 1}
			if spec.Name != score.Gate {
				lane.Moves = rapid.SampledFrom([]score.Mover{score.ByClock, score.ByStep}).Draw(t, "moves")
			}
		}
		repeats, err := period(p, names...)
		require.NoError(t, err)
		first := play.Render(p, 0, stretch, nil)
		again := play.Render(p, repeats, repeats+stretch, nil)
		for i := range again {
			again[i].Start -= repeats
			again[i].End -= repeats
		}
		require.Equal(t, first, again)
	})
}
