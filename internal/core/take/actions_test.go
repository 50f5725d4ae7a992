package take_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
)

// performance returns a log in which a track is muted in bar 3 and heard again in bar 5, and the luck is changed in bar 6; the take is of
// bars 2 to 8.
func performance() take.Logged {
	bar := 4 * score.TicksPerQuarter
	on, luck := 1, 77
	mute := stage.Control{Name: "mute", Track: 1}
	entry := func(at score.Tick, c stage.Control, value *int) log.Entry {
		return log.Entry{Tick: at - 1000, Action: &log.Action{Control: c, Value: value, At: at}}
	}
	l := &log.Log{Project: testkit.Buoy(), Entries: []log.Entry{
		entry(2*bar, mute, &on), entry(4*bar, mute, nil), entry(5*bar, stage.Control{Name: "luck"}, &luck), entry(20*bar, mute, &on),
	}}
	return take.Logged{Log: l, From: bar, Recorded: bar, To: 8 * bar}
}

func barsWithNotes(t *take.Take) (bars [7]bool) {
	for _, m := range t.Messages {
		if m.Kind == midi.NoteOn {
			bars[m.Tick/(4*score.TicksPerQuarter)] = true
		}
	}
	return bars
}

// Actions are listed by ticks of the take, moved, given other values and left out; the take that is played of it has what they say,
// and the log they came from stays.
func TestActionsAreMended(t *testing.T) {
	bar := 4 * score.TicksPerQuarter
	logged := performance()
	actions := logged.Actions()
	require.Len(t, actions, 3, "one after the end is not of the take")
	require.Equal(t, []score.Tick{bar, 3 * bar, 4 * bar}, []score.Tick{actions[0].Tick, actions[1].Tick, actions[2].Tick})
	require.Equal(t, [7]bool{true, false, false, true, true, true, true}, barsWithNotes(logged.Again("x")))

	to, early := 2*bar, -bar
	moved, err := logged.Mended([]take.Mend{{Entry: 0, Tick: &to}})
	require.NoError(t, err)
	require.Equal(t, [7]bool{true, true, false, true, true, true, true}, barsWithNotes(moved.Again("x")))
	without, err := logged.Mended([]take.Mend{{Entry: 1}})
	require.NoError(t, err)
	require.Equal(t, [7]bool{true}, barsWithNotes(without.Again("x")))
	swapped, err := logged.Mended([]take.Mend{{Entry: 1, Tick: &early}})
	require.NoError(t, err)
	require.Equal(t, [7]bool{true}, barsWithNotes(swapped.Again("x")), "it counts before the other now")
	other := 123
	lucky, err := logged.Mended([]take.Mend{{Entry: 2, Tick: &to, Value: &other}})
	require.NoError(t, err)
	require.Equal(t, other, *lucky.Log.Entries[1].Action.Value)
	require.Equal(t, performance(), logged)

	late, wrong := 7*bar, 1_000_000
	for want, mend := range map[string]take.Mend{
		"entry is 9; it must be the place of an action": {Entry: 9},
		"tick is 564480; it must be within the take":    {Entry: 0, Tick: &late},
		"luck is 1000000; it must be 0 to 999999":       {Entry: 2, Tick: &to, Value: &wrong},
	} {
		_, err := logged.Mended([]take.Mend{mend})
		require.ErrorContains(t, err, want)
	}
}

// What differs at the end is what stands of what was performed, whatever was let go of before.
func TestTheStageAtTheEndOfATake(t *testing.T) {
	logged := performance()
	require.Equal(t, []stage.Change{{Control: stage.Control{Name: "luck"}, Value: 77}}, logged.Stage().Changes())
	without, err := logged.Mended([]take.Mend{{Entry: 1}})
	require.NoError(t, err)
	require.Len(t, without.Stage().Changes(), 2)
	opened := stage.Stage{}.With(stage.Control{Name: "swing"}, 600)
	logged.Log.Entries = append(logged.Log.Entries[:3:3], log.Entry{Tick: logged.To - 1, Jump: &log.Jump{Project: testkit.Buoy(), Stage: &opened}})
	require.Equal(t, opened.Changes(), logged.Stage().Changes(), "another project has its own")
	logged.Log.Entries[3] = log.Entry{Tick: logged.To - 1, Project: logged.Log.Project, LetGo: []stage.Control{{Name: "luck"}}}
	require.Empty(t, logged.Stage().Changes())
}
