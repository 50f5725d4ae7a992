package score

// withMovers gives the demo three macros at rest and two modulators, which the macro Weather brings in.
func withMovers(p *Project) *Project {
	bell, bass := ControlAddress{Name: "probability", Track: 1}, ControlAddress{Name: "probability", Track: 2}
	amount := func(track int, lane LaneName) ControlAddress {
		return ControlAddress{Name: "amount", Track: track, Pattern: p.Track(track).Playing, Part: p.Track(track).Parts()[0].ID, Lane: lane}
	}
	p.Macros = []Macro{
		{ID: 1, Name: "Fog", Moves: []MacroMove{
			{Control: bell, By: -70}, {Control: bass, By: -40, Curve: SlowStart}, {Control: amount(1, Velocity), By: -60},
		}},
		{ID: 2, Name: "Tide", Position: 500, Rest: 500, Moves: []MacroMove{
			{Control: ControlAddress{Name: "degrees", Track: 1}, By: 14}, {Control: ControlAddress{Name: "semitones", Track: 2}, By: 24},
		}},
		{ID: 3, Name: "Weather", Moves: []MacroMove{
			{Control: ControlAddress{Name: "modulation", ID: 1}, By: 100}, {Control: ControlAddress{Name: "modulation", ID: 2}, By: 100, Curve: SlowStart},
			{Control: ControlAddress{Name: "jitter", Track: 3}, By: 12, Curve: SlowStart},
		}},
	}
	p.Modulators = []Modulator{
		{ID: 1, Name: "Swell", Shape: SineShape, Times: 4, Value: "1/1", Moves: []ModulatorMove{{Control: amount(1, Velocity), Depth: 500}}},
		{ID: 2, Name: "Gusts", Shape: RandomShape, Times: 1, Value: "1/2", Between: SmoothBetween, Moves: []ModulatorMove{
			{Control: bell, Depth: 400}, {Control: ControlAddress{Name: "degrees", Track: 2}, Depth: 200},
		}},
	}
	return p
}
