package input

import (
	"fmt"
	"math/rand"
	"sync"
	"sync/atomic"
	"time"

	"jettyfog/internal/core/bounds"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/device"
)

var clockBounds = bounds.For[ClockSettings]()

// SimulatedClock is the name of the machine whose clock is simulated.
const SimulatedClock = "simulated clock"

// ClockSettings are how the simulated clock goes.
type ClockSettings struct {
	// On has it send its clock; Runs says that it was started.
	On   bool `json:"on"`
	Runs bool `json:"runs"`
	// Tempo is in thousandths of a beat a minute, and becomes another by Drift in a minute.
	Tempo score.Tempo `json:"tempo" jsonschema:"minimum=10000,maximum=400000"`
	Drift int         `json:"drift" jsonschema:"minimum=-60000,maximum=60000"`
	// Jitter is by how many milliseconds a pulse can come late.
	Jitter int `json:"jitter" jsonschema:"minimum=0,maximum=20"`
}

// Simulated is another machine: it sends the bytes that one sends, with the faults that are asked for. It is on no cable, so it is simulated
// everywhere. All methods may be called concurrently.
type Simulated struct {
	now     func() int64
	changed func()

	mu       sync.Mutex
	settings ClockSettings
	random   *rand.Rand
	due      float64 // when its next pulse is, without jitter
	pulse    int64   // when that comes
	silent   int64   // until when nothing comes, though it goes on
	waiting  []byte  // to be sent at once
	wake     chan struct{}
	tempo    float64 // at present, by the drift
}

// NewSimulated returns a machine that is off, at 120 beats a minute. Changed is told when its settings are others.
func NewSimulated(now func() int64, changed func()) *Simulated {
	return &Simulated{
		now: now, changed: changed, settings: ClockSettings{Tempo: 120_000}, tempo: 120_000, wake: make(chan struct{}, 1),
		random: rand.New(rand.NewSource(1)), //nolint:gosec // the same faults each time
	}
}

// Device returns what it is in the list of devices.
func (s *Simulated) Device() device.Device {
	return device.Device{Name: SimulatedClock, Place: "another machine, simulated", StandIn: true}
}

// Open returns what it sends.
func (s *Simulated) Open(d device.Device) (device.Feed, bool) {
	if d.Name != SimulatedClock {
		return nil, false
	}
	return &simulatedFeed{machine: s}, true
}

// Settings returns how it goes at present.
func (s *Simulated) Settings() ClockSettings {
	s.mu.Lock()
	defer s.mu.Unlock()
	settings := s.settings
	settings.Tempo = score.Tempo(s.tempo)
	return settings
}

// ClockAct is something that is done to the simulated clock.
type ClockAct struct {
	// Do is set for Settings, or start, stop, continue, position for the sixteenth Position, and dropOut for silence of Millis.
	Do       string         `json:"do" jsonschema:"enum=set,enum=start,enum=stop,enum=continue,enum=position,enum=dropOut"`
	Settings *ClockSettings `json:"settings,omitempty"`
	Position int            `json:"position,omitempty" jsonschema:"minimum=0,maximum=16383"`
	Millis   int            `json:"millis,omitempty" jsonschema:"minimum=0,maximum=10000"`
}

// Act does something. The error is a *score.FieldError.
func (s *Simulated) Act(a ClockAct) error {
	err := s.act(a)
	if err == nil {
		s.wakeUp()
		s.changed()
	}
	return err
}

func (s *Simulated) act(a ClockAct) error {
	s.mu.Lock()
	defer s.mu.Unlock()
	switch a.Do {
	case "set":
		if a.Settings == nil {
			return &score.FieldError{Field: "settings", Got: "missing", Allowed: "there"}
		}
		next := *a.Settings
		if err := score.CheckBounds(clockBounds, &next); err != nil {
			return err
		}
		if next.On && !s.settings.On {
			s.due = float64(s.now())
			s.next()
		}
		next.Runs = s.settings.Runs && next.On
		s.settings, s.tempo = next, float64(next.Tempo)
	case "start", "continue":
		kind := map[string]midi.Kind{"start": midi.Start, "continue": midi.Continue}[a.Do]
		s.send(midi.Message{Kind: kind})
		s.settings.On, s.settings.Runs = true, true
		s.due = float64(s.now()) + startsAfter
		s.pulse = int64(s.due)
	case "stop":
		s.send(midi.Message{Kind: midi.Stop})
		s.settings.Runs = false
	case "position":
		if a.Position < 0 || a.Position > midi.MaxSongPosition {
			return &score.FieldError{Field: "position", Got: a.Position, Allowed: fmt.Sprintf("0 to %d", midi.MaxSongPosition)}
		}
		s.send(midi.Message{Kind: midi.SongPosition, Value: uint16(a.Position)})
	case "dropOut":
		if a.Millis < 0 || a.Millis > 10_000 {
			return &score.FieldError{Field: "millis", Got: a.Millis, Allowed: "0 to 10,000"}
		}
		s.silent = s.now() + int64(a.Millis)*int64(time.Millisecond)
	default:
		return &score.FieldError{Field: "do", Got: a.Do, Allowed: "set, start, stop, continue, position or dropOut"}
	}
	return nil
}

// startsAfter is how long after a start the first pulse comes, in nanoseconds (MIDI 1.0 asks for a millisecond).
const startsAfter = 2_000_000

func (s *Simulated) send(m midi.Message) { s.waiting = midi.Append(s.waiting, m) }

func (s *Simulated) wakeUp() {
	select {
	case s.wake <- struct{}{}:
	default:
	}
}

// next goes on to the next pulse.
func (s *Simulated) next() {
	period := 60e12 / 24 / s.tempo
	s.due += period
	s.tempo = max(float64(score.MinTempo), min(float64(score.MaxTempo), s.tempo+float64(s.settings.Drift)*period/60e9))
	s.pulse = max(s.pulse, int64(s.due)+int64(s.random.Float64()*float64(s.settings.Jitter)*1e6))
}

// simulatedFeed is what the machine sends, while it is heard.
type simulatedFeed struct {
	machine *Simulated
	closed  atomic.Bool
}

// Read implements device.Feed.
func (f *simulatedFeed) Read(data []byte) (int, error) {
	if f.closed.Load() {
		return 0, errUnplugged
	}
	return f.machine.read(data), nil
}

// Close implements device.Feed.
func (f *simulatedFeed) Close() error {
	f.closed.Store(true)
	f.machine.wakeUp()
	return nil
}

// read waits a little for something to be sent, and returns how much was.
func (s *Simulated) read(data []byte) int {
	s.mu.Lock()
	now := s.now()
	wait := 100 * time.Millisecond
	for s.settings.On && s.pulse <= now {
		if now >= s.silent {
			s.waiting = append(s.waiting, clockByte)
		}
		s.next()
	}
	if len(s.waiting) > 0 {
		n := copy(data, s.waiting)
		s.waiting = s.waiting[n:]
		s.mu.Unlock()
		return n
	}
	if s.settings.On {
		wait = min(wait, time.Duration(s.pulse-now))
	}
	s.mu.Unlock()
	select {
	case <-time.After(wait):
	case <-s.wake:
	}
	return 0
}

var clockByte = midi.Append(nil, midi.Message{Kind: midi.Clock})[0]
