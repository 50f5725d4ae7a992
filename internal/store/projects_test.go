package store_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/store"
	"jettyfog/internal/studio"
)

// Each project has a history, live changes, takes and stretches of the wake of its own, over restarts too.
func TestProjectsKeepTheirOwn(t *testing.T) {
	ctx, folder := t.Context(), t.TempDir()
	s := open(t, folder)
	document, err := s.OpenDocument(ctx, testkit.Buoy())
	require.NoError(t, err)
	room, err := studio.New(ctx, s, document)
	require.NoError(t, err)
	muted := true
	_, err = room.Edit(ctx, 1, score.SetTrack{Track: 1, Mute: &muted})
	require.NoError(t, err)
	keep := func(revision int64) {
		takes, err := s.AddTakes(ctx, []*take.Take{take.Render(testkit.Buoy(), 1)}, revision)
		require.NoError(t, err)
		require.Len(t, takes, 1)
		id, err := s.Wake().CreateTake(ctx, take.Of(testkit.Buoy(), ""), revision)
		require.NoError(t, err)
		played := take.Render(testkit.Buoy(), 2)
		require.NoError(t, s.Wake().AppendTake(ctx, id, take.Piece{Messages: played.Messages}, nil))
		require.NoError(t, s.Wake().FinishTake(ctx, id, played.End))
	}
	keep(2)
	require.NoError(t, s.SaveStage(ctx, 1, stage.Stage{}.With(stage.Control{Name: "luck"}, 7)))

	id, err := room.Add(ctx, score.Blank(), false)
	require.NoError(t, err)
	opened, err := room.Open(ctx, 2, id, false)
	require.NoError(t, err)
	require.Equal(t, int64(3), opened.Revision, "revisions count on, whatever is open")
	require.Empty(t, opened.Undo)
	require.Empty(t, opened.Changes)
	require.Empty(t, opened.Opened.Stage.Changes())
	_, err = room.Undo(ctx, 3)
	require.ErrorIs(t, err, studio.ErrNothingToUndo)
	takes, err := s.Takes(ctx)
	require.NoError(t, err)
	require.Empty(t, takes)
	_, err = s.Wake().LastBars(ctx, 0, 0, 1)
	require.ErrorIs(t, err, take.ErrUnknown)
	keep(3)
	keep(2) // a stretch of the one before that ends only now
	takes, err = s.Takes(ctx)
	require.NoError(t, err)
	require.Len(t, takes, 1)
	require.NoError(t, s.Close())

	s = open(t, folder)
	document, err = s.OpenDocument(ctx, testkit.Buoy())
	require.NoError(t, err)
	require.Equal(t, studio.Document{ID: id, Project: score.Blank(), Revision: 3}, document)
	room, err = studio.New(ctx, s, document)
	require.NoError(t, err)
	opened, err = room.Open(ctx, 3, 1, true)
	require.NoError(t, err)
	require.Equal(t, int64(4), opened.Revision)
	require.Contains(t, opened.Undo, "mute")
	require.True(t, opened.Opened.AtOnce)
	require.Len(t, opened.Opened.Stage.Changes(), 1)
	takes, err = s.Takes(ctx)
	require.NoError(t, err)
	require.Len(t, takes, 2)
	last, err := s.Wake().LastBars(ctx, 0, 0, 1)
	require.NoError(t, err)
	require.NotZero(t, last.Before, "two stretches are of it")
	earlier, err := s.Wake().LastBars(ctx, last.Before, 0, 1)
	require.NoError(t, err)
	require.Zero(t, earlier.Before)

	undone, err := room.Undo(ctx, 4)
	require.NoError(t, err)
	require.Equal(t, testkit.Buoy(), undone.Project)
	listed, err := room.Projects(ctx)
	require.NoError(t, err)
	require.Len(t, listed, 2)
	require.NoError(t, room.Delete(ctx, id))
	require.ErrorIs(t, room.Delete(ctx, 1), studio.ErrIsOpen)
	_, err = room.Open(ctx, 5, id, false)
	require.ErrorIs(t, err, studio.ErrNoProject)
	listed, err = room.Projects(ctx)
	require.NoError(t, err)
	require.Len(t, listed, 2)
	require.Equal(t, listed[0].ID == id, listed[0].Deleted)
	_, err = store.Named(listed, "Untitled")
	require.ErrorContains(t, err, "no project “Untitled”; the folder has “Night opening”", "what is deleted has no name")
	require.NoError(t, room.Restore(ctx, id))
	require.ErrorIs(t, room.Restore(ctx, 99), studio.ErrNoProject)
	_, err = room.Open(ctx, 5, id, false)
	require.NoError(t, err)
}

// A folder of before, with one document, has it as its first project, with its history, live changes and takes.
func TestTheOneDocumentBecomesTheFirstProject(t *testing.T) {
	ctx, folder := t.Context(), t.TempDir()
	s := open(t, folder)
	document, err := s.OpenDocument(ctx, testkit.Buoy())
	require.NoError(t, err)
	room, err := studio.New(ctx, s, document)
	require.NoError(t, err)
	luck := 7
	_, err = room.Edit(ctx, 1, score.ChangeLuck{Number: luck})
	require.NoError(t, err)
	require.NoError(t, s.SaveStage(ctx, 1, stage.Stage{}.With(stage.Control{Name: "swing"}, 600)))
	_, err = s.AddTakes(ctx, []*take.Take{take.Render(testkit.Buoy(), 1)}, 2)
	require.NoError(t, err)
	require.NoError(t, s.Close())
	for _, statement := range []string{
		"CREATE TABLE documents (id INTEGER PRIMARY KEY, project TEXT NOT NULL, revision INTEGER NOT NULL, position INTEGER NOT NULL) STRICT",
		"CREATE TABLE document_tracks (place INTEGER PRIMARY KEY, digest TEXT NOT NULL, track TEXT NOT NULL) STRICT",
		"CREATE TABLE changes (position INTEGER PRIMARY KEY, edit TEXT NOT NULL, inverse TEXT NOT NULL, text TEXT NOT NULL, by_place INTEGER NOT NULL) STRICT",
		"CREATE TABLE stages (id INTEGER PRIMARY KEY, changes TEXT NOT NULL) STRICT",
		"INSERT INTO documents SELECT 1, rest, revision, position FROM projects",
		"INSERT INTO document_tracks SELECT place, digest, track FROM project_tracks",
		"INSERT INTO changes SELECT position, edit, inverse, text, by_place FROM project_changes",
		"INSERT INTO stages SELECT 1, changes FROM project_stages",
		"DROP TABLE input_bindings", "DROP TABLE calibrations", "DROP TABLE positions", "DROP TABLE set_lists", "DROP TABLE held_projects", "DROP TABLE bindings", "DROP TABLE setups", "DROP TABLE presets", "DROP TABLE openings", "DROP TABLE project_tracks", "DROP TABLE project_changes", "DROP TABLE project_stages", "DROP TABLE projects",
		"DROP INDEX takes_of_projects", "ALTER TABLE takes DROP COLUMN project_id", "DELETE FROM migrations WHERE id IN ('13', '14', '15', '16', '17', '18')",
	} {
		query(t, folder, statement)
	}

	s = open(t, folder)
	document, err = s.OpenDocument(ctx, score.Blank())
	require.NoError(t, err)
	require.Equal(t, int64(1), document.ID)
	require.Equal(t, int64(2), document.Revision)
	require.Equal(t, luck, document.Project.Luck.Number)
	room, err = studio.New(ctx, s, document)
	require.NoError(t, err)
	undone, err := room.Undo(ctx, 2)
	require.NoError(t, err)
	require.Equal(t, testkit.Buoy(), undone.Project)
	staged, err := s.Stage(ctx, 1)
	require.NoError(t, err)
	require.Len(t, staged.Changes(), 1)
	takes, err := s.Takes(ctx)
	require.NoError(t, err)
	require.Len(t, takes, 1)
	listed, err := s.Projects(ctx)
	require.NoError(t, err)
	require.Equal(t, "Night opening", listed[0].Name)
	require.NotZero(t, listed[0].Changed)
}
