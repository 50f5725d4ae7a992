package score_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// By hand: an output of the same name takes the setup's settings and keeps its id, another one is added with a free id, tracks go by name,
// and one that the setup does not know stays as it is.
func TestASetupByHand(t *testing.T) {
	from := testkit.Buoy()
	from.Outputs = []score.Output{{ID: 1, Name: "Rack", Kind: score.ServerDevice, Gap: 3}, {ID: 2, Name: "Synth", Kind: score.BrowserPort}}
	low := score.WholeRoute(2)
	low.Octave = -1
	from.Tracks[0].Routes = &[]score.Route{score.WholeRoute(1), low, score.WholeRoute(score.BuiltIn)}
	into := testkit.Buoy()
	into.Outputs = []score.Output{{ID: 2, Name: "Rack", Kind: score.BrowserPort, Offset: 9}, {ID: 1, Name: "Mine", Kind: score.BrowserPort}}
	into = apply(t, into, score.AddTrack{At: 0, Kind: score.Melodic})
	loaded := apply(t, into, from.Setup().EditFor(into))
	require.Equal(t, []score.Output{
		{ID: 2, Name: "Rack", Kind: score.ServerDevice, Gap: 3}, {ID: 1, Name: "Mine", Kind: score.BrowserPort}, {ID: 3, Name: "Synth", Kind: score.BrowserPort},
	}, loaded.Outputs)
	low.Output = 3
	require.Equal(t, []score.Route{score.WholeRoute(2), low, score.WholeRoute(score.BuiltIn)}, loaded.Tracks[1].RouteList())
	require.Equal(t, into.Tracks[0], loaded.Tracks[0])

	many := testkit.Buoy()
	for id := range 16 {
		many.Outputs = append(many.Outputs, score.Output{ID: id + 1, Name: string(rune('A' + id)), Kind: score.BrowserPort})
	}
	_, _, err := score.Apply(many, from.Setup().EditFor(many))
	require.ErrorContains(t, err, "outputs")
}

// A setup that was kept and loaded where it comes from changes nothing; loaded into any other project it leaves a valid one, and undo
// brings back what was.
func TestASetupIsLoadedAnywhere(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		from, into := testkit.Project(t), testkit.Project(t)
		data, err := json.Marshal(from.Setup())
		require.NoError(t, err)
		var setup score.Setup
		require.NoError(t, json.Unmarshal(data, &setup))
		same, _, err := score.Apply(from, setup.EditFor(from))
		require.NoError(t, err)
		names := map[string]bool{}
		for i := range from.Tracks {
			if !names[from.Tracks[i].Name] {
				require.Equal(t, from.Tracks[i].RouteList(), same.Tracks[i].RouteList())
			}
			names[from.Tracks[i].Name] = true
		}
		loaded, inverse, err := score.Apply(into, setup.EditFor(into))
		require.NoError(t, err)
		require.NoError(t, loaded.Validate())
		back, _, err := score.Apply(loaded, inverse)
		require.NoError(t, err)
		for i := range into.Tracks {
			require.Equal(t, into.Tracks[i].RouteList(), back.Tracks[i].RouteList())
		}
		require.Equal(t, len(into.Outputs), len(back.Outputs))
	})
}

// By hand: an input of the same name takes the setup's rules and keeps its id, of the keyboard on the screen there is one whatever it is called, and
// the setup's clock is followed; tracks go by name, and those that the project does not have are left out.
func TestInputsOfASetup(t *testing.T) {
	from := testkit.Buoy()
	from.Inputs = []score.Input{
		{ID: 1, Name: "Winch", Kind: score.DeviceInput, PassesTo: []score.Passage{{Channel: 2, Track: 1}, {Track: 7}}},
		{ID: 2, Name: "Screen", Kind: score.ScreenInput, Transposes: &score.Transposing{Tracks: []int{1, 7}, Root: 60}},
		{ID: 4, Name: "Pads", Kind: score.PortInput, Transposes: &score.Transposing{Tracks: []int{7}, Root: 60}, Holds: score.LatchHold},
	}
	from.ClockIn = score.ClockIn{Input: 4, From: score.NotePulse, PerQuarter: 2}
	into := apply(t, testkit.Buoy(), score.AddTrack{At: 0, Kind: score.Melodic})
	into.Inputs = []score.Input{{ID: 2, Name: "Winch", Kind: score.PortInput, PlaysIn: true}, {ID: 1, Name: "Keys here", Kind: score.ScreenInput, PlaysIn: true}}
	into.ClockIn = score.ClockIn{Input: 2}
	loaded := apply(t, into, from.Setup().EditFor(into))
	buoy := into.Tracks[1].ID
	require.Equal(t, []score.Input{
		{ID: 2, Name: "Winch", Kind: score.DeviceInput, PassesTo: []score.Passage{{Channel: 2, Track: buoy}}},
		{ID: 1, Name: "Screen", Kind: score.ScreenInput, Transposes: &score.Transposing{Tracks: []int{buoy}, Root: 60}},
		{ID: 3, Name: "Pads", Kind: score.PortInput, Holds: score.LatchHold},
	}, loaded.Inputs)
	require.Equal(t, score.ClockIn{Input: 3, From: score.NotePulse, PerQuarter: 2}, loaded.ClockIn)

	from.ClockIn = score.ClockIn{}
	require.Equal(t, 2, apply(t, into, from.Setup().EditFor(into)).ClockIn.Input, "a setup that follows none leaves the project's")
}

func TestWhichInputsAreRefused(t *testing.T) {
	screen := score.Input{ID: 1, Name: "Screen", Kind: score.ScreenInput}
	for want, change := range map[string]func(*score.Project){
		"inputs[1].id": func(p *score.Project) { p.Inputs = []score.Input{screen, {ID: 1, Name: "Keys", Kind: score.PortInput}} },
		"inputs[1].name": func(p *score.Project) {
			p.Inputs = []score.Input{screen, {ID: 2, Name: "Screen", Kind: score.PortInput}}
		},
		"inputs[1].kind": func(p *score.Project) {
			p.Inputs = []score.Input{screen, {ID: 2, Name: "Other", Kind: score.ScreenInput}}
		},
		"inputs[0].holds": func(p *score.Project) {
			p.Inputs = []score.Input{{ID: 1, Name: "Keys", Kind: score.PortInput, Holds: "tide"}}
		},
		"inputs[0].channel": func(p *score.Project) {
			p.Inputs = []score.Input{{ID: 1, Name: "Keys", Kind: score.PortInput, Channel: 17}}
		},
		"clockIn.input is 3": func(p *score.Project) { p.ClockIn.Input = 3 },
		"clockIn.from": func(p *score.Project) {
			p.Inputs, p.ClockIn = []score.Input{screen}, score.ClockIn{Input: 1, From: "tide"}
		},
		"clockIn.perQuarter": func(p *score.Project) {
			p.Inputs, p.ClockIn = []score.Input{screen}, score.ClockIn{Input: 1, PerQuarter: 49}
		},
		"switches[0].key": func(p *score.Project) {
			p.Switches = []score.Switch{{Message: score.KeySwitch, Control: score.ControlAddress{Name: "fill"}, When: "now"}}
		},
		"switches[0].press": func(p *score.Project) {
			p.Switches = []score.Switch{{Message: score.NoteSwitch, Press: "thrice", Control: score.ControlAddress{Name: "fill"}, When: "now"}}
		},
		"switches[0].way": func(p *score.Project) {
			p.Switches = []score.Switch{{Message: score.NoteSwitch, Way: "slowly", Control: score.ControlAddress{Name: "fill"}, When: "now"}}
		},
		"switches[0].do": func(p *score.Project) {
			p.Switches = []score.Switch{{Message: score.NoteSwitch, Do: "dance", Control: score.ControlAddress{Name: "fill"}, When: "now"}}
		},
	} {
		p := testkit.Buoy()
		change(p)
		require.ErrorContains(t, p.Validate(), want)
	}
}

// Faders of a setup go by the names of tracks and outputs; those that the project has already are not doubled.
func TestFadersOfASetup(t *testing.T) {
	from := testkit.Buoy()
	from.Outputs = []score.Output{{ID: 7, Name: "Lights", Kind: score.BrowserPort}}
	fader := func(track, output int) score.Mapping {
		return score.Mapping{Message: score.MappedControl, Number: 20, Control: score.ControlAddress{Name: "probability", Track: track}, To: 100, SendsTo: output}
	}
	from.Mappings = []score.Mapping{fader(1, 7), fader(0, 0), fader(99, 0)}
	into := testkit.Buoy()
	into.Tracks[0].ID = 5
	into.Mappings = []score.Mapping{fader(0, 0)}
	loaded := apply(t, into, from.Setup().EditFor(into))
	require.Equal(t, []score.Mapping{fader(0, 0), fader(5, loaded.Outputs[0].ID)}, loaded.Mappings)
}
