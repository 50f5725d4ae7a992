package play_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat/distuv"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/period"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// everyStep returns a project that strikes every 16th with a velocity lane as given.
func everyStep(change func(*score.Lane)) *score.Project {
	return testkit.Plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
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

// The tables of durations, of rests among pitches, and the divisions of shifts are drawn as often as they
// say.
func TestDrawnTimes(t *testing.T) {
	const steps = 20_000
	p := everyStep(func(*score.Lane) {})
	part := &p.Tracks[0].Parts()[0]
	part.Durations = []score.Duration{{Value: "1/16", Weight: 3}, {Value: "1/8t", Weight: 1}, {Value: "1/16.", Weight: 1, Rest: true}}
	part.Lanes.Length.Steps[0] = score.WholeStep
	var counts [128]float64
	total := 0.0
	for _, n := range play.Render(p, 0, steps*sixteenth, nil) {
		counts[12*(n.End-n.Start)/sixteenth]++
		total++
	}
	requireShares(t, counts, total, map[int]float64{12: 0.75, 16: 0.25})

	p = everyStep(func(*score.Lane) {})
	p.Tracks[0].Parts()[0].Lanes.Pitch.Weights = []score.Weight{{Rest: true, Weight: 1}, {Lowest: 2, Highest: 2, Weight: 3}}
	counts, total = [128]float64{}, steps
	for _, n := range play.Render(p, 0, steps*sixteenth, nil) {
		require.Equal(t, uint8(64), n.Key)
		counts[1]++
	}
	counts[0] = total - counts[1]
	requireShares(t, counts, total, map[int]float64{0: 0.25, 1: 0.75})

	p = everyStep(func(*score.Lane) {})
	p.Tracks[0].Shifts = []score.NoteValue{"1/64", "1/32"}
	counts, total = [128]float64{}, 0
	for _, n := range play.Render(p, sixteenth, steps*sixteenth, nil) {
		step := score.Tick(n.Step)
		require.Zero(t, step)
		counts[2+min(4, (4*n.Start/sixteenth+2)%4)]++ // shifts of half a step either way meet
		total++
	}
	requireShares(t, counts, total, map[int]float64{2: 0.4, 3: 0.2, 4: 0.2, 5: 0.2})
}

// Jitter in milliseconds follows the tempo that holds where the note is.
func TestJitterFollowsTheTempo(t *testing.T) {
	p := everyStep(func(*score.Lane) {})
	p.Tempo, p.TempoChanges = 60_000, []score.TempoChange{{Tick: 1000 * sixteenth, Tempo: 240_000}}
	p.Tracks[0].Jitter = 10 // 201.6 ticks at 60, 806.4 at 240
	var most [2]score.Tick
	for _, n := range play.Render(p, sixteenth, 2000*sixteenth, nil) {
		off := (n.Start+sixteenth/2)%sixteenth - sixteenth/2
		half := min(1, (n.Start+sixteenth/2)/(1000*sixteenth))
		most[half] = max(most[half], off, -off)
	}
	require.InDelta(t, 201, int(most[0]), 5)
	require.InDelta(t, 806, int(most[1]), 10)
}

// A spread lands as often as its density says: integrated over each of its slots.
func TestSpread(t *testing.T) {
	for _, lean := range []int{-100, -40, 0, 70} {
		spread := score.Spread{Chance: 90, Depth: 100, Lowest: -6, Highest: 9, Lean: lean, Grain: 5}
		counts, total := velocities(everyStep(func(l *score.Lane) { l.Spread = &spread }))
		share := map[int]float64{96: 0.1}
		for slot, added := range []int{-6, -5, 0, 5, 9} {
			share[96+added] += 0.9 * (chance.LeanBelow(float64(slot+1)/5, lean) - chance.LeanBelow(float64(slot)/5, lean))
		}
		requireShares(t, counts, total, share)
		for _, s := range play.Shares(spread, 0) { // the curve that is shown
			require.InDelta(t, share[96+s.Added], s.Share, 1e-12)
		}
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

// What is told of a spread's draws is what the notes had.
func TestDrawsAreThoseOfTheNotes(t *testing.T) {
	p := testkit.Buoy()
	velocity := p.Tracks[0].Parts()[0].Lanes.Velocity
	for i := range velocity.Steps {
		velocity.Steps[i] = 60
	}
	velocity.Spread = &score.Spread{Chance: 70, Depth: 100, Lowest: -30, Highest: 30, Grain: 1}
	bar := p.Meter.Bar()
	var added []int
	for _, n := range play.Render(p, 3*bar, 9*bar, nil) {
		added = append(added, int(n.Velocity)-60)
	}
	require.Greater(t, len(added), 30)
	_, drawn := play.Draws(p, 1, 0, score.Velocity, 0, 3*bar, 9*bar)
	require.Equal(t, added, drawn)
}

// Evolving changes unlocked steps only, within its range, more and more of them, and playing from the
// beginning brings the written ones back.
func TestEvolve(t *testing.T) {
	p := testkit.Plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
		part.Lanes.Gate.Length = 16
		for i := range part.Lanes.Gate.Steps {
			part.Lanes.Gate.Steps[i] = score.On
		}
		part.Lanes.Velocity.Evolve = &score.Evolve{Every: 2, Percent: 25, Lowest: 10, Highest: 20}
		part.Lanes.Velocity.Locked = []int{0, 5}
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
		p := testkit.Plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Voicing = voicing
			testkit.SetLane(&part.Lanes.Chord, score.Chord, func(l *score.Lane) { l.Steps[0] = chord })
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
		{"major seventh", 21, score.Voicing{}, []uint8{60, 64, 67, 71}},
		{"minor in C major", 13, score.Voicing{}, []uint8{60, 63, 67}},
		{"minor, first inversion", 13, score.Voicing{Inversion: 1}, []uint8{63, 67, 72}},
		{"ninth, open", 30, score.Voicing{Open: true}, []uint8{60, 75, 67, 82, 74}},
		{"strummed downwards", 2, score.Voicing{Strum: -50}, []uint8{67, 64, 60}},
	} {
		got, _ := keys(c.chord, c.voicing)
		require.Equal(t, c.want, got, c.name)
	}
	_, starts := keys(2, score.Voicing{Strum: 50})
	require.Equal(t, []score.Tick{0, sixteenth / 4, sixteenth / 2}, starts)
}

// The gate lane goes over held steps in its order, and linked lanes with it. Written out by hand.
func TestHeldSteps(t *testing.T) {
	for _, c := range []struct {
		held  score.HeldSteps
		order score.Order
		speed score.Ratio
		steps []uint8
	}{
		{score.HeldSteps{10, 12, 40}, score.Forward, score.Ratio{N: 1, M: 1}, []uint8{10, 12, 40, 10, 12, 40}},
		{score.HeldSteps{10, 12, 40}, score.Backward, score.Ratio{N: 1, M: 1}, []uint8{40, 12, 10, 40, 12, 10}},
		{score.HeldSteps{0, 2, 5, 63}, score.ThereAndBack, score.Ratio{N: 1, M: 1}, []uint8{0, 2, 5, 63, 5, 2}},
		{score.HeldSteps{63}, score.Forward, score.Ratio{N: 1, M: 1}, []uint8{63, 63, 63, 63, 63, 63}},
		{score.HeldSteps{0, 1}, score.Forward, score.Ratio{N: 1, M: 2}, []uint8{0, 1, 0}},
		{score.HeldSteps{0, 7}, score.Forward, score.Ratio{N: 3, M: 2}, []uint8{0, 7, 0, 7, 0, 7, 0, 7, 0}},
		{score.HeldSteps{1, 3}, score.Path, score.Ratio{N: 1, M: 1}, []uint8{3, 3, 1, 3, 3, 1}}, // a path is taken modulo the loop
	} {
		p := testkit.Plain(func(_ *score.Project, track *score.Track, part *score.Part) {
			for i := range part.Lanes.Gate.Steps {
				part.Lanes.Gate.Steps[i] = score.On
				part.Lanes.Velocity.Steps[i] = 40 + i
			}
			part.Lanes.Gate.Order, part.Lanes.Gate.Path = c.order, []int{1, 3, 0}
			part.Held, track.Speed = c.held, c.speed
		})
		require.NoError(t, p.Validate())
		var steps []uint8
		for _, n := range play.Render(p, 0, 6*sixteenth, nil) {
			require.Equal(t, 40+n.Step, n.Velocity, "linked lanes sit on the step")
			steps = append(steps, n.Step)
		}
		require.Equal(t, c.steps, steps, c)
	}
}

// A track that follows another goes on at that one's notes, muted or not, and only then.
func TestClockSources(t *testing.T) {
	follow := func(source score.Source, mute bool) (starts []score.Tick, steps []uint8) {
		p := testkit.Plain(func(p *score.Project, track *score.Track, part *score.Part) {
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

// A track can go on by notes that come in, or by a controller that rises to a level.
func TestInputsAsClocks(t *testing.T) {
	heard := func(source score.Source, inputs ...midi.Message) (starts []score.Tick) {
		source.Odds = 100
		p := everyStep(func(*score.Lane) {})
		p.Tracks[0].Source = source
		require.NoError(t, p.Validate())
		_, err := period.Of(p, &p.Tracks[0], &p.Tracks[0].Parts()[0], score.Gate)
		require.ErrorIs(t, err, period.ErrNoClock)
		for _, n := range play.NewPerformerAt(p, 0, play.Past{Inputs: inputs}).Advance(1000, nil) {
			starts = append(starts, n.Start)
		}
		return starts
	}
	on := func(tick score.Tick, channel, key uint8) midi.Message {
		return midi.Message{Tick: tick, Kind: midi.NoteOn, Channel: channel, Key: key, Velocity: 1}
	}
	control := func(tick score.Tick, number uint8, value uint16) midi.Message {
		return midi.Message{Tick: tick, Kind: midi.ControlChange, Key: number, Value: value}
	}
	notes := score.Source{Kind: score.InputNotes, Channel: 2, Lowest: 40, Highest: 50, Delay: 7}
	require.Equal(t, []score.Tick{17, 37}, heard(notes, on(10, 1, 40), on(20, 0, 45), on(30, 1, 50), on(40, 1, 51),
		midi.Message{Tick: 50, Channel: 1, Key: 45}))
	level := score.Source{Kind: score.InputControl, Controller: 4, Level: 64}
	require.Equal(t, []score.Tick{20, 60}, heard(level, control(10, 4, 63), control(20, 4, 64), control(30, 4, 127),
		control(40, 5, 0), control(50, 4, 0), control(60, 4, 70)))

	late := play.NewPerformer(everyStep(func(*score.Lane) {}))
	late.Advance(500, nil)
	at, counts := late.Hear(on(10, 0, 60))
	require.Equal(t, score.Tick(500), at, "what comes in late counts at once")
	require.False(t, counts, "for no track")
}

// What silences a track or a part, and what a solo does to the others.
func TestSilence(t *testing.T) {
	heard := func(change func(bell, kit *score.Track)) (tracks []uint32) {
		p := testkit.Buoy()
		kit := p.Tracks[0].Clone()
		kit.ID = 2
		p.Tracks = append(p.Tracks, kit)
		change(&p.Tracks[0], &p.Tracks[1])
		for _, n := range play.Render(p, 0, p.Meter.Bar(), nil) {
			if !slices.Contains(tracks, n.Track) {
				tracks = append(tracks, n.Track)
			}
		}
		return tracks
	}
	require.Equal(t, []uint32{1, 2}, heard(func(_, _ *score.Track) {}))
	require.Equal(t, []uint32{2}, heard(func(bell, _ *score.Track) { bell.Mute = true }))
	require.Equal(t, []uint32{1}, heard(func(bell, _ *score.Track) { bell.Solo = true }))
	require.Equal(t, []uint32{1}, heard(func(_, kit *score.Track) { kit.Parts()[0].Mute = true }))
	require.Empty(t, heard(func(bell, _ *score.Track) { bell.Solo, bell.OffAir = true, true }), "off air whatever is solo")
}
