package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

// stretch is how much of a drawn project the properties look at.
const stretch = 24 * score.TicksPerQuarter

// Invariant 2: any way of cutting a stretch gives the same notes and messages as the whole.
func TestCut(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		whole := play.Render(p, 0, stretch, nil)
		var wholeKeys, cutKeys play.Keys
		wholeMessages := wholeKeys.Play(whole, stretch, nil)

		var cut []play.Note
		var cutMessages []play.Message
		for from := score.Tick(0); from < stretch; {
			to := min(stretch, from+score.Tick(rapid.IntRange(1, 60_000).Draw(t, "slice")))
			slice := play.Render(p, from, to, nil)
			cut = append(cut, slice...)
			cutMessages = cutKeys.Play(slice, to, cutMessages)
			from = to
		}
		require.Equal(t, whole, cut)
		require.Equal(t, wholeMessages, cutMessages)
	})
}

// Invariant 3: the same project and luck repeat; an edit in one track leaves all others as they were.
func TestRepeatAndIsolation(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		before := play.Render(p, 0, stretch, nil)
		require.Equal(t, before, play.Render(p.Clone(), 0, stretch, nil))

		spec := rapid.SampledFrom(score.LaneSpecs()).Draw(t, "lane")
		edited, _, err := score.Apply(p, testkit.SetSteps(t, 1, spec))
		require.NoError(t, err)
		muted := true
		edited, _, err = score.Apply(edited, score.SetTrack{Track: 1, Mute: &muted})
		require.NoError(t, err)
		require.Equal(t, others(before, 1), play.Render(edited, 0, stretch, nil))
	})
}

// Muting a track and unmuting it changes nothing that it plays later.
func TestMuteDecidesAllTheSame(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		muted := p.Clone()
		for i := range muted.Tracks {
			muted.Tracks[i].Mute = true
		}
		require.Empty(t, play.Render(muted, 0, stretch, nil))
		track := &p.Tracks[0]
		require.Equal(t, play.Forecasts(p, track, 0, stretch), play.Forecasts(muted, &muted.Tracks[0], 0, stretch))
	})
}

func others(notes []play.Note, track uint32) []play.Note {
	var kept []play.Note
	for _, n := range notes {
		if n.Track != track {
			kept = append(kept, n)
		}
	}
	return kept
}

// Invariant 4: every pitch that sounds is in the scale and in the register.
func TestEveryPitchIsInScaleAndRegister(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		scale, ok := theory.ScaleByName(p.Key.Scale)
		require.True(t, ok)
		for _, n := range play.Render(p, 0, stretch, nil) {
			register := p.Track(int(n.Track)).Register
			require.GreaterOrEqual(t, int(n.Key), register.Lowest)
			require.LessOrEqual(t, int(n.Key), register.Highest)
			require.Contains(t, scale.Semitones, (int(n.Key)-p.Key.Root+theory.Octave)%theory.Octave)
		}
	})
}

// Invariant 5: with probability 100 everywhere the notes follow from arithmetic alone. The
// arithmetic is written out here once more, in another way than Render does it: it walks step by
// step with counters instead of dividing.
func TestClosedForm(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		p.Tracks = p.Tracks[:1]
		track := &p.Tracks[0]
		track.Mute = false
		for i := range track.Lanes.Probability.Steps {
			track.Lanes.Probability.Steps[i] = 100
		}
		require.Equal(t, walk(p, stretch), play.Render(p, 0, stretch, nil))
	})
}

func walk(p *score.Project, to score.Tick) []play.Note {
	track := &p.Tracks[0]
	const beyond = score.MaxSteps * 2 * 4 * score.TicksPerQuarter // room for the longest chain of ties
	value := map[score.LaneName]map[score.Tick]int{}
	for _, spec := range score.LaneSpecs() {
		value[spec.Name] = valuesAt(track, spec.Name, to+beyond)
	}
	gate := &track.Lanes.Gate
	var notes []play.Note
	step := 0
	for at := score.Tick(0); at < to; at += gate.Rate.Ticks() {
		if value[score.Gate][at] == score.On {
			last := at
			for value[score.Gate][last+gate.Rate.Ticks()] == score.Tie {
				last += gate.Rate.Ticks()
			}
			sounding := max(1, gate.Rate.Ticks()*score.Tick(value[score.Length][last])/100)
			played := gate.Length - 1 - step
			if gate.Order == score.Forward {
				played = step
			}
			notes = append(notes, play.Note{
				Start: at, End: last + sounding, Track: uint32(track.ID), Step: uint8(played),
				Channel:  uint8(track.Channel - 1),
				Key:      uint8(track.Register.Fold(p.Key.Note(value[score.Pitch][at]))),
				Velocity: uint8(value[score.Velocity][at]),
			})
		}
		step = (step + 1) % gate.Length
	}
	return notes
}

// valuesAt returns a lane's value at every moment at which the gate lane goes on.
func valuesAt(track *score.Track, name score.LaneName, to score.Tick) map[score.Tick]int {
	loop, steps := track.Lanes.Loop(name), track.Lanes.Lane(name).Steps
	values := map[score.Tick]int{}
	step, ends := 0, loop.Rate.Ticks()
	for at := score.Tick(0); at < to; at += track.Lanes.Gate.Rate.Ticks() {
		for at >= ends {
			step = (step + 1) % loop.Length
			ends += loop.Rate.Ticks()
		}
		if loop.Order == score.Backward {
			values[at] = steps[loop.Length-1-step]
		} else {
			values[at] = steps[step]
		}
	}
	return values
}

// What the screen shows beforehand is what sounds.
func TestForecastsComeTrue(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		track := &p.Tracks[0]
		track.Mute = false
		p.Tracks = p.Tracks[:1]
		var foreseen []play.Note
		for _, f := range play.Forecasts(p, track, 0, stretch) {
			if f.Sounds {
				foreseen = append(foreseen, play.Note{Start: f.Tick, End: f.End, Step: uint8(f.Step), Key: uint8(f.Key)})
			}
		}
		notes := play.Render(p, 0, stretch, nil)
		for i := range notes {
			notes[i].Track, notes[i].Channel, notes[i].Velocity = 0, 0, 0
		}
		require.Equal(t, foreseen, notes)
	})
}

// The demo shows chance at work at once: in its first two bars something is left out by chance and
// something sounds by chance.
func TestTheDemoShowsChanceInItsFirstTwoBars(t *testing.T) {
	p := score.Demo()
	var sounded, leftOut int
	for _, f := range play.Forecasts(p, &p.Tracks[0], 0, 2*p.Meter.Bar()) {
		switch {
		case f.Probability == 100:
		case f.Sounds:
			sounded++
		default:
			leftOut++
		}
	}
	require.GreaterOrEqual(t, sounded, 2)
	require.GreaterOrEqual(t, leftOut, 2)
}
