package store_test

import (
	"context"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/store"
	"jettyfog/internal/studio"
)

var (
	ctx = context.Background()
	now = time.Date(2026, 11, 26, 20, 0, 0, 0, time.UTC)
)

func open(t *testing.T, folder string) *store.Store {
	t.Helper()
	s, err := store.Open(folder)
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, s.Close()) })
	return s
}

func TestTheDocumentAndItsHistorySurviveARestart(t *testing.T) {
	folder := t.TempDir()
	first, err := store.Open(folder)
	require.NoError(t, err)
	document, err := first.OpenDocument(ctx, testkit.Buoy())
	require.NoError(t, err)
	require.Equal(t, studio.Document{ID: 1, Project: testkit.Buoy(), Revision: 1}, document)

	edits := []score.Edit{score.ChangeLuck{Number: 7}, score.ChangeLuck{Number: 8}, score.ChangeLuck{Number: 9}}
	var inverses []score.Edit
	for i, edit := range edits {
		project, inverse, err := score.Apply(document.Project, edit)
		require.NoError(t, err)
		inverses = append(inverses, inverse)
		document = studio.Document{ID: 1, Project: project, Revision: int64(i + 2), Position: i + 1}
		require.NoError(t, first.SaveEdit(ctx, document, studio.Change{Edit: edit, Inverse: inverse}))
	}
	require.NoError(t, first.Close())

	again := open(t, folder)
	stored, err := again.OpenDocument(ctx, score.Blank())
	require.NoError(t, err)
	require.Equal(t, document, stored)
	for i := range edits {
		change, found, err := again.Change(ctx, 1, i+1)
		require.NoError(t, err)
		require.True(t, found)
		require.Equal(t, studio.Change{Edit: edits[i], Inverse: inverses[i]}, change)
	}

	// A new edit after two undos forgets what was undone.
	document.Position = 1
	require.NoError(t, again.SaveMove(ctx, document))
	document.Position = 2
	require.NoError(t, again.SaveEdit(ctx, document, studio.Change{Edit: edits[0], Inverse: inverses[0]}))
	change, found, err := again.Change(ctx, 1, 2)
	require.NoError(t, err)
	require.True(t, found)
	require.Equal(t, edits[0], change.Edit)
	_, found, err = again.Change(ctx, 1, 3)
	require.NoError(t, err)
	require.False(t, found)
}

func TestATakeIsStoredAsItWasRecorded(t *testing.T) {
	folder := t.TempDir()
	first, err := store.Open(folder)
	require.NoError(t, err)
	want := take.Render(testkit.Buoy(), 40) // more messages than one statement writes
	header := take.Of(testkit.Buoy(), "")
	id, err := first.CreateTake(ctx, header, 3)
	require.NoError(t, err)
	tempo := play.TempoMap{{Tick: 0, Tempo: 96_000}, {Tick: 80_640, Tempo: 120_000}}
	line := take.Heading{Meter: header.Meter, Tempo: tempo, Tracks: header.Tracks, Markers: []take.Marker{{Tick: 80_640, Text: "Bell buoy: B"}}}
	half := len(want.Messages) / 2
	require.NoError(t, first.AppendTake(ctx, id, take.Piece{First: 0, Messages: want.Messages[:half]}, nil))
	require.NoError(t, first.AppendTake(ctx, id, take.Piece{First: half, Messages: want.Messages[half:]}, &line))
	// A call whose answer was lost is made again.
	require.NoError(t, first.AppendTake(ctx, id, take.Piece{First: half, Messages: want.Messages[half:]}, &line))

	takes, err := first.Takes(ctx)
	require.NoError(t, err)
	require.Empty(t, takes, "a take is listed once it is finished")
	require.NoError(t, first.FinishTake(ctx, id, want.End))
	require.NoError(t, first.FinishTake(ctx, id, want.End))
	require.NoError(t, first.Close())

	again := open(t, folder)
	got, _, _, err := again.Recording(ctx, id)
	require.NoError(t, err)
	want.Name, want.Tempo, want.Markers, want.Project = "Take 1", tempo, line.Markers, nil
	require.Equal(t, want, got)
	takes, err = again.Takes(ctx)
	require.NoError(t, err)
	require.Len(t, takes, 1)
	require.Equal(t, "Take 1", takes[0].Name)
	require.Equal(t, want.Count(), takes[0].Notes)
	require.Equal(t, 48_213, takes[0].Luck)
	require.Equal(t, int64(3), takes[0].Revision)
	require.InDelta(t, 40, takes[0].Bars, 0)
	require.InDelta(t, 2.5+39*2, takes[0].Seconds, 1e-6)
	require.NotZero(t, takes[0].Created)
}

// A take that was being recorded when the program was killed is finished at the next start.
func TestABrokenOffTakeIsFinishedAtTheNextStart(t *testing.T) {
	folder := t.TempDir()
	first, err := store.Open(folder)
	require.NoError(t, err)
	id, err := first.CreateTake(ctx, take.Of(testkit.Buoy(), ""), 1)
	require.NoError(t, err)
	on := midi.Message{Tick: 100, Track: 1, Kind: midi.NoteOn, Key: 60, Velocity: 90, Detune: -150_000_000}
	require.NoError(t, first.AppendTake(ctx, id, take.Piece{First: 0, Messages: []midi.Message{on}}, nil))
	_, _, _, err = first.Recording(ctx, id)
	require.ErrorIs(t, err, take.ErrUnknown)
	require.NoError(t, first.Close())

	again := open(t, folder)
	mended, _, _, err := again.Recording(ctx, id)
	require.NoError(t, err)
	require.Equal(t, []midi.Message{on, {Tick: 101, Track: 1, Key: 60}}, mended.Messages)
}

// A take that comes from a file is there whole, also after a restart.
func TestATakeFromAFile(t *testing.T) {
	folder := t.TempDir()
	first, err := store.Open(folder)
	require.NoError(t, err)
	want := take.Render(testkit.Buoy(), 3)
	want.Name = "From a file"
	ids, err := first.AddTakes(ctx, []*take.Take{want}, 5)
	require.NoError(t, err)
	id := ids[0]
	require.NoError(t, first.Close())
	again := open(t, folder)
	got, _, _, err := again.Recording(ctx, id)
	require.NoError(t, err)
	want.Project = nil
	require.Equal(t, want, got)
	made, err := again.Origin(ctx, id)
	require.NoError(t, err)
	require.Equal(t, testkit.Buoy(), made)
	takes, err := again.Takes(ctx)
	require.NoError(t, err)
	require.Equal(t, int64(5), takes[0].Revision)
	require.Equal(t, want.Count(), takes[0].Notes)
}

func TestUnknownTakes(t *testing.T) {
	s := open(t, t.TempDir())
	_, _, _, err := s.Recording(ctx, 9)
	require.ErrorIs(t, err, take.ErrUnknown)
	require.ErrorIs(t, s.AppendTake(ctx, 9, take.Piece{}, nil), take.ErrUnknown)
	require.ErrorIs(t, s.FinishTake(ctx, 9, 0), take.ErrUnknown)
}

// A history of before, whose edits name patterns and parts by their places, is undone and redone as it was made.
func TestAHistoryOfBeforeIsUndone(t *testing.T) {
	ctx := t.Context()
	s := open(t, t.TempDir())
	document, err := s.OpenDocument(ctx, testkit.Buoy())
	require.NoError(t, err)
	room, err := studio.New(ctx, s, document)
	require.NoError(t, err)
	name := "Ebb"
	for i, edit := range []score.Edit{
		score.CopyPattern{Track: 1, Name: "B"}, score.RemovePattern{Track: 1, Pattern: 0}, score.SetPattern{Track: 1, Pattern: 1, Name: &name},
	} {
		_, err := room.Edit(ctx, int64(i+1), edit)
		require.NoError(t, err)
	}
	before := room.State().Project
	// The pattern B stood at the first place when it was named.
	require.NoError(t, s.Raw().Exec(`UPDATE project_changes SET by_place = 1;
		UPDATE project_changes SET edit = replace(edit, '"pattern":1', '"pattern":0'), inverse = replace(inverse, '"pattern":1', '"pattern":0') WHERE position = 3`).Error)
	for i := range 3 {
		_, err := room.Undo(ctx, int64(i+4))
		require.NoError(t, err)
	}
	require.Equal(t, testkit.Buoy(), room.State().Project)
	for i := range 3 {
		_, err := room.Redo(ctx, int64(i+7))
		require.NoError(t, err)
	}
	require.Equal(t, before, room.State().Project)
}

// A document is stored track by track, and is the same again whatever of its tracks is changed, moved, added or taken away;
// one from before tracks were stored apart is read and then stored so.
func TestTheDocumentTrackByTrack(t *testing.T) {
	folder := t.TempDir()
	s := open(t, folder)
	p := testkit.Demo()
	document, err := s.OpenDocument(ctx, p)
	require.NoError(t, err)
	for n, change := range []func(*score.Project){
		func(p *score.Project) { p.Tracks[1].Name = "Gulls" },
		func(p *score.Project) { p.Tracks[0], p.Tracks[2] = p.Tracks[2], p.Tracks[0] },
		func(p *score.Project) { p.Tracks = p.Tracks[1:] },
		func(p *score.Project) { p.Tempo = 99_000 },
		func(p *score.Project) {
			more := p.Tracks[0].Clone()
			more.ID = 40
			p.Tracks = append(p.Tracks, more)
		},
	} {
		p = p.Clone()
		change(p)
		require.NoError(t, p.Validate())
		document.Project, document.Revision = p, int64(n+2)
		require.NoError(t, s.SaveMove(ctx, document))
		require.NoError(t, s.Close())
		s = open(t, folder)
		read, err := s.OpenDocument(ctx, score.Blank())
		require.NoError(t, err)
		require.Equal(t, document, read)
	}
	whole, err := score.Encode(p)
	require.NoError(t, err)
	require.NoError(t, s.Raw().Exec("DELETE FROM project_tracks").Error)
	require.NoError(t, s.Raw().Exec("UPDATE projects SET rest = ?", string(whole)).Error)
	read, err := s.OpenDocument(ctx, score.Blank())
	require.NoError(t, err)
	require.Equal(t, document, read)
	require.NoError(t, s.SaveMove(ctx, document))
	read, err = s.OpenDocument(ctx, score.Blank())
	require.NoError(t, err)
	require.Equal(t, document, read)
}
