package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

const sixteenth = score.TicksPerQuarter / 4

// Each feature of a step by hand: when its notes start within the first bar and a bit, in 16ths and
// percents of one.
func TestWhenNotesStart(t *testing.T) {
	for _, c := range []struct {
		name   string
		change func(*score.Project, *score.Track, *score.Part)
		bars   score.Tick // how much is rendered, in 16ths
		want   []score.Tick
	}{
		{"a plain step", func(*score.Project, *score.Track, *score.Part) {}, 8, []score.Tick{0, 400}},
		{"swing of 75 percent", func(p *score.Project, _ *score.Track, part *score.Part) {
			p.Swing = 750
			part.Lanes.Gate.Steps[1], part.Lanes.Gate.Steps[2] = score.On, score.On
		}, 4, []score.Tick{0, 150, 200}},
		{"the track's own swing", func(p *score.Project, track *score.Track, part *score.Part) {
			p.Swing, track.Swing = 750, 500
			part.Lanes.Gate.Steps[1] = score.On
		}, 4, []score.Tick{0, 100}},
		{"swing scaled by a step, to at most 75 percent", func(p *score.Project, _ *score.Track, part *score.Part) {
			p.Swing = 600
			part.Lanes.Gate.Steps[1], part.Lanes.Gate.Steps[2], part.Lanes.Gate.Steps[3] = score.On, score.On, score.On
			testkit.SetLane(&part.Lanes.Swing, score.Swing, func(l *score.Lane) { l.Steps[1], l.Steps[3] = 50, 200 })
		}, 4, []score.Tick{0, 110, 200, 340}},
		{"every step a dotted 16th, by a table of durations", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Durations = []score.Duration{{Value: "1/16.", Weight: 1}, {Value: "1/1", Weight: 0}}
		}, 13, []score.Tick{0, 600, 1200}},
		{"every step a rest, by a table of durations", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Durations = []score.Duration{{Value: "1/16", Rest: true, Weight: 1}}
		}, 8, nil},
		{"every pitch a rest, by a table of weights", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Lanes.Pitch.Weights = []score.Weight{{Rest: true, Weight: 1}}
		}, 8, nil},
		{"nudged late, and early at the very beginning", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Lanes.Gate.Steps[2] = score.On
			testkit.SetLane(&part.Lanes.Nudge, score.Nudge, func(l *score.Lane) { l.Steps[0], l.Steps[2] = -50, 20 })
		}, 8, []score.Tick{220, 350, 620, 750}},
		{"three strikes", func(_ *score.Project, _ *score.Track, part *score.Part) {
			testkit.SetLane(&part.Lanes.Ratchet, score.Ratchet, func(l *score.Lane) { l.Steps[0] = 4 })
		}, 4, []score.Tick{0, 25, 50, 75}},
		{"gathering strikes", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Ratchet.Spacing = score.Gathering // x·(2-x) of 0, 1/2
			testkit.SetLane(&part.Lanes.Ratchet, score.Ratchet, func(l *score.Lane) { l.Steps[0] = 2 })
		}, 4, []score.Tick{0, 75}},
		{"slackening strikes", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Ratchet.Spacing = score.Slackening
			testkit.SetLane(&part.Lanes.Ratchet, score.Ratchet, func(l *score.Lane) { l.Steps[0] = 2 })
		}, 4, []score.Tick{0, 25}},
		{"strikes without odds", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Ratchet.Odds = 0
			testkit.SetLane(&part.Lanes.Ratchet, score.Ratchet, func(l *score.Lane) { l.Steps[0] = 16 })
		}, 4, []score.Tick{0}},
		{"a skipped step", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Details = map[int]score.StepDetail{1: {Skip: true}}
		}, 8, []score.Tick{0, 300, 600}},
		{"all steps skipped", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Details = map[int]score.StepDetail{0: {Skip: true}, 1: {Skip: true}, 2: {Skip: true}, 3: {Skip: true}}
		}, 6, nil},
		{"stretched, struck once", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Details = map[int]score.StepDetail{0: {Stretch: 3}}
		}, 12, []score.Tick{0, 600}},
		{"stretched, struck on each", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Details = map[int]score.StepDetail{0: {Stretch: 3, Lengths: "111"}}
		}, 8, []score.Tick{0, 100, 200, 600, 700}},
		{"stretched, silent, struck and tied", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Details = map[int]score.StepDetail{0: {Stretch: 16, Lengths: "0122010200000001"}}
		}, 16, []score.Tick{100, 500, 1500}},
		{"ratchets divide what is tied together", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Details = map[int]score.StepDetail{0: {Stretch: 4, Lengths: "1201"}}
			testkit.SetLane(&part.Lanes.Ratchet, score.Ratchet, func(l *score.Lane) { l.Steps[0] = 2 })
		}, 4, []score.Tick{0, 100, 300, 350}},
		{"twice as fast", func(_ *score.Project, track *score.Track, _ *score.Part) { track.Speed = score.Ratio{N: 2, M: 1} }, 5, []score.Tick{0, 200, 400}},
		{"delayed", func(_ *score.Project, track *score.Track, _ *score.Part) { track.Delay = sixteenth * 3 / 10 }, 5, []score.Tick{30, 430}},
		{"early", func(_ *score.Project, track *score.Track, _ *score.Part) { track.Delay = -sixteenth * 3 / 10 }, 5, []score.Tick{370}},
		{"the second pass of every three", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Details = map[int]score.StepDetail{0: {Condition: "pass 2 of 3"}}
		}, 24, []score.Tick{400, 1600}},
		{"the first pass", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Details = map[int]score.StepDetail{0: {Condition: "pass 1 to 1"}}
		}, 12, []score.Tick{0}},
		{"all but the first pass", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Details = map[int]score.StepDetail{0: {Condition: "pass from 2"}}
		}, 12, []score.Tick{400, 800}},
		{"only while filling", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Details = map[int]score.StepDetail{0: {Condition: "filling"}}
		}, 12, nil},
		{"after a step that sounded, and after one that did not", func(_ *score.Project, _ *score.Track, part *score.Part) {
			for i := range 4 {
				part.Lanes.Gate.Steps[i] = score.On
			}
			part.Details = map[int]score.StepDetail{
				0: {Condition: "pass 2 of 2"}, 1: {Condition: "sounded"}, 2: {Condition: "not sounded"}, 3: {Condition: "sounded"},
			}
		}, 8, []score.Tick{200, 300, 400, 500}},
		{"filling every off step", func(p *score.Project, _ *score.Track, part *score.Part) { p.Filling, part.Fill = true, 100 }, 4, []score.Tick{0, 100, 200, 300}},
		{"realigned every bar of five 16ths", func(p *score.Project, track *score.Track, _ *score.Part) {
			p.Meter, track.Realign = score.Meter{Beats: 5, Unit: 16}, 1
		}, 12, []score.Tick{0, 400, 500, 900, 1000}},
	} {
		t.Run(c.name, func(t *testing.T) {
			var starts []score.Tick
			for _, n := range play.Render(testkit.Plain(c.change), 0, c.bars*sixteenth, nil) {
				starts = append(starts, n.Start*100/sixteenth)
			}
			require.Equal(t, c.want, starts)
		})
	}
}

func TestHowLongNotesLast(t *testing.T) {
	for _, c := range []struct {
		name   string
		change func(*score.Project, *score.Track, *score.Part)
		want   score.Tick // percent of a 16th
	}{
		{"a share of the step", func(_ *score.Project, _ *score.Track, part *score.Part) { part.Lanes.Length.Steps[0] = 35 }, 35},
		{"the amount of the lane", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Lanes.Length.Steps[0], part.Lanes.Length.Amount = 80, 50
		}, 40},
		{"half of a dotted 8th", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.LengthUnit, part.Lanes.Length.Steps[0] = "1/8.", 50
		}, 150},
		{"two quarter notes", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.LengthUnit, part.Lanes.Length.Steps[0] = "1/4", score.WholeStep+1
		}, 800},
		{"half of 64 steps", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Lanes.Length.Steps[0], part.Lanes.Length.Amount = 163, 50
		}, 3200},
		{"tied to drawn durations", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Durations = []score.Duration{{Value: "1/8", Weight: 1}}
			part.Lanes.Gate.Steps[1] = score.Tie
		}, 320},
		{"64 steps", func(_ *score.Project, _ *score.Track, part *score.Part) { part.Lanes.Length.Steps[0] = 163 }, 6400},
		{"tied to two steps", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Lanes.Gate.Steps[1], part.Lanes.Gate.Steps[2] = score.Tie, score.Tie
		}, 260},
		{"stretched and sustained", func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Details = map[int]score.StepDetail{0: {Stretch: 4, Lengths: "1222"}}
		}, 240},
		{"a quarter of the room of four strikes", func(_ *score.Project, _ *score.Track, part *score.Part) {
			testkit.SetLane(&part.Lanes.Ratchet, score.Ratchet, func(l *score.Lane) { l.Steps[0] = 4 })
		}, 15},
	} {
		t.Run(c.name, func(t *testing.T) {
			first := play.Render(testkit.Plain(c.change), 0, sixteenth, nil)[0]
			require.Equal(t, c.want, (first.End-first.Start)*100/sixteenth)
		})
	}
}

// What moves a lane: with gates on the first and third of four steps, the second struck twice.
func TestMovers(t *testing.T) {
	for mover, want := range map[score.Mover][]uint8{
		score.ByClock:  {60, 64, 64, 67, 71, 71}, // at the gate's own rate
		score.ByStep:   {60, 64, 64, 67, 71, 71},
		score.ByHit:    {60, 62, 62, 64, 65, 65},
		score.ByStrike: {60, 62, 64, 65, 67, 69},
	} {
		p := testkit.Plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Lanes.Gate.Steps[2] = score.On
			testkit.SetLane(&part.Lanes.Ratchet, score.Ratchet, func(l *score.Lane) { l.Steps[2] = 2 })
			pitch := part.Lanes.Pitch
			pitch.Linked, pitch.Length, pitch.Moves = false, 64, mover
			for i := range pitch.Steps {
				pitch.Steps[i] = i % 28
			}
		})
		var keys []uint8
		for _, n := range play.Render(p, 0, 8*sixteenth, nil) {
			keys = append(keys, n.Key)
		}
		require.Equal(t, want, keys, mover)
	}
}

func TestWhatNotesAre(t *testing.T) {
	velocity := func(p *score.Project, i int) uint8 { return play.Render(p, 0, 4*sixteenth, nil)[i].Velocity }
	ramp := testkit.Plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
		part.Lanes.Velocity.Steps[0], part.Ratchet.Ramp = 100, -60
		testkit.SetLane(&part.Lanes.Ratchet, score.Ratchet, func(l *score.Lane) { l.Steps[0] = 3 })
	})
	require.Equal(t, []uint8{100, 70, 40}, []uint8{velocity(ramp, 0), velocity(ramp, 1), velocity(ramp, 2)})

	key := func(change func(*score.Project, *score.Track, *score.Part)) uint8 {
		return play.Render(testkit.Plain(change), 0, sixteenth, nil)[0].Key
	}
	require.Equal(t, uint8(72), key(func(_ *score.Project, _ *score.Track, part *score.Part) {
		testkit.SetLane(&part.Lanes.Octave, score.Octave, func(l *score.Lane) { l.Steps[0] = 1 })
	}))
	require.Equal(t, uint8(61), key(func(_ *score.Project, _ *score.Track, part *score.Part) {
		testkit.SetLane(&part.Lanes.Alteration, score.Alteration, func(l *score.Lane) { l.Steps[0] = 1 })
	}))
	require.Equal(t, uint8(64), key(func(_ *score.Project, track *score.Track, _ *score.Part) { track.Transpose.Degrees = 2 }))
	require.Equal(t, uint8(62), key(func(_ *score.Project, track *score.Track, _ *score.Part) { track.Transpose.Semitones = 2 }))
	require.Equal(t, uint8(64), key(func(p *score.Project, _ *score.Track, _ *score.Part) { p.Key.Allowed = []int{2} }))
	require.Equal(t, uint8(36), key(func(_ *score.Project, track *score.Track, part *score.Part) { track.Kind, part.Note = score.Kit, 36 }))
}

// Hold repeats the same luck: with it every bar plays alike, without it bars differ.
func TestHold(t *testing.T) {
	bars := func(hold int) [8][]score.Tick {
		p := testkit.Plain(func(_ *score.Project, track *score.Track, part *score.Part) {
			track.Hold = hold
			for i := range part.Lanes.Gate.Steps {
				part.Lanes.Gate.Steps[i], part.Lanes.Probability.Steps[i] = score.On, 50
			}
		})
		var starts [8][]score.Tick
		bar := p.Meter.Bar()
		for _, n := range play.Render(p, 0, 8*bar, nil) {
			starts[n.Start/bar] = append(starts[n.Start/bar], n.Start%bar)
		}
		return starts
	}
	held, free := bars(2), bars(0)
	for i := 2; i < 8; i++ {
		require.Equal(t, held[i-2], held[i])
	}
	require.NotEqual(t, free[0], free[2])
	require.Equal(t, free[0], held[0])
}

// Hold also repeats where lanes go at random, the first bars included.
func TestHoldRepeatsWhereLanesGo(t *testing.T) {
	for _, mover := range []score.Mover{score.ByClock, score.ByStep, score.ByHit, score.ByStrike} {
		p := testkit.Plain(func(_ *score.Project, track *score.Track, part *score.Part) {
			track.Hold = 1
			for i := range part.Lanes.Gate.Steps {
				part.Lanes.Gate.Steps[i], part.Lanes.Pitch.Steps[i] = score.On, i%7
			}
			part.Lanes.Gate.Length, part.Lanes.Gate.Order = 64, score.Random
			pitch := part.Lanes.Pitch
			pitch.Linked, pitch.Length, pitch.Order, pitch.Moves = false, 64, score.Random, mover
		})
		bar := p.Meter.Bar()
		first := play.Render(p, 0, bar, nil)
		require.Len(t, first, 16)
		for n := score.Tick(1); n < 4; n++ {
			again := play.Render(p, n*bar, (n+1)*bar, nil)
			for i := range again {
				again[i].Start, again[i].End = again[i].Start-n*bar, again[i].End-n*bar
			}
			require.Equal(t, first, again, mover)
		}
	}
}

// A track with a luck of its own does not follow the project's.
func TestATracksOwnLuck(t *testing.T) {
	notes := func(project, track int) []play.Note {
		p := testkit.Buoy()
		p.Luck.Number, p.Tracks[0].Luck = project, track
		return play.Render(p, 0, 8*p.Meter.Bar(), nil)
	}
	require.Equal(t, notes(1, 7), notes(2, 7))
	require.NotEqual(t, notes(1, score.FollowLuck), notes(2, score.FollowLuck))
	require.Equal(t, notes(7, score.FollowLuck), notes(1, 7))
}

// A condition about another track follows what that track last decided.
func TestAfterAnotherTrack(t *testing.T) {
	p := testkit.Plain(func(p *score.Project, track *score.Track, part *score.Part) {
		part.Details = map[int]score.StepDetail{0: {Condition: "pass 2 of 2"}}
		follower := track.Clone()
		follower.ID, follower.Channel = 2, 2
		follower.Parts()[0].Details = map[int]score.StepDetail{0: {Condition: score.AfterTrack(1)}}
		p.Tracks = append(p.Tracks, follower)
	})
	require.NoError(t, p.Validate())
	var tracks []uint32
	for _, n := range play.Render(p, 0, 16*sixteenth, nil) {
		tracks = append(tracks, n.Track)
	}
	require.Equal(t, []uint32{1, 2, 1, 2}, tracks)
}

// The chart is told where each lane stands when it is read: a lane that moves by hits stands on a step
// from one hit to the next, and no two moves of a lane are at one tick.
func TestMovesAreToldWhereTheyAreRead(t *testing.T) {
	p := testkit.Plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
		part.Lanes.Gate.Steps[1] = score.On
		part.Details = map[int]score.StepDetail{2: {Skip: true}}
		for _, lane := range []*score.Lane{part.Lanes.Pitch, part.Lanes.Velocity, part.Lanes.Length} {
			lane.Linked, lane.Length = false, 8
		}
		part.Lanes.Pitch.Moves, part.Lanes.Velocity.Moves, part.Lanes.Length.Moves = score.ByHit, score.ByStep, score.ByStrike
		testkit.SetLane(&part.Lanes.Ratchet, score.Ratchet, func(l *score.Lane) { l.Steps[1] = 2 })
	})
	moves := play.Look(p, 1, 0, 5*sixteenth)[0].Moves
	require.Equal(t, []play.Move{{0, 0}, {sixteenth, 1}, {2 * sixteenth, 3}, {3 * sixteenth, 0}, {4 * sixteenth, 1}}, moves[score.Gate])
	require.Equal(t, []play.Move{{0, 0}, {sixteenth, 1}, {3 * sixteenth, 2}, {4 * sixteenth, 3}}, moves[score.Pitch])
	require.Equal(t, []play.Move{{0, 0}, {sixteenth, 1}, {2 * sixteenth, 2}, {3 * sixteenth, 3}, {4 * sixteenth, 4}}, moves[score.Velocity])
	require.Equal(t, []play.Move{{0, 0}, {sixteenth, 1}, {sixteenth * 3 / 2, 2}, {3 * sixteenth, 3}, {4 * sixteenth, 4}, {sixteenth * 9 / 2, 5}}, moves[score.Length])
}

// A ramp of -100 goes from the written velocity to the least there is; one of 100 to twice as much, up to 127.
func TestTheRampOfARatchet(t *testing.T) {
	for ramp, want := range map[int][]uint8{-100: {100, 50, 1}, 0: {100, 100, 100}, 20: {100, 110, 120}, 100: {100, 127, 127}} {
		p := testkit.Plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Ratchet.Ramp = ramp
			part.Lanes.Velocity.Steps[0] = 100
			testkit.SetLane(&part.Lanes.Ratchet, score.Ratchet, func(l *score.Lane) { l.Steps[0] = 3 })
		})
		var velocities []uint8
		for _, n := range play.Render(p, 0, sixteenth, nil) {
			velocities = append(velocities, n.Velocity)
		}
		require.Equal(t, want, velocities, "ramp %d", ramp)
	}
}

// A nudge moves the whole of a note whose step is stretched, and of its last strike on each length.
func TestANudgeMovesStretchedSteps(t *testing.T) {
	for lengths, want := range map[string][][2]score.Tick{"122": {{20, 320}}, "111": {{20, 120}, {120, 220}, {220, 320}}, "012": {{120, 320}}} {
		p := testkit.Plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
			part.Details = map[int]score.StepDetail{0: {Stretch: 3, Lengths: lengths}}
			part.Lanes.Length.Steps[0] = score.WholeStep
			testkit.SetLane(&part.Lanes.Nudge, score.Nudge, func(l *score.Lane) { l.Steps[0] = 20 })
		})
		var notes [][2]score.Tick
		for _, n := range play.Render(p, 0, 4*sixteenth, nil) {
			notes = append(notes, [2]score.Tick{n.Start * 100 / sixteenth, n.End * 100 / sixteenth})
		}
		require.Equal(t, want, notes, lengths)
	}
}
