// Package conform checks that a kind of port does what all ports must.
package conform

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/output"
)

// Harness is a port and what comes of it.
type Harness struct {
	Port output.Port
	// Now is the transport's clock.
	Now func() int64
	// Next waits for what comes out next. A port hands notes on at least; of other kinds those that its instruments know.
	Next func() Outcome
	// Stall has nobody take what comes out from now on, for good.
	Stall func()
}

// Outcome is what came out of a port. Exactly one of its fields is set.
type Outcome struct {
	Event     *output.Event
	Withdrawn *output.Event
	Released  bool
	Panicked  bool // released, by all that can end a note
}

// Check checks a port that is ready, and stalls it in the end.
func Check(t *testing.T, h Harness) {
	t.Helper()
	require.Positive(t, h.Port.Ahead(), "somebody is there to take what is sent")
	require.LessOrEqual(t, h.Port.Ahead(), time.Second)
	on := func(tick score.Tick, key uint8, after time.Duration) output.Event {
		return output.Event{Message: midi.Message{Tick: tick, Track: 1, Kind: midi.NoteOn, Channel: 2, Key: key, Velocity: 90}, At: h.Now() + int64(after)}
	}
	off := func(e output.Event, after time.Duration) output.Event {
		e.Kind, e.Velocity, e.At, e.Tick = midi.NoteOff, 0, e.At+int64(after), e.Tick+100
		return e
	}

	first, second := on(10, 60, 20*time.Millisecond), on(10, 64, 20*time.Millisecond)
	ends := []output.Event{off(first, 20*time.Millisecond), off(second, 20*time.Millisecond)}
	sent := append([]output.Event{first, second}, ends...)
	bend := output.Event{Message: midi.Message{Tick: 5, Track: 1, Kind: midi.Bend, Channel: 2, Value: 9000}, At: first.At - 1}
	h.Port.Send(append([]output.Event{bend}, sent...))
	for _, want := range sent { // in order, at their times, and each once
		got := h.Next()
		for got.Event != nil && got.Event.Kind == midi.Bend {
			got = h.Next()
		}
		require.NotNil(t, got.Event)
		require.Equal(t, want.At, got.Event.At)
		require.Equal(t, []any{want.Kind, want.Channel, want.Key}, []any{got.Event.Kind, got.Event.Channel, got.Event.Key})
	}

	taken, kept := on(200, 70, 200*time.Millisecond), on(200, 72, 200*time.Millisecond)
	h.Port.Send([]output.Event{taken, kept})
	h.Port.Withdraw([]output.Event{taken})
	withdrawn := false
	for seen := 0; seen < 3 && !withdrawn; seen++ { // not let out, or taken back behind it
		got := h.Next()
		withdrawn = got.Withdrawn != nil && got.Withdrawn.Key == 70 && got.Withdrawn.At == taken.At
		require.False(t, got.Released)
	}
	require.True(t, withdrawn)
	h.Port.Release()
	for got := h.Next(); !got.Released; got = h.Next() {
		require.Nil(t, got.Withdrawn)
	}

	h.Port.Panic()
	for got := h.Next(); !got.Panicked; got = h.Next() {
		require.Nil(t, got.Event)
	}

	h.Stall()
	began := time.Now()
	for n := range 20_000 {
		h.Port.Send([]output.Event{on(score.Tick(1000+n), uint8(n%128), time.Millisecond)})
	}
	h.Port.Release()
	require.Less(t, time.Since(began), 20*time.Second, "a port that nobody reads holds nobody up")
}
