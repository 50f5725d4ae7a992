package studio_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/memory"
	"jettyfog/internal/studio"
)

func open(t require.TestingT, store *memory.Store) *studio.Studio {
	s, err := studio.New(context.Background(), store, store.Opened())
	require.NoError(t, err)
	return s
}

// Any sequence of edits, undos, redos and restarts behaves like a list of projects with a finger on it.
func TestHistory(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		ctx := context.Background()
		store := memory.New(testkit.Buoy())
		s := open(t, store)
		projects, at := []*score.Project{testkit.Buoy()}, 0
		for range rapid.IntRange(1, 25).Draw(t, "acts") {
			revision := s.State().Revision
			var err error
			switch rapid.SampledFrom([]string{"edit", "edit", "undo", "redo", "go", "restart"}).Draw(t, "act") {
			case "edit":
				_, err = s.Edit(ctx, revision, testkit.Edit(t, s.State().Project))
				require.NoError(t, err)
				projects, at = append(projects[:at+1], s.State().Project), at+1
			case "undo":
				_, err = s.Undo(ctx, revision)
				if at == 0 {
					require.ErrorIs(t, err, studio.ErrNothingToUndo)
				} else {
					require.NoError(t, err)
					at--
				}
			case "redo":
				_, err = s.Redo(ctx, revision)
				if at == len(projects)-1 {
					require.ErrorIs(t, err, studio.ErrNothingToRedo)
				} else {
					require.NoError(t, err)
					at++
				}
			case "go":
				to := rapid.IntRange(0, len(projects)-1).Draw(t, "to")
				_, err = s.GoTo(ctx, revision, to)
				require.NoError(t, err)
				at = to
				requireHistory(t, s, len(projects)-1, at)
			case "restart":
				s = open(t, store)
			}
			require.Equal(t, projects[at], s.State().Project)
			if err == nil {
				require.GreaterOrEqual(t, s.State().Revision, revision)
			} else {
				require.Equal(t, revision, s.State().Revision)
			}
		}
	})
}

func TestAnEditOfAnOldRevisionIsRefused(t *testing.T) {
	s := open(t, memory.New(testkit.Buoy()))
	ctx := context.Background()
	_, err := s.Edit(ctx, 1, score.ChangeLuck{Number: 5})
	require.NoError(t, err)
	for _, act := range []func() error{
		func() error { _, err := s.Edit(ctx, 1, score.ChangeLuck{Number: 6}); return err },
		func() error { _, err := s.Undo(ctx, 1); return err },
		func() error { _, err := s.Redo(ctx, 3); return err },
	} {
		var stale *studio.StaleError
		require.ErrorAs(t, act(), &stale)
		require.Equal(t, int64(2), stale.Current)
	}
	require.Equal(t, 5, s.State().Project.Luck.Number)
}

func TestListenersHearEveryChangeInOrder(t *testing.T) {
	s := open(t, memory.New(testkit.Buoy()))
	ctx := context.Background()
	var heard []studio.Snapshot
	s.Listen(func(state studio.Snapshot) { heard = append(heard, state) })
	_, err := s.Edit(ctx, 1, score.ChangeLuck{Number: 5})
	require.NoError(t, err)
	_, err = s.Undo(ctx, 2)
	require.NoError(t, err)
	_, err = s.Edit(ctx, 2, score.ChangeLuck{Number: 9})
	require.Error(t, err)
	require.Len(t, heard, 3)
	for i, want := range []struct {
		luck       int
		undo, redo string
	}{{48_213, "", ""}, {5, "luck 5", ""}, {48_213, "", "luck 5"}} {
		require.Equal(t, int64(i+1), heard[i].Revision)
		require.Equal(t, want.luck, heard[i].Project.Luck.Number)
		require.Equal(t, want.undo, heard[i].Undo)
		require.Equal(t, want.redo, heard[i].Redo)
	}
}

// What could not be stored has not happened.
func TestAFailingStoreChangesNothing(t *testing.T) {
	store := memory.New(testkit.Buoy())
	s := open(t, store)
	ctx := context.Background()
	_, err := s.Edit(ctx, 1, score.ChangeLuck{Number: 5})
	require.NoError(t, err)
	before := s.State()
	store.Fail(true)
	_, err = s.Edit(ctx, 2, score.ChangeLuck{Number: 6})
	require.ErrorIs(t, err, memory.ErrFull)
	_, err = s.Undo(ctx, 2)
	require.ErrorIs(t, err, memory.ErrFull)
	require.Equal(t, before, s.State())
}

// Whatever becomes of a call to the store, and whoever goes away: what is stored is what is open and what everybody
// was told, and the history leads back to it.
func TestFaultsAndGivingUpLeaveNothingApart(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		store := memory.New(testkit.Buoy())
		s := open(t, store)
		_, err := s.Add(context.Background(), score.Blank(), false)
		require.NoError(t, err)
		var told studio.Snapshot
		s.Listen(func(state studio.Snapshot) { told = state })
		for range rapid.IntRange(1, 30).Draw(t, "acts") {
			ctx, giveUp := context.WithCancel(context.Background())
			fault := rapid.SampledFrom([]memory.Fault{memory.None, memory.None, memory.Refused, memory.GivenUp, memory.Unanswered}).Draw(t, "fault")
			goes := rapid.Bool().Draw(t, "the asker goes meanwhile")
			store.SetFault(func(string) memory.Fault {
				if goes {
					giveUp()
				}
				return fault
			})
			before := s.State()
			var err error
			switch rapid.SampledFrom([]string{"edit", "edit", "run", "undo", "redo", "go", "open"}).Draw(t, "act") {
			case "run":
				tempo := score.Tempo(rapid.IntRange(90_000, 99_000).Draw(t, "tempo"))
				_, err = s.EditInRun(ctx, before.Revision, score.SetProject{Tempo: &tempo}, "run")
			case "edit":
				_, err = s.Edit(ctx, before.Revision, score.ChangeLuck{Number: rapid.IntRange(0, 999_999).Draw(t, "luck")})
			case "undo":
				_, err = s.Undo(ctx, before.Revision)
			case "redo":
				_, err = s.Redo(ctx, before.Revision)
			case "go":
				_, err = s.GoTo(ctx, before.Revision, 0)
			case "open":
				_, err = s.Open(ctx, before.Revision, 3-before.Document, false) // the other one of two
			}
			giveUp()
			if err != nil {
				require.Equal(t, before, s.State())
			} else {
				require.Equal(t, before.Revision+1, s.State().Revision)
			}
			require.Equal(t, s.State(), told)
			stored := store.Opened()
			require.Equal(t, s.State().Revision, stored.Revision)
			require.Equal(t, s.State().Project, stored.Project)
			store.SetFault(nil)
			again := s.State()
			again.From, again.Changes, again.Way, again.New, again.Opened = 0, nil, nil, false, nil
			require.Equal(t, again, open(t, store).State(), "another start finds the same")
		}
	})
}

// While an edit is being stored, however long that takes, the project as it was can be read.
func TestReadingWaitsForNoEdit(t *testing.T) {
	store := memory.New(testkit.Buoy())
	s := open(t, store)
	entered, release := make(chan struct{}), make(chan struct{})
	store.SetFault(func(string) memory.Fault {
		close(entered)
		<-release
		return memory.None
	})
	done := make(chan error)
	go func() {
		_, err := s.Edit(context.Background(), 1, score.ChangeLuck{Number: 5})
		done <- err
	}()
	<-entered
	require.Equal(t, int64(1), s.State().Revision)
	_, err := s.History(context.Background(), 0, 10)
	require.NoError(t, err)
	close(release)
	require.NoError(t, <-done)
	require.Equal(t, int64(2), s.State().Revision)
}

// An edit that makes the project denser than can be played is refused with the limit; one that makes it less dense
// is not, even if it is too dense still.
func TestWhatCannotBePlayedIsRefused(t *testing.T) {
	p := testkit.Buoy()
	p.Tempo = score.MaxTempo
	track := p.Tracks[0]
	for i := range 15 {
		one := track.Clone()
		one.ID, one.Speed = i+2, score.Ratio{N: 4, M: 1}
		p.Tracks = append(p.Tracks, one)
	}
	s := open(t, memory.New(p))
	ctx := context.Background()
	thicken := func(id int) (studio.Snapshot, error) {
		lane := score.LaneAddress{PartAddress: score.PartAddress{Track: id}, Lane: score.Ratchet}
		steps := score.SetSteps{LaneAddress: lane}
		for step := range score.MaxSteps {
			steps.Steps = append(steps.Steps, score.StepValue{Step: step, Value: 16})
		}
		return s.Edit(ctx, s.State().Revision, steps)
	}
	var err error
	id := 1
	for ; err == nil; id++ {
		_, err = thicken(id)
	}
	require.ErrorContains(t, err, "it must be at most 10000, so that it can be played live")
	require.Greater(t, id, 3)
	require.LessOrEqual(t, score.EventsPerSecond(s.State().Project), score.MaxEventsPerSecond)
	slower := score.Tempo(200_000)
	_, err = s.Edit(ctx, s.State().Revision, score.SetProject{Tempo: &slower})
	require.NoError(t, err)
	_, err = thicken(id - 1)
	require.NoError(t, err)

	dense := s.State().Project.Clone()
	for i := range dense.Tracks {
		dense.Tracks[i].Speed = score.Ratio{N: 16, M: 1}
	}
	_, err = s.Edit(ctx, s.State().Revision, score.Replace{Project: *dense})
	require.ErrorContains(t, err, "events a second")
	store := memory.New(dense)
	s = open(t, store)
	_, err = s.Edit(ctx, 1, score.SetProject{Tempo: &slower})
	require.NoError(t, err, "no denser than before")
}

// requireHistory checks that the list of edits has all, the latest first, and says which are in force.
func requireHistory(t *rapid.T, s *studio.Studio, all, done int) {
	entries, err := s.History(context.Background(), 0, 100)
	require.NoError(t, err)
	require.Len(t, entries, all)
	for i, entry := range entries {
		require.Equal(t, all-i, entry.Position)
		require.Equal(t, entry.Position <= done, entry.Done)
		require.NotEmpty(t, entry.Label)
	}
	if all > 2 {
		middle, err := s.History(context.Background(), all, 1)
		require.NoError(t, err)
		require.Equal(t, entries[1:2], middle)
	}
	_, err = s.GoTo(context.Background(), s.State().Revision, all+1)
	require.ErrorIs(t, err, studio.ErrNothingToRedo)
}

// A run of edits of one value is one step of the history, which says from where to where the run went.
func TestARunOfEditsIsOneStep(t *testing.T) {
	ctx := context.Background()
	store := memory.New(testkit.Buoy())
	s := open(t, store)
	press := func(run string, step, value int) {
		t.Helper()
		address := score.LaneAddress{PartAddress: score.PartAddress{Track: 1}, Lane: score.Velocity}
		_, err := s.EditInRun(ctx, s.State().Revision, score.SetSteps{LaneAddress: address, Steps: []score.StepValue{{Step: step, Value: value}}}, run)
		require.NoError(t, err)
	}
	labels := func() (labels []string) {
		t.Helper()
		entries, err := s.History(ctx, 0, 100)
		require.NoError(t, err)
		for _, entry := range entries {
			labels = append(labels, entry.Label)
		}
		return labels
	}
	velocity := func(step int) int { return s.State().Project.Tracks[0].Parts()[0].Lanes.Velocity.Steps[step] }
	began := velocity(0)
	say := func(step, from, to int) string {
		return fmt.Sprintf("Bell buoy: velocity of step %d, %d to %d", step+1, from, to)
	}
	for _, value := range []int{1, 2, 3} {
		press("a", 0, value)
	}
	require.Equal(t, []string{say(0, began, 3)}, labels())
	require.Equal(t, say(0, began, 3), s.State().Undo)

	_, err := s.Undo(ctx, s.State().Revision)
	require.NoError(t, err)
	require.Equal(t, began, velocity(0))
	_, err = s.Redo(ctx, s.State().Revision)
	require.NoError(t, err)
	require.Equal(t, 3, velocity(0))

	press("b", 0, 4) // another run
	press("b", 1, 4) // another value
	press("", 1, 5)  // no run
	press("", 1, 6)  // no run either
	require.Len(t, labels(), 5)
	press("c", 1, 7)
	_, err = s.Undo(ctx, s.State().Revision)
	require.NoError(t, err)
	press("c", 1, 8) // what was undone is not gone on from
	require.Equal(t, []string{say(1, 6, 8), say(1, 5, 6), say(1, 4, 5), say(1, 78, 4), say(0, 3, 4), say(0, began, 3)}, labels())

	for range 2 {
		_, err = s.Undo(ctx, s.State().Revision)
		require.NoError(t, err)
	}
	press("c", 1, 8)
	press("", 1, 7)
	press("c", 1, 8)
	require.Equal(t, []string{say(1, 7, 8), say(1, 8, 7), say(1, 5, 8), say(1, 4, 5), say(1, 78, 4), say(0, 3, 4), say(0, began, 3)}, labels())

	s = open(t, store) // after a restart a run begins anew
	press("c", 1, 9)
	require.Equal(t, say(1, 8, 9), labels()[0])
	require.Len(t, labels(), 8)
	_, err = s.GoTo(ctx, s.State().Revision, 0)
	require.NoError(t, err)
	require.Equal(t, testkit.Buoy().Tracks, s.State().Project.Tracks)
}
