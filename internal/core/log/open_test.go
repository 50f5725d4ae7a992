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

// A project that is opened while another plays plays from there on what it plays alone from its beginning, with its own live
// changes; before, and for whatever was done to the one before, nothing is otherwise; and no note of that one stays.
func TestAProjectThatIsOpenedPlaysAsAlone(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		before := drawn(t)
		next := testkit.Project(t)
		change := testkit.Change(t, next)
		staged := stage.Stage{}.With(change.Control, change.Value)
		at := score.Tick(1)
		if n := len(before.Entries); n > 0 {
			at += before.Entries[n-1].Tick
		}
		at += score.Tick(rapid.IntRange(0, 100_000).Draw(t, "at"))
		opened := *before
		opened.Entries = append(opened.Entries[:len(opened.Entries):len(opened.Entries)], log.Entry{Tick: at, Jump: &log.Jump{Project: next, Stage: &staged}})

		const lasts = 8 * quarter
		played := opened.Play(at + lasts)
		alone := (&log.Log{Project: next, Stage: staged}).Play(lasts)
		var heard, want []midi.Message
		var down midi.Sounding[bool]
		for _, m := range played {
			switch {
			case m.Kind == midi.NoteOn && m.Tick < at:
				down.Begin(m.NoteID(), true)
			case m.Kind == midi.NoteOff && m.Tick <= at:
				down.End(m.NoteID())
			case m.Kind == midi.NoteOn:
				m.Tick, m.Value = m.Tick-at, 0
				heard = append(heard, m)
			}
		}
		require.Empty(t, down.Release(func(bool) score.Tick { return at }), "every note of the project before has ended")
		for _, m := range alone {
			if m.Kind == midi.NoteOn {
				m.Value = 0
				want = append(want, m)
			}
		}
		require.Equal(t, want, heard)
		until := before.Play(at)
		require.Equal(t, append([]midi.Message{}, until...), append([]midi.Message{}, played[:len(until)]...))
	})
}
