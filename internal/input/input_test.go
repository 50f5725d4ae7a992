package input_test

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"sync"
	"testing"
	"testing/synctest"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/device"
	"jettyfog/internal/input"
)

// cable is a device that sends what it is given, and can be unplugged.
type cable struct {
	came   chan []byte
	closed chan struct{}
	once   sync.Once
}

func newCable() *cable { return &cable{came: make(chan []byte, 100), closed: make(chan struct{})} }

func (c *cable) Read(data []byte) (int, error) {
	select {
	case came := <-c.came:
		if came == nil {
			return 0, errors.New("input/output error")
		}
		return copy(data, came), nil
	case <-c.closed:
		return 0, errors.New("closed")
	}
}

func (c *cable) Close() error {
	c.once.Do(func() { close(c.closed) })
	return nil
}

// bench is a keeper in a bubble, with what it was told.
type bench struct {
	*input.Keeper
	mu      sync.Mutex
	cable   *cable // of the device as it is plugged in
	there   bool
	held    bool
	clocked bool // the device is given a clock
	refused error
	heard   []string
	gone    []int
	notices []string
	began   time.Time
}

func (b *bench) note(to *[]string, text string) {
	b.mu.Lock()
	defer b.mu.Unlock()
	*to = append(*to, text)
}

// set changes what is there, and has the keeper look.
func (b *bench) set(change func()) {
	b.mu.Lock()
	change()
	b.mu.Unlock()
	b.Look()
	synctest.Wait()
}

const quay = "Quay keys"

func onBench(t *testing.T, bound map[string]string, act func(t *testing.T, b *bench)) {
	synctest.Test(t, func(t *testing.T) {
		b := &bench{there: true, cable: newCable(), began: time.Now()}
		b.Keeper = input.NewKeeper(input.Options{
			List: func() ([]device.Device, error) {
				b.mu.Lock()
				defer b.mu.Unlock()
				if !b.there {
					return nil, nil
				}
				return []device.Device{{Name: quay, Place: "card 1, device 0"}}, nil
			},
			Open: func(device.Device) (device.Feed, error) {
				b.mu.Lock()
				defer b.mu.Unlock()
				if b.refused != nil {
					return nil, b.refused
				}
				return b.cable, nil
			},
			Held:       func(int64) bool { b.mu.Lock(); defer b.mu.Unlock(); return b.held },
			GivesClock: func(name string) bool { b.mu.Lock(); defer b.mu.Unlock(); return b.clocked },
			Now:        func() int64 { return int64(time.Since(b.began)) },
			Hear: func(id int, m midi.Message, at int64) error {
				b.note(&b.heard, fmt.Sprintf("%d: % X at %d ms", id, midi.Append(nil, m), at/1e6))
				if m.Key == 13 {
					return errors.New("there is no such thing")
				}
				return nil
			},
			Gone:    func(id int) { b.mu.Lock(); defer b.mu.Unlock(); b.gone = append(b.gone, id) },
			Changed: func() {}, Notice: func(text string) { b.note(&b.notices, text) },
		}, bound)
		ctx, stop := context.WithCancel(t.Context())
		var running sync.WaitGroup
		running.Go(func() { b.Run(ctx) })
		synctest.Wait()
		act(t, b)
		stop()
		running.Wait()
	})
}

// inputs are one of a device, and others that are not heard here.
var inputs = []score.Input{
	{ID: 3, Name: "Winch", Kind: score.DeviceInput}, {ID: 4, Name: "Screen", Kind: score.ScreenInput}, {ID: 5, Name: "Capstan", Kind: score.DeviceInput},
}

// words says how input 3 stands.
func (b *bench) words() string {
	synctest.Wait()
	for _, state := range b.State().Inputs {
		if state.Input == 3 {
			return state.Words
		}
	}
	return "there is none"
}

// A device that is bound is heard, cut up bytes and all; unplugged its input is gone, and it is heard again once it is back.
func TestDevicesAreHeard(t *testing.T) {
	onBench(t, map[string]string{"Winch": quay}, func(t *testing.T, b *bench) {
		require.Equal(t, "there is none", b.words())
		b.SetInputs(1, inputs)
		require.Equal(t, "hears Quay keys", b.words())
		require.Len(t, b.State().Inputs, 2)
		time.Sleep(50 * time.Millisecond)
		b.cable.came <- []byte{0x90, 60}
		b.cable.came <- []byte{90, 0xF8, 60}
		b.cable.came <- []byte{0, 0xFE}
		synctest.Wait()
		require.Equal(t, []string{"3: 90 3C 5A at 50 ms", "3: F8 at 50 ms", "3: 80 3C 40 at 50 ms"}, b.heard)

		b.set(func() { b.clocked = true })
		b.cable.came <- []byte{0xF8, 0xFA}
		synctest.Wait()
		require.Len(t, b.heard, 3, "what comes back is no clock")
		require.Equal(t, []string{"Of what came in from Quay keys some was left out: its clock is the one that it is given."}, b.notices)
		b.notices, b.clocked = nil, false
		b.cable.came <- nil
		synctest.Wait()
		b.set(func() { b.there = false })
		require.Equal(t, []int{3}, b.gone)
		require.Equal(t, []string{"Quay keys is gone: input/output error. All that it had down is released, and it is heard again once it is back."}, b.notices)
		require.Equal(t, "Quay keys is not plugged in", b.words())
		b.set(func() { b.there, b.cable = true, newCable() })
		require.Equal(t, "hears Quay keys", b.words())
		b.set(func() { b.there = false })
		require.Equal(t, []int{3, 3}, b.gone)
		require.Contains(t, b.notices[1], "it was unplugged")

		b.set(func() { b.there, b.refused = true, errors.New("another program uses it.") })
		require.Equal(t, "Quay keys cannot be used: another program uses it", b.words())
		b.set(func() { b.refused, b.cable = nil, newCable() })
		b.Bind("Capstan", quay)
		synctest.Wait()
		b.heard = nil
		b.cable.came <- []byte{0xFA}
		synctest.Wait()
		require.Equal(t, []string{"3: FA", "5: FA"}, []string{b.heard[0][:5], b.heard[1][:5]}, "one device can be two inputs")
		b.Bind("Winch", "")
		require.Equal(t, "no device is selected", b.words())
		require.Equal(t, []int{3, 3, 3}, b.gone)
		b.set(func() { b.held = true })
		b.Bind("Winch", quay)
		require.Equal(t, "not active yet", b.words())
		b.heard = nil
		require.Contains(t, b.gone, 5)
	})
}

// Of 10,000 messages in a second most are left out and that is said once; clocks and the ends of notes are not. So is what cannot be done.
func TestAFloodIsLeftOut(t *testing.T) {
	onBench(t, map[string]string{"Winch": quay}, func(t *testing.T, b *bench) {
		b.SetInputs(1, inputs[:1])
		synctest.Wait()
		var flood []byte
		for range 100 {
			flood = append(flood, 0xB0, 74, 1)
		}
		for range 100 {
			b.cable.came <- flood
			synctest.Wait()
		}
		require.Len(t, b.heard, 4000)
		require.Equal(t, []string{"Of what came in from Quay keys some was left out: more than 4000 messages come in a second."}, b.notices)
		b.cable.came <- []byte{0xF8, 0x80, 60, 0, 0x90, 60, 1}
		synctest.Wait()
		require.Len(t, b.heard, 4002)
		time.Sleep(11 * time.Second)
		b.cable.came <- []byte{0x90, 13, 1}
		synctest.Wait()
		require.Equal(t, "Of what came in from Quay keys some was left out: there is no such thing.", b.notices[1])
	})
}

// simulated returns what a simulated machine has sent by some moments, each as bytes and milliseconds.
func onSimulated(t *testing.T, act func(t *testing.T, s *input.Simulated, take func() []string)) {
	synctest.Test(t, func(t *testing.T) {
		began := time.Now()
		s := input.NewSimulated(func() int64 { return int64(time.Since(began)) }, func() {})
		_, is := s.Open(device.Device{Name: "Quay keys"})
		require.False(t, is)
		feed, is := s.Open(s.Device())
		require.True(t, is)
		var mu sync.Mutex
		var sent []string
		done := make(chan struct{})
		go func() {
			defer close(done)
			data := make([]byte, 16)
			for {
				n, err := feed.Read(data)
				if err != nil {
					return
				}
				mu.Lock()
				for _, b := range data[:n] {
					sent = append(sent, fmt.Sprintf("%X at %d", b, time.Since(began).Milliseconds()))
				}
				mu.Unlock()
			}
		}()
		act(t, s, func() []string {
			synctest.Wait()
			mu.Lock()
			defer mu.Unlock()
			taken := sent
			sent = nil
			return taken
		})
		require.NoError(t, feed.Close())
		<-done
	})
}

// The simulated clock sends what MIDI 1.0 has a machine send: 24 pulses a quarter note, the first 2 ms after a start; and the faults that are asked
// for.
func TestTheSimulatedClock(t *testing.T) {
	onSimulated(t, func(t *testing.T, s *input.Simulated, take func() []string) {
		time.Sleep(time.Second)
		require.Empty(t, take(), "it is off")
		require.NoError(t, s.Act(input.ClockAct{Do: "set", Settings: &input.ClockSettings{On: true, Tempo: 125_000}}))
		time.Sleep(99 * time.Millisecond)
		require.Equal(t, []string{"F8 at 1020", "F8 at 1040", "F8 at 1060", "F8 at 1080"}, take())
		require.NoError(t, s.Act(input.ClockAct{Do: "position", Position: 130}))
		require.NoError(t, s.Act(input.ClockAct{Do: "continue"}))
		time.Sleep(30 * time.Millisecond)
		require.Equal(t, []string{"F2 at 1099", "2 at 1099", "1 at 1099", "FB at 1099", "F8 at 1101", "F8 at 1121"}, take())
		require.True(t, s.Settings().Runs)
		require.NoError(t, s.Act(input.ClockAct{Do: "dropOut", Millis: 50}))
		time.Sleep(60 * time.Millisecond)
		require.Equal(t, []string{"F8 at 1181"}, take(), "it goes on meanwhile")
		require.NoError(t, s.Act(input.ClockAct{Do: "stop"}))
		require.NoError(t, s.Act(input.ClockAct{Do: "set", Settings: &input.ClockSettings{On: true, Tempo: 125_000, Drift: 60_000, Jitter: 10}}))
		time.Sleep(30 * time.Second)
		sent := take()
		require.Equal(t, "FC at 1189", sent[0])
		require.InDelta(t, 155_000, int(s.Settings().Tempo), 100, "a beat a minute faster with each second")
		require.InDelta(t, 30*140*24/60, len(sent)-1, 3)
		require.False(t, slices.Equal(sent[1:3], []string{"F8 at 1201", "F8 at 1221"}), "it jitters")
		for bad, act := range map[string]input.ClockAct{
			"settings is missing": {Do: "set"}, "tempo is 9": {Do: "set", Settings: &input.ClockSettings{Tempo: 9}}, "do is dance": {Do: "dance"},
			"position is -1": {Do: "position", Position: -1}, "millis is 10001": {Do: "dropOut", Millis: 10_001},
		} {
			require.ErrorContains(t, s.Act(act), bad)
		}
	})
}
