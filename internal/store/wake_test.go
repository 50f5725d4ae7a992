package store_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/store"
)

// The wake gives its last bars with what instruments were told before, also of a stretch that was broken off,
// and is in no list of takes.
func TestTheWakesLastBars(t *testing.T) {
	folder := t.TempDir()
	first, err := store.Open(folder)
	require.NoError(t, err)
	wake := first.Wake()
	_, err = wake.LastBars(ctx, 0, 0, 1)
	require.ErrorIs(t, err, take.ErrUnknown)

	p := testkit.Buoy()
	p.Tracks[0].Parts()[0].Mods = []score.Mod{{Target: score.ControlTarget, Number: 74, Least: 5, Most: 99}}
	played := take.Render(p, 7)
	heading := take.Of(p, "")
	id, err := wake.CreateTake(ctx, heading, 4)
	require.NoError(t, err)
	require.NoError(t, wake.AppendTake(ctx, id, take.Piece{First: 0, Messages: played.Messages[:50]}, nil))
	require.NoError(t, wake.AppendTake(ctx, id, take.Piece{First: 50, Messages: played.Messages[50:]}, nil))
	require.NoError(t, first.Close()) // as if it was killed

	again := open(t, folder)
	bar := p.Meter.Bar()
	last, err := again.Wake().LastBars(ctx, 0, 0, 2)
	require.NoError(t, err)
	end := played.Messages[len(played.Messages)-1].Tick / bar * bar
	want := take.Cut(played, end-2*bar, end)
	want.Name = ""
	require.Equal(t, want, last.Take)
	require.Equal(t, end-2*bar, last.From)
	require.Equal(t, int64(4), last.Revision)
	require.Equal(t, midi.ControlChange, last.Take.Messages[0].Kind, "the controller that was sent once, at the beginning")
	takes, err := again.Takes(ctx)
	require.NoError(t, err)
	require.Empty(t, takes)
	_, _, _, err = again.Recording(ctx, id)
	require.ErrorIs(t, err, take.ErrUnknown)
}

// Of stretches of ten hours each the last three are kept, which have 24 hours of playing after them or less.
func TestOldWakeIsDropped(t *testing.T) {
	s := open(t, t.TempDir())
	wake := s.Wake()
	const tenHours = 10 * 60 * 96 * score.TicksPerQuarter
	var ids []int64
	for range 6 {
		id, err := wake.CreateTake(ctx, take.Of(testkit.Buoy(), ""), 1)
		require.NoError(t, err)
		require.NoError(t, wake.FinishTake(ctx, id, tenHours))
		ids = append(ids, id)
	}
	last, err := wake.CreateTake(ctx, take.Of(testkit.Buoy(), ""), 1)
	require.NoError(t, err)
	require.NoError(t, wake.AppendTake(ctx, last, take.Piece{}, nil))
	for i, id := range ids {
		_, err := wake.Piece(ctx, id, 0, 1)
		if i < 3 {
			require.ErrorIs(t, err, take.ErrUnknown)
		} else {
			require.NoError(t, err)
		}
	}
}

// A stretch that is played for 31 hours without a stop keeps its last 24, and what instruments were told before.
func TestTheBeginningOfALongStretchIsDropped(t *testing.T) {
	s := open(t, t.TempDir())
	wake := s.Wake()
	id, err := wake.CreateTake(ctx, take.Of(testkit.Buoy(), ""), 1)
	require.NoError(t, err)
	const hour = 60 * 96 * score.TicksPerQuarter
	line := take.Heading{Meter: score.Meter{Beats: 4, Unit: 4}, Tempo: play.TempoMap{{Tempo: 96_000}}}
	var sent midi.Settings
	seq := 0
	for hours := range score.Tick(31) {
		var messages []midi.Message
		if hours == 0 {
			messages = append(messages, midi.Message{Kind: midi.ControlChange, Key: 74, Value: 33})
		}
		for i := range score.Tick(500) {
			at := hours*hour + i*hour/500
			messages = append(messages, midi.Message{Tick: at, Kind: midi.NoteOn, Key: 60, Velocity: 9}, midi.Message{Tick: at + 1, Key: 60})
		}
		sent.Note(messages)
		require.NoError(t, wake.AppendTake(ctx, id, take.Piece{First: seq, Messages: messages, Standing: sent.Standing(0)}, &line))
		seq += len(messages)
	}
	first, err := wake.Piece(ctx, id, 0, hour)
	require.NoError(t, err)
	require.Zero(t, first.Take.Count())
	later, err := wake.Piece(ctx, id, 7*hour, 31*hour)
	require.NoError(t, err)
	require.Equal(t, 24*500, later.Take.Count())
	require.Equal(t, midi.Message{Kind: midi.ControlChange, Key: 74, Value: 33}, later.Take.Messages[0])
}

// One goes back in the wake over stops, and each piece knows the project that played in it, after edits too.
func TestPiecesKnowTheirNeighboursAndTheirProject(t *testing.T) {
	s := open(t, t.TempDir())
	wake := s.Wake()
	p := testkit.Buoy()
	bar := p.Meter.Bar()
	played := take.Render(p, 4)
	var ids []int64
	for revision := range int64(3) {
		id, err := wake.CreateTake(ctx, take.Of(p, ""), 10*revision+1)
		require.NoError(t, err)
		require.NoError(t, wake.AppendTake(ctx, id, take.Piece{First: 0, Messages: played.Messages}, nil))
		require.NoError(t, wake.FinishTake(ctx, id, 4*bar))
		ids = append(ids, id)
	}
	edited := testkit.Buoy()
	edited.Luck.Number = 7
	require.NoError(t, wake.AddOrigin(ctx, ids[1], take.Origin{Tick: 2 * bar, Revision: 15, Project: edited}))
	require.NoError(t, wake.AddOrigin(ctx, ids[1], take.Origin{Tick: 2 * bar, Revision: 15, Project: edited}), "said again")

	last, err := wake.LastBars(ctx, 0, 0, 2)
	require.NoError(t, err)
	require.Equal(t, []int64{ids[2], ids[1], 0}, []int64{last.ID, last.Before, last.After})
	middle, err := wake.LastBars(ctx, ids[1], 3*bar, 2)
	require.NoError(t, err)
	require.Equal(t, []int64{ids[1], ids[0], ids[2]}, []int64{middle.ID, middle.Before, middle.After})
	require.Equal(t, []score.Tick{bar, 3 * bar}, []score.Tick{middle.From, middle.To})
	require.Equal(t, int64(11), middle.Revision)
	require.Equal(t, p, middle.Take.Project)
	late, err := wake.Piece(ctx, ids[1], 2*bar, 3*bar)
	require.NoError(t, err)
	require.Equal(t, int64(15), late.Revision)
	require.Equal(t, 7, late.Take.Luck)
	require.Equal(t, edited, late.Take.Project)
	require.Equal(t, take.Cut(played, 2*bar, 3*bar).Notes(), late.Take.Notes())
	_, err = wake.Piece(ctx, 99, 0, bar)
	require.ErrorIs(t, err, take.ErrUnknown)
}
