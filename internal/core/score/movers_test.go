package score_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

// What macros, modulators and mappings cannot be is refused, and says what they can.
func TestWhatMoversCannotBe(t *testing.T) {
	probability := score.ControlAddress{Name: "probability", Track: 1}
	wave := func(m score.Modulator) []score.Modulator {
		m.ID, m.Name = 1, "Swell"
		return []score.Modulator{m}
	}
	bend := score.ModulatorSend{Track: 1, Mod: score.Mod{Target: score.BendTarget, Most: 16383}}
	for wants, change := range map[string]func(*score.Project){
		"macros[0].moves[0].to is 5; it must be another value than from": func(p *score.Project) {
			p.Macros = []score.Macro{{ID: 1, Name: "Fog", Moves: []score.MacroMove{{Control: probability, Absolute: true, From: 5, To: 5}}}}
		},
		"macros[0].moves[0].by is 3; it must be left out": func(p *score.Project) {
			p.Macros = []score.Macro{{ID: 1, Name: "Fog", Moves: []score.MacroMove{{Control: probability, Absolute: true, From: 5, To: 6, By: 3}}}}
		},
		"macros[0].moves[0].from is 5; it must be left out": func(p *score.Project) {
			p.Macros = []score.Macro{{ID: 1, Name: "Fog", Moves: []score.MacroMove{{Control: probability, From: 5}}}}
		},
		"macros[0].moves[1].control is probability; it must be moved by a macro once only": func(p *score.Project) {
			p.Macros = []score.Macro{{ID: 1, Name: "Fog", Moves: []score.MacroMove{{Control: probability, By: 5}, {Control: probability, By: 6}}}}
		},
		"macros[0].moves[0].control.bar is 3; it must be 0": func(p *score.Project) {
			p.Macros = []score.Macro{{ID: 1, Name: "Fog", Moves: []score.MacroMove{{Control: score.ControlAddress{Name: "tempo", Bar: 3}, By: 5}}}}
		},
		"macros[1].id is 1; it must be different from every other macro's": func(p *score.Project) {
			p.Macros = []score.Macro{{ID: 1, Name: "Fog"}, {ID: 1, Name: "Tide"}}
		},
		"macros[1].name is Fog; it must be different from every other macro's": func(p *score.Project) {
			p.Macros = []score.Macro{{ID: 1, Name: "Fog"}, {ID: 2, Name: "Fog"}}
		},
		"mappings[0].to is 7; it must be another value than from": func(p *score.Project) {
			p.Mappings = []score.Mapping{{Message: score.MappedControl, Control: probability, From: 7, To: 7}}
		},
		"mappings[0].number is 32; it must be 0 to 31": func(p *score.Project) {
			p.Mappings = []score.Mapping{{Message: score.MappedControl14, Number: 32, Control: probability, To: 7}}
		},
		"mappings[0].turns is twos; it must be a takeover or a jump": func(p *score.Project) {
			p.Mappings = []score.Mapping{{Message: score.MappedBend, Control: probability, To: 7, Turns: score.TwosTurns}}
		},
		"modulators[0].times is 0; it must be 1 or more of a note value, or hertz above 0": func(p *score.Project) {
			p.Modulators = wave(score.Modulator{Shape: score.SineShape})
		},
		"modulators[0].points is 1; it must be 2 levels or more": func(p *score.Project) {
			p.Modulators = wave(score.Modulator{Shape: score.DrawnShape, Hertz: 5, Points: []int{3}})
		},
		"modulators[0].points[1] is 101": func(p *score.Project) {
			p.Modulators = wave(score.Modulator{Shape: score.DrawnShape, Hertz: 5, Points: []int{3, 101}})
		},
		"modulators[0].stretch is left out": func(p *score.Project) {
			p.Modulators = wave(score.Modulator{Shape: score.CopyShape, Copies: 3})
		},
		"modulators[0].mod is 0; it must be 1 to 8": func(p *score.Project) {
			p.Modulators = wave(score.Modulator{Shape: score.ModShape, Track: 1})
		},
		"modulators[0].moves[1].control is probability; it must be moved by a modulator once only": func(p *score.Project) {
			p.Modulators = wave(score.Modulator{Shape: score.ControlShape, Moves: []score.ModulatorMove{{Control: probability}, {Control: probability}}})
		},
		"modulators[0].sends[0].target is program": func(p *score.Project) {
			p.Modulators = wave(score.Modulator{Shape: score.SineShape, Hertz: 5, Sends: []score.ModulatorSend{{Track: 1, Mod: score.Mod{Target: score.ProgramTarget, Most: 5}}}})
		},
		"modulators[0].sends[0].most is 5; it must be another value than least": func(p *score.Project) {
			p.Modulators = wave(score.Modulator{Shape: score.SineShape, Hertz: 5, Sends: []score.ModulatorSend{{Track: 1, Mod: score.Mod{Target: score.ControlTarget, Least: 5, Most: 5}}}})
		},
		"the number of curves that Bell buoy sends is 8; it must be 0 to 7": func(p *score.Project) {
			p.Modulators = wave(score.Modulator{Shape: score.SineShape, Hertz: 5, Sends: []score.ModulatorSend{bend, bend, bend, bend, bend, bend, bend, bend}})
		},
		"tracks[0].tuned.by is bend; it must be another way": func(p *score.Project) {
			p.Key.Tuning = &theory.Tuning{Name: "thirds", Pitches: []string{"400.", "800.", "1200."}}
			p.Key.Scale, p.Key.Root = theory.Chromatic, 0
			p.Tracks[0].Tuned = &score.Tuned{By: score.BendTuned, Channels: 3, Range: 2}
			p.Modulators = wave(score.Modulator{Shape: score.SineShape, Hertz: 5, Sends: []score.ModulatorSend{bend}})
		},
	} {
		t.Run(wants, func(t *testing.T) {
			p := testkit.Buoy()
			change(p)
			require.ErrorContains(t, p.Validate(), wants)
		})
	}
}

// Steps of endless knobs in the three codes that are common practice.
func TestStepsOfEndlessKnobs(t *testing.T) {
	for turns, want := range map[score.Turning][5]int{
		score.SignedTurns: {1, 63, 0, -1, -63}, score.OffsetTurns: {-63, -1, 0, 1, 63}, score.TwosTurns: {1, 63, -64, -63, -1},
	} {
		for i, value := range []int{1, 63, 64, 65, 127} {
			require.Equal(t, want[i], turns.Steps(value), "%s %d", turns, value)
		}
	}
}
