package testkit

import (
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// inputs are one of each kind, of which some are about what is not there.
var inputs = []score.Input{
	{ID: 1, Name: "Screen", Kind: score.ScreenInput, PlaysIn: true, Switches: true, PassesTo: []score.Passage{{Track: 1}, {Channel: 3, Track: 99}}},
	{ID: 2, Name: "Keys", Kind: score.PortInput, Channel: 16, Transposes: &score.Transposing{Tracks: []int{2, 1, 99}, Root: 60, Latches: true}},
	{ID: 200, Name: "Winch", Kind: score.DeviceInput, Switches: true, PassesTo: []score.Passage{{Channel: 1, Track: 2}}, Holds: score.PedalHold},
	{ID: 7, Name: "Programs", Kind: score.ProgramInput, PlaysIn: true, Holds: score.LatchHold},
}

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
