package testkit

import (
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// Input draws a message that comes in at a tick.
func Input(t *rapid.T, tick score.Tick) midi.Message {
	m := midi.Message{
		Tick: tick, Channel: uint8(rapid.IntRange(0, 2).Draw(t, "input channel")),
		Kind: rapid.SampledFrom([]midi.Kind{midi.NoteOn, midi.NoteOff, midi.ControlChange}).Draw(t, "input"),
		Key:  uint8(rapid.SampledFrom([]int{4, 60}).Draw(t, "input key")),
	}
	if m.Kind == midi.NoteOn {
		m.Velocity = 100
	} else {
		m.Value = uint16(rapid.IntRange(0, 127).Draw(t, "input value"))
	}
	return m
}
