package store_test

import (
	"bytes"
	"compress/gzip"
	"context"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/store"
)

// Live changes are there after a restart; before any were made there are none.
func TestLiveChangesStay(t *testing.T) {
	folder := t.TempDir()
	s := open(t, folder)
	_, err := s.OpenDocument(t.Context(), testkit.Buoy())
	require.NoError(t, err)
	none, err := s.Stage(t.Context(), 1)
	require.NoError(t, err)
	require.Empty(t, none.Changes())
	live := stage.Stage{}.With(stage.Control{Name: "mute", Track: 3}, 1).With(stage.Control{Name: "swing"}, 583)
	require.NoError(t, s.SaveStage(t.Context(), 1, stage.Stage{}.With(stage.Control{Name: "luck"}, 7)))
	require.NoError(t, s.SaveStage(t.Context(), 1, live))
	require.NoError(t, s.Close())
	kept, err := open(t, folder).Stage(t.Context(), 1)
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
	require.NoError(t, s.AppendLog(t.Context(), id, logged, 0))
	require.NoError(t, s.AppendLog(t.Context(), id, logged, 0), "twice is once")
	requireLog(t, s, id, logged)
	require.ErrorIs(t, s.AppendLog(t.Context(), id+1, logged, 0), take.ErrUnknown)

	whole := logged
	longer := *logged.Log
	longer.Entries = append(longer.Entries, log.Entry{Tick: 95_000, Action: &log.Action{Control: stage.Control{Name: "mute", Track: 1}, At: 95_000}})
	whole.Log, whole.To = &longer, 600_000
	require.NoError(t, s.AppendLog(t.Context(), id, whole, 2))
	require.NoError(t, s.AppendLog(t.Context(), id, whole, 2), "twice is once")
	requireLog(t, s, id, whole)

	require.NoError(t, s.AppendLog(t.Context(), id, take.Logged{}, 0))
	_, err = s.Log(t.Context(), id)
	require.ErrorIs(t, err, take.ErrNoLog, "it is not known any more")
}

// A log from before logs were stored as they grow is one file.
func TestLogsInOneFile(t *testing.T) {
	s := open(t, t.TempDir())
	id, err := s.CreateTake(t.Context(), take.Of(testkit.Buoy(), ""), 1)
	require.NoError(t, err)
	whole := &log.Log{Project: testkit.Buoy(), Entries: []log.Entry{{Tick: 5, Jump: &log.Jump{Song: 80_640}}}}
	file, err := log.Encode(whole, 90_000)
	require.NoError(t, err)
	var packed bytes.Buffer
	w := gzip.NewWriter(&packed)
	_, err = w.Write(file)
	require.NoError(t, err)
	require.NoError(t, w.Close())
	require.NoError(t, s.Raw().Exec(`INSERT INTO logs (take_id, "from", recorded, log) VALUES (?, 10, 20, ?)`, id, packed.Bytes()).Error)
	requireLog(t, s, id, take.Logged{Log: whole, From: 10, Recorded: 20, To: 90_000})
}

func requireLog(t *testing.T, s *store.Store, id int64, want take.Logged) {
	t.Helper()
	kept, err := s.Log(t.Context(), id)
	require.NoError(t, err)
	require.Equal(t, want.Again("x").Messages, kept.Again("x").Messages)
	require.Len(t, kept.Log.Entries, len(want.Log.Entries))
	require.Equal(t, []score.Tick{want.From, want.Recorded, want.To}, []score.Tick{kept.From, kept.Recorded, kept.To})
}

// What is broken off keeps its log up to what came to disk; a piece that is kept of the wake has that of its stretch.
func TestLogsOfWhatIsBrokenOff(t *testing.T) {
	folder := t.TempDir()
	s := open(t, folder)
	on := 1
	logged := take.Logged{Log: &log.Log{Project: testkit.Buoy(), Entries: []log.Entry{
		{Tick: 40_000, Action: &log.Action{Control: stage.Control{Name: "mute", Track: 1}, Value: &on, At: 60_000}},
	}}}
	played := logged.Log.Play(100_000)
	begin := func(store interface {
		CreateTake(context.Context, *take.Take, int64) (int64, error)
		AppendLog(context.Context, int64, take.Logged, int) error
		AppendTake(context.Context, int64, take.Piece, *take.Heading) error
	}) int64 {
		id, err := store.CreateTake(t.Context(), take.Of(testkit.Buoy(), ""), 1)
		require.NoError(t, err)
		require.NoError(t, store.AppendLog(t.Context(), id, logged, 0))
		require.NoError(t, store.AppendTake(t.Context(), id, take.Piece{Messages: played}, nil))
		return id
	}
	id, stretch := begin(s), begin(s.Wake())
	require.NoError(t, s.Close())

	s = open(t, folder)
	broken, _, _, err := s.Recording(t.Context(), id)
	require.NoError(t, err)
	require.Greater(t, broken.End, score.Tick(40_000))
	kept, err := s.Log(t.Context(), id)
	require.NoError(t, err)
	require.Equal(t, broken.End, kept.To)
	require.Equal(t, broken.Messages, kept.Again("x").Messages)

	piece, err := s.Wake().Piece(t.Context(), stretch, 20_160, 50_000)
	require.NoError(t, err)
	ids, err := s.AddTakes(t.Context(), []*take.Take{piece.Take}, 1)
	require.NoError(t, err)
	require.NoError(t, s.Wake().CopyLog(t.Context(), stretch, ids[0], piece.From, piece.To))
	kept, err = s.Log(t.Context(), ids[0])
	require.NoError(t, err)
	require.Len(t, kept.Log.Entries, 1)
	require.Equal(t, piece.Take.Messages, kept.Again("x").Messages)
	require.NoError(t, s.Wake().CopyLog(t.Context(), ids[0]+9, ids[0], 0, 9), "there is none to copy")
}
