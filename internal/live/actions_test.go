package live

import (
	"context"
	"errors"
	"sync"
	"testing"
	"testing/synctest"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/testkit"
)

var muteBuoy = stage.Control{Name: "mute", Track: 1}

func value(v int) *int { return &v }

// noteStarts returns when the notes of a track start that were handed over.
func (s *rig) noteStarts(track uint32) (starts []score.Tick) {
	for _, m := range s.listener.messages() {
		if m.Kind == midi.NoteOn && m.Track == track {
			starts = append(starts, m.Tick)
		}
	}
	return starts
}

// What is done counts from the next step, beat, bar, fourth bar or end of the pattern, and waits until then.
func TestMomentsOfActions(t *testing.T) {
	beat := score.TicksPerQuarter
	for when, want := range map[When]score.Tick{
		Now: 0, NextStep: beat / 4, NextBeat: beat, NextBar: 4 * beat, NextBars: 16 * beat, PatternEnd: 5 * beat / 4,
	} {
		project := testkit.Buoy()
		gate := project.Tracks[0].Parts()[0].Lanes.Gate
		gate.Length, gate.First = 5, 0
		for i := range gate.Steps {
			gate.Steps[i] = score.On
		}
		project.Tracks[0].Parts()[0].Lanes.Probability.Steps = gate.Steps[:0:0]
		for range score.MaxSteps {
			project.Tracks[0].Parts()[0].Lanes.Probability.Steps = append(project.Tracks[0].Parts()[0].Lanes.Probability.Steps, 100)
		}
		onStage(t, project, func(t *testing.T, s *rig) {
			s.Play()
			pass(130 * time.Millisecond) // so that some of the first step has been handed over
			edge := s.edge()
			require.Positive(t, edge)
			require.NoError(t, s.Do([]Doing{{muteBuoy, value(1)}}, when, 4))
			if when != Now {
				require.Len(t, s.Performing().Queue, 1, when)
				require.Equal(t, want, s.Performing().Queue[0].At, when)
				require.Empty(t, s.Performing().Stage.Changes())
			}
			pass(20 * time.Second)
			require.Empty(t, s.Performing().Queue)
			for _, start := range s.noteStarts(1) {
				require.Less(t, start, max(want, edge), when)
			}
			s.Stop()
		})
	}
}

// A pattern that was queued enters at its bar, in the take too, whose marker says so; every note ends, and a loop that
// begins anew meanwhile changes nothing of when it enters.
func TestAQueuedPatternOverASeam(t *testing.T) {
	project := testkit.Buoy()
	second := project.Tracks[0].Clone().Patterns[0]
	second.ID, second.Name = 1, "B"
	for i := range second.Parts[0].Lanes.Gate.Steps {
		second.Parts[0].Lanes.Gate.Steps[i] = score.Off
	}
	project.Tracks[0].Patterns = append(project.Tracks[0].Patterns, second)
	bar := project.Bars().Start(1)
	onStage(t, project, func(t *testing.T, s *rig) {
		require.NoError(t, s.SetLoop(Range{From: 0, To: 2 * bar}))
		require.NoError(t, s.Record(Recording{}))
		pass(time.Second)
		require.NoError(t, s.Do([]Doing{{stage.Control{Name: "pattern", Track: 1}, value(1)}}, NextBars, 3))
		pass(30 * time.Second)
		s.Stop()
		pass(time.Second)
		last, down := score.Tick(0), map[midi.NoteID]bool{}
		for _, m := range s.listener.messages() {
			switch m.Kind {
			case midi.NoteOn:
				last, down[m.NoteID()] = m.Tick, true
			case midi.NoteOff:
				delete(down, m.NoteID())
			}
		}
		require.Empty(t, down)
		require.Greater(t, last, 2*bar, "the loop began anew before")
		require.Less(t, last, 3*bar)
		taken, _, _, err := s.disk.Recording(t.Context(), 1)
		require.NoError(t, err)
		require.Equal(t, 3*bar, taken.Markers[0].Tick)
		require.Equal(t, "Bell buoy: B", taken.Markers[0].Text)
	})
}

// Momentary controls end when playing stops, or when nobody is there any more; what else was done stays, and is there
// when playing begins again.
func TestWhatEndsAndWhatStays(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		push, fill := stage.Control{Name: "push"}, stage.Control{Name: "fill"}
		s.Play()
		pass(time.Second)
		require.NoError(t, s.Do([]Doing{{push, value(100)}, {fill, value(1)}, {muteBuoy, value(1)}}, Now, 0))
		pass(time.Second)
		require.Equal(t, (testkit.Buoy().Tempo * 11 / 10).TicksPerMilli(), s.Status().TicksPerMilli)
		pass(time.Second)
		s.EndMomentary()
		pass(time.Second)
		require.Equal(t, testkit.Buoy().Tempo.TicksPerMilli(), s.Status().TicksPerMilli)
		require.Equal(t, []stage.Change{{Control: muteBuoy, Value: 1}}, s.Stage().Changes())
		require.NoError(t, s.Do([]Doing{{fill, value(1)}}, Now, 0))
		require.NoError(t, s.Do([]Doing{{muteBuoy, value(0)}}, NextBar, 0))
		s.Stop()
		require.Equal(t, []stage.Change{{Control: muteBuoy, Value: 1}}, s.Stage().Changes())
		require.Empty(t, s.Performing().Queue, "what waited is taken back")
		heard := len(s.noteStarts(1))
		s.Play()
		pass(5 * time.Second)
		require.Len(t, s.noteStarts(1), heard, "muted still")
		require.NoError(t, s.Back())
		pass(5 * time.Second)
		require.Greater(t, len(s.noteStarts(1)), heard)
		s.Stop()
	})
}

// Of actions of one control that come within 210 ticks the last counts; thousands of them leave no note behind, delay no
// other track, and are not more than they may be.
func TestAStormOfActions(t *testing.T) {
	inFull(t)
	project := slowProject()
	onStage(t, project, func(t *testing.T, s *rig) {
		s.Play()
		pass(time.Second)
		length := stage.Control{Name: "length", Track: 2, Lane: score.Gate}
		for n := range 3000 {
			require.NoError(t, s.Do([]Doing{{length, value(1 + n%16)}}, Now, 0))
			require.NoError(t, s.Do([]Doing{{stage.Control{Name: "mute", Track: 2}, value(n % 2)}}, Now, 0))
			if n%10 == 0 {
				pass(time.Millisecond)
			}
		}
		require.LessOrEqual(t, len(s.Performing().Queue), 2)
		require.ErrorIs(t, s.Do([]Doing{{stage.Control{Name: "mute", Track: 9}, value(1)}}, Now, 0), stage.ErrGone)
		pass(5 * time.Second)
		require.Empty(t, s.Performing().Queue)
		got, _ := s.Stage().Value(length)
		require.Equal(t, 1+2999%16, got, "the last counts")
		logged, _ := s.Log()
		last := map[stage.Control]score.Tick{}
		for _, entry := range logged.Entries {
			at, before := last[entry.Action.Control]
			require.True(t, !before || entry.Action.At >= at+Apart)
			last[entry.Action.Control] = entry.Action.At
		}
		end := s.edge()
		s.Stop()
		var want []score.Tick
		for _, m := range rendered(slowProject(), end) {
			if m.Kind == midi.NoteOn && m.Track == 1 {
				want = append(want, m.Tick)
			}
		}
		require.Equal(t, want, s.noteStarts(1), "the other track plays on as if nothing happened")
		down := map[midi.NoteID]score.Tick{}
		for _, m := range s.listener.messages() {
			if m.Kind == midi.NoteOn {
				down[m.NoteID()] = m.Tick
			} else if m.Kind == midi.NoteOff {
				delete(down, m.NoteID())
			}
		}
		for id, began := range down { // which the stop releases
			require.Greater(t, began, end-4*score.TicksPerQuarter, id)
		}
	})
}

func TestTheQueueIsBounded(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		s.Play()
		pass(time.Second)
		for n := range MaxQueue {
			require.NoError(t, s.Do([]Doing{{stage.Control{Name: "degrees", Track: 1}, value(n % 7)}}, NextBars, 1+n%64))
		}
		full := s.Performing().Queue
		require.LessOrEqual(t, len(full), 64, "of one control and bar the last counts")
		require.NoError(t, s.TakeBack(full[0].ID))
		require.ErrorIs(t, s.TakeBack(full[0].ID), ErrNotQueued)
		s.Reset()
		require.Empty(t, s.Performing().Queue)
	})
}

// shelf is a place for live changes that can refuse them.
type shelf struct {
	mu      sync.Mutex
	refuses bool
	saved   []stage.Stage
}

func (s *shelf) SaveStage(_ context.Context, _ int64, live stage.Stage) error {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.refuses {
		return errors.New("the disk is full")
	}
	s.saved = append(s.saved, live)
	return nil
}

// Live changes are stored soon after they are made, the latest only; while the disk refuses them that is told, and they are
// stored once it does not.
func TestLiveChangesAreKept(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		var problems []error
		kept := &shelf{refuses: true}
		keeper := NewStageKeeper(kept, func(problem error) { problems = append(problems, problem) })
		ctx, stop := context.WithCancel(t.Context())
		var running sync.WaitGroup
		running.Go(func() { keeper.Run(ctx) })
		one, two := stage.Stage{}.With(muteBuoy, 1), stage.Stage{}.With(muteBuoy, 0)
		keeper.Keep(1, stage.Stage{})
		keeper.Keep(1, one)
		pass(time.Second)
		require.NotEmpty(t, problems)
		require.Error(t, problems[len(problems)-1])
		kept.refuses = false
		keeper.Keep(1, two)
		pass(time.Second)
		require.NoError(t, problems[len(problems)-1])
		require.Equal(t, []stage.Stage{two}, kept.saved)
		keeper.Keep(1, one)
		stop()
		running.Wait()
		require.Equal(t, []stage.Stage{two, one}, kept.saved, "what is left is written at the end")
	})
}

// What is done again while an edit that lets go of it is brought to play stays, live and in the log.
func TestAnActionAfterAnEditStays(t *testing.T) {
	onStage(t, slowProject(), func(t *testing.T, s *rig) {
		s.Play()
		pass(time.Minute)
		length := stage.Control{Name: "length", Track: 2, Lane: score.Gate}
		require.NoError(t, s.Do([]Doing{{length, value(3)}}, Now, 0))
		pass(time.Second)
		edit := score.SetLane{LaneAddress: score.LaneAddress{PartAddress: score.PartAddress{Track: 2}, Lane: score.Gate}, Length: value(7)}
		edited, _, err := score.Apply(slowProject(), edit)
		require.NoError(t, err)
		s.SetProject(edited, Change{Way: edit, New: true})
		require.NoError(t, s.Do([]Doing{{length, value(5)}}, Now, 0))
		pass(5 * time.Second)
		got, there := s.Stage().Value(length)
		require.True(t, there)
		require.Equal(t, 5, got)
		logged, end := s.Log()
		require.Len(t, logged.Entries, 3)
		s.Transport.mu.Lock()
		run := s.player.Run()
		s.Transport.mu.Unlock()
		var shared route.SharedKeys
		require.Equal(t, shared.Play(logged.Play(run), nil), s.listener.messages())
		require.Positive(t, end)
		s.Stop()
	})
}

// What counts from every fourth bar on counts at once where one is just to begin.
func TestAnActionAtItsBarCountsThere(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		s.Play()
		require.NoError(t, s.Do([]Doing{{muteBuoy, value(1)}}, NextBars, 4))
		require.Empty(t, s.Performing().Queue)
		pass(time.Second)
		require.Empty(t, s.noteStarts(1))
	})
}
