package testkit

import "jettyfog/internal/core/score"

// macros move all kinds of controls, of which some are not there; one of each way.
var macros = []score.Macro{
	{ID: 3, Name: "Swell", Position: 250, Moves: []score.MacroMove{
		{Control: score.ControlAddress{Name: "probability", Track: 1}, By: 60},
		{Control: score.ControlAddress{Name: "degrees", Track: 2}, By: -7, Curve: score.SlowStart},
		{Control: score.ControlAddress{Name: "fill level"}, By: 90},
		{Control: score.ControlAddress{Name: "amount", Track: 1, Pattern: 1, Part: 1, Lane: score.Velocity}, By: 55, Curve: score.FastStart},
		{Control: score.ControlAddress{Name: "length", Track: 2, Pattern: 1, Part: 1, Lane: score.Gate}, By: 20},
		{Control: score.ControlAddress{Name: "hold", Track: 99}, By: 5},
		{Control: score.ControlAddress{Name: "modulation", ID: 10}, By: -80},
	}},
	{ID: 1, Name: "Ebb", Position: 1000, Rest: 500, Moves: []score.MacroMove{
		{Control: score.ControlAddress{Name: "probability", Track: 1}, Absolute: true, From: 50, To: -70, Curve: score.SCurve},
		{Control: score.ControlAddress{Name: "push"}, By: 300},
		{Control: score.ControlAddress{Name: "swing"}, By: -100},
		{Control: score.ControlAddress{Name: "lowest", Track: 1}, By: 40},
		{Control: score.ControlAddress{Name: "no such control"}, By: 40},
	}},
	{ID: 200, Name: "Slack", Position: 300, Rest: 300, Moves: []score.MacroMove{}},
}

// mappings are one of each kind.
var mappings = []score.Mapping{
	{Message: score.MappedControl, Number: 20, Control: score.ControlAddress{Name: "macro", ID: 3}, To: 1000},
	{Message: score.MappedControl14, Channel: 2, Number: 3, Control: score.ControlAddress{Name: "push"}, From: 500, To: -500, Turns: score.Jumps, Curve: score.SCurve},
	{Message: score.MappedControl, Number: 21, Control: score.ControlAddress{Name: "degrees", Track: 99}, From: -7, To: 7, Turns: score.TwosTurns, SendsTo: 3},
}
