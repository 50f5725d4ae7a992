package device_test

import (
	"context"
	"errors"
	"fmt"
	"sync"
	"testing"
	"testing/synctest"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/device"
	"jettyfog/internal/live"
	"jettyfog/internal/memory"
	"jettyfog/internal/output"
)

// stage is a transport with a rack and one device, in a bubble.
type stage struct {
	*live.Transport
	rack    *device.Rack
	mu      sync.Mutex
	wire    *wire // of the device as it is plugged in at present
	there   bool
	held    bool
	refused error
	notices []string
}

const quay = "Quay synth"

// away has the device be unplugged, or plugged in.
func (s *stage) away(is bool) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.there = !is; is && s.wire != nil {
		s.wire.set(func(w *wire) { w.gone = errors.New("no such device") })
	}
}

func (s *stage) list() ([]device.Device, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if !s.there {
		return nil, nil
	}
	return []device.Device{{Name: quay, Place: "card 1, device 0"}}, nil
}

// clock is the transport's, which a bubble has pass.
type clock struct{ *live.Transport }

func (c clock) SleepUntil(at int64) { time.Sleep(time.Duration(at - c.Now())) }
func (c clock) Doze(until int64)    { c.SleepUntil(until) }

// words says how output 1 stands.
func (s *stage) words() string {
	synctest.Wait()
	if outputs := s.rack.State().Outputs; len(outputs) > 0 {
		return outputs[0].Words
	}
	return "there is none"
}

func onStage(t *testing.T, project *score.Project, bound map[string]string, act func(t *testing.T, s *stage)) {
	synctest.Test(t, func(t *testing.T) {
		s := &stage{there: true}
		unwritten := func() *live.Recorder { return live.NewRecorder(memory.New(project), live.Reports{}) }
		s.Transport = live.New(project, live.Options{Pulse: 25 * time.Millisecond}, unwritten(), unwritten())
		s.rack = device.NewRack(device.Options{
			List: s.list, Clock: clock{s.Transport}, Connect: s.Connect, Disconnect: s.Disconnect,
			Held: func(int64) bool { s.mu.Lock(); defer s.mu.Unlock(); return s.held },
			Open: func(device.Device) (device.Wire, error) {
				s.mu.Lock()
				defer s.mu.Unlock()
				if s.refused != nil {
					return nil, s.refused
				}
				s.wire = &wire{clock: clock{s.Transport}}
				return s.wire, nil
			},
			Changed: func(device.State) {}, Notice: func(text string) { s.notices = append(s.notices, text) },
		}, bound)
		s.ListenOutputs(s.rack.SetOutputs)
		ctx, stop := context.WithCancel(t.Context())
		var playing, others sync.WaitGroup
		playing.Go(func() { s.Run(ctx) })
		rest, stopRest := context.WithCancel(context.Background())
		others.Go(func() { s.rack.Run(rest) })
		act(t, s)
		stop()
		playing.Wait()
		stopRest()
		others.Wait()
	})
}

// toQuay sends all tracks of a project to two outputs, both of devices.
func toQuay(p *score.Project) *score.Project {
	p = p.Clone()
	p.Outputs = []score.Output{{ID: 1, Name: "Bass", Kind: score.ServerDevice}, {ID: 2, Name: "Pad", Kind: score.ServerDevice, Offset: 20}}
	for i := range p.Tracks {
		p.Tracks[i].Routes = &[]score.Route{score.WholeRoute(1), score.WholeRoute(2)}
	}
	return p
}

// receiver is an instrument: it knows which of its keys are down.
type receiver struct {
	down   map[[2]byte]bool
	struck int
}

func (r *receiver) hear(t *testing.T, got []written) {
	for _, w := range got {
		key := [2]byte{w.data[0] & 0xF, w.data[1]}
		switch w.data[0] & 0xF0 {
		case 0x90:
			require.False(t, r.down[key], "%v is struck twice", key)
			r.down[key] = true
			r.struck++
		case 0x80:
			delete(r.down, key)
		}
	}
}

// An hour in which the device vanishes each minute, now for a moment, now for half of it: it is taken up again each time, strikes no key
// twice, and nothing sounds in the end.
func TestADeviceVanishesEachMinute(t *testing.T) {
	if testing.Short() {
		t.Skip("takes seconds")
	}
	onStage(t, toQuay(testkit.Buoy()), map[string]string{"Bass": quay, "Pad": quay}, func(t *testing.T, s *stage) {
		instrument := &receiver{down: map[[2]byte]bool{}}
		listen := func() {
			synctest.Wait()
			if s.wire != nil {
				instrument.hear(t, s.wire.take())
			}
		}
		pass(2 * time.Second)
		require.Equal(t, "plays "+quay, s.words())
		s.Play()
		for minute := range 60 {
			pass(30*time.Second + time.Duration(minute*37)*time.Millisecond)
			listen()
			before := instrument.struck
			s.away(true)
			pass(time.Duration(1+minute%30) * time.Second)
			listen()
			require.Equal(t, quay+" is not plugged in", s.words())
			s.away(false)
			pass(29 * time.Second)
			listen()
			require.Equal(t, "plays "+quay, s.words())
			require.Greater(t, instrument.struck, before+10, "minute %d", minute)
		}
		require.Len(t, s.notices, 60)
		for _, notice := range s.notices {
			require.Regexp(t, quay+` is gone: (no such device|it was unplugged)\. The rest plays on`, notice)
		}
		s.Stop()
		pass(time.Second)
		listen()
		require.Empty(t, instrument.down)
	})
}

// How an output stands is said in words, whatever is in its way, and each way out leads on at once.
func TestHowAnOutputStands(t *testing.T) {
	onStage(t, toQuay(testkit.Buoy()), nil, func(t *testing.T, s *stage) {
		require.Equal(t, "no device is selected", s.words())
		s.rack.Bind("Bass", "Pier rack")
		require.Equal(t, "Pier rack is not plugged in", s.words())
		s.refused = errors.New("another program uses it")
		s.rack.Bind("Bass", quay)
		require.Equal(t, quay+" cannot be used: another program uses it", s.words())
		s.mu.Lock()
		s.refused = nil
		s.mu.Unlock()
		pass(2 * time.Second)
		require.Equal(t, "plays "+quay, s.words())
		require.True(t, s.rack.Play(1, []output.Event{event(s.Now(), 1, note(midi.NoteOn, 0, 60)), event(s.Now()+100*milli, 1, note(midi.NoteOff, 0, 60))}))
		require.False(t, s.rack.Play(2, nil), "that one is bound to nothing")
		pass(time.Second)
		require.Len(t, s.wire.take(), 2)
		s.mu.Lock()
		s.held = true
		s.mu.Unlock()
		s.rack.Look()
		require.Equal(t, "not active yet", s.words())
		require.True(t, s.wire.closed)
		s.SetProject(testkit.Buoy(), live.Change{New: true})
		require.Equal(t, "there is none", s.words())
	})
}

// A device is bound to another output while notes sound on it: none stays down, and what comes goes on.
func TestADeviceIsBoundWhilePlaying(t *testing.T) {
	onStage(t, toQuay(testkit.Buoy()), map[string]string{"Bass": quay}, func(t *testing.T, s *stage) {
		pass(2 * time.Second)
		s.Play()
		instrument := &receiver{down: map[[2]byte]bool{}}
		first := s.wire
		for n := range 40 {
			pass(time.Duration(90+37*(n%5)) * time.Millisecond)
			s.rack.Bind([]string{"Pad", "Bass"}[n%2], []string{quay, ""}[n/2%2])
			synctest.Wait()
			instrument.hear(t, first.take())
			if s.wire != first {
				instrument.hear(t, s.wire.take())
				first = s.wire
			}
		}
		s.rack.Bind("Bass", quay)
		pass(4 * time.Second)
		require.NotZero(t, instrument.struck)
		s.Stop()
		pass(time.Second)
		instrument.hear(t, first.take())
		if s.wire != first {
			instrument.hear(t, s.wire.take())
		}
		require.Empty(t, instrument.down, fmt.Sprint(instrument.down))
	})
}
