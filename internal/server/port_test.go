package server

import (
	"encoding/json"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/output"
	"jettyfog/internal/output/conform"
)

// All pages together are one port, which does what all ports must.
func TestPagesAreAPort(t *testing.T) {
	h := newHub(Options{})
	require.Zero(t, h.Ahead(), "nobody is there")
	dropped := false
	page := &client{queue: make(chan []byte, queueLength), drop: func(why error) {
		dropped = true
		require.ErrorIs(t, why, errTooSlow)
	}}
	h.clients[page] = struct{}{}
	began := time.Now()
	var coming []conform.Outcome
	next := func() conform.Outcome {
		for len(coming) == 0 {
			select {
			case data := <-page.queue:
				var m Message
				require.NoError(t, json.Unmarshal(data, &m))
				coming = outcomes(m.Batch)
			case <-time.After(10 * time.Second):
				require.FailNow(t, "nothing comes out")
			}
		}
		first := coming[0]
		coming = coming[1:]
		return first
	}
	conform.Check(t, conform.Harness{Port: h, Now: func() int64 { return int64(time.Since(began)) }, Next: next, Stall: func() {}})
	require.True(t, dropped, "a page that does not read is hung up on")
}

// outcomes returns what a page makes of a batch.
func outcomes(b *WireBatch) (list []conform.Outcome) {
	event := func(s WireSound) *output.Event {
		kind := midi.NoteOn
		if s.Velocity == 0 {
			kind = midi.NoteOff
		}
		return &output.Event{Message: midi.Message{Tick: s.Tick, Track: s.Track, Kind: kind, Channel: s.Channel, Key: s.Key, Velocity: s.Velocity}, At: s.At}
	}
	if b.Release {
		list = append(list, conform.Outcome{Released: true})
	}
	for _, s := range b.Withdrawn {
		list = append(list, conform.Outcome{Withdrawn: event(s)})
	}
	for _, s := range b.Sounds {
		list = append(list, conform.Outcome{Event: event(s)})
	}
	return list
}
