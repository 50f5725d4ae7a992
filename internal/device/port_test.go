package device_test

import (
	"errors"
	"slices"
	"sync"
	"testing"
	"testing/synctest"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/device"
	"jettyfog/internal/output"
	"jettyfog/internal/output/conform"
)

// bubble is the clock of a test that runs in a bubble, where sleeping is exact and takes no time.
type bubble struct{ began time.Time }

func (b bubble) Now() int64          { return int64(time.Since(b.began)) }
func (b bubble) SleepUntil(at int64) { time.Sleep(time.Duration(at - b.Now())) }
func (b bubble) Doze(until int64)    { b.SleepUntil(until) }

// pass lets time pass in a bubble, where it takes none, until everybody waits again.
func pass(d time.Duration) {
	time.Sleep(d)
	synctest.Wait()
}

// written is what a device was sent, and when.
type written struct {
	at   int64
	data []byte
}

// wire is a device that notes what it is sent. It can take nothing, take single bytes, or be gone.
type wire struct {
	clock device.Clock

	mu     sync.Mutex
	full   bool
	single bool
	gone   error
	closed bool
	lost   []error // what its port said
	got    []written
}

func (w *wire) Write(data []byte) (int, error) {
	w.mu.Lock()
	defer w.mu.Unlock()
	switch {
	case w.gone != nil:
		return 0, w.gone
	case w.full:
		return 0, nil
	case w.single:
		data = data[:1]
	}
	w.got = append(w.got, written{w.clock.Now(), slices.Clone(data)})
	return len(data), nil
}

func (w *wire) Close() error {
	w.mu.Lock()
	defer w.mu.Unlock()
	w.closed = true
	return nil
}

func (w *wire) set(change func(*wire)) {
	w.mu.Lock()
	defer w.mu.Unlock()
	change(w)
}

// take returns what it was sent since it was asked last.
func (w *wire) take() (got []written) {
	w.mu.Lock()
	defer w.mu.Unlock()
	got, w.got = w.got, nil
	return got
}

// onWire runs a test of a port with its wire in a bubble, and with what the port said when it was lost.
func onWire(t *testing.T, act func(t *testing.T, p *device.Port, w *wire, lost func() []error)) {
	synctest.Test(t, func(t *testing.T) {
		clock := bubble{time.Now()}
		w := &wire{clock: clock}
		p := device.Open(w, device.NewLine(), clock, func(err error) { w.set(func(w *wire) { w.lost = append(w.lost, err) }) })
		act(t, p, w, func() (lost []error) {
			w.set(func(w *wire) { lost = slices.Clone(w.lost) })
			return lost
		})
		p.Close()
		synctest.Wait()
		w.set(func(w *wire) { require.True(t, w.closed) })
	})
}

// checked is a port as the conformance test sees it: what is withdrawn and never sent is told of behind all else.
type checked struct {
	conform.Noted
	w      *wire
	coming []conform.Outcome
}

// next returns what the device is sent next, or once nothing more comes what else was asked.
func (c *checked) next(t *testing.T) conform.Outcome {
	if len(c.coming) == 0 {
		pass(time.Second)
		for _, w := range c.w.take() {
			m, err := midi.Parse(w.data)
			require.NoError(t, err)
			if m.Kind == midi.NoteOn || m.Kind == midi.NoteOff && !c.Panicked() {
				c.coming = append(c.coming, conform.Outcome{Event: &output.Event{Message: m, At: w.at}})
			}
		}
		c.coming = append(c.coming, c.Asked()...)
	}
	require.NotEmpty(t, c.coming, "nothing comes out")
	first := c.coming[0]
	c.coming = c.coming[1:]
	return first
}

func TestADeviceIsAPort(t *testing.T) {
	onWire(t, func(t *testing.T, p *device.Port, w *wire, _ func() []error) {
		c := &checked{Noted: conform.Noted{Port: p}, w: w}
		conform.Check(t, conform.Harness{
			Port: c, Now: w.clock.Now, Next: func() conform.Outcome { return c.next(t) },
			Stall: func() { w.set(func(w *wire) { w.full = true }) },
		})
	})
}

func on(p *device.Port, w *wire, key uint8) {
	p.Send([]output.Event{event(w.clock.Now()+10*milli, 1, note(midi.NoteOn, 0, key))})
}

// A device that takes a byte at a time, and sometimes none, is sent every byte once.
func TestASlowDevice(t *testing.T) {
	onWire(t, func(t *testing.T, p *device.Port, w *wire, lost func() []error) {
		w.set(func(w *wire) { w.single = true })
		on(p, w, 60)
		pass(20 * time.Millisecond)
		w.set(func(w *wire) { w.full = true })
		on(p, w, 61)
		pass(time.Second)
		p.Send([]output.Event{event(w.clock.Now()+1000*milli, 1, note(midi.NoteOn, 0, 62))}) // for which the rest does not wait
		w.set(func(w *wire) { w.full = false })
		pass(20 * time.Millisecond)
		var all []byte
		for _, one := range w.take() {
			all = append(all, one.data...)
		}
		require.Equal(t, []byte{0x90, 60, 90, 0x90, 61, 90}, all)
		require.Empty(t, lost())
	})
}

// A device that takes nothing for two seconds is given up, and so is one that is gone: said once, and nobody is held up.
func TestADeviceIsLost(t *testing.T) {
	onWire(t, func(t *testing.T, p *device.Port, w *wire, lost func() []error) {
		w.set(func(w *wire) { w.full = true })
		on(p, w, 60)
		pass(1900 * time.Millisecond)
		require.Empty(t, lost())
		pass(time.Second)
		require.Equal(t, []error{device.ErrStuck}, lost())
		w.set(func(w *wire) { require.True(t, w.closed) })
		on(p, w, 61) // which nobody takes
	})
	gone := errors.New("no such device")
	onWire(t, func(t *testing.T, p *device.Port, w *wire, lost func() []error) {
		on(p, w, 60)
		pass(20 * time.Millisecond)
		w.set(func(w *wire) { w.gone = gone })
		p.Release()
		synctest.Wait()
		require.Equal(t, []error{gone}, lost())
	})
}

// A port that is closed in the middle of a note ends it first; one whose device takes nothing gives that up soon.
func TestAPortIsClosed(t *testing.T) {
	onWire(t, func(t *testing.T, p *device.Port, w *wire, _ func() []error) {
		on(p, w, 60)
		pass(20 * time.Millisecond)
		p.Release()
		p.Close()
		got := w.take()
		require.Equal(t, []byte{0x80, 60, 64}, got[len(got)-1].data)
	})
	onWire(t, func(t *testing.T, p *device.Port, w *wire, _ func() []error) {
		w.set(func(w *wire) { w.full = true })
		on(p, w, 60)
		pass(20 * time.Millisecond)
		before := w.clock.Now()
		p.Close()
		require.LessOrEqual(t, w.clock.Now()-before, int64(250*milli))
	})
}

// What is asked of a port while it sleeps is done within its sleep of what is near.
func TestAPortIsWoken(t *testing.T) {
	onWire(t, func(t *testing.T, p *device.Port, w *wire, _ func() []error) {
		p.Send([]output.Event{event(w.clock.Now()+1000*milli, 1, note(midi.NoteOn, 0, 60))})
		pass(10 * time.Millisecond)
		soon := w.clock.Now() + 5*milli
		p.Send([]output.Event{event(soon, 1, note(midi.NoteOn, 0, 61))})
		pass(20 * time.Millisecond)
		require.Equal(t, []written{{soon, []byte{0x90, 61, 90}}}, w.take())
		p.Release()
		synctest.Wait()
		require.Equal(t, []byte{0x80, 61, 64}, w.take()[0].data)
	})
}
