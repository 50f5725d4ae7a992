package live

import (
	"slices"
	"testing"
	"testing/synctest"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/memory"
	"jettyfog/internal/output"
)

var synth = score.Output{ID: 7, Name: "Synth", Kind: score.BrowserPort}

// routed returns the project with a track that goes by the given routes.
func routed(p *score.Project, track int, outputs []score.Output, routes ...score.Route) *score.Project {
	p = p.Clone()
	p.Outputs = outputs
	list := append([]score.Route{}, routes...)
	p.Tracks[track].Routes = &list
	return p
}

// of returns the events of an output.
func of(events []output.Event, id int) (kept []output.Event) {
	for _, e := range events {
		if e.Output == id {
			kept = append(kept, e)
		}
	}
	return kept
}

// A track goes to two outputs, to one of them earlier than its time and an octave lower: everything comes twice, and is handed over
// in time.
func TestATrackGoesToTwoOutputs(t *testing.T) {
	early := synth
	early.Offset = -100
	low := score.WholeRoute(7)
	low.Octave, low.Channel = -1, 5
	onStage(t, routed(testkit.Buoy(), 0, []score.Output{early}, score.WholeRoute(score.BuiltIn), low), func(t *testing.T, s *rig) {
		s.Play()
		pass(4 * time.Second)
		s.Stop()
		sounds := s.listener.events()
		own, other := of(sounds, score.BuiltIn), of(sounds, 7)
		require.Greater(t, len(own), 10)
		require.GreaterOrEqual(t, len(other), len(own), "it is sent earlier")
		for i := range min(len(own), len(other)) {
			want := own[i]
			want.Output, want.At, want.Channel, want.Key = 7, want.At-int64(100*time.Millisecond), 4, want.Key-12
			require.Equal(t, want, other[i])
		}
		for i, e := range sounds {
			require.LessOrEqual(t, s.listener.arrived[i], e.At, "%+v comes too late", e)
		}
	})
}

// A track is given another output while a note of it sounds: what sounds ends at the first, and all after it goes to the other,
// within the look-ahead.
func TestATrackIsGivenAnotherOutput(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		s.Play()
		pass(2 * time.Second)
		turned := s.Now()
		s.SetProject(routed(testkit.Buoy(), 0, []score.Output{synth}, score.WholeRoute(7)), Change{New: true})
		pass(2 * time.Second)
		s.SetProject(routed(testkit.Buoy(), 0, nil), Change{New: true})
		pass(time.Second)
		silent := s.Now()
		pass(time.Second)
		sounds := s.listener.events()
		for _, e := range of(sounds, score.BuiltIn) {
			require.LessOrEqual(t, e.At, turned+int64(150*time.Millisecond))
		}
		require.Greater(t, len(of(sounds, 7)), 4)
		for _, e := range of(sounds, 7) {
			require.Greater(t, e.At, turned)
			require.Less(t, e.At, silent)
		}
		requireBalanced(t, sounds)
		s.Stop()
	})
}

// The offset of an output is another, earlier one while notes sound: each ends after it begins, and nothing is left down.
func TestAnOffsetIsAnotherWhilePlaying(t *testing.T) {
	with := func(offset int) *score.Project {
		moved := synth
		moved.Offset = offset
		return routed(testkit.Buoy(), 0, []score.Output{moved}, score.WholeRoute(7))
	}
	onStage(t, with(250), func(t *testing.T, s *rig) {
		s.Play()
		for n := range 120 {
			pass(time.Duration(40+13*(n%7)) * time.Millisecond)
			s.SetProject(with([]int{-100, 250, 0}[n%3]), Change{New: true})
		}
		s.SetProject(routed(testkit.Buoy(), 0, nil), Change{New: true})
		pass(2 * time.Second)
		sounds := s.listener.events()
		require.Greater(t, len(sounds), 30)
		slices.SortStableFunc(sounds, byTime)
		down := map[uint8]int{} // how many notes hold each key: an earlier one can end after the next begins
		for _, e := range sounds {
			switch e.Kind {
			case midi.NoteOn:
				down[e.Key]++
			case midi.NoteOff:
				down[e.Key]--
			}
			require.GreaterOrEqual(t, down[e.Key], 0, "%+v ends before it begins", e)
		}
		for key, notes := range down {
			require.Zero(t, notes, "%d is left down", key)
		}
		s.Stop()
	})
}

// requireBalanced checks that on each output note-ons and note-offs of a key take turns, in the order of their times, and that
// nothing is left down.
func requireBalanced(t *testing.T, events []output.Event) {
	type key struct {
		output       int
		channel, key uint8
	}
	down := map[key]bool{}
	last := map[int]int64{}
	for _, e := range events {
		require.GreaterOrEqual(t, e.At, last[e.Output], "output %d goes back in time", e.Output)
		last[e.Output] = e.At
		if e.Kind != midi.NoteOn && e.Kind != midi.NoteOff {
			continue
		}
		k := key{e.Output, e.Channel, e.Key}
		require.Equal(t, e.Kind == midi.NoteOff, down[k], "%+v", e)
		down[k] = e.Kind == midi.NoteOn
	}
	for k, isDown := range down {
		require.False(t, isDown, "%+v is left down", k)
	}
}

// Random projects whose routes are others every moment, and that make room for another project: no output is left with a note.
func TestRoutesChangeWhilePlaying(t *testing.T) {
	projects := rapid.Custom(testkit.Project)
	notes := 0
	for seed := range seeds(40) {
		synctest.Test(t, func(t *testing.T) {
			project := projects.Example(seed)
			for i := range project.Outputs { // offsets are shifted as a whole; see TestATrackGoesToTwoOutputs
				project.Outputs[i].Offset = 0
			}
			transport := New(project, Options{}, NewRecorder(memory.New(project), Reports{}), NewRecorder(memory.New(project), Reports{}))
			heard := &listener{now: transport.Now}
			transport.Connect(heard)
			go transport.Run(t.Context())
			transport.Play()
			for n := range 8 {
				pass(time.Duration(90+211*n) * time.Millisecond)
				drawn := projects.Example(1000*seed + n + 1)
				next := project.Clone()
				next.Outputs = drawn.Outputs
				for i := range next.Outputs {
					next.Outputs[i].Offset = 0
				}
				for i := range next.Tracks {
					next.Tracks[i].Routes = nil
					if i < len(drawn.Tracks) {
						next.Tracks[i].Routes = drawn.Tracks[i].Routes
					}
				}
				if n == 5 {
					transport.Open(Opened{Document: 2, Revision: 2, Project: next}, NextBar)
				} else {
					transport.SetProject(next, Change{New: true})
				}
				project = next
			}
			silent := project.Clone()
			for i := range silent.Tracks {
				silent.Tracks[i].Routes = &[]score.Route{}
			}
			transport.SetProject(silent, Change{New: true})
			for transport.Status().Opening { // a bar can be long
				pass(time.Second)
			}
			pass(20 * time.Second)
			requireBalanced(t, heard.events())
			notes += len(heard.events())
			transport.Stop()
		})
	}
	require.Greater(t, notes, seeds(200))
}

// Panic reaches all ports, playing or not, and playing goes on.
func TestPanic(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		s.Panic()
		require.Equal(t, 1, s.listener.panicked)
		s.Play()
		pass(time.Second)
		s.Panic()
		require.Equal(t, 2, s.listener.panicked)
		before := len(s.listener.events())
		pass(2 * time.Second)
		require.Greater(t, len(s.listener.events()), before)
		s.Stop()
	})
}
