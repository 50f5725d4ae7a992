package live

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// slowProject has two tracks that must be played from the beginning on to be anywhere.
func slowProject() *score.Project {
	p := testkit.Buoy()
	second := testkit.Buoy().Tracks[0]
	second.ID, second.Channel, second.Name = 2, 2, "Ferry"
	p.Tracks = append(p.Tracks, second)
	for i := range p.Tracks {
		p.Tracks[i].Parts()[0].Lanes.Velocity.Moves = score.ByHit
	}
	return p
}

// A storm of edits that need replaying: none waits for it, the last is what plays soon, the track that is not edited
// plays on as if nothing happened, every note ends, and the take is told which state played from when on.
func TestAStormOfEditsThatNeedReplaying(t *testing.T) {
	onStage(t, slowProject(), func(t *testing.T, s *rig) {
		require.NoError(t, s.Record(Recording{}))
		pass(time.Minute)
		project := slowProject()
		for n := range 100 {
			var err error
			project, _, err = score.Apply(project, score.SetSteps{
				LaneAddress: score.LaneAddress{PartAddress: score.PartAddress{Track: 2}, Lane: score.Gate}, Steps: []score.StepValue{{Step: n % 7, Value: n % 2}},
			})
			require.NoError(t, err)
			s.SetRevision(int64(n + 2))
			s.SetProject(project, Change{})
			pass(10 * time.Millisecond)
		}
		edge := s.edge()
		pass(20 * time.Second)
		end := s.edge()
		s.Stop()

		want := map[uint32][]midi.Message{}
		for track, p := range map[uint32]*score.Project{1: slowProject(), 2: project} {
			for _, m := range route.NewPlayer(p, 0, play.Past{}).Advance(end, nil) {
				if m.Kind == midi.NoteOn && m.Track == track && (track == 1 || m.Tick >= edge) {
					want[track] = append(want[track], m)
				}
			}
		}
		got, down := map[uint32][]midi.Message{}, map[midi.NoteID]bool{}
		for _, m := range s.listener.messages() {
			require.Equal(t, m.Kind == midi.NoteOff, down[midi.NoteID{Channel: m.Channel, Key: m.Key}], "%+v", m)
			down[midi.NoteID{Channel: m.Channel, Key: m.Key}] = m.Kind == midi.NoteOn
			if m.Kind == midi.NoteOn && m.Tick < end && (m.Track == 1 || m.Tick >= edge) {
				got[m.Track] = append(got[m.Track], m)
			}
		}
		require.Equal(t, want, got)
	})
}

// Stopping, and starting anew, while an edit is replayed, leaves the edit in force.
func TestAStopWhileAnEditIsReplayed(t *testing.T) {
	for _, again := range []bool{false, true} {
		t.Run(fmt.Sprint(again), func(t *testing.T) {
			onStage(t, slowProject(), func(t *testing.T, s *rig) {
				s.Play()
				pass(time.Minute)
				edited := slowProject()
				edited.Tracks[0].Parts()[0].Lanes.Gate.Steps[3] = score.On
				edited.Tempo = 120_000
				s.SetProject(edited, Change{})
				s.Stop()
				if again {
					s.Play()
				}
				pass(time.Second)
				require.Equal(t, score.Tempo(120_000).TicksPerMilli(), s.Status().TicksPerMilli)
				s.Stop()
				before := len(s.listener.sounds)
				s.Play()
				pass(10 * time.Second)
				require.Equal(t, rendered(edited, s.edge()), s.listener.messages()[before:])
			})
		})
	}
}
