package live

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/memory"
)

// A take holds what was heard up to the stop, to the tick, with its last notes ended by the stop.
func TestATakeHoldsWhatWasHeard(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		s.SetRevision(7)
		require.NoError(t, s.Record(Recording{}))
		require.True(t, s.Status().Recording)
		pass(10_500 * time.Millisecond)
		at := s.tickAt(s.Now())
		s.Stop()
		require.False(t, s.Status().Recording)
		pass(time.Second)
		recorded := s.finished(t, 1)

		want := take.Of(testkit.Buoy(), "")
		want.Messages = rendered(testkit.Buoy(), at+1)
		want.Finish(at + 1) // the first tick of which nothing was heard
		require.Equal(t, want.Messages, recorded.Messages)
		require.Equal(t, 48_213, recorded.Luck)
		require.InDelta(t, 10.38, float64(recorded.Nanos())/1e9, 0.02, "the first 120 ms are the look-ahead")
	})
}

// finished returns the take with an id.
func (s *rig) finished(t *testing.T, id int64) *take.Take {
	t.Helper()
	finished, _, _, err := s.disk.Recording(t.Context(), id)
	require.NoError(t, err)
	return finished
}

// A recording that begins in the middle of a bar starts with that bar and holds only what came after.
func TestPunchInWhilePlaying(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		s.Play()
		pass(6 * time.Second) // bar 3 of 2.5 s each
		from := s.tickAt(s.Now())
		require.NoError(t, s.Record(Recording{}))
		require.NoError(t, s.Record(Recording{}))
		pass(5 * time.Second)
		to := s.tickAt(s.Now())
		s.EndRecording()
		s.EndRecording()
		require.True(t, s.Status().Playing)
		pass(time.Second)
		recorded := s.finished(t, 1)
		takes, err := s.disk.Takes(t.Context())
		require.NoError(t, err)
		require.Len(t, takes, 1)

		bar := 2 * testkit.Buoy().Meter.Bar()
		notes := 0
		for _, n := range play.Render(testkit.Buoy(), from+1, to+1, nil) {
			require.Equal(t, n.Start-bar, onAt(recorded, notes).Tick)
			require.Equal(t, n.Key, onAt(recorded, notes).Key)
			notes++
		}
		require.Equal(t, notes, recorded.Count())
		require.Equal(t, to+1-bar, recorded.End)
		require.Empty(t, s.lost)
	})
}

func onAt(t *take.Take, i int) midi.Message {
	for _, m := range t.Messages {
		if m.Kind != midi.NoteOn {
			continue
		}
		if i == 0 {
			return m
		}
		i--
	}
	return midi.Message{}
}

func TestATakeKnowsItsTempoChanges(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		s.Play()
		pass(3 * time.Second) // in bar 2
		require.NoError(t, s.Record(Recording{}))
		pass(time.Second)
		edge := s.edge()
		slower := testkit.Buoy()
		slower.Tempo = 48_000
		s.SetProject(slower, Change{})
		pass(2 * time.Second)
		s.Stop()
		pass(time.Second)
		require.Equal(t, play.TempoMap{
			{Tick: 0, Tempo: 96_000}, {Tick: edge - testkit.Buoy().Meter.Bar(), Tempo: 48_000},
		}, s.finished(t, 1).Tempo)
	})
}

// A disk that fails for a while delays nothing and loses nothing, and the trouble is told.
func TestABrokenDiskLosesNothing(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		require.NoError(t, s.Record(Recording{}))
		pass(2 * time.Second)
		s.disk.Fail(true)
		pass(3 * time.Second)
		at := s.tickAt(s.Now())
		s.Stop()
		pass(3 * time.Second)
		_, _, _, err := s.disk.Recording(t.Context(), 1)
		require.ErrorIs(t, err, take.ErrUnknown)
		require.ErrorIs(t, s.problems[0], memory.ErrFull)
		for i, ahead := range s.listener.arrived {
			require.LessOrEqual(t, ahead, s.listener.sounds[i].At)
		}
		s.disk.Fail(false)
		pass(time.Second)
		want := take.Of(testkit.Buoy(), "")
		want.Messages = rendered(testkit.Buoy(), at+1)
		want.Finish(at + 1)
		require.Equal(t, want.Messages, s.finished(t, 1).Messages)
	})
}
