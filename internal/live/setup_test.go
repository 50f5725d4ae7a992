package live

import (
	"context"
	"slices"
	"sync"
	"testing"
	"testing/synctest"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/memory"
	"jettyfog/internal/output"
)

// listener is a port and a screen that notes what it gets and when.
type listener struct {
	mu       sync.Mutex
	now      func() int64
	ahead    time.Duration // 0 is as long as a page needs
	sounds   []output.Event
	arrived  []int64 // when each sound was handed over
	places   []Place
	clicks   []Click
	statuses []Status
	taken    int // how many note-ons were withdrawn
	released int // how often all was released
	panicked int // how often by all means
}

func (l *listener) Ahead() time.Duration {
	if l.ahead > 0 {
		return l.ahead
	}
	return 120 * time.Millisecond
}

func (l *listener) Send(events []output.Event) {
	l.mu.Lock()
	defer l.mu.Unlock()
	for range events {
		l.arrived = append(l.arrived, l.now())
	}
	l.sounds = append(l.sounds, events...)
}

func (l *listener) Withdraw(noteOns []output.Event) {
	l.mu.Lock()
	defer l.mu.Unlock()
	for _, on := range noteOns {
		for i := len(l.sounds) - 1; i >= 0; i-- {
			if s := l.sounds[i]; s.Kind == midi.NoteOn && s.Tick == on.Tick && s.Channel == on.Channel && s.Key == on.Key && s.Track == on.Track {
				l.sounds, l.arrived = slices.Delete(l.sounds, i, i+1), slices.Delete(l.arrived, i, i+1)
				l.taken++
				break
			}
		}
	}
}

func (l *listener) Panic() {
	l.mu.Lock()
	defer l.mu.Unlock()
	l.panicked++
}

func (l *listener) Release() {
	l.mu.Lock()
	defer l.mu.Unlock()
	l.released++
}

// events returns what was handed over.
func (l *listener) events() []output.Event {
	l.mu.Lock()
	defer l.mu.Unlock()
	return slices.Clone(l.sounds)
}

func (l *listener) Show(places []Place, clicks []Click) {
	l.mu.Lock()
	defer l.mu.Unlock()
	l.clicks = append(l.clicks, clicks...)
	l.places = append(l.places, places...)
}

func (l *listener) Notify(s Status) {
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
	lost     []error
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
		}, Lost: func(why error) { s.lost = append(s.lost, why) }})
		wake := NewRecorder(s.wake, Reports{})
		s.Transport = New(project, Options{Omitted: func(o Omission) { s.omitted = append(s.omitted, o) }}, recorder, wake)
		s.listener = &listener{now: s.Now}
		s.Connect(s.listener)
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

// seeds returns how many of so many random projects a test takes: fewer under the race detector, which is slow.
func seeds(count int) int {
	if testing.Short() {
		return count / 10
	}
	return count
}

// inFull leaves a test of a mass of events out where tests are to be quick, as under the race detector, which takes ten times as long for it.
func inFull(t *testing.T) {
	t.Helper()
	if testing.Short() {
		t.Skip("it is about a mass of events, and not about what runs beside what")
	}
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
