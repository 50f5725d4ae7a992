package live

import (
	"context"
	"sync"
	"testing"
	"testing/synctest"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/memory"
)

// listener is an output that notes what it gets and when.
type listener struct {
	mu       sync.Mutex
	now      func() int64
	sounds   []Sound
	arrived  []int64 // when each sound was handed over
	places   []Place
	clicks   []Click
	statuses []Status
}

func (l *listener) Send(b Batch) {
	l.mu.Lock()
	defer l.mu.Unlock()
	for range b.Sounds {
		l.arrived = append(l.arrived, l.now())
	}
	l.sounds = append(l.sounds, b.Sounds...)
	l.clicks = append(l.clicks, b.Clicks...)
	l.places = append(l.places, b.Places...)
}

func (l *listener) Tell(s Status) {
	l.mu.Lock()
	defer l.mu.Unlock()
	l.statuses = append(l.statuses, s)
}

// rig is a transport with its recorder, a disk and a listener, all running on the bubble's clock.
type rig struct {
	*Transport
	disk     *memory.Store
	wake     *memory.Store
	listener *listener
	problems []error
	omitted  []Omission
	mu       sync.Mutex
}

// edge returns up to where all has been computed.
func (s *rig) edge() score.Tick {
	s.Transport.mu.Lock()
	defer s.Transport.mu.Unlock()
	return s.player.Run()
}

// onStage runs a test on a clock that jumps whenever everybody waits, so that an hour takes no time.
func onStage(t *testing.T, project *score.Project, act func(*testing.T, *rig)) {
	synctest.Test(t, func(t *testing.T) {
		s := &rig{disk: memory.New(project), wake: memory.New(project)}
		recorder := NewRecorder(s.disk, Reports{Problem: func(problem error) {
			s.mu.Lock()
			defer s.mu.Unlock()
			if problem != nil {
				s.problems = append(s.problems, problem)
			}
		}})
		wake := NewRecorder(s.wake, Reports{})
		s.Transport = New(project, Options{Omitted: func(o Omission) { s.omitted = append(s.omitted, o) }}, recorder, wake)
		s.listener = &listener{now: s.Now}
		s.Attach(s.listener)
		ctx, stop := context.WithCancel(t.Context())
		var running sync.WaitGroup
		running.Go(func() { s.Run(ctx) })
		recording, stopRecording := context.WithCancel(context.Background())
		running.Go(func() { recorder.Run(recording) })
		running.Go(func() { wake.Run(recording) })
		act(t, s)
		stop()
		synctest.Wait()
		stopRecording()
		running.Wait()
		require.Empty(t, s.waiting, "something is still to come after the stop")
	})
}

// messages returns what was handed over, without times.
func (l *listener) messages() []midi.Message {
	l.mu.Lock()
	defer l.mu.Unlock()
	messages := make([]midi.Message, len(l.sounds))
	for i, s := range l.sounds {
		messages[i] = s.Message
	}
	return messages
}

// pass lets time pass in the bubble of onStage, where it takes none, until everybody waits again.
func pass(d time.Duration) {
	time.Sleep(d)
	synctest.Wait()
}
