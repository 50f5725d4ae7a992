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

// The bars that were asked for are recorded, to the tick, and as many takes in a row as there is time for.
func TestPunchByBars(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		bar := testkit.Buoy().Meter.Bar()
		whole := take.Render(testkit.Buoy(), 12)
		require.NoError(t, s.Record(Recording{From: 3, Bars: 2, Again: true}))
		require.True(t, s.Status().Armed)
		require.False(t, s.Status().Recording)
		pass(6 * time.Second) // in bar 3 of 2.5 s each
		require.True(t, s.Status().Recording)
		require.False(t, s.Status().Armed)
		pass(11 * time.Second) // in bar 7
		s.EndRecording()
		require.False(t, s.Status().Recording)
		require.True(t, s.Status().Playing)
		pass(time.Second)
		takes, err := s.disk.Takes(t.Context())
		require.NoError(t, err)
		require.Len(t, takes, 3)
		for i := range score.Tick(2) {
			want := take.Cut(whole, (2+2*i)*bar, (4+2*i)*bar)
			got := s.finished(t, int64(i)+1)
			require.Equal(t, want.End, got.End)
			require.Equal(t, want.Notes(), got.Notes())
		}

		require.ErrorIs(t, s.Record(Recording{From: 2}), ErrPast)
		require.NoError(t, s.Record(Recording{Bars: 1}))
		pass(6 * time.Second)
		require.False(t, s.Status().Recording)
		pass(time.Second)
		require.Equal(t, bar, s.finished(t, 4).End)
	})
}

// Two bars are counted in beat by beat, and playing begins after them; a stop in between takes it all back.
func TestCountIn(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		require.NoError(t, s.Record(Recording{CountIn: 2, Bars: 1}))
		require.Len(t, s.listener.clicks, 8)
		beat := int64(time.Minute) / 96
		for i, click := range s.listener.clicks {
			require.Equal(t, s.listener.clicks[0].At+int64(i)*beat, click.At)
			require.Equal(t, i%4 == 0, click.First)
		}
		require.Equal(t, s.listener.clicks[7].At+beat, s.Status().At)
		pass(4 * time.Second)
		require.Empty(t, s.listener.messages())
		s.Stop()
		pass(10 * time.Second)
		require.Empty(t, s.listener.messages())

		require.NoError(t, s.Record(Recording{CountIn: 1, Bars: 1}))
		pass(8 * time.Second)
		s.Stop()
		pass(time.Second)
		require.Equal(t, take.Render(testkit.Buoy(), 1).Notes(), s.finished(t, 1).Notes())
		takes, err := s.disk.Takes(t.Context())
		require.NoError(t, err)
		require.Len(t, takes, 1)
	})
}

// A take that begins in the middle has what instruments were told before, and a marker where a pattern changed.
func TestATakeKnowsWhatWasToldBefore(t *testing.T) {
	p := testkit.Buoy()
	p.Tracks[0].Program, p.Tracks[0].Bank = 12, 3
	p.Tracks[0].Patterns = append(p.Tracks[0].Patterns, score.Pattern{ID: 1, Name: "Ebb", Parts: p.Tracks[0].Patterns[0].Parts})
	onStage(t, p, func(t *testing.T, s *rig) {
		s.SetRevision(4)
		s.Play()
		require.NoError(t, s.Record(Recording{From: 2, Bars: 2}))
		pass(4 * time.Second)
		playing := 1
		next, _, err := score.Apply(p, score.SetTrack{Track: 1, Playing: &playing})
		require.NoError(t, err)
		s.SetRevision(5)
		s.SetProject(next, Change{})
		pass(6 * time.Second)
		recorded := s.finished(t, 1)
		require.Equal(t, uint8(11), recorded.Messages[0].Key)
		require.Equal(t, uint16(3), recorded.Messages[0].Value)
		require.Zero(t, recorded.Messages[0].Tick)
		require.Len(t, recorded.Markers, 1)
		require.Equal(t, "Bell buoy: Ebb", recorded.Markers[0].Text)
	})
}

// A tempo that is changed while it is counted in holds from the first bar on, and a kit is known as one in its take.
func TestATempoIsChangedDuringTheCountIn(t *testing.T) {
	p := testkit.Demo()
	p.Tracks = p.Tracks[2:3]
	onStage(t, p, func(t *testing.T, s *rig) {
		require.NoError(t, s.Record(Recording{CountIn: 1, Bars: 1}))
		pass(time.Second)
		tempo := score.Tempo(48_000)
		next, _, err := score.Apply(p, score.SetProject{Tempo: &tempo})
		require.NoError(t, err)
		s.SetProject(next, Change{})
		pass(12 * time.Second)
		s.Stop()
		pass(time.Second)
		recorded := s.finished(t, 1)
		require.Equal(t, play.TempoMap{{Tempo: tempo}}, recorded.Tempo)
		require.Equal(t, take.Render(next, 1).Notes(), recorded.Notes())
		require.Equal(t, []take.Track{take.TrackOf(&p.Tracks[0])}, recorded.Tracks)
		begun, lasts := s.listener.sounds[0].At, 5*time.Second // a bar of 4/4 at 48
		for _, sound := range s.listener.sounds {
			want := begun + int64(float64(lasts)*float64(sound.Tick-s.listener.sounds[0].Tick)/float64(p.Meter.Bar()))
			require.InDelta(t, want, sound.At, 1000)
		}
	})
}
