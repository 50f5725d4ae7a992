package live

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/output"
)

// ferry is another project than the one that plays, at another tempo and in another meter.
func ferry() *score.Project {
	p := testkit.Buoy()
	p.Name, p.Tempo, p.Meter = "Ferry", 140_000, score.Meter{Beats: 3, Unit: 4}
	p.Luck.Number = 77
	return p
}

// heardOf returns note-ons of a stretch of time, with times since it began, in µs.
func heardOf(sounds []output.Event, from, to int64) (ons []midi.Message) {
	for _, sound := range sounds {
		if sound.Kind == midi.NoteOn && sound.At >= from && sound.At < to {
			ons = append(ons, midi.Message{Tick: score.Tick((sound.At - from + 500) / 1000), Key: sound.Key, Velocity: sound.Velocity})
		}
	}
	return ons
}

// A project that is opened while another plays comes in with the next bar: what played goes on up to there, and ends there; the
// next one is heard as if it had been started there. The stretch of the wake and the take of the one before end at the bar.
func TestAProjectIsOpenedWhileAnotherPlays(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		s.SetRevision(4)
		s.Play()
		require.NoError(t, s.Record(Recording{}))
		pass(4 * time.Second) // in the second bar, of 2.5 s each
		s.Open(Opened{Document: 2, Revision: 5, Project: ferry()}, NextBar)
		require.True(t, s.Status().Opening)
		require.ErrorIs(t, s.Do([]Doing{{muteBuoy, value(1)}}, Now, 0), ErrOpening)
		require.ErrorIs(t, s.Back(), ErrOpening)
		require.ErrorIs(t, s.JumpTo(3, Now, 0, false), ErrOpening)
		require.Equal(t, int64(2), s.Performing().Document)
		louder := ferry()
		louder.Tracks[0].Parts()[0].Lanes.Velocity.Amount = 110
		s.SetRevision(6)
		s.SetProject(louder, Change{}) // an edit of the one that waits
		pass(8 * time.Second)
		require.False(t, s.Status().Opening)
		require.Equal(t, score.Tempo(140_000).TicksPerMilli(), s.Status().TicksPerMilli)

		sounds := s.listener.events()
		begun := s.started
		seam := begun + 5*int64(time.Second)
		want := func(p *score.Project, ticks score.Tick) (ons []midi.Message) {
			for _, n := range play.Render(p, 0, ticks, nil) {
				ons = append(ons, midi.Message{Tick: score.Tick((play.TempoMapOf(p).Nanos(n.Start) + 500) / 1000), Key: n.Key, Velocity: n.Velocity})
			}
			return ons
		}
		bar := testkit.Buoy().Meter.Bar()
		require.Equal(t, want(testkit.Buoy(), 2*bar), heardOf(sounds, begun, seam))
		next := heardOf(sounds, seam, seam+5*int64(time.Second))
		require.NotEmpty(t, next)
		require.Equal(t, want(louder, 12*score.TicksPerQuarter)[:len(next)], next)
		var down midi.Sounding[int64]
		for _, sound := range sounds {
			switch {
			case sound.Kind == midi.NoteOn && sound.At < seam:
				down.Begin(sound.NoteID(), sound.At)
			case sound.Kind == midi.NoteOff && sound.At <= seam:
				down.End(sound.NoteID())
			}
		}
		require.Empty(t, down.Release(func(int64) score.Tick { return 0 }), "every note of the one before ends by the bar")

		s.Stop()
		pass(time.Second)
		recorded := s.finished(t, 1)
		require.Equal(t, 2*bar, recorded.End)
		require.Equal(t, take.Render(testkit.Buoy(), 2).Notes(), recorded.Notes())
		stretches, err := s.wake.LastBars(t.Context(), 0, 0, 1)
		require.NoError(t, err)
		require.Equal(t, int64(6), stretches.Revision)
		require.Equal(t, "Ferry", stretches.Take.Project.Name)
	})
}

// While nothing plays a project is open at once; one that waits is open once playing stops, and of two that wait the last.
func TestAProjectIsOpenedWithoutPlaying(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		muted := stage.Stage{}.With(muteBuoy, 1)
		s.Open(Opened{Document: 2, Revision: 2, Project: ferry(), Stage: muted}, NextBar)
		require.Equal(t, score.Tempo(140_000).TicksPerMilli(), s.Status().TicksPerMilli)
		require.Equal(t, muted, s.Performing().Stage)
		s.Play()
		pass(time.Second)
		require.Empty(t, s.listener.messages(), "with its own live changes")
		s.Open(Opened{Document: 3, Revision: 3, Project: testkit.Buoy()}, NextBar)
		s.Open(Opened{Document: 1, Revision: 4, Project: score.Blank()}, NextBar)
		s.Stop()
		require.Equal(t, int64(1), s.Performing().Document)
		require.Equal(t, score.Blank().Tempo.TicksPerMilli(), s.Status().TicksPerMilli)
	})
}

// Whenever projects are opened, with the next bar or at once, often or seldom, while takes are recorded, ranges looped and
// things done: no note stays, and nothing is lost of what was heard.
func TestProjectsAreOpenedAtAnyTime(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		waits := rapid.SliceOfN(rapid.IntRange(1, 3000), 1, 8).Draw(rt, "waits")
		doings := rapid.SliceOfN(rapid.IntRange(0, 6), 8, 8).Draw(rt, "doings")
		onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
			s.Play()
			for i, wait := range waits {
				pass(time.Duration(wait) * time.Millisecond)
				next := Opened{Document: int64(i + 2), Revision: int64(i + 2), Project: ferry()}
				switch doings[i] {
				case 0, 1:
					s.Open(next, NextBar)
				case 2:
					s.Open(next, Now)
				case 3:
					_ = s.Record(Recording{})
				case 4:
					_ = s.SetLoop(Range{To: score.TicksPerQuarter})
				case 5:
					_ = s.Do([]Doing{{muteBuoy, value(i % 2)}}, NextBar, 0)
				case 6:
					s.SetProject(ferry(), Change{})
				}
			}
			silent := score.Blank()
			silent.Tracks[0].Mute = true
			s.Open(Opened{Document: 100, Revision: 100, Project: silent}, NextBar)
			pass(4 * time.Second)
			require.False(t, s.Status().Opening)
			require.True(t, s.Status().Playing)
			down := map[midi.NoteID]int{}
			for _, sound := range s.listener.events() {
				switch sound.Kind {
				case midi.NoteOn:
					down[sound.NoteID()]++
				case midi.NoteOff:
					down[sound.NoteID()] = 0
				}
			}
			for note, is := range down {
				require.Zero(t, is, note)
			}
			require.Empty(t, s.problems)
		})
	})
}
