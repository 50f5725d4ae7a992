package play_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/testkit"
)

// melody returns a track whose gate lane of so many steps is on at every step, each a degree higher than the one before.
func melody(length int, change func(*score.Track, *score.Part)) *score.Project {
	return testkit.Plain(func(_ *score.Project, track *score.Track, part *score.Part) {
		part.Lanes.Gate.Length = length
		for i := range part.Lanes.Gate.Steps {
			part.Lanes.Gate.Steps[i] = score.On
			part.Lanes.Pitch.Steps[i] = i % 29
		}
		if change != nil {
			change(track, part)
		}
	})
}

// acted plays so many sixteenths of a project with things done at sixteenths, and returns when notes start, in sixteenths,
// and their gate steps.
func acted(p *score.Project, sixteenths score.Tick, done ...doing) (starts []float64, steps []int) {
	f := play.NewPerformer(p)
	var s stage.Stage
	for i, d := range done {
		if d.control.Track = 1; d.control.Lane == "" && d.control.Name == "fill" {
			d.control.Track = 0
		}
		s = s.With(d.control, d.value)
		told := score.Tick(d.told * float64(sixteenth))
		f.Act(actOf(p, s, d.control, int64(i+1), told, max(told, score.Tick(d.at*float64(sixteenth)))))
	}
	for _, n := range f.Advance(sixteenths*sixteenth, nil) {
		starts, steps = append(starts, float64(n.Start)/float64(sixteenth)), append(steps, int(n.Step))
	}
	return starts, steps
}

type doing struct {
	control  stage.Control
	value    int
	told, at float64
}

func lane(name string, value int, told float64) doing {
	return doing{stage.Control{Name: name, Lane: score.Gate}, value, told, 0}
}

func track(name string, value int, told, at float64) doing {
	return doing{stage.Control{Name: name}, value, told, at}
}

// engine.md 5: a place is taken modulo a new length; a new order holds from the next move; the move that is due stays.
func TestALoopIsChangedWhileItPlays(t *testing.T) {
	_, steps := acted(melody(8, nil), 12, lane("length", 4, 6.5))
	require.Equal(t, []int{0, 1, 2, 3, 4, 5, 6, 3, 0, 1, 2, 3}, steps, "after step 6, which is step 2 of four, comes step 3")
	_, steps = acted(melody(4, nil), 12, lane("length", 8, 5.5))
	require.Equal(t, []int{0, 1, 2, 3, 0, 1, 2, 3, 4, 5, 6, 7}, steps)
	_, steps = acted(melody(4, nil), 8, lane("order", 1, 2.5))
	require.Equal(t, []int{0, 1, 2, 1, 0, 3, 2, 1}, steps, "backward")
	_, steps = acted(melody(4, nil), 8, lane("first", 8, 2.5))
	require.Equal(t, []int{0, 1, 2, 11, 8, 9, 10, 11}, steps)
	there := func(_ *score.Track, part *score.Part) { part.Lanes.Gate.Order = score.ThereAndBack }
	_, steps = acted(melody(5, there), 12, lane("length", 4, 6.5))
	require.Equal(t, []int{0, 1, 2, 3, 4, 3, 2, 1, 0, 1, 2, 3}, steps, "on its way back it goes on back")
}

func TestATrackPassesAtAnotherSpeed(t *testing.T) {
	rates := 0
	for i, rate := range score.NoteValues() {
		if rate == "1/8" {
			rates = i
		}
	}
	starts, steps := acted(melody(4, nil), 8, lane("rate", rates, 2.5))
	require.Equal(t, []float64{0, 1, 2, 3, 5, 7}, starts, "the step that is due comes when it was due")
	require.Equal(t, []int{0, 1, 2, 3, 0, 1}, steps)
	twice := 1*16 + 0 // 2:1
	starts, _ = acted(melody(4, nil), 5, track("speed", twice, 1.5, 0))
	require.Equal(t, []float64{0, 1, 2, 2.5, 3, 3.5, 4, 4.5}, starts)
	starts, _ = acted(melody(4, nil), 6, track("speed", 1, 1.5, 0), track("speed", 0, 3, 0))
	require.Equal(t, []float64{0, 1, 2, 4, 5}, starts, "1:2, and back")
}

// perform.md 3: a pattern enters at its first step; what sounds finishes, and what has not begun is left out.
func TestAPatternEntersAtItsFirstStep(t *testing.T) {
	p := melody(5, func(track *score.Track, part *score.Part) {
		part.Lanes.Length.Steps[4] = score.WholeStep + 3 // four steps
		second := track.Clone().Patterns[0]
		second.ID, second.Name = 7, "B"
		second.Parts[0].Lanes.Gate.Length = 3
		track.Patterns = append(track.Patterns, second)
	})
	_, steps := acted(p, 10, track("pattern", 7, 2.5, 5))
	require.Equal(t, []int{0, 1, 2, 3, 4, 0, 1, 2, 0, 1}, steps)
	_, steps = acted(p, 8, track("pattern", 7, 2.5, 0))
	require.Equal(t, []int{0, 1, 2, 0, 1, 2, 0, 1}, steps, "at once is at its next step")
	f := play.NewPerformer(p)
	f.Act(actOf(p, stage.Stage{}.With(stage.Control{Name: "pattern", Track: 1}, 7), stage.Control{Name: "pattern", Track: 1}, 1, 0, 5*sixteenth))
	notes := f.Advance(6*sixteenth, nil)
	require.Equal(t, 8*sixteenth, notes[4].End, "what sounds finishes")

	p = melody(4, func(track *score.Track, part *score.Part) {
		testkit.SetLane(&part.Lanes.Ratchet, score.Ratchet, func(l *score.Lane) { l.Steps[2] = 4 })
		part.Details = map[int]score.StepDetail{2: {Stretch: 2}}
		second := track.Clone().Patterns[0]
		second.ID, second.Name = 7, "B"
		second.Parts[0].Lanes.Ratchet = nil
		second.Parts[0].Details = nil
		track.Patterns = append(track.Patterns, second)
	})
	starts, _ := acted(p, 5, track("pattern", 7, 0, 3))
	require.Equal(t, []float64{0, 1, 2, 2.25, 2.5, 2.75, 3, 4}, starts, "the rest of the ratchets is left out")
}

// engine.md 4: the numbers of draws go on over pattern changes, so that a pattern that comes again has other luck.
func TestALuckGoesOnOverPatterns(t *testing.T) {
	p := melody(4, func(track *score.Track, part *score.Part) {
		for i := range part.Lanes.Probability.Steps {
			part.Lanes.Probability.Steps[i] = 50
		}
		second := track.Clone().Patterns[0]
		second.ID = 1
		track.Patterns = append(track.Patterns, second)
	})
	var done []doing
	for i := range 15 {
		done = append(done, track("pattern", (i+1)%2, 0, float64(4*(i+1))))
	}
	plain, _ := acted(p, 64)
	changing, _ := acted(p, 64, done...)
	require.Equal(t, plain, changing, "equal patterns that change each bar draw as one that stays")
}

func TestSilenceHoldsFromItsTick(t *testing.T) {
	starts, _ := acted(melody(4, nil), 8, track("mute", 1, 2.5, 0), track("mute", 0, 4.5, 6))
	require.Equal(t, []float64{0, 1, 2, 6, 7}, starts)
	late := melody(4, func(track *score.Track, _ *score.Part) { track.Delay = sixteenth / 2 })
	starts, _ = acted(late, 6, track("mute", 1, 2.25, 0))
	require.Equal(t, []float64{0.5, 1.5}, starts, "a note counts by when it sounds, not by when it was decided")
	starts, _ = acted(late, 6, track("active", 0, 1, 4))
	require.Equal(t, []float64{0.5, 1.5, 2.5, 3.5}, starts)
}

// engine.md 5: what is done counts for a track from its first step none of whose notes can have begun before; how far it
// looks ahead follows from its own nudges, jitter and delay, whatever other tracks have.
func TestHowFarAheadATrackLooks(t *testing.T) {
	early := melody(4, func(track *score.Track, _ *score.Part) { track.Delay = -2 * sixteenth })
	_, steps := acted(early, 6, lane("order", 1, 1))
	// At sixteenth 1 the steps of sixteenths 0 to 2 have begun or could have; the first two came before the beginning.
	require.Equal(t, []int{2, 1, 0, 3, 2, 1}, steps)
	plain := melody(4, nil)
	far := early.Tracks[0].Clone()
	far.ID, far.Channel = 2, 2
	plain.Tracks = append(plain.Tracks, far)
	_, alone := acted(melody(4, nil), 8, lane("order", 1, 2.5))
	f := play.NewPerformer(plain)
	f.Act(actOf(plain, stage.Stage{}.With(gateOrder, 1), gateOrder, 1, 5*sixteenth/2, 5*sixteenth/2))
	var beside []int
	for _, n := range f.Advance(8*sixteenth, nil) {
		if n.Track == 1 {
			beside = append(beside, int(n.Step))
		}
	}
	require.Equal(t, alone, beside)
}

var gateOrder = stage.Control{Name: "order", Track: 1, Lane: score.Gate}

// A hold that is set while it plays begins with the next bar; a pattern that enters restarts its own there.
func TestAHoldBeginsWhereItIsSet(t *testing.T) {
	p := melody(16, func(track *score.Track, part *score.Part) {
		for i := range part.Lanes.Probability.Steps {
			part.Lanes.Probability.Steps[i] = 50
		}
		second := track.Clone().Patterns[0]
		second.ID = 1
		track.Patterns = append(track.Patterns, second)
	})
	bar := func(starts []float64, bar int) (in []float64) {
		for _, start := range starts {
			if at := start - 16*float64(bar); at >= 0 && at < 16 {
				in = append(in, at)
			}
		}
		return in
	}
	free, _ := acted(p, 96)
	held, _ := acted(p, 96, track("hold", 1, 20, 0))
	require.Equal(t, bar(free, 1), bar(held, 1))
	require.Equal(t, bar(free, 2), bar(held, 2), "the first bar that is held is as it would have been")
	for _, later := range []int{3, 4, 5} {
		require.Equal(t, bar(held, 2), bar(held, later))
		require.NotEqual(t, bar(free, later), bar(held, later))
	}
	p.Tracks[0].Hold = 1
	entered, _ := acted(p, 96, track("pattern", 1, 0, 48))
	require.Equal(t, bar(entered, 0), bar(entered, 2))
	require.Equal(t, bar(entered, 3), bar(entered, 5))
	require.NotEqual(t, bar(entered, 2), bar(entered, 3), "its luck goes on")
}

// What a pattern plays that is left is silent by its own muted parts, as long as it is still to come: told far ahead, the
// notes of pattern A up to the switch sound, and those of B, whose part is muted, do not; and the other way about.
func TestMutedPartsOfThePatternThatIsLeft(t *testing.T) {
	for _, aMuted := range []bool{false, true} {
		p := melody(16, func(track *score.Track, _ *score.Part) {
			track.Delay = 2 * sixteenth
			track.Patterns = append(track.Patterns, score.Pattern{ID: 1, Name: "B", Parts: slices.Clone(track.Patterns[0].Parts)})
			track.Patterns[0].Parts[0].Mute, track.Patterns[1].Parts[0].Mute = aMuted, !aMuted
		})
		starts, _ := acted(p, 16, track("pattern", 1, 0, 8))
		want := []float64{2, 3, 4, 5, 6, 7}
		if aMuted {
			want = []float64{10, 11, 12, 13, 14, 15}
		}
		require.Equal(t, want, starts)
	}
}

// Realign now has all lanes go on at their first steps: from its tick on, or if it is to be at once with the next step. What
// the track would have begun from there on is left out, the draws are numbered on.
func TestRealigningNow(t *testing.T) {
	p := melody(8, func(_ *score.Track, part *score.Part) { part.Lanes.Pitch.Linked = false; part.Lanes.Pitch.Length = 3 })
	keys := func(p *score.Project, done ...doing) (keys []int) {
		f := play.NewPerformer(p)
		for i, d := range done {
			told := score.Tick(d.told * float64(sixteenth))
			f.Act(actOf(p, stage.Stage{}, d.control, int64(i+1), told, max(told, score.Tick(d.at*float64(sixteenth)))))
		}
		for _, n := range f.Advance(12*sixteenth, nil) {
			keys = append(keys, int(n.Key))
		}
		return keys
	}
	own := keys(p)
	require.Equal(t, own[:3], own[3:6])
	starts, steps := acted(p, 12, track(stage.Realign, 1, 2, 5))
	require.Equal(t, []int{0, 1, 2, 3, 4, 0, 1, 2, 3, 4, 5, 6}, steps)
	require.Equal(t, []float64{0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11}, starts)
	at5 := doing{stage.Control{Name: stage.Realign, Track: 1}, 1, 2, 5}
	require.Equal(t, append(append([]int{}, own[:5]...), own[:7]...), keys(p, at5), "the pitches too")
	starts, steps = acted(p, 12, track(stage.Realign, 1, 2, 4.5))
	require.Equal(t, []float64{0, 1, 2, 3, 4, 4.5, 5.5, 6.5, 7.5, 8.5, 9.5, 10.5, 11.5}, starts, "between two steps")
	require.Equal(t, []int{0, 1, 2, 3, 4, 0, 1, 2, 3, 4, 5, 6, 7}, steps)
	starts, steps = acted(p, 8, track(stage.Realign, 1, 2.5, 0))
	require.Equal(t, []float64{0, 1, 2, 3, 4, 5, 6, 7}, starts, "at once it is the next step that is the first")
	require.Equal(t, []int{0, 1, 2, 0, 1, 2, 3, 4}, steps)
}

// Evolve now rolls once more, and again at the next bar at which it is due anyway; a track without such lanes plays on.
func TestEvolvingNow(t *testing.T) {
	p := melody(4, func(_ *score.Track, part *score.Part) {
		part.Lanes.Velocity.Evolve = &score.Evolve{Every: 64, Percent: 100, Lowest: 1, Highest: 127}
	})
	plain := play.NewPerformer(p).Advance(16*sixteenth, nil)
	f := play.NewPerformer(p)
	f.Act(actOf(p, stage.Stage{}, stage.Control{Name: stage.Evolve, Track: 1}, 1, 4*sixteenth, 8*sixteenth))
	evolved := f.Advance(16*sixteenth, nil)
	require.Equal(t, plain[:8], evolved[:8])
	require.NotEqual(t, plain[8:], evolved[8:])
	velocities := map[uint8]bool{}
	for i := range evolved[8:] {
		velocities[evolved[8+i].Velocity] = true
		same := evolved[8+i]
		same.Velocity = plain[8+i].Velocity
		require.Equal(t, plain[8+i], same, "nothing but what evolves")
	}
	require.Len(t, velocities, 4, "four steps, each rolled once")
}

// A pattern that enters as if it had played is, from its tick on, what it would be if it had played from the beginning: where
// its lanes go by the clock without chance that is all of it. By engine.md 5.
func TestAPatternEntersAsIfItHadPlayed(t *testing.T) {
	compared := 0
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		testkit.MakePlain(t, p)
		track := &p.Tracks[0]
		track.EntersAsPlayed, track.Realign = true, rapid.SampledFrom([]int{0, 0, 1, 3}).Draw(t, "realign")
		track.Speed = rapid.SampledFrom([]score.Ratio{{N: 1, M: 1}, {N: 3, M: 2}, {N: 7, M: 16}}).Draw(t, "speed")
		b := track.Clone().Patterns[0]
		b.ID = 9
		shorter := *b.Parts[0].Lanes.Gate
		shorter.Length = max(1, shorter.Length/2)
		shorter.First = min(shorter.First, score.MaxSteps-shorter.Length)
		b.Parts[0].Lanes.Gate = &shorter
		track.Patterns = []score.Pattern{track.Patterns[0], b}
		track.Playing = track.Patterns[0].ID
		require.NoError(t, p.Validate())
		at := score.Tick(rapid.IntRange(1, 400_000).Draw(t, "at"))
		always := p.Clone()
		always.Tracks[0].Playing = 9
		act := actOf(p, stage.Stage{}.With(stage.Control{Name: "pattern", Track: track.ID}, 9), stage.Control{Name: "pattern", Track: track.ID}, 1, 0, at)
		f := play.NewPerformer(p)
		f.Act(act)
		from := func(notes []play.Note) (after []play.Note) {
			for _, n := range notes {
				if n.Start >= at && n.Pattern == 9 {
					after = append(after, n)
				}
			}
			return after
		}
		want := from(play.NewPerformer(always).Advance(800_000, nil))
		require.Equal(t, want, from(f.Advance(800_000, nil)))
		compared += len(want)
	})
	require.Greater(t, compared, 50)

	// Where chance decides when the gate goes on it enters at its first step, and its lanes stand where the tick has them.
	p := melody(16, func(track *score.Track, part *score.Part) {
		track.EntersAsPlayed = true
		part.Lanes.Gate.Order = score.Random
		part.Lanes.Pitch.Linked, part.Lanes.Pitch.Length = false, 7
		track.Patterns = append(track.Patterns, score.Pattern{ID: 1, Name: "B", Parts: slices.Clone(track.Patterns[0].Parts)})
	})
	f := play.NewPerformer(p)
	f.Act(actOf(p, stage.Stage{}.With(stage.Control{Name: "pattern", Track: 1}, 1), stage.Control{Name: "pattern", Track: 1}, 1, 0, 10*sixteenth))
	var keys, plain []uint8
	for _, n := range f.Advance(14*sixteenth, nil) {
		keys = append(keys, n.Key)
	}
	for _, n := range play.NewPerformer(p).Advance(14*sixteenth, nil) {
		plain = append(plain, n.Key)
	}
	require.Equal(t, plain, keys, "the pitches go by the clock")
}
