package live

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// rendered returns the messages that the core computes for the ticks before to.
func rendered(p *score.Project, to score.Tick) []midi.Message {
	return route.NewPlayer(p, 0, play.Past{}).Advance(to, nil)
}

func TestLiveAndOfflineAreTheSame(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		s.Play()
		pass(time.Minute)
		require.Equal(t, rendered(testkit.Buoy(), s.player.Run()), s.listener.messages())
		require.Greater(t, s.player.Run(), score.Tick(0))
	})
}

// Every sound arrives before its time, by the look-ahead less one pulse at least, and its time is
// the tick's.
func TestSoundsArriveAheadOfTheirTimes(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
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
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		s.Play()
		pass(10 * time.Second)
		tempo := play.TempoMap{{Tempo: 96_000}}
		told := map[score.LaneName][]play.Move{}
		for _, place := range s.listener.places {
			require.Equal(t, s.started+tempo.Nanos(place.Tick), place.At)
			if place.Tick < s.player.Run() {
				told[place.Lane] = append(told[place.Lane], play.Move{Tick: place.Tick, Step: place.Step})
			}
		}
		require.Equal(t, play.Look(testkit.Buoy(), 1, 0, s.player.Run())[0].Moves, told)
		require.Len(t, told, 5)
	})
}

// An edit is heard within the look-ahead: what is handed over after it comes from the new project.
func TestAnEditIsHeardWithinTheLookAhead(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		s.Play()
		pass(5 * time.Second)
		edited := testkit.Buoy()
		edited.Key.Root = 7
		before, edge := len(s.listener.sounds), s.edge()
		now := s.Now()
		s.SetProject(edited, Change{})
		pass(5 * time.Second)

		want := play.Render(edited, edge, s.player.Run(), nil)
		var got []midi.Message
		for _, sound := range s.listener.sounds[before:] {
			if sound.Kind == midi.NoteOn {
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
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		s.Play()
		pass(3 * time.Second)
		edge := s.edge()
		faster := testkit.Buoy()
		faster.Tempo = 192_000
		s.SetProject(faster, Change{})
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
		require.Equal(t, score.Tempo(192_000).TicksPerMilli(), status.TicksPerMilli)
		require.Equal(t, rendered(faster, s.player.Run()), s.listener.messages(), "the tempo changes times, not notes")
	})
}

// The tempos of the document hold from their own ticks on, and outputs are told when one begins.
func TestTheTempoMapOfTheDocument(t *testing.T) {
	project := testkit.Buoy()
	bar := project.Meter.Bar()
	project.TempoChanges = []score.TempoChange{{Tick: bar, Tempo: 192_000}, {Tick: 3 * bar, Tempo: 48_000}}
	onStage(t, project, func(t *testing.T, s *rig) {
		s.Play()
		pass(2 * time.Second) // a bar lasts 2.5 s
		require.Equal(t, score.Tempo(96_000).TicksPerMilli(), s.Status().TicksPerMilli)
		pass(time.Second)
		require.Equal(t, Status{Playing: true, Tick: bar, At: s.timeOf(bar), TicksPerMilli: score.Tempo(192_000).TicksPerMilli()}, s.Status())
		require.Equal(t, s.Status(), s.listener.statuses[len(s.listener.statuses)-1])
		edited := project.Clone()
		edited.TempoChanges = edited.TempoChanges[:1]
		s.SetProject(edited, Change{})
		pass(20 * time.Second)
		tempo := play.TempoMapOf(edited)
		for _, sound := range s.listener.sounds {
			require.InDelta(t, s.started+tempo.Nanos(sound.Tick), sound.At, 2)
		}
		require.Equal(t, rendered(project, s.player.Run()), s.listener.messages())
	})
}

// After an edit the instruments are told what they would have been told, had the project been as it is now
// from the beginning; what they know already is not sent again.
func TestAnEditBringsInstrumentsUpToDate(t *testing.T) {
	project := testkit.Buoy()
	part := &project.Tracks[0].Parts()[0]
	part.Mods = []score.Mod{{Target: score.ControlTarget, Number: 74, Least: 5, Most: 5}}
	onStage(t, project, func(t *testing.T, s *rig) {
		s.Play()
		pass(5 * time.Second)
		edge := s.edge()
		edited := project.Clone()
		edited.Tracks[0].Parts()[0].Mods = append(part.Mods, score.Mod{Target: score.PressureTarget, Least: 9, Most: 9})
		s.SetProject(edited, Change{})
		pass(5 * time.Second)
		var controls []midi.Message
		for _, m := range s.listener.messages() {
			if m.Kind != midi.NoteOn && m.Kind != midi.NoteOff {
				controls = append(controls, m)
			}
		}
		require.Equal(t, []midi.Message{
			{Track: 1, Kind: midi.ControlChange, Key: 74, Value: 5},
			{Tick: edge, Track: 1, Kind: midi.Pressure, Value: 9},
		}, controls)
	})
}

// What comes in makes a track go on, within the look-ahead, and an edit remembers how far it came.
func TestATrackGoesOnByWhatComesIn(t *testing.T) {
	project := testkit.Buoy()
	project.Tracks[0].Source = score.Source{Kind: score.InputNotes, Highest: 127, Odds: 100}
	key := midi.Message{Kind: midi.NoteOn, Key: 60, Velocity: 100}
	onStage(t, project, func(t *testing.T, s *rig) {
		require.NoError(t, s.Hear(Incoming{Message: key})) // does nothing while standing still
		s.Play()
		press := func(presses int) {
			for range presses {
				now := s.Now()
				before := len(s.listener.places)
				require.NoError(t, s.Hear(Incoming{Message: key}))
				pass(500 * time.Millisecond)
				require.Less(t, s.listener.places[before].At-now, int64(140*time.Millisecond))
			}
		}
		press(5)
		edited := project.Clone()
		edited.Key.Root = 7
		s.SetProject(edited, Change{})
		press(3)
		var steps []int
		for _, place := range s.listener.places {
			if place.Lane == score.Gate {
				steps = append(steps, place.Step)
			}
		}
		require.Equal(t, []int{0, 1, 2, 3, 4, 5, 6, 7}, steps)
	})
}

func TestStopAndPlayBeginAnew(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
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
		require.Equal(t, rendered(testkit.Buoy(), s.player.Run()), s.listener.messages()[silent:])
	})
}

// A detached output hears nothing more.
func TestDetach(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		s.Disconnect(s.listener)
		s.Detach(s.listener)
		s.Play()
		pass(time.Second)
		require.Empty(t, s.listener.sounds)
	})
}

// An edit of a project whose lanes' places depend on all that was played takes effect at the right places:
// as if the edited project had been played from the beginning.
func TestAnEditOfLanesThatMoveByHits(t *testing.T) {
	project := testkit.Buoy()
	project.Tracks[0].Parts()[0].Lanes.Pitch.Moves = score.ByHit
	onStage(t, project, func(t *testing.T, s *rig) {
		s.Play()
		pass(20 * time.Second)
		edited := project.Clone()
		edited.Key.Root = 7
		before, edge := len(s.listener.sounds), s.edge()
		s.SetProject(edited, Change{})
		pass(5 * time.Second)
		want := play.Render(edited, edge, s.player.Run(), nil)
		require.Greater(t, len(want), 10)
		next := 0
		for _, sound := range s.listener.sounds[before:] {
			if sound.Kind == midi.NoteOn {
				require.Equal(t, want[next].Key, sound.Key)
				next++
			}
		}
		require.Equal(t, len(want), next)
	})
}
