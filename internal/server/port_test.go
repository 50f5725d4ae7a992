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
	h.clients[page] = true
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
	if b.Panic {
		list = append(list, conform.Outcome{Panicked: true})
	} else if b.Release {
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

// What goes to another output than the built-in sound goes to pages as the bytes of MIDI 1.0 (table I; table III for banks), and
// what goes to the built-in sound as notes.
func TestOtherOutputsHaveBytes(t *testing.T) {
	event := func(to int, m midi.Message) output.Event { return output.Event{Message: m, Output: to, At: 5} }
	batch := wireBatch([]output.Event{
		event(0, midi.Message{Kind: midi.NoteOn, Key: 60, Velocity: 90}),
		event(0, midi.Message{Kind: midi.ControlChange, Key: 7, Value: 1}),
		event(3, midi.Message{Track: 2, Kind: midi.Program, Channel: 4, Key: 9, Value: 130}),
		event(3, midi.Message{Track: 2, Kind: midi.NoteOn, Channel: 4, Key: 61, Velocity: 91}),
		event(3, midi.Message{Track: 2, Kind: midi.Bend, Channel: 4, Value: 8192}),
		event(3, midi.Message{Track: 2, Kind: midi.NoteOff, Channel: 4, Key: 61}),
	})
	require.Equal(t, []WireSound{{At: 5, Key: 60, Velocity: 90}}, batch.Sounds)
	var bytes [][]int
	for _, m := range batch.Messages {
		require.Equal(t, []any{int64(5), 3, uint32(2)}, []any{m.At, m.Output, m.Track})
		bytes = append(bytes, m.Data)
	}
	require.Equal(t, [][]int{{0xB4, 0, 1}, {0xB4, 32, 1}, {0xC4, 9}, {0x94, 61, 91}, {0xE4, 0, 64}, {0x84, 61, 64}}, bytes)
	require.Nil(t, wireBatch([]output.Event{event(0, midi.Message{Kind: midi.Bend})}), "no page has to know")
	zero := event(3, midi.Message{Kind: midi.NoteOff, Channel: 4, Key: 61})
	zero.VelocityZero = true
	require.Equal(t, []int{0x94, 61, 0}, wireBatch([]output.Event{zero}).Messages[0].Data)
}
