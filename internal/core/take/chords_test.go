package take_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
)

// Chords are what sounds together: struck at once, rolled within a 32nd, or on what sounds already; twice the same is one; two notes, octaves and percussion are none.
func TestChordsOfATake(t *testing.T) {
	const q = score.TicksPerQuarter
	note := func(from, to score.Tick, channel, key uint8) [2]midi.Message {
		id := midi.NoteID{Track: 1, Channel: channel, Key: key}
		return [2]midi.Message{id.On(from, 90, 0), id.Off(to)}
	}
	var all take.Take
	add := func(notes ...[2]midi.Message) {
		for _, n := range notes {
			all.Messages = append(all.Messages, n[0])
		}
		for _, n := range notes {
			all.Messages = append(all.Messages, n[1])
		}
	}
	add(note(0, q, 0, 67), note(100, q, 0, 71), note(200, q, 0, 74))
	add(note(2*q, 3*q, 0, 60), note(2*q, 3*q, 0, 64), note(2*q, 3*q, 0, 67))
	add(note(4*q, 5*q, 0, 60), note(4*q, 5*q, 0, 64), note(4*q, 5*q, 0, 67))
	add(note(6*q, 8*q, 0, 60), note(6*q, 8*q, 0, 72), note(7*q, 8*q, 0, 79))
	add(note(9*q, 10*q, 9, 36), note(9*q, 10*q, 9, 40), note(9*q, 10*q, 9, 46))
	require.Equal(t, [][]int{{60, 64, 67}, {67, 71, 74}}, all.Chords())
	require.Empty(t, (&take.Take{}).Chords())
}
