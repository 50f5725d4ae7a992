package play_test

import (
	"cmp"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

// struckNotes returns a plain project in C major whose first step, of four 16ths, is on and has something of its own.
func struckNotes(own score.StepOwn, changes ...func(*score.Track, *score.Part)) *score.Project {
	return testkit.Plain(func(_ *score.Project, track *score.Track, part *score.Part) {
		track.Register = theory.Register{Lowest: 0, Highest: 127}
		part.Lanes.Pitch.Own = map[int]score.StepOwn{0: own}
		for _, change := range changes {
			change(track, part)
		}
	})
}

// heardNote is what matters of a note.
type heardNote struct {
	key, velocity uint8
	start, length score.Tick
}

func hearNotes(t require.TestingT, p *score.Project) (heard []heardNote) {
	require.NoError(t, p.Validate())
	for _, n := range play.Render(p, 0, 4*sixteenth, nil) {
		heard = append(heard, heardNote{n.Key, n.Velocity, n.Start, n.End - n.Start})
	}
	slices.SortStableFunc(heard, func(a, b heardNote) int { return cmp.Or(cmp.Compare(a.start, b.start), cmp.Compare(a.key, b.key)) })
	return heard
}

// The notes of a step, by hand: each with its own velocity, nudge and length, and what lanes, chords, voicing, transposition, allowed notes,
// register and voices make of them. A whole 16th is 5040 ticks; the usual note of the plain project has a velocity of 96 and lasts for 60 % of it.
func TestTheNotesOfAStep(t *testing.T) {
	const usual, sixty = 96, score.Tick(3024)
	plain := func(key uint8) heardNote { return heardNote{key, usual, 0, sixty} }
	triad := []score.StepNote{{}, {Degree: 2}, {Degree: 4}}
	set := func(name score.LaneName, value int) func(*score.Track, *score.Part) {
		return func(_ *score.Track, part *score.Part) {
			lane := part.Lanes.Lane(name).Clone()
			lane.Linked, lane.Steps[0] = name != score.Gate, value
			part.Lanes.Set(name, lane)
		}
	}
	voicing := func(v score.Voicing) func(*score.Track, *score.Part) {
		return func(_ *score.Track, part *score.Part) { part.Voicing = v }
	}
	for name, c := range map[string]struct {
		own    score.StepOwn
		change func(*score.Track, *score.Part)
		want   []heardNote
	}{
		"a triad":                    {score.StepOwn{Notes: triad}, nil, []heardNote{plain(60), plain(64), plain(67)}},
		"one by octave, one altered": {score.StepOwn{Notes: []score.StepNote{{}, {Octave: 1}, {Degree: 2, Alteration: -1}}}, nil, []heardNote{plain(60), plain(63), plain(72)}},
		"each in its own way": {
			score.StepOwn{Notes: []score.StepNote{{Nudge: 100}, {Degree: 2, Velocity: -50, Nudge: 7, Length: 9000}, {Degree: 4, Velocity: 126, Length: 1}}}, nil,
			[]heardNote{{67, 127, 0, 1}, {64, 46, 7, 9000}, {60, usual, 100, sixty}},
		},
		"no softer than 1":         {score.StepOwn{Notes: []score.StepNote{{Velocity: -126}}}, nil, []heardNote{{60, 1, 0, sixty}}},
		"moved by the pitch lane":  {score.StepOwn{Notes: triad}, set(score.Pitch, 1), []heardNote{plain(62), plain(65), plain(69)}},
		"by the octave lane":       {score.StepOwn{Notes: triad}, set(score.Octave, -1), []heardNote{plain(48), plain(52), plain(55)}},
		"by the alteration lane":   {score.StepOwn{Notes: triad}, set(score.Alteration, 1), []heardNote{plain(61), plain(65), plain(68)}},
		"by transposition":         {score.StepOwn{Notes: triad}, func(track *score.Track, _ *score.Part) { track.Transpose = score.Transpose{Degrees: 1, Semitones: 12} }, []heardNote{plain(74), plain(77), plain(81)}},
		"several before a chord":   {score.StepOwn{Notes: triad}, set(score.Chord, 3), []heardNote{plain(60), plain(64), plain(67)}},
		"one with a named chord":   {score.StepOwn{Notes: []score.StepNote{{Nudge: 9, Velocity: 1}}}, set(score.Chord, 1), []heardNote{{60, 97, 9, sixty}, {67, 97, 9, sixty}}},
		"inverted":                 {score.StepOwn{Notes: triad}, voicing(score.Voicing{Inversion: 1}), []heardNote{plain(64), plain(67), plain(72)}},
		"open":                     {score.StepOwn{Notes: triad}, voicing(score.Voicing{Open: true}), []heardNote{plain(60), plain(67), plain(76)}},
		"open, whatever the order": {score.StepOwn{Notes: []score.StepNote{{Degree: 4}, {}, {Degree: 2}}}, voicing(score.Voicing{Open: true}), []heardNote{plain(60), plain(67), plain(76)}},
		"strummed up":              {score.StepOwn{Notes: triad}, voicing(score.Voicing{Strum: 20}), []heardNote{plain(60), {64, usual, 504, sixty - 504}, {67, usual, 1008, sixty - 1008}}},
		"strummed down":            {score.StepOwn{Notes: triad}, voicing(score.Voicing{Strum: -20}), []heardNote{plain(67), {64, usual, 504, sixty - 504}, {60, usual, 1008, sixty - 1008}}},
		"two voices, the highest":  {score.StepOwn{Notes: triad}, func(track *score.Track, _ *score.Part) { track.Voices = 2 }, []heardNote{plain(64), plain(67)}},
		"on one key, struck once": {
			score.StepOwn{Notes: []score.StepNote{{Velocity: -10, Length: 100}, {Degree: 7, Nudge: 50, Velocity: 5, Length: 500}, {Degree: 4}}},
			func(track *score.Track, _ *score.Part) { track.Register = theory.Register{Lowest: 60, Highest: 71} }, []heardNote{{60, 101, 0, 550}, plain(67)},
		},
		"allowed notes of the step": {score.StepOwn{Allowed: []int{1, 4}}, set(score.Pitch, 2), []heardNote{plain(62)}},
		"in the octave below":       {score.StepOwn{Allowed: []int{6}}, nil, []heardNote{plain(59)}},
		"of each note":              {score.StepOwn{Notes: triad, Allowed: []int{0, 1, 4, 5}}, nil, []heardNote{plain(60), plain(62), plain(67)}},
		"before transposition":      {score.StepOwn{Allowed: []int{0}}, func(track *score.Track, _ *score.Part) { track.Transpose.Degrees = 1 }, []heardNote{plain(62)}},
		"none of them in the scale": {score.StepOwn{Allowed: []int{9, 11}}, set(score.Pitch, 3), []heardNote{plain(65)}},
		"a length over a tie":       {score.StepOwn{Notes: []score.StepNote{{Length: 100}}}, func(_ *score.Track, part *score.Part) { part.Lanes.Gate.Steps[1] = score.Tie }, []heardNote{{60, usual, 0, 5040 + sixty}}},
		"a length into a slide": {
			score.StepOwn{Notes: []score.StepNote{{Length: 100}}},
			func(_ *score.Track, part *score.Part) {
				part.Lanes.Gate.Steps[1] = score.On
				part.Lanes.Pitch.Steps[1] = 1
				set(score.Slide, 1)(nil, part)
			}, []heardNote{{60, usual, 0, 5670}, {62, usual, 5040, sixty}},
		},
		"on one key, the first the longest": {
			score.StepOwn{Notes: []score.StepNote{{Length: 900}, {Degree: 7, Nudge: 50, Length: 500}}},
			func(track *score.Track, _ *score.Part) { track.Register = theory.Register{Lowest: 60, Highest: 71} }, []heardNote{{60, usual, 0, 900}},
		},
		"a length up to the next step": {score.StepOwn{Notes: []score.StepNote{{Length: 15_000}}}, nil, []heardNote{{60, usual, 0, 15_000}}},
	} {
		p := struckNotes(c.own)
		if c.change != nil {
			c.change(&p.Tracks[0], &p.Tracks[0].Parts()[0])
		}
		require.Equal(t, c.want, hearNotes(t, p), name)
	}
}

// In a ratchet every hit has all notes, each note at most as long as until the next hit; the walk goes with all.
func TestTheNotesOfARatchet(t *testing.T) {
	p := struckNotes(score.StepOwn{Notes: []score.StepNote{{Length: 9000}, {Degree: 4, Nudge: 40}, {Degree: 6, Nudge: 70, Length: 9000}}}, func(_ *score.Track, part *score.Part) {
		testkit.SetLane(&part.Lanes.Ratchet, score.Ratchet, func(l *score.Lane) { l.Steps[0] = 2 })
		part.Details = map[int]score.StepDetail{0: {Ratchet: &score.StepRatchet{RatchetShape: score.RatchetShape{Spacing: score.Even, Odds: 100}, Walk: 1}}}
	})
	require.Equal(t, []heardNote{{60, 96, 0, 2520}, {67, 96, 40, 1512}, {71, 96, 70, 2520}, {62, 96, 2520, 9000}, {69, 96, 2560, 1512}, {72, 96, 2590, 9000}}, hearNotes(t, p))
	forecast := play.Look(p, 1, 0, sixteenth)[0].Forecasts[0]
	require.Len(t, forecast.Heard(), 6, "the forecast has every hit and note")
	require.Equal(t, []play.HitNote{{Start: 2520, End: 11_520, Key: 62, Velocity: 96}, {Start: 2560, End: 4072, Key: 69, Velocity: 96}, {Start: 2590, End: 11_590, Key: 72, Velocity: 96}}, forecast.Hits[1].Notes)
}

// A realignment cuts notes of their own length too, as it cuts every hit of a ratchet: at the bar, in which the loop begins anew.
func TestNotesAreCutByARealignment(t *testing.T) {
	p := struckNotes(score.StepOwn{Notes: []score.StepNote{{Length: 30_000}}}, func(track *score.Track, part *score.Part) {
		testkit.SetLane(&part.Lanes.Ratchet, score.Ratchet, func(l *score.Lane) { l.Steps[0] = 2 })
		track.Realign, part.Lanes.Gate.Length = 1, 15 // the first step comes again at the last 16th of the bar
	})
	notes := play.Render(p, 15*sixteenth, 16*sixteenth, nil)
	require.Len(t, notes, 2)
	require.Equal(t, 16*sixteenth, notes[1].End)
}

// A track that goes on by the notes of another hears a step of several notes once, whenever each of them comes.
func TestNotesOfAStepAreHeardAsOne(t *testing.T) {
	p := struckNotes(score.StepOwn{Notes: []score.StepNote{{Nudge: 500}, {Degree: 2}, {Degree: 4, Nudge: 900}}})
	follower := testkit.Buoy().Tracks[0]
	follower.ID, follower.Channel = 2, 2
	follower.Source = score.Source{Kind: score.NoteStarts, Track: 1, Odds: 100, Highest: 127, Level: 1}
	for step := range follower.Parts()[0].Lanes.Gate.Steps {
		follower.Parts()[0].Lanes.Gate.Steps[step] = score.On
	}
	follower.Parts()[0].Lanes.Probability = nil
	p.Tracks = append(p.Tracks, follower)
	require.NoError(t, p.Validate())
	var starts []score.Tick
	for _, n := range play.Render(p, 0, 8*sixteenth, nil) {
		if n.Track == 2 {
			starts = append(starts, n.Start)
		}
	}
	require.Equal(t, []score.Tick{0, 4 * sixteenth}, starts)
}

// Notes that come very late by their own nudges come from far bars too, where a performer jumps; and a change of the pitches of such a track has it played from the
// beginning, since how many notes fall on one key can differ.
func TestLateNotesFromFarAway(t *testing.T) {
	p := struckNotes(score.StepOwn{Notes: []score.StepNote{{Nudge: 80_640}, {Degree: 4, Nudge: 40_000}}})
	var want []play.Note
	for _, n := range play.Render(p, 0, 200*sixteenth, nil) {
		if n.Start >= 160*sixteenth && n.Start < 170*sixteenth {
			want = append(want, n)
		}
	}
	require.Len(t, want, 5)
	require.Equal(t, want, play.Render(p, 160*sixteenth, 170*sixteenth, nil))

	p.Tracks[0].Hold = 1 // so that it cannot jump
	change := score.SetSteps{LaneAddress: score.LaneAddress{PartAddress: score.PartAddress{Track: 1}, Lane: score.Pitch}, Steps: []score.StepValue{{Step: 0, Value: 3}}}
	changed, _, err := score.Apply(p, change)
	require.NoError(t, err)
	replayed, _ := play.Replayed(p, changed)
	require.Equal(t, []int{1}, replayed)
	p.Tracks[0].Parts()[0].Lanes.Pitch.Own = nil
	changed, _, err = score.Apply(p, change)
	require.NoError(t, err)
	replayed, _ = play.Replayed(p, changed)
	require.Empty(t, replayed)
}

// A note that comes early by its own nudge comes where it is written, also just before a bar at which somebody plays from; one before the beginning is
// left out, and the others of its step are not.
func TestEarlyNotes(t *testing.T) {
	p := struckNotes(score.StepOwn{Notes: []score.StepNote{{Nudge: -80_640}, {Degree: 4}}})
	notes := play.Render(p, 0, 80*sixteenth, nil)
	var starts []score.Tick
	for _, n := range notes[:8] {
		starts = append(starts, n.Start/sixteenth)
	}
	require.Equal(t, []score.Tick{0, 0, 4, 4, 8, 8, 12, 12}, starts, "each early note is of the step four loops later")
	require.ElementsMatch(t, []uint8{60, 67}, []uint8{notes[0].Key, notes[1].Key})
	f := play.NewPerformer(p)
	var cut []play.Note
	for to := score.Tick(0); to < 80*sixteenth; to += 777 {
		cut = f.Advance(to, cut)
	}
	require.Equal(t, notes, f.Advance(80*sixteenth, cut))
}

// Notes that other notes of their step are drawn apart from: with each by itself they move differently, all together they do not.
func TestEachNoteByItself(t *testing.T) {
	spread := &score.Spread{Chance: 100, Depth: 100, Lowest: 0, Highest: 6, Grain: 1}
	apart := func(own score.StepOwn) (apart map[int]int) {
		apart = map[int]int{}
		own.Spread, own.Notes = spread, []score.StepNote{{}, {Octave: 3}}
		notes := play.Render(struckNotes(own), 0, 7000*4*sixteenth, nil)
		for i := 0; i < len(notes); i += 2 {
			apart[degreeOf(notes[i+1].Key)-21-degreeOf(notes[i].Key)]++
		}
		return apart
	}
	require.Equal(t, map[int]int{0: 7000}, apart(score.StepOwn{}))
	// The difference of two even numbers from 0 to 6 is d in 7-|d| of 49 cases.
	var counts [128]float64
	share := map[int]float64{}
	for difference, count := range apart(score.StepOwn{Each: true}) {
		counts[difference+6] = float64(count)
	}
	for d := -6; d <= 6; d++ {
		share[d+6] = float64(7-max(d, -d)) / 49
	}
	requireShares(t, counts, 7000, share)
}

// degreeOf returns the degree of C major of a key, counted from middle C.
func degreeOf(key uint8) int {
	for degree := -28; degree <= 70; degree++ {
		if (theory.Key{Scale: "major"}).Note(degree) == int(key) {
			return degree
		}
	}
	panic("not in C major")
}

// Notes of steps stay in the register whatever is asked for, each key is struck once at a step, and every velocity is one.
func TestNotesOfStepsStayInBounds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		lowest := rapid.IntRange(0, 100).Draw(t, "lowest")
		p := struckNotes(score.StepOwn{Notes: testkit.StepNotes(t)}, func(track *score.Track, part *score.Part) {
			track.Register = theory.Register{Lowest: lowest, Highest: lowest + rapid.IntRange(11, 27).Draw(t, "wide")}
			part.Voicing = score.Voicing{Inversion: rapid.IntRange(0, 4).Draw(t, "inversion"), Open: rapid.Bool().Draw(t, "open"), Strum: rapid.IntRange(-100, 100).Draw(t, "strum")}
		})
		require.NoError(t, p.Validate())
		for _, f := range play.Look(p, 1, 40*sixteenth, 41*sixteenth)[0].Forecasts {
			keys := map[int]bool{}
			for _, n := range f.Heard() {
				require.False(t, keys[n.Key], "struck twice")
				keys[n.Key] = true
				require.True(t, n.Key >= lowest && n.Key <= p.Tracks[0].Register.Highest)
				require.True(t, n.Velocity >= 1 && n.Velocity <= 127 && n.End > n.Start)
			}
		}
	})
}
