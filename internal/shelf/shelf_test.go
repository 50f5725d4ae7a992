package shelf_test

import (
	"context"
	"slices"
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/memory"
	"jettyfog/internal/shelf"
	"jettyfog/internal/store"
)

var ctx = context.Background()

// Edits, undo and redo in any order: the take is always its recording with the edits in force, after a restart
// too, and what was recorded stays.
func TestEditsAreUndoneAndRedone(t *testing.T) {
	folder := t.TempDir()
	recording := take.Render(testkit.Buoy(), 4)
	kept, err := store.Open(folder)
	require.NoError(t, err)
	defer func() { require.NoError(t, kept.Close()) }()
	rapid.Check(t, func(t *rapid.T) {
		takes := shelf.New(kept)
		id := add(t, takes, recording, 3)
		// What the take was after each edit in force, and after those that can be redone.
		versions, at := []*take.Take{recording}, 0
		version := 0
		for range rapid.IntRange(1, 12).Draw(t, "changes") {
			var summary take.Summary
			var err error
			switch rapid.IntRange(0, 3).Draw(t, "change") {
			case 0:
				if summary, err = takes.Undo(ctx, id, version); at == 0 {
					require.ErrorIs(t, err, shelf.ErrNothingToUndo)
					continue
				}
				at--
			case 1:
				if summary, err = takes.Redo(ctx, id, version); at == len(versions)-1 {
					require.ErrorIs(t, err, shelf.ErrNothingToRedo)
					continue
				}
				at++
			default:
				edit := take.MoveNotes{Choice: take.Choice{Notes: []int{rapid.IntRange(0, 9).Draw(t, "note")}}, Semitones: rapid.IntRange(-5, 5).Draw(t, "semitones")}
				summary, err = takes.Edit(ctx, id, version, edit)
				next, failed := take.Apply(versions[at], edit)
				require.NoError(t, failed)
				at++
				versions = append(versions[:at], next)
			}
			require.NoError(t, err)
			version++
			require.Equal(t, version, summary.Version)
			require.Equal(t, at, summary.Position)
			require.Equal(t, at > 0, summary.Undo != "")
			require.Equal(t, at < len(versions)-1, summary.Redo != "")
			if rapid.Bool().Draw(t, "restart") {
				takes = shelf.New(kept)
			}
			is, _, err := takes.Take(ctx, id)
			require.NoError(t, err)
			require.Equal(t, versions[at].Messages, is.Messages)
		}
		recorded, _, _, err := kept.Recording(ctx, id)
		require.NoError(t, err)
		require.Equal(t, recording.Messages, recorded.Messages)
	})
}

// add keeps a take and returns its id.
func add(t require.TestingT, takes *shelf.Shelf, one *take.Take, revision int64) int64 {
	ids, err := takes.Add(ctx, revision, one)
	require.NoError(t, err)
	return ids[0]
}

func TestChangesOfAnotherVersionAreRefused(t *testing.T) {
	takes := shelf.New(memory.New(testkit.Buoy()))
	id := add(t, takes, take.Render(testkit.Buoy(), 1), 1)
	_, err := takes.Edit(ctx, id, 0, take.Rename{Name: "Dusk"})
	require.NoError(t, err)
	var stale *shelf.StaleError
	_, err = takes.Edit(ctx, id, 0, take.Rename{Name: "Dawn"})
	require.ErrorAs(t, err, &stale)
	require.Equal(t, "the take has changed: it is at version 1, not 0", err.Error())
	_, err = takes.SetDeleted(ctx, id, 0, true)
	require.ErrorAs(t, err, &stale)
	_, err = takes.Edit(ctx, id, 1, take.Trim{From: 9, To: 3})
	require.Error(t, err)
	listed, err := takes.Takes(ctx)
	require.NoError(t, err)
	require.Equal(t, "Dusk", listed[0].Name)
	_, err = takes.Undo(ctx, id+1, 0)
	require.ErrorIs(t, err, take.ErrUnknown)
}

// A deleted take is listed as such, and comes back whole.
func TestDeletionIsUndone(t *testing.T) {
	kept, err := store.Open(t.TempDir())
	require.NoError(t, err)
	defer func() { require.NoError(t, kept.Close()) }()
	takes := shelf.New(kept)
	whole := take.Render(testkit.Buoy(), 2)
	id := add(t, takes, whole, 1)
	_, err = takes.SetDeleted(ctx, id, 0, true)
	require.NoError(t, err)
	listed, err := shelf.New(kept).Takes(ctx)
	require.NoError(t, err)
	require.True(t, listed[0].Deleted)
	back, err := shelf.New(kept).SetDeleted(ctx, id, 1, false)
	require.NoError(t, err)
	require.False(t, back.Deleted)
	is, _, err := takes.Take(ctx, id)
	require.NoError(t, err)
	require.Equal(t, whole.Messages, is.Messages)
	project, err := takes.Origin(ctx, id)
	require.NoError(t, err)
	require.Equal(t, testkit.Buoy(), project)
}

// Takes of one name can be told apart, however long it is.
func TestNamesAreTold(t *testing.T) {
	takes := shelf.New(memory.New(testkit.Buoy()))
	for _, name := range []string{"Ebb", strings.Repeat("ö", score.MaxNameRunes)} {
		one := take.Render(testkit.Buoy(), 1)
		one.Name = name
		for range 3 {
			_, err := takes.Add(ctx, 1, one)
			require.NoError(t, err)
		}
		require.Equal(t, name, one.Name)
	}
	listed, err := takes.Takes(ctx)
	require.NoError(t, err)
	var names []string
	for _, summary := range listed {
		names = append(names, summary.Name)
		require.LessOrEqual(t, utf8.RuneCountInString(summary.Name), score.MaxNameRunes)
	}
	require.Equal(t, []string{"Ebb (3)", "Ebb (2)", "Ebb"}, names[3:])
	require.Len(t, slices.Compact(slices.Sorted(slices.Values(names))), 6)
}
