package live

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// rendered returns the messages that the core computes for the ticks before to.
func rendered(p *score.Project, to score.Tick) []play.Message {
	var keys play.Keys
	performer := play.NewPerformer(p)
	notes := keys.Play(performer.Advance(to, nil), to, nil)
	return play.Merge(notes, performer.Controls(nil), nil)
}

func TestLiveAndOfflineAreTheSame(t *testing.T) {
	onStage(t, score.Demo(), func(t *testing.T, s *stage) {
		s.Play()
		pass(time.Minute)
		require.Equal(t, rendered(score.Demo(), s.committed), s.listener.messages())
		require.Greater(t, s.committed, score.Tick(0))
	})
}

// Every sound arrives before its time, by the look-ahead less one pulse at least, and its time is
// the tick's.
func TestSoundsArriveAheadOfTheirTimes(t *testing.T) {
	onStage(t, score.Demo(), func(t *testing.T, s *stage) {
		s.Play()
		pass(20 * time.Second)
		tempo := play.TempoMap{{Tempo: 96_000}}
		require.NotEmpty(t, s.listener.sounds)
		for i, sound := range s.listener.sounds {
			require.Equal(t, s.started+tempo.Nanos(sound.Tick), sound.At)
			ahead := time.Duration(sound.At - s.listener.arrived[i])
			require.GreaterOrEqual(t, ahead, 110*time.Millisecond)
			require.LessOrEqual(t, ahead, 120*time.Millisecond)
		}
	})
}

// Each lane is told its own steps, at the times at which the chart has them.
func TestEveryLaneIsToldItsPlaces(t *testing.T) {
	onStage(t, score.Demo(), func(t *testing.T, s *stage) {
		s.Play()
		pass(10 * time.Second)
		tempo := play.TempoMap{{Tempo: 96_000}}
		told := map[score.LaneName][]play.Move{}
		for _, place := range s.listener.places {
			require.Equal(t, s.started+tempo.Nanos(place.Tick), place.At)
			if place.Tick < s.committed {
				told[place.Lane] = append(told[place.Lane], play.Move{Tick: place.Tick, Step: place.Step})
			}
		}
		require.Equal(t, play.Look(score.Demo(), 1, 0, 0, s.committed).Moves, told)
		require.Len(t, told, 5)
	})
}

// An edit is heard within the look-ahead: what is handed over after it comes from the new project.
func TestAnEditIsHeardWithinTheLookAhead(t *testing.T) {
	onStage(t, score.Demo(), func(t *testing.T, s *stage) {
		s.Play()
		pass(5 * time.Second)
		edited := score.Demo()
		edited.Key.Root = 7
		before, edge := len(s.listener.sounds), s.committed
		now := s.Now()
		s.SetProject(edited)
		pass(5 * time.Second)

		want := play.Render(edited, edge, s.committed, nil)
		var got []play.Message
		for _, sound := range s.listener.sounds[before:] {
			if sound.Kind == play.NoteOn {
				got = append(got, sound.Message)
			}
		}
		require.Len(t, got, len(want))
		for i, note := range want {
			require.Equal(t, note.Key, got[i].Key)
			require.Equal(t, note.Start, got[i].Tick)
		}
		require.LessOrEqual(t, s.timeOf(edge)-now, int64(121*time.Millisecond))
	})
}

// A change of tempo holds from the first tick that was not handed over; no time jumps.
func TestTempoChangesWhilePlaying(t *testing.T) {
	onStage(t, score.Demo(), func(t *testing.T, s *stage) {
		s.Play()
		pass(3 * time.Second)
		edge := s.committed
		faster := score.Demo()
		faster.Tempo = 192_000
		s.SetProject(faster)
		pass(3 * time.Second)
		tempo := play.TempoMap{{Tick: 0, Tempo: 96_000}, {Tick: edge, Tempo: 192_000}}
		last := int64(0)
		for _, sound := range s.listener.sounds {
			require.Equal(t, s.started+tempo.Nanos(sound.Tick), sound.At)
			require.GreaterOrEqual(t, sound.At, last)
			last = sound.At
		}
		status := s.Status()
		require.Equal(t, edge, status.Tick)
		require.Equal(t, s.timeOf(edge), status.At)
		require.Equal(t, score.Tempo(192_000), status.Tempo)
		require.Equal(t, rendered(faster, s.committed), s.listener.messages(), "the tempo changes times, not notes")
	})
}

func TestStopAndPlayBeginAnew(t *testing.T) {
	onStage(t, score.Demo(), func(t *testing.T, s *stage) {
		require.False(t, s.Status().Playing)
		s.Stop()
		s.Play()
		s.Play()
		pass(2 * time.Second)
		s.Stop()
		require.False(t, s.Status().Playing)
		silent := len(s.listener.sounds)
		pass(time.Second)
		require.Len(t, s.listener.sounds, silent)
		s.Play()
		pass(2 * time.Second)
		require.Equal(t, rendered(score.Demo(), s.committed), s.listener.messages()[silent:])
	})
}

// A detached output hears nothing more.
func TestDetach(t *testing.T) {
	onStage(t, score.Demo(), func(t *testing.T, s *stage) {
		s.Detach(s.listener)
		s.Play()
		pass(time.Second)
		require.Empty(t, s.listener.sounds)
	})
}

// An edit of a project whose lanes' places depend on all that was played takes effect at the right places:
// as if the edited project had been played from the beginning.
func TestAnEditOfLanesThatMoveByHits(t *testing.T) {
	project := score.Demo()
	project.Tracks[0].Parts()[0].Lanes.Pitch.Moves = score.ByHit
	onStage(t, project, func(t *testing.T, s *stage) {
		s.Play()
		pass(20 * time.Second)
		edited := project.Clone()
		edited.Key.Root = 7
		before, edge := len(s.listener.sounds), s.committed
		s.SetProject(edited)
		pass(5 * time.Second)
		want := play.Render(edited, edge, s.committed, nil)
		require.Greater(t, len(want), 10)
		next := 0
		for _, sound := range s.listener.sounds[before:] {
			if sound.Kind == play.NoteOn {
				require.Equal(t, want[next].Key, sound.Key)
				next++
			}
		}
		require.Equal(t, len(want), next)
	})
}
