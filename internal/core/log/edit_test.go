package log_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/testkit"
)

// An edit among actions counts as if it had always been: soon after it all notes are those of the project that always was
// so, of which the same was done at the same ticks, before the edit and after it. What the song and chains have given stays given,
// so there are none here.
func TestAnEditAmongActionsCountsAsIfItHadAlwaysBeen(t *testing.T) {
	compared := 0
	rapid.Check(t, func(t *rapid.T) {
		before := testkit.Unsung(testkit.Project(t))
		after, _, err := score.Apply(before, testkit.Edit(t, before))
		require.NoError(t, err)
		after = testkit.Unsung(after)
		edited := &log.Log{Project: before}
		always := &log.Log{Project: after}
		tick, edit := score.Tick(0), rapid.IntRange(0, 4).Draw(t, "edit")
		at := score.Tick(0)
		for n := range 5 {
			tick += score.Tick(rapid.SampledFrom([]int{0, 1, 5040, 30_000, 80_640}).Draw(t, "after"))
			if n == edit {
				at = tick
				edited.Entries = append(edited.Entries, log.Entry{Tick: tick, Project: after})
				continue
			}
			change := testkit.Change(t, before)
			if change.Control.Check(after, change.Value) != nil { // what is gone, or cannot be any more
				continue
			}
			entry := log.Entry{Tick: tick, Action: &log.Action{
				Control: change.Control, Value: &change.Value, At: tick + score.Tick(rapid.SampledFrom([]int{0, 0, 9000, 80_640}).Draw(t, "at")),
			}}
			edited.Entries, always.Entries = append(edited.Entries, entry), append(always.Entries, entry)
		}
		soon := max(at, tick) + 200*score.TicksPerQuarter + 2*score.MaxDelay // a slow step that has begun is long
		want := noteOns(always, soon, soon+8*quarter)
		compared += len(want)
		require.Equal(t, want, noteOns(edited, soon, soon+8*quarter))
	})
	require.Greater(t, compared, 10)
}

// What an edit has let go of can be done again, and is heard then.
func TestWhatWasLetGoOfIsDoneAgain(t *testing.T) {
	p := testkit.Buoy()
	named := *p
	named.Name = "Ebb"
	bar := p.Bars().Start(1)
	for _, c := range []struct {
		control stage.Control
		value   int
	}{
		{stage.Control{Name: "mute", Track: 1}, 1},
		{stage.Control{Name: "length", Track: 1, Lane: score.Gate}, 3},
		{stage.Control{Name: "degrees", Track: 1}, 5},
	} {
		action := func(at score.Tick) log.Entry {
			return log.Entry{Tick: at, Action: &log.Action{Control: c.control, Value: &c.value, At: at}}
		}
		l := &log.Log{Project: p, Entries: []log.Entry{
			action(bar), {Tick: 2 * bar, Project: &named, LetGo: []stage.Control{c.control}}, action(3 * bar),
		}}
		done, plain := l.Play(8*bar), (&log.Log{Project: p}).Play(8*bar)
		require.Equal(t, plain[:4], done[:4])
		in := func(messages []midi.Message, bar, from, to score.Tick) (keys []any) {
			for _, m := range messages {
				if m.Kind == midi.NoteOn && m.Tick >= from*bar && m.Tick < to*bar {
					keys = append(keys, [2]score.Tick{m.Tick, score.Tick(m.Key)})
				}
			}
			return keys
		}
		require.NotEqual(t, in(plain, bar, 1, 2), in(done, bar, 1, 2), c.control.Name)
		require.Equal(t, in(plain, bar, 2, 3), in(done, bar, 2, 3), "let go of: %s", c.control.Name)
		require.NotEqual(t, in(plain, bar, 4, 8), in(done, bar, 4, 8), "done again: %s", c.control.Name)
	}
}

// What a hand has changed is heard from its tick on, whatever has been edited and jumped since; without it the written
// value is.
func TestActionsStayOverSeams(t *testing.T) {
	p := testkit.Buoy()
	mute := stage.Control{Name: "mute", Track: p.Tracks[0].ID}
	on, back := 1, score.Tick(0)
	bar := p.Bars().Start(1)
	l := &log.Log{Project: p, Entries: []log.Entry{
		{Tick: bar, Action: &log.Action{Control: mute, Value: &on, At: bar}},
		{Tick: 2 * bar, Jump: &log.Jump{Song: back}},
		{Tick: 3 * bar, Action: &log.Action{Control: mute, At: 4 * bar}},
		{Tick: 3*bar + 1, Jump: &log.Jump{Song: back}},
	}}
	bars := map[score.Tick]int{}
	for _, m := range l.Play(6 * bar) {
		if m.Kind == midi.NoteOn {
			bars[m.Tick/bar]++
		}
	}
	require.Positive(t, bars[0])
	require.Zero(t, bars[1]+bars[2]+bars[3], "muted, over the seam too")
	require.Positive(t, bars[4], "and let go of after another")
	require.Positive(t, bars[5])
}

// What still waits when an edit takes another live change away is done at its tick all the same; a luck that was tried counts
// from its tick on for what is replayed after it, not as if it had always been.
func TestWhatWaitsOutlivesAnEdit(t *testing.T) {
	p := testkit.Buoy()
	lanes := &p.Tracks[0].Parts()[0].Lanes
	for step := range score.MaxSteps {
		lanes.Gate.Steps[step], lanes.Probability.Steps[step], lanes.Pitch.Steps[step] = score.On, 100, step%7
	}
	lanes.Pitch.Order, lanes.Pitch.Drift = score.Drift, score.DriftOdds{Forward: 45, Back: 45}
	require.NoError(t, p.Validate())
	bar := p.Bars().Start(1)
	action := func(at, from score.Tick, name string, value int) log.Entry {
		c := stage.Control{Name: name}
		if name != "luck" {
			c.Track = 1
		}
		return log.Entry{Tick: at, Action: &log.Action{Control: c, Value: &value, At: from}}
	}
	named := *p
	named.Name = "Ebb"
	waiting := []log.Entry{
		action(bar, bar, "jitter", 20), action(bar, 4*bar, "degrees", 3), action(bar+1, 5*bar, "semitones", 12),
	}
	with := &log.Log{Project: p, Entries: append(waiting, log.Entry{Tick: 2 * bar, Project: &named, LetGo: []stage.Control{{Name: "jitter", Track: 1}}})}
	without := &log.Log{Project: p, Entries: waiting[1:]}
	require.Equal(t, noteOns(without, 3*bar, 7*bar), noteOns(with, 3*bar, 7*bar))
	require.NotEqual(t, noteOns(&log.Log{Project: p}, 5*bar, 7*bar), noteOns(with, 5*bar, 7*bar))

	swung := p.Clone()
	swung.Swing = 600
	luck := action(bar, bar, "luck", 4711)
	edited := &log.Log{Project: p, Entries: []log.Entry{luck, {Tick: 3 * bar, Project: swung}}}
	always := &log.Log{Project: swung, Entries: []log.Entry{luck}}
	require.Equal(t, noteOns(always, 4*bar, 8*bar), noteOns(edited, 4*bar, 8*bar))
	ever := &log.Log{Project: swung, Stage: stage.Stage{}.With(stage.Control{Name: "luck"}, 4711)}
	require.NotEqual(t, noteOns(ever, 4*bar, 8*bar), noteOns(edited, 4*bar, 8*bar))
}
