package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat/distuv"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// everyStep returns a project that strikes every 16th with a velocity lane as given.
func everyStep(change func(*score.Lane)) *score.Project {
	return plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
		part.Lanes.Gate.Length, part.Lanes.Gate.Steps[0] = 1, score.On
		change(part.Lanes.Velocity)
	})
}

// velocities counts what 50,000 notes of a project hold.
func velocities(p *score.Project) (counts [128]float64, total float64) {
	const notes = 50_000
	for _, n := range play.Render(p, 0, notes*sixteenth, nil) {
		counts[n.Velocity]++
	}
	return counts, notes
}

// requireShares checks counts by chi-square at alpha 0.001; the luck is fixed.
func requireShares(t *testing.T, counts [128]float64, total float64, share map[int]float64) {
	t.Helper()
	chiSquare, inside := 0.0, 0.0
	for value, want := range share {
		off := counts[value] - want*total
		chiSquare += off * off / (want * total)
		inside += counts[value]
	}
	require.InDelta(t, total, inside, 0, "values outside the table")
	require.Less(t, chiSquare, distuv.ChiSquared{K: float64(len(share) - 1)}.Quantile(0.999))
}

func TestWeights(t *testing.T) {
	counts, total := velocities(everyStep(func(l *score.Lane) {
		l.Weights = []score.Weight{{Lowest: 40, Highest: 40, Weight: 5}, {Lowest: 90, Highest: 91, Weight: 15}, {Lowest: 7, Highest: 7, Weight: 0}}
	}))
	requireShares(t, counts, total, map[int]float64{40: 0.25, 90: 0.375, 91: 0.375})

	counts, total = velocities(everyStep(func(l *score.Lane) { l.Weights = []score.Weight{{Lowest: 5, Highest: 5}} }))
	require.InDelta(t, total, counts[96], 0, "a table of nothing leaves the steps in force")
}

// A spread lands as often as its density says: integrated over each of its slots.
func TestSpread(t *testing.T) {
	for _, lean := range []int{-100, -40, 0, 70} {
		counts, total := velocities(everyStep(func(l *score.Lane) {
			l.Spread = &score.Spread{Chance: 100, Depth: 100, Lowest: -6, Highest: 9, Lean: lean, Grain: 5}
		}))
		share := map[int]float64{}
		for slot := range 4 { // -6, -1, 4, 9
			share[96-6+5*slot] = chance.LeanBelow(float64(slot+1)/4, lean) - chance.LeanBelow(float64(slot)/4, lean)
		}
		requireShares(t, counts, total, share)
	}
	counts, total := velocities(everyStep(func(l *score.Lane) {
		l.Spread = &score.Spread{Chance: 30, Depth: 50, Lowest: 20, Highest: 20, Grain: 1}
	}))
	requireShares(t, counts, total, map[int]float64{96: 0.7, 106: 0.3})
	counts, total = velocities(everyStep(func(l *score.Lane) {
		l.Spread = &score.Spread{Chance: 100, Depth: 0, Lowest: -20, Highest: 20, Grain: 1}
	}))
	require.InDelta(t, total, counts[96], 0, "depth 0 is exactly the written value")
}

// Evolving changes unlocked steps only, within its range, more and more of them, and playing from the
// beginning brings the written ones back.
func TestEvolve(t *testing.T) {
	p := plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
		part.Lanes.Gate.Length = 16
		for i := range part.Lanes.Gate.Steps {
			part.Lanes.Gate.Steps[i] = score.On
		}
		part.Lanes.Velocity.Evolve = &score.Evolve{Every: 2, Percent: 25, Lowest: 10, Highest: 20, Locked: []int{0, 5}}
	})
	bar := p.Meter.Bar()
	before := 0
	for bars := score.Tick(0); bars < 40; bars += 2 {
		changed := 0
		for _, n := range play.Render(p, bars*bar, (bars+1)*bar, nil) {
			if n.Velocity == 96 {
				continue
			}
			changed++
			require.GreaterOrEqual(t, n.Velocity, uint8(10))
			require.LessOrEqual(t, n.Velocity, uint8(20))
			require.NotContains(t, []uint8{0, 5}, n.Step)
		}
		require.GreaterOrEqual(t, changed, before)
		before = changed
	}
	require.Equal(t, 14, before, "in the end every unlocked step has changed")
	for _, n := range play.Render(p, 0, 2*bar, nil) {
		require.Equal(t, uint8(96), n.Velocity)
	}
}

func TestChords(t *testing.T) {
	keys := func(chord int, voicing score.Voicing) (keys []uint8, starts []score.Tick) {
		p := plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Voicing = voicing
			set(&part.Lanes.Chord, score.Chord, func(l *score.Lane) { l.Steps[0] = chord })
		})
		for _, n := range play.Render(p, 0, sixteenth, nil) {
			keys, starts = append(keys, n.Key), append(starts, n.Start)
		}
		return keys, starts
	}
	for _, c := range []struct {
		name    string
		chord   int
		voicing score.Voicing
		want    []uint8
	}{ // on C of C major; common practice
		{"none", 0, score.Voicing{}, []uint8{60}},
		{"triad", 2, score.Voicing{}, []uint8{60, 64, 67}},
		{"seventh", 3, score.Voicing{}, []uint8{60, 64, 67, 71}},
		{"first inversion", 2, score.Voicing{Inversion: 1}, []uint8{64, 67, 72}},
		{"second inversion", 2, score.Voicing{Inversion: 2}, []uint8{67, 72, 76}},
		{"open", 2, score.Voicing{Open: true}, []uint8{60, 76, 67}},
		{"suspended fourth", 8, score.Voicing{}, []uint8{60, 65, 67}},
		{"strummed downwards", 2, score.Voicing{Strum: -50}, []uint8{67, 64, 60}},
	} {
		got, _ := keys(c.chord, c.voicing)
		require.Equal(t, c.want, got, c.name)
	}
	_, starts := keys(2, score.Voicing{Strum: 50})
	require.Equal(t, []score.Tick{0, sixteenth / 4, sixteenth / 2}, starts)
}

// Held to a range of steps, the gate lane walks only there, and linked lanes with it.
func TestHeldSteps(t *testing.T) {
	p := plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
		for i := range part.Lanes.Gate.Steps {
			part.Lanes.Gate.Steps[i] = score.On
		}
		part.Held = score.Window{First: 10, Length: 3}
	})
	var steps []uint8
	for _, n := range play.Render(p, 0, 5*sixteenth, nil) {
		steps = append(steps, n.Step)
	}
	require.Equal(t, []uint8{10, 11, 12, 10, 11}, steps)
}

// A track that follows another goes on at that one's notes, muted or not, and only then.
func TestClockSources(t *testing.T) {
	follow := func(source score.Source, mute bool) (starts []score.Tick, steps []uint8) {
		p := plain(func(p *score.Project, track *score.Track, part *score.Part) {
			part.Lanes.Length.Steps[0] = 50
			track.Mute = mute
			follower := track.Clone()
			follower.ID, follower.Mute, follower.Source = 2, false, source
			for i := range follower.Parts()[0].Lanes.Gate.Steps {
				follower.Parts()[0].Lanes.Gate.Steps[i] = score.On
			}
			p.Tracks = append(p.Tracks, follower)
		})
		require.NoError(t, p.Validate())
		for _, n := range play.Render(p, 0, 16*sixteenth, nil) {
			if n.Track == 2 {
				starts, steps = append(starts, n.Start*100/sixteenth), append(steps, n.Step)
			}
		}
		return starts, steps
	}
	starts, steps := follow(score.Source{Kind: score.NoteStarts, Track: 1, Odds: 100}, true)
	require.Equal(t, []score.Tick{0, 400, 800, 1200}, starts)
	require.Equal(t, []uint8{0, 1, 2, 3}, steps)
	starts, _ = follow(score.Source{Kind: score.NoteEnds, Track: 1, Odds: 100, Delay: sixteenth}, false)
	require.Equal(t, []score.Tick{150, 550, 950, 1350}, starts)
	starts, _ = follow(score.Source{Kind: score.NoteStarts, Track: 1, Odds: 0}, false)
	require.Empty(t, starts)
}
