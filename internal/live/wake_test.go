package live

import (
	"context"
	"runtime"
	"sync"
	"testing"
	"testing/synctest"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
)

// Everything that was heard is in the wake, recorded or not, up to the moment at which it is asked for; of the
// whole bars before it the last ones can be had, as they were heard.
func TestTheWakeHasWhatWasHeard(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		_, err := s.wake.LastBars(t.Context(), 0, 0, 2)
		require.ErrorIs(t, err, take.ErrUnknown)
		s.SetRevision(9)
		s.Play()
		pass(13 * time.Second) // five bars of 2.5 s and a bit
		require.NoError(t, s.KeepUp(t.Context()))
		last, err := s.wake.LastBars(t.Context(), 0, 0, 2)
		require.NoError(t, err)
		length := testkit.Buoy().Meter.Bar()
		require.Equal(t, 3*length, last.From)
		require.Equal(t, int64(9), last.Revision)
		require.Equal(t, take.Cut(take.Render(testkit.Buoy(), 5), 3*length, 5*length).Messages, last.Take.Messages)

		s.Stop()
		s.Play()
		pass(3 * time.Second)
		require.NoError(t, s.KeepUp(t.Context()))
		last, err = s.wake.LastBars(t.Context(), 0, 0, 2)
		require.NoError(t, err)
		require.Zero(t, last.From, "another start is another stretch")
		require.Equal(t, length, last.Take.End)
	})
}

// journal is a store that keeps nothing: it counts, and finds out whether each note ends.
type journal struct {
	stored, notes int
	down          map[midi.NoteID]bool
	disorder      int
	finished      bool
}

func (j *journal) CreateTake(context.Context, *take.Take, int64) (int64, error) { return 1, nil }
func (j *journal) AddOrigin(context.Context, int64, take.Origin) error          { return nil }
func (j *journal) AppendLog(context.Context, int64, take.Logged, int) error     { return nil }
func (j *journal) FinishTake(context.Context, int64, score.Tick) error          { j.finished = true; return nil }
func (j *journal) AppendTake(_ context.Context, _ int64, piece take.Piece, _ *take.Heading) error {
	if piece.First != j.stored {
		j.disorder++
	}
	j.stored += len(piece.Messages)
	for _, m := range piece.Messages {
		key := m.NoteID()
		if m.Kind == midi.NoteOn || m.Kind == midi.NoteOff {
			if j.down[key] == (m.Kind == midi.NoteOn) {
				j.disorder++
			}
			j.down[key] = m.Kind == midi.NoteOn
		}
		if m.Kind == midi.NoteOn {
			j.notes++
		}
	}
	return nil
}

// A day of the three-track demo through the wake, in simulated time: nothing is lost, every note is released, and
// the memory after 24 hours is that after one.
func TestADayThroughTheWake(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		j := &journal{down: map[midi.NoteID]bool{}}
		wake := NewRecorder(j, Reports{})
		// A slow pulse makes a simulated day short; what is heard is the same.
		s := New(testkit.Demo(), Options{LookAhead: 2 * time.Second, Pulse: time.Second}, NewRecorder(j, Reports{}), wake)
		ctx, stop := context.WithCancel(t.Context())
		var running sync.WaitGroup
		running.Go(func() { s.Run(ctx) })
		running.Go(func() { wake.Run(ctx) })
		s.Play()
		var afterAnHour uint64
		hours := 24
		if testing.Short() { // under the race detector a day is too long
			hours = 2
		}
		for hour := range hours {
			for range 60 {
				pass(time.Minute)
				require.NoError(t, wake.Flush(ctx))
			}
			if heap := heapInUse(); hour == 0 {
				afterAnHour = heap
			} else if hour == hours-1 {
				require.Less(t, heap, afterAnHour+afterAnHour/10)
			}
		}
		end := s.tickAt(s.Now())
		s.Stop()
		require.NoError(t, wake.Flush(ctx))
		stop()
		running.Wait()
		require.True(t, j.finished)
		require.Zero(t, j.disorder)
		for key, isDown := range j.down {
			require.False(t, isDown, key)
		}
		notes := 0
		player := route.NewPlayer(testkit.Demo(), 0, play.Past{})
		for at := score.Tick(0); at <= end; at += 1_000_000 {
			to := min(end+1, at+1_000_000)
			for _, m := range player.Advance(to, nil) {
				if m.Kind == midi.NoteOn {
					notes++
				}
			}
		}
		require.Equal(t, notes, j.notes)
		require.Greater(t, notes, hours*20_000)
	})
}

func heapInUse() uint64 {
	runtime.GC()
	var stats runtime.MemStats
	runtime.ReadMemStats(&stats)
	return stats.HeapInuse
}
