package live

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
)

// Everything that was heard is in the wake, recorded or not, up to the moment at which it is asked for; of the
// whole bars before it the last ones can be had, as they were heard.
func TestTheWakeHasWhatWasHeard(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *stage) {
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

// An hour of music through the wake: nothing is lost, every note is released, and what is on disk is not kept
// in memory.
func TestAnHourThroughTheWake(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *stage) {
		s.Play()
		for range 60 {
			pass(time.Minute)
			s.Transport.wake.mu.Lock()
			require.Less(t, len(s.Transport.wake.now.messages), 100)
			s.Transport.wake.mu.Unlock()
		}
		end := s.tickAt(s.Now())
		s.Stop()
		pass(time.Second)
		stored, _, err := s.wake.Recording(t.Context(), 1)
		require.NoError(t, err)
		notes := 0
		for _, n := range play.Render(testkit.Buoy(), 0, end+1, nil) {
			if n.Start <= end {
				notes++
			}
		}
		require.Equal(t, notes, stored.Count())
		down := map[uint8]bool{}
		for _, m := range stored.Messages {
			require.Equal(t, m.Kind == play.NoteOff, down[m.Key])
			down[m.Key] = m.Kind == play.NoteOn
		}
		for key, is := range down {
			require.False(t, is, key)
		}
		require.Greater(t, score.Tick(notes), score.Tick(8_000))
	})
}
