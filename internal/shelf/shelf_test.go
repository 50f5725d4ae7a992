package shelf_test

import (
	"context"
	"slices"
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
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

// Whatever becomes of a call to the store, and whoever goes away: what is given out is what is stored.
func TestFaultsLeaveNothingApart(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		kept := memory.New(testkit.Buoy())
		takes := shelf.New(kept)
		id := add(t, takes, take.Render(testkit.Buoy(), 2), 1)
		halves := 0
		for range rapid.IntRange(1, 20).Draw(t, "acts") {
			ctx, giveUp := context.WithCancel(context.Background())
			fault := rapid.SampledFrom([]memory.Fault{memory.None, memory.Refused, memory.GivenUp, memory.Unanswered}).Draw(t, "fault")
			goes := rapid.Bool().Draw(t, "asker goes")
			kept.SetFault(func(string) memory.Fault {
				if goes {
					giveUp()
				}
				return fault
			})
			_, before, err := takes.Take(context.Background(), id)
			require.NoError(t, err)
			version := before.Version
			switch rapid.SampledFrom([]string{"edit", "undo", "delete", "add"}).Draw(t, "act") {
			case "edit":
				_, err = takes.Edit(ctx, id, version, take.MoveNotes{Semitones: 1})
			case "undo":
				_, err = takes.Undo(ctx, id, version)
			case "delete":
				_, err = takes.SetDeleted(ctx, id, version, rapid.Bool().Draw(t, "deleted"))
			case "add":
				one := take.Render(testkit.Buoy(), 1)
				if _, err = takes.Add(ctx, 1, one, one); err == nil || fault == memory.Unanswered {
					halves += 2
				}
				version--
			}
			giveUp()
			if err == nil {
				version++
			}
			kept.SetFault(nil)
			given, summary, err := takes.Take(context.Background(), id)
			require.NoError(t, err)
			require.Equal(t, max(before.Version, version), summary.Version)
			stored, fresh, err := shelf.New(kept).Take(context.Background(), id)
			require.NoError(t, err)
			require.Equal(t, fresh, summary)
			require.Equal(t, stored.Messages, given.Messages)
			listed, err := takes.Takes(context.Background())
			require.NoError(t, err)
			require.Len(t, listed, 1+halves, "both halves or none")
		}
	})
}

// While a take is being changed, however long that takes, it can be read as it was.
func TestReadingWaitsForNoChange(t *testing.T) {
	kept := memory.New(testkit.Buoy())
	takes := shelf.New(kept)
	id := add(t, takes, take.Render(testkit.Buoy(), 2), 1)
	entered, release := make(chan struct{}), make(chan struct{})
	kept.SetFault(func(string) memory.Fault {
		close(entered)
		<-release
		return memory.None
	})
	done := make(chan error)
	go func() {
		_, err := takes.Edit(ctx, id, 0, take.MoveNotes{Semitones: 1})
		done <- err
	}()
	<-entered
	_, summary, err := takes.Take(ctx, id)
	require.NoError(t, err)
	require.Zero(t, summary.Version)
	close(release)
	require.NoError(t, <-done)
	_, summary, err = takes.Take(ctx, id)
	require.NoError(t, err)
	require.Equal(t, 1, summary.Version)
}

// Presses of a key on the same notes are one step of undo, across a restart too; anything else in between begins anew.
func TestARunOfEditsIsOneStep(t *testing.T) {
	kept := memory.New(testkit.Buoy())
	takes := shelf.New(kept)
	recording := take.Render(testkit.Buoy(), 2)
	id := add(t, takes, recording, 1)
	version := 0
	edit := func(run string, edit take.Edit) take.Summary {
		t.Helper()
		summary, err := takes.EditInRun(ctx, id, version, edit, run)
		require.NoError(t, err)
		version++
		require.Equal(t, version, summary.Version)
		return summary
	}
	up := take.MoveNotes{Choice: take.Choice{Notes: []int{2}}, Semitones: 1}
	for range 3 {
		require.Equal(t, 1, edit("a", up).Position)
	}
	is := func() []midi.Note {
		t.Helper()
		now, _, err := takes.Take(ctx, id)
		require.NoError(t, err)
		return now.Notes()
	}
	moved := is()
	require.Equal(t, int(recording.Notes()[2].Key)+3, int(moved[2].Key))

	takes = shelf.New(kept)
	require.Equal(t, moved, is())
	summary, err := takes.Undo(ctx, id, version)
	require.NoError(t, err)
	version++
	require.Zero(t, summary.Position)
	require.Equal(t, recording.Notes(), is())
	_, err = takes.Redo(ctx, id, version)
	require.NoError(t, err)
	version++
	require.Equal(t, moved, is())

	positions := []int{}
	for _, c := range []struct {
		run  string
		edit take.Edit
	}{
		{"b", up}, {"b", up}, {"c", up}, {"", up}, {"", up}, {"d", up},
		{"d", take.MoveNotes{Choice: up.Choice, Ticks: 5}},                            // in time
		{"d", take.MoveNotes{Choice: take.Choice{Notes: []int{1, 2}}, Ticks: 5}},      // of other notes
		{"d", take.ShapeNotes{Choice: take.Choice{Notes: []int{1, 2}}, Velocity: -1}}, // of another kind
		{"d", take.ShapeNotes{Choice: take.Choice{Notes: []int{1, 2}}, Velocity: -1}}, // goes on
		{"d", take.ShapeNotes{Choice: take.Choice{Notes: []int{1, 2}}, Length: 100}},  // of length
		{"d", take.Rename{Name: "Ebb"}}, {"d", take.Rename{Name: "Flood"}},            // no values of notes
	} {
		positions = append(positions, edit(c.run, c.edit).Position)
	}
	require.Equal(t, []int{2, 2, 3, 4, 5, 6, 7, 8, 9, 9, 10, 11, 12}, positions)
	one, other := add(t, takes, recording, 1), add(t, takes, recording, 1) // presses on one take do not go on on another
	_, err = takes.Edit(ctx, other, 0, up)
	require.NoError(t, err)
	_, err = takes.EditInRun(ctx, one, 0, up, "x")
	require.NoError(t, err)
	second, err := takes.EditInRun(ctx, other, 1, up, "x")
	require.NoError(t, err)
	require.Equal(t, 2, second.Position)
	for range 300 { // a run ends where it gets too long
		summary = edit("e", take.ShapeNotes{Choice: up.Choice, Velocity: 1})
	}
	require.Equal(t, 14, summary.Position)
}
