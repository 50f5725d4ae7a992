package log_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// noteOns returns the note-ons of a log in [from, to), without what counts notes since the beginning.
func noteOns(l *log.Log, from, to score.Tick) (ons []midi.Message) {
	for _, m := range l.Play(to) {
		if m.Kind == midi.NoteOn && m.Tick >= from {
			m.Value = 0
			ons = append(ons, m)
		}
	}
	return ons
}

// A bar that is looped plays the same in each pass, or with chance going on what the bars after it would have played.
func TestChanceInALoopIsTheSameOrGoesOn(t *testing.T) {
	const bar = 4 * quarter
	p := testkit.Buoy()
	lanes := &p.Tracks[0].Parts()[0].Lanes
	for step := range score.MaxSteps {
		lanes.Gate.Steps[step], lanes.Probability.Steps[step] = score.On, 50
	}
	for _, name := range score.LaneNames() {
		if lanes.Has(name) {
			lanes.Lane(name).Length, lanes.Lane(name).Rate = 16, "1/16"
		}
	}
	require.NoError(t, p.Validate())
	straight := &log.Log{Project: p, From: bar}
	for _, goesOn := range []bool{false, true} {
		looped := &log.Log{Project: p, From: bar}
		for pass := range score.Tick(3) {
			looped.Entries = append(looped.Entries, log.Entry{Tick: (pass + 1) * bar, Jump: &log.Jump{Song: bar, GoesOn: goesOn}})
		}
		for pass := range score.Tick(4) {
			want := noteOns(straight, 0, bar)
			for i := range want {
				want[i].Tick += pass * bar
			}
			if goesOn {
				want = noteOns(straight, pass*bar, (pass+1)*bar)
			}
			require.NotEmpty(t, want)
			require.Equal(t, want, noteOns(looped, pass*bar, (pass+1)*bar), "pass %d, goes on %v", pass, goesOn)
		}
	}
}

// An edit after a seam counts as if it had been made at the seam, where chance goes on too: what had sounded before the seam
// is where chance goes on from, whatever the edit would have made of it.
func TestAnEditCountsFromTheSeamOn(t *testing.T) {
	compared := 0
	rapid.Check(t, func(t *rapid.T) {
		before := testkit.Unsung(testkit.Project(t)) // what chains have given stays given
		after, _, err := score.Apply(before, testkit.Edit(t, before))
		require.NoError(t, err)
		after = testkit.Unsung(after)
		seam := score.Tick(rapid.IntRange(1, 200_000).Draw(t, "seam"))
		jump := log.Entry{Tick: seam, Jump: &log.Jump{Song: score.Tick(rapid.IntRange(0, 200_000).Draw(t, "song")), GoesOn: true}}
		edited := func(at score.Tick) *log.Log {
			return &log.Log{Project: before, Entries: []log.Entry{jump, {Tick: at, Project: after}}}
		}
		later := seam + score.Tick(rapid.IntRange(0, 100_000).Draw(t, "later"))
		soon := later + 16*quarter + 2*score.MaxDelay
		want := noteOns(edited(seam), soon, soon+8*quarter)
		require.Equal(t, want, noteOns(edited(later), soon, soon+8*quarter))
		compared += len(want)
	})
	require.Greater(t, compared, 10)
}
