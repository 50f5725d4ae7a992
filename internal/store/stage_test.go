package store_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
)

// Live changes are there after a restart; before any were made there are none.
func TestLiveChangesStay(t *testing.T) {
	folder := t.TempDir()
	s := open(t, folder)
	none, err := s.Stage(t.Context())
	require.NoError(t, err)
	require.Empty(t, none.Changes())
	live := stage.Stage{}.With(stage.Control{Name: "mute", Track: 3}, 1).With(stage.Control{Name: "swing"}, 583)
	require.NoError(t, s.SaveStage(t.Context(), stage.Stage{}.With(stage.Control{Name: "luck"}, 7)))
	require.NoError(t, s.SaveStage(t.Context(), live))
	require.NoError(t, s.Close())
	kept, err := open(t, folder).Stage(t.Context())
	require.NoError(t, err)
	require.Equal(t, live, kept)
}

// What a take is a function of is kept with it, and goes with it; a take from elsewhere has none.
func TestLogsOfTakes(t *testing.T) {
	s := open(t, t.TempDir())
	id, err := s.CreateTake(t.Context(), take.Of(testkit.Buoy(), ""), 1)
	require.NoError(t, err)
	_, err = s.Log(t.Context(), id)
	require.ErrorIs(t, err, take.ErrNoLog)
	on, song := 1, score.Tick(0)
	logged := take.Logged{From: 10, Recorded: 20, To: 500_000, Log: &log.Log{
		Project: testkit.Buoy(), Stage: stage.Stage{}.With(stage.Control{Name: "swing"}, 583), Entries: []log.Entry{
			{Tick: 5, Action: &log.Action{Control: stage.Control{Name: "mute", Track: 1}, Value: &on, At: 80}}, {Tick: 90_000, Jump: &log.Jump{Song: song, GoesOn: true}},
		},
	}}
	require.NoError(t, s.KeepLog(t.Context(), id, logged))
	require.NoError(t, s.KeepLog(t.Context(), id, logged), "twice is once")
	kept, err := s.Log(t.Context(), id)
	require.NoError(t, err)
	require.Equal(t, logged.Again("x", nil).Messages, kept.Again("x", nil).Messages)
	require.Equal(t, logged.From, kept.From)
	require.Equal(t, logged.Recorded, kept.Recorded)
	require.ErrorIs(t, s.KeepLog(t.Context(), id+1, logged), take.ErrUnknown)
}
