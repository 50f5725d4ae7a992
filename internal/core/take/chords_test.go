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

	// In time they last until the next, a repeated one on, and the last to the end.
	all.End = 12 * q
	inTime, more := all.ChordMap("Hulls")
	require.Zero(t, more)
	require.Equal(t, []score.MapChord{{Keys: []int{67, 71, 74}, Beats: 2}, {Keys: []int{60, 64, 67}, Beats: 10}}, inTime.Chords)
}

// A map that runs in time is silent until its first chord; a chord of less than half a quarter note gives way to the next, and what there is no room for is counted.
func TestProgressionOfATake(t *testing.T) {
	const q = score.TicksPerQuarter
	var all take.Take
	add := func(from, to score.Tick, keys ...uint8) {
		for _, key := range keys {
			all.Messages = append(all.Messages, midi.NoteID{Track: 1, Key: key}.On(from, 90, 0))
		}
		for _, key := range keys {
			all.Messages = append(all.Messages, midi.NoteID{Track: 1, Key: key}.Off(to))
		}
	}
	add(3*q, 4*q, 60, 64, 67)
	add(5*q, 5*q+q/3, 62, 65, 69)
	add(5*q+q/3, 7*q, 59, 62, 67)
	for i := range 30 {
		add(score.Tick(10+i)*q, score.Tick(11+i)*q, uint8(40+i), uint8(44+i), uint8(47+i))
	}
	all.End = 40 * q
	m, more := all.ChordMap("Hulls")
	require.Len(t, m.Chords, score.MaxChordSlots)
	require.Equal(t, 30-21, more)
	require.Equal(t, []score.MapChord{{Keys: []int{}, Beats: 3}, {Keys: []int{60, 64, 67}, Beats: 2}, {Keys: []int{59, 62, 67}, Beats: 5}, {Keys: []int{40, 44, 47}, Beats: 1}}, m.Chords[:4])
	p := score.Blank()
	m.ID = 1
	p.ChordMaps = []score.ChordMap{m}
	require.NoError(t, p.Validate())
	for tick, place := range map[score.Tick]int{0: 0, 3*q - 1: 0, 3 * q: 1, 5 * q: 2, 10*q - 1: 2, 10 * q: 3, 11 * q: 4, 31 * q: 0} {
		require.Equal(t, place, p.ChordMaps[0].At(tick), "at %d", tick)
	}
}
