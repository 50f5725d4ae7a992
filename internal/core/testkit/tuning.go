package testkit

import (
	"fmt"
	"slices"

	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// MostKeys is how many keys the period of a drawn tuning takes at most.
const MostKeys = 24

// Tuning draws a tuning: of up to MostKeys notes a period, of cents and ratios, some of them with a keyboard.
func Tuning(t *rapid.T) *theory.Tuning {
	tuning := &theory.Tuning{Name: "Drawn"}
	notes := rapid.SampledFrom([]int{1, 5, 7, 12, 12, 12, MostKeys}).Draw(t, "notes of the tuning")
	at := 0
	for range notes - 1 {
		at += rapid.IntRange(1_000_000, 100_000_000).Draw(t, "step")
		tuning.Pitches = append(tuning.Pitches, fmt.Sprintf("%d.%06d", at/1_000_000, at%1_000_000))
	}
	tuning.Pitches = append(tuning.Pitches, rapid.SampledFrom([]string{"2/1", "3/2", "2400.", "1999.999999"}).Draw(t, "period"))
	if rapid.Bool().Draw(t, "keyboard") {
		tuning.Keyboard = keyboard(t, notes)
	}
	return tuning
}

func keyboard(t *rapid.T, notes int) *theory.Keyboard {
	drawn := theory.DefaultKeyboard()
	drawn.Octave = notes
	drawn.MicroHertz = rapid.Int64Range(100_000_000, 900_000_000).Draw(t, "frequency")
	if rapid.Bool().Draw(t, "keys") {
		drawn.Keys = []int{0}
		for range rapid.IntRange(0, MostKeys-1).Draw(t, "keys") {
			drawn.Keys = append(drawn.Keys, rapid.IntRange(theory.Unmapped, notes-1).Draw(t, "key"))
		}
	}
	drawn.Reference = drawn.Middle
	drawn.Keys = slices.Clip(drawn.Keys)
	return &drawn
}

func tuned(t *rapid.T) *score.Tuned {
	return rapid.SampledFrom([]*score.Tuned{
		nil, nil, {By: score.BendTuned, Channels: 3, Range: 2}, {By: score.BendTuned, Channels: 1, Range: 24}, {By: score.MessageTuned},
	}).Draw(t, "tuned")
}
