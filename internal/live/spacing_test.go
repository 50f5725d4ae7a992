package live

import (
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/output"
)

const milli = int64(time.Millisecond)

// spaced returns the spacing of a project whose output 7 has the settings; track 1 is mono.
func spaced(set score.Output) *spacing {
	p := testkit.Buoy()
	set.ID, set.Name, set.Kind = 7, "Synth", score.BrowserPort
	p.Outputs = []score.Output{set}
	p.Tracks[0].Voices = 1
	var s spacing
	s.set(p)
	return &s
}

func at(ms int64, m midi.Message) output.Event {
	return output.Event{Message: m, Output: 7, At: ms * milli}
}

func onKey(track uint32, key uint8) midi.Message {
	return midi.Message{Track: track, Kind: midi.NoteOn, Key: key, Velocity: 90}
}

func offKey(track uint32, key uint8) midi.Message {
	return midi.Message{Track: track, Kind: midi.NoteOff, Key: key}
}

// Before a key is struck again it is up for as long as its output asks for, or half of a short note; of a track of one voice before any
// note. Other keys, and notes after which nothing comes at once, end at their times.
func TestAGapBeforeAKeyIsStruckAgain(t *testing.T) {
	s := spaced(score.Output{Gap: 8})
	s.part([]output.Event{at(0, onKey(2, 60)), at(0, onKey(2, 64)), at(0, onKey(1, 40))})
	got := s.part([]output.Event{at(100, offKey(2, 60)), at(100, offKey(2, 64)), at(100, offKey(1, 40)), at(100, onKey(2, 60)), at(100, onKey(1, 43))})
	require.Equal(t, []output.Event{at(92, offKey(2, 60)), at(92, offKey(1, 40)), at(100, offKey(2, 64)), at(100, onKey(2, 60)), at(100, onKey(1, 43))}, got)
	require.Equal(t, []output.Event{at(105, offKey(2, 60)), at(110, onKey(2, 60))}, s.part([]output.Event{at(110, offKey(2, 60)), at(110, onKey(2, 60))}), "half of 10 ms")
	require.Equal(t, 8*time.Millisecond, s.earliest(), "so that they are computed in time")
}

// Of values that come faster than an output takes them the last one counts, and it goes out; no two are nearer than they may be. All else
// goes out at once.
func TestTheRateOfAController(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		rate := rapid.SampledFrom([]int{1, 10, 50, 1000}).Draw(t, "rate")
		s := spaced(score.Output{ControllerRate: rate})
		interval := int64(time.Second) / int64(rate)
		var sent, got []output.Event
		now := int64(0)
		for range rapid.IntRange(1, 80).Draw(t, "events") {
			now += rapid.Int64Range(0, 30).Draw(t, "pass")
			m := midi.Message{
				Kind: midi.ControlChange, Key: rapid.SampledFrom([]uint8{7, 74, 64}).Draw(t, "controller"), Value: uint16(rapid.IntRange(0, 127).Draw(t, "value")),
			}
			e := at(now, m)
			sent = append(sent, e)
			got = append(got, s.thin([]output.Event{e}, now*milli+1)...)
		}
		got = append(got, s.thin(nil, now*milli+4*int64(time.Second))...)
		for _, key := range []uint8{7, 74, 64} {
			var before, after []output.Event
			for _, e := range sent {
				if e.Key == key {
					before = append(before, e)
				}
			}
			for _, e := range got {
				if e.Key == key {
					after = append(after, e)
				}
			}
			if key == 64 {
				require.Equal(t, before, after, "pedals are not held back")
				continue
			}
			for i := 1; i < len(after); i++ {
				require.GreaterOrEqual(t, after[i].At-after[i-1].At, interval)
			}
			if len(before) > 0 {
				require.Equal(t, before[0], after[0])
				require.Equal(t, before[len(before)-1].Value, after[len(after)-1].Value, "the last value counts")
				require.LessOrEqual(t, after[len(after)-1].At, before[len(before)-1].At+interval)
			}
		}
	})
}

// A port that plays one output has its events only, from when it is connected on what goes on; connected again with another it releases
// what it plays.
func TestAPortPlaysOneOutput(t *testing.T) {
	second := synth
	second.ID, second.Name = 8, "Rack"
	project := routed(testkit.Buoy(), 0, []score.Output{synth, second}, score.WholeRoute(7), score.WholeRoute(8))
	onStage(t, project, func(t *testing.T, s *rig) {
		one := &listener{now: s.Now, ahead: 40 * time.Millisecond}
		s.Connect(one, 7)
		s.Play()
		pass(3 * time.Second)
		require.Greater(t, len(one.events()), 10)
		require.Len(t, of(one.events(), 7), len(one.events()))
		before := len(one.events())
		s.Connect(one, 8)
		require.Equal(t, 1, one.released)
		pass(3 * time.Second)
		require.Len(t, of(one.events()[before:], 8), len(one.events())-before)
		require.Greater(t, len(one.events()), before+10)
		for i, e := range one.events()[before:] {
			require.LessOrEqual(t, one.arrived[before+i], e.At+5*milli, "%+v comes too late", e)
		}
		s.Stop()
	})
}

// Whoever listens knows the outputs of the project that plays: after an edit at once, of a project that is opened when it comes in, or
// when playing stops before.
func TestOutputsAreTold(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		var mu sync.Mutex
		var last Opened
		s.ListenOutputs(func(id int64, list []score.Output) {
			mu.Lock()
			defer mu.Unlock()
			last = Opened{Document: id, Project: &score.Project{Outputs: list}}
		})
		told := func() (int64, []score.Output) {
			mu.Lock()
			defer mu.Unlock()
			return last.Document, last.Project.Outputs
		}
		requireTold := func(document int64, outputs []score.Output, why ...any) {
			t.Helper()
			id, list := told()
			require.Equal(t, document, id, why...)
			require.Equal(t, outputs, list, why...)
		}
		requireTold(0, nil)
		with := routed(testkit.Buoy(), 0, []score.Output{synth}, score.WholeRoute(7))
		s.SetProject(with, Change{New: true})
		requireTold(0, with.Outputs)
		s.Open(Opened{Document: 2, Revision: 5, Project: testkit.Buoy(), Stage: stage.Stage{}}, Now)
		requireTold(2, nil)
		s.Play()
		pass(time.Second)
		s.Open(Opened{Document: 3, Revision: 6, Project: with}, NextBar)
		requireTold(2, nil, "it waits")
		pass(5 * time.Second)
		requireTold(3, with.Outputs)
		s.Open(Opened{Document: 4, Revision: 7, Project: testkit.Buoy()}, NextBar)
		s.Stop()
		requireTold(4, nil)
	})
}

// Programs are sent so long before the first note as the route asks for, when playing begins and after a count-in; they come once.
func TestProgramsLead(t *testing.T) {
	r := score.WholeRoute(7)
	r.Program, r.Lead = 9, 1500
	onStage(t, routed(testkit.Buoy(), 0, []score.Output{synth}, r), func(t *testing.T, s *rig) {
		s.Play()
		pass(5 * time.Second)
		events := of(s.listener.events(), 7)
		require.Equal(t, midi.Program, events[0].Kind)
		s.Transport.mu.Lock()
		started := s.started
		s.Transport.mu.Unlock()
		require.Equal(t, started-1500*milli, events[0].At)
		require.LessOrEqual(t, s.listener.arrived[0], events[0].At)
		for _, e := range events[1:] {
			require.NotEqual(t, midi.Program, e.Kind)
			require.GreaterOrEqual(t, e.At, started)
		}
		require.Greater(t, len(events), 5)
		s.Stop()
	})
}

// A track that is muted ends what sounds within the look-ahead if it is to, and else lets it finish; a device that comes then has only
// what is to be heard.
func TestMuteCuts(t *testing.T) {
	for _, cuts := range []bool{true, false} {
		project := routed(testkit.Buoy(), 0, []score.Output{synth}, score.WholeRoute(7))
		project.Tempo = 20_000 // long notes
		project.Tracks[0].MuteCuts = cuts
		onStage(t, project, func(t *testing.T, s *rig) {
			s.Play()
			down := func() (down int) {
				for _, e := range s.listener.events() {
					if e.At > s.Now() {
						continue
					}
					switch e.Kind {
					case midi.NoteOn:
						down++
					case midi.NoteOff:
						down--
					}
				}
				return down
			}
			for down() == 0 {
				pass(20 * time.Millisecond)
			}
			require.NoError(t, s.Do([]Doing{{stage.Control{Name: "mute", Track: 1}, value(1)}}, Now, 0))
			pass(150 * time.Millisecond)
			require.Equal(t, cuts, down() == 0)
			late := &listener{now: s.Now}
			s.Connect(late)
			pass(50 * time.Millisecond)
			if cuts {
				for _, e := range late.events() {
					require.NotEqual(t, midi.NoteOn, e.Kind)
				}
			}
			s.Disconnect(late)
			pass(20 * time.Second)
			require.Zero(t, down())
			s.Stop()
		})
	}
}
