package period_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/period"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

const stretch = 12 * score.TicksPerQuarter

func meeting(p *score.Project, lanes ...score.LaneName) (score.Tick, error) {
	return period.Of(p, &p.Tracks[0], &p.Tracks[0].Parts()[0], lanes...)
}

// Invariant 5: two lanes of lengths a and b at one rate meet again after lcm(a, b) steps.
func TestTwoLanesMeetAfterTheLeastCommonMultiple(t *testing.T) {
	for _, c := range []struct{ a, b, want int }{{16, 7, 112}, {16, 12, 48}, {8, 8, 8}, {63, 64, 4032}, {1, 5, 5}} {
		p := testkit.Buoy()
		lanes := &p.Tracks[0].Parts()[0].Lanes
		lanes.Gate.Length, lanes.Pitch.Length = c.a, c.b
		got, err := meeting(p, score.Gate, score.Pitch)
		require.NoError(t, err)
		require.Equal(t, score.Tick(c.want)*lanes.Gate.Rate.Ticks(), got)
	}
}

// The demo's loops are 16, 11, 2·7, 2·5 and 9 sixteenths: 55,440 of them, or 3,465 bars.
func TestTheDemosPeriod(t *testing.T) {
	p := testkit.Buoy()
	got, err := meeting(p, score.Gate, score.Pitch, score.Velocity, score.Length, score.Probability)
	require.NoError(t, err)
	require.Equal(t, 3465*p.Meter.Bar(), got)
}

func TestPeriodsByHand(t *testing.T) {
	bar := testkit.Buoy().Meter.Bar()
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
		{"random", func(_ *score.Project, _ *score.Track, part *score.Part) { part.Lanes.Gate.Order = score.Random }, 0, period.ErrRandomOrder},
		{"random and realigned", func(_ *score.Project, track *score.Track, part *score.Part) {
			track.Realign, part.Lanes.Gate.Order = 4, score.Random
		}, 4 * bar, nil},
	} {
		t.Run(c.name, func(t *testing.T) {
			p := testkit.Buoy()
			c.change(p, &p.Tracks[0], &p.Tracks[0].Parts()[0])
			got, err := meeting(p, score.Gate)
			require.ErrorIs(t, err, c.err)
			require.Equal(t, c.want, got)
		})
	}
	p := testkit.Buoy()
	p.Tracks[0].Parts()[0].Durations = []score.Duration{{Value: "1/8", Weight: 1}}
	_, drawn := meeting(p, score.Gate)
	require.ErrorIs(t, drawn, period.ErrDurations)
	p = testkit.Buoy()
	p.Tracks[0].Parts()[0].Lanes.Pitch.Moves = score.ByHit
	_, err := meeting(p, score.Gate, score.Pitch)
	require.ErrorIs(t, err, period.ErrMovesByHits)
	p.Tracks[0].Parts()[0].Lanes.Pitch.Moves = score.ByStep
	got, err := meeting(p, score.Gate, score.Pitch)
	require.NoError(t, err)
	require.Equal(t, 11*bar, got)
}

// After the stated period every lane's moves repeat, and so do the notes if nothing is left to chance.
func TestAfterThePeriodAllRepeats(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		testkit.MakePlain(t, p)
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
		repeats, err := meeting(p, names...)
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

// Whatever the project, a track for which a period is stated plays the same in every one, once its late notes have come.
func TestWhatRepeatsRepeats(t *testing.T) {
	stated := 0
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		p.Tracks, p.MeterChanges = p.Tracks[:1], nil // what repeats does so from the last change on
		testkit.MakeAudible(p)
		track := &p.Tracks[0]
		track.Tuned = nil // its notes go round its channels, and sound the same on each
		certain := func() bool { return rapid.IntRange(0, 19).Draw(t, "certain") > 0 }
		if certain() {
			track.Jitter, track.Shifts, track.Source = 0, nil, score.Source{Kind: score.OwnClock}
		}
		for i := range track.Parts() {
			part := &track.Parts()[i]
			if certain() {
				part.Ratchet.Odds, part.Durations, part.Fill = 100, nil, 100
			}
			for step, detail := range part.Details {
				if len(detail.Condition.Tracks()) > 0 || certain() && detail.Condition != score.EveryPass(2, 3) {
					detail.Condition = score.Always
					part.Details[step] = detail
				}
			}
			for _, spec := range score.LaneSpecs() {
				if !part.Lanes.Has(spec.Name) {
					continue
				}
				lane := part.Lanes.Lane(spec.Name)
				lane.First, lane.Length, lane.Rate = 0, 1+lane.Length%4, rapid.SampledFrom([]score.NoteValue{"1/16", "1/8"}).Draw(t, "short rate")
				if certain() {
					lane.Weights, lane.Evolve, lane.Spread = nil, nil, nil
					lane.Order = rapid.SampledFrom([]score.Order{score.Forward, score.TurnTwice, score.Path}).Draw(t, "order")
					lane.Path, lane.Moves = []int{0, 2, 1}, score.ByClock
				}
				if spec.Name == score.Probability {
					lane.Steps = slices.Repeat([]int{100}, score.MaxSteps)
				}
			}
		}
		period, err := period.Repeats(p, track)
		if err != nil || period > 4000*score.TicksPerQuarter {
			return
		}
		stated++
		// Notes can be as late as a quarter, and what is held repeats from its first bar on.
		late := 2*score.TicksPerQuarter + score.Tick(track.HoldFrom)*p.Meter.Bar()
		begun := (2 + late/period) * period
		second, third := play.Render(p, begun, begun+period, nil), play.Render(p, begun+period, begun+2*period, nil)
		for i := range third {
			third[i].Start -= period
			third[i].End -= period
		}
		require.Equal(t, second, third)
	})
	t.Logf("%d projects had a period", stated)
	require.NotZero(t, stated)
}

// Why something never repeats, and what a hold and a count of passes make of the period.
func TestRepeatsByHand(t *testing.T) {
	bar := score.Tick(4 * score.TicksPerQuarter)
	_, err := period.ProjectRepeats(testkit.Buoy())
	require.ErrorIs(t, err, period.ErrChance)

	p := testkit.Plain(func(*score.Project, *score.Track, *score.Part) {})
	part := &p.Tracks[0].Parts()[0]
	part.Lanes.Gate.Length = 16
	repeats := func() score.Tick {
		got, err := period.ProjectRepeats(p)
		require.NoError(t, err)
		return got
	}
	require.Equal(t, bar, repeats())
	part.Details = map[int]score.StepDetail{0: {Condition: score.EveryPass(1, 3)}}
	require.Zero(t, repeats()%(3*bar))
	part.Details = nil
	p.Tracks[0].Jitter, p.Tracks[0].Hold = 5, 6
	require.Equal(t, 6*bar, repeats())
	part.Details = map[int]score.StepDetail{0: {Condition: "not sounded"}}
	_, err = period.ProjectRepeats(p)
	require.ErrorIs(t, err, period.ErrListens)
	part.Details[0] = score.StepDetail{Condition: "pass 1 to 1"}
	_, err = period.ProjectRepeats(p)
	require.ErrorIs(t, err, period.ErrOnce)
	p.Tracks[0].Realign = 2
	_, err = period.ProjectRepeats(p)
	require.ErrorIs(t, err, period.ErrOnce, "passes are counted on over realignments")
	p.Tracks[0].Jitter, p.Tracks[0].Hold = 0, 0
	part.Details[0] = score.StepDetail{Condition: score.EveryPass(1, 2)}
	require.Equal(t, 2*bar, repeats(), "two passes between two realignments")
	p.Tracks[0].Realign = 1
	require.Equal(t, 2*bar, repeats(), "one, so that two realignments go by")
	part.Lanes.Gate.Length = 12
	require.Equal(t, bar, repeats(), "a whole one and the beginning of another")
	p.Tracks[0].Probability = -1
	_, err = period.ProjectRepeats(p)
	require.ErrorIs(t, err, period.ErrChance, "all steps are a little uncertain")
	p.Tracks[0].Probability, part.Lanes.Probability.Steps[0] = 100, 50
	require.Equal(t, bar, repeats(), "certain again")
	for what, change := range map[string]func(*score.Part){
		"a spread of a step's own": func(part *score.Part) {
			part.Lanes.Velocity.Own = map[int]score.StepOwn{3: {Spread: &score.Spread{Chance: 1, Depth: 1, Grain: 1, Highest: 9}}}
		},
		"weights of a step's own": func(part *score.Part) {
			part.Lanes.Velocity.Own = map[int]score.StepOwn{3: {Weights: []score.Weight{{Lowest: 9, Highest: 9, Weight: 1}}}}
		},
		"odds of a step's own ratchet": func(part *score.Part) {
			part.Details = map[int]score.StepDetail{0: {Ratchet: &score.StepRatchet{RatchetShape: score.RatchetShape{Spacing: score.Even, Odds: 99}}}}
		},
		"hits drawn": func(part *score.Part) {
			part.Details = map[int]score.StepDetail{0: {Ratchet: &score.StepRatchet{RatchetShape: score.RatchetShape{Spacing: score.Even, Odds: 100}, Counts: []int{1, 1}}}}
		},
	} {
		changed := p.Clone()
		change(&changed.Tracks[0].Parts()[0])
		_, err = period.ProjectRepeats(changed)
		require.ErrorIs(t, err, period.ErrChance, what)
	}
}
