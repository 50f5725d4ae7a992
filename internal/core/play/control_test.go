package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// changes returns what the mod lanes and slides of a project send before a tick.
func changes(p *score.Project, to score.Tick) []play.Change {
	performer := play.NewPerformer(p)
	performer.Advance(to, nil)
	return performer.Changes(nil)
}

// withMod returns a project whose first mod lane is linked and holds the given values.
func withMod(mod score.Mod, values ...int) *score.Project {
	return testkit.Plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
		part.Mods = []score.Mod{mod}
		testkit.SetLane(&part.Lanes.Mod1, score.Mod1, func(l *score.Lane) { copy(l.Steps, values) })
	})
}

func TestMods(t *testing.T) {
	cc := func(tick score.Tick, number uint8, value uint16) play.Change {
		return play.Change{Tick: tick, Track: 1, Kind: midi.ControlChange, Number: number, Value: value}
	}
	for _, c := range []struct {
		name string
		p    *score.Project
		want []play.Change
	}{
		{"sent only when it changes", withMod(score.Mod{Target: score.ControlTarget, Number: 74, Most: 127}, 0, 0, 127, 127),
			[]play.Change{cc(0, 74, 0), cc(2*sixteenth, 74, 127), cc(4*sixteenth, 74, 0), cc(6*sixteenth, 74, 127)}},
		{"a range turned around", withMod(score.Mod{Target: score.ControlTarget, Number: 1, Least: 100, Most: 50}, 0, 127, 64, 64),
			[]play.Change{cc(0, 1, 100), cc(sixteenth, 1, 50), cc(2*sixteenth, 1, 75), cc(4*sixteenth, 1, 100), cc(5*sixteenth, 1, 50), cc(6*sixteenth, 1, 75)}},
		{"14 bits", withMod(score.Mod{Target: score.Control14Target, Number: 2, Most: 16383}, 127, 127, 127, 127),
			[]play.Change{{Track: 1, Kind: midi.WideControl, Number: 2, Value: 16383}}},
		{"pitch bend from the middle", withMod(score.Mod{Target: score.BendTarget, Least: 8192, Most: 16383}, 0, 127, 127, 127),
			[]play.Change{{Track: 1, Kind: midi.Bend, Value: 8192}, {Tick: sixteenth, Track: 1, Kind: midi.Bend, Value: 16383},
				{Tick: 4 * sixteenth, Track: 1, Kind: midi.Bend, Value: 8192}, {Tick: 5 * sixteenth, Track: 1, Kind: midi.Bend, Value: 16383}}},
		{"channel pressure", withMod(score.Mod{Target: score.PressureTarget, Most: 127}, 9, 9, 9, 9),
			[]play.Change{{Track: 1, Kind: midi.Pressure, Value: 9}}},
		{"a program", withMod(score.Mod{Target: score.ProgramTarget, Most: 127}, 5, 5, 5, 5),
			[]play.Change{{Track: 1, Kind: midi.Program, Value: 5}}},
	} {
		t.Run(c.name, func(t *testing.T) {
			require.Equal(t, c.want, changes(c.p, 8*sixteenth))
		})
	}
}

// A glide goes straight to its new value, in at most 24 messages a quarter note, and stops there.
func TestGlide(t *testing.T) {
	p := withMod(score.Mod{Target: score.ControlTarget, Number: 74, Most: 127, Glide: sixteenth}, 0, 120, 120, 120)
	var values []uint16
	for _, m := range changes(p, 4*sixteenth) {
		require.Zero(t, m.Tick%(score.TicksPerQuarter/24))
		values = append(values, m.Value)
	}
	// From 0 to 120 in six messages of a 24th of a quarter.
	require.Equal(t, []uint16{0, 20, 40, 60, 80, 100, 120}, values)
}

func TestAMutedTrackSendsNoControls(t *testing.T) {
	p := withMod(score.Mod{Target: score.ControlTarget, Number: 74, Most: 127}, 0, 127)
	p.Tracks[0].Mute = true
	require.Empty(t, changes(p, 8*sixteenth))
}

// A step that slides lasts into the next one that is on, which is struck with portamento; the one after
// is not. Controllers 5 and 65 are those of MIDI 1.0.
func TestSlide(t *testing.T) {
	p := testkit.Plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
		part.Lanes.Gate.Steps[2], part.SlideTime = score.On, 40
		testkit.SetLane(&part.Lanes.Slide, score.Slide, func(l *score.Lane) { l.Steps[0] = 1 })
	})
	notes := play.Render(p, 0, 8*sixteenth, nil)
	require.Equal(t, notes[1].Start+sixteenth/8, notes[0].End, "an eighth of a step into it")
	require.Less(t, notes[1].End, notes[2].Start)
	slide := func(tick score.Tick, number uint8, value uint16) play.Change {
		return play.Change{Tick: tick, Track: 1, Kind: midi.ControlChange, Number: number, Value: value}
	}
	require.Equal(t, []play.Change{
		slide(2*sixteenth, 5, 40), slide(2*sixteenth, 65, 127), slide(4*sixteenth, 65, 0),
		slide(6*sixteenth, 5, 40), slide(6*sixteenth, 65, 127),
	}, changes(p, 8*sixteenth))
}

// A mod that sits on the step is heard just before the note of its step, wherever swing, nudge, jitter and delay put
// that; on a step without a note it comes where the note would be without nudge and jitter.
func TestAModComesWithItsNote(t *testing.T) {
	late := withMod(score.Mod{Target: score.ControlTarget, Number: 74, Most: 127}, 1, 2, 3, 4)
	late.Tracks[0].Delay = -sixteenth
	require.Equal(t, 3*sixteenth, play.Render(late, 0, 6*sixteenth, nil)[0].Start)
	require.Contains(t, changes(late, 6*sixteenth), play.Change{Tick: 3 * sixteenth, Track: 1, Kind: midi.ControlChange, Number: 74, Value: 1})

	rapid.Check(t, func(t *rapid.T) {
		p := withMod(score.Mod{Target: score.ControlTarget, Number: 74, Most: 127}, 10, 20, 30, 40)
		track := &p.Tracks[0]
		part := &track.Parts()[0]
		track.Delay = score.Tick(rapid.IntRange(-3000, 3000).Draw(t, "delay"))
		track.Jitter = rapid.IntRange(0, 20).Draw(t, "jitter")
		track.Speed = score.Ratio{N: rapid.IntRange(1, 4).Draw(t, "n"), M: rapid.IntRange(1, 4).Draw(t, "m")}
		p.Swing = rapid.IntRange(500, 750).Draw(t, "swing")
		for step := range score.MaxSteps {
			part.Lanes.Gate.Steps[step] = rapid.IntRange(0, 1).Draw(t, "gate")
		}
		testkit.SetLane(&part.Lanes.Nudge, score.Nudge, func(l *score.Lane) {
			for step := range l.Steps {
				l.Steps[step] = rapid.IntRange(-50, 50).Draw(t, "nudge")
			}
		})
		performer := play.NewPerformer(p)
		notes := performer.Advance(40*sixteenth, nil)
		sent := performer.Changes(nil)
		for i, n := range notes {
			if i > 0 && notes[i-1].Start == n.Start || i+1 < len(notes) && notes[i+1].Start == n.Start {
				continue // of steps that meet the one that is computed last stands
			}
			standing := -1
			for _, m := range sent {
				if m.Tick <= n.Start {
					standing = int(m.Value)
				}
			}
			require.Equal(t, 10*(int(n.Step)+1), standing, "at %d", n.Start)
		}
		for i := 1; i < len(sent); i++ {
			require.GreaterOrEqual(t, sent[i].Tick, sent[i-1].Tick)
			require.NotEqual(t, sent[i].Value, sent[i-1].Value, "it is sent only when it changes")
		}
	})
}

// A mod by the clock is swung and delayed with its track, and has no nudge and no jitter.
func TestAModByTheClockHasItsOwnTime(t *testing.T) {
	p := withMod(score.Mod{Target: score.ControlTarget, Number: 74, Most: 127}, 10, 20, 30, 40)
	track := &p.Tracks[0]
	track.Delay, track.Jitter, p.Swing = 300, 30, 600
	track.Parts()[0].Lanes.Mod1.Linked = false
	track.Parts()[0].Lanes.Mod1.Length = 4
	var ticks []score.Tick
	for _, m := range changes(p, 4*sixteenth+300)[1:] {
		ticks = append(ticks, m.Tick)
	}
	require.Equal(t, []score.Tick{2*sixteenth*6/10 + 300, 2*sixteenth + 300, 2*sixteenth + 2*sixteenth*6/10 + 300}, ticks)
}
