package score

import (
	"fmt"
	"slices"
)

// BuiltIn is the id of the built-in sound, an output that every project has besides those that it lists.
const BuiltIn = 0

// OutputKind is what plays what goes to an output.
type OutputKind string

// The kinds.
const (
	BrowserPort  OutputKind = "browserPort"  // a MIDI port of the browser in which the page is open
	ServerDevice OutputKind = "serverDevice" // a MIDI device of the machine on which the program runs
	OSC          OutputKind = "osc"          // a program that understands OSC, at an address
)

// OutputKinds lists the kinds.
func OutputKinds() []OutputKind { return []OutputKind{BrowserPort, ServerDevice, Voltages, OSC} }

// Output is where tracks can go. Which device it is belongs to the machine: a project knows its outputs by name.
type Output struct {
	// ID stays with the output. From 1 up.
	ID   int        `json:"id" jsonschema:"minimum=1,maximum=255"`
	Name string     `json:"name" jsonschema:"minLength=1,maxLength=60"`
	Kind OutputKind `json:"kind" jsonschema:"enum=browserPort,enum=serverDevice,enum=voltages,enum=osc"`
	// Offset is how much later than its time everything is sent, in milliseconds; below 0 earlier, for an instrument that is slow.
	Offset int `json:"offset,omitempty" jsonschema:"minimum=-100,maximum=250"`
	// StandIn has the built-in sound play what goes here while no device does; else it is silent then.
	StandIn bool `json:"standIn,omitempty"`
	// VelocityZero ends notes by a note-on of velocity 0 instead of a note-off.
	VelocityZero bool `json:"velocityZero,omitempty"`
	// Gap is how long a key is up before it is struck again, in milliseconds, taken from the end of the note before.
	Gap int `json:"gap,omitempty" jsonschema:"minimum=0,maximum=10"`
	// ControllerRate is how many values of one controller, or pressures of one channel, go out in a second at most: of those that come
	// faster the last one counts. 0 lets all out. Switches, pedals, portamento and parameters are not held back.
	ControllerRate int `json:"controllerRate,omitempty" jsonschema:"minimum=0,maximum=1000"`
	// ActiveSensing says every 0.27 s that the output is there (MIDI 1.0: at least every 0.3 s), so that an instrument that
	// misses it ends its notes.
	ActiveSensing bool `json:"activeSensing,omitempty"`
	// Paced lets bytes out no faster than a MIDI cable takes them, 31,250 bits a second. Only server devices are.
	Paced bool `json:"paced,omitempty"`
	// RunningStatus leaves the status byte out where it is that of the message before (MIDI 1.0). Only server devices do.
	RunningStatus bool `json:"runningStatus,omitempty"`
	// Clock has the output give a clock; only ports and devices do.
	Clock *ClockOut `json:"clock,omitempty"`
	// TagLead is how long before its time a bundle of OSC leaves, in milliseconds, for a program that keeps to time tags; else it leaves at
	// its time.
	TagLead int `json:"tagLead,omitempty" jsonschema:"minimum=0,maximum=250"`
	// Voltages says what the channels of an output of voltages carry; others have none.
	Voltages *VoltageSetup `json:"voltages,omitempty"`
}

// Route says that a track goes to an output, which of its notes do, and on which channel.
type Route struct {
	// Output is the id of an output of the project, or BuiltIn.
	Output int `json:"output" jsonschema:"minimum=0,maximum=255"`
	// Channel is the MIDI channel there, 1 to 16; 0 is the track's own. A track that bends its notes, each on a channel of its own,
	// keeps to its own channels everywhere.
	Channel int `json:"channel,omitempty" jsonschema:"minimum=0,maximum=16"`
	// Voices is on how many channels the notes go, from Channel up: each note on the one that has been free the longest, and if none is
	// on the one that was struck first, as for instruments of one voice that play together. 0 and 1 are one channel; beyond 16
	// there are none. A track that bends its notes has one channel a note already.
	Voices int `json:"voices,omitempty" jsonschema:"minimum=0,maximum=16"`
	// OnlyPart has only the notes of one part of a kit go, or of one traveller of a field, of the id Part. One that has routes of its own goes by none of
	// its track's.
	OnlyPart bool `json:"onlyPart,omitempty"`
	Part     int  `json:"part,omitempty" jsonschema:"minimum=0,maximum=255"`
	// Octave moves the notes by octaves; what comes to lie outside of MIDI's keys is left out.
	Octave int `json:"octave,omitempty" jsonschema:"minimum=-4,maximum=4"`
	// Of the track's notes those go whose keys and velocities are in these ranges.
	Lowest  int `json:"lowest" jsonschema:"minimum=0,maximum=127"`
	Highest int `json:"highest" jsonschema:"minimum=0,maximum=127"`
	Softest int `json:"softest" jsonschema:"minimum=1,maximum=127"`
	Loudest int `json:"loudest" jsonschema:"minimum=1,maximum=127"`
	// Curve is how velocities v become others, in percent: v + Curve × v × (127 − v) / 12700, to the nearest, at least 1. Above 0 soft notes
	// are louder, below 0 softer; 127 stays, and so does the order of velocities.
	Curve int `json:"curve,omitempty" jsonschema:"minimum=-100,maximum=100"`
	// Program is selected before anything is played here, from 1, in the place of the track's programs; 0 leaves those. Bank, from 1, is
	// selected before it; 0 selects none.
	Program int `json:"program,omitempty" jsonschema:"minimum=0,maximum=128"`
	Bank    int `json:"bank,omitempty" jsonschema:"minimum=0,maximum=16384"`
	// Lead is how long before they are due programs are sent, in milliseconds, for an instrument that takes time to load them. Playing
	// begins later by the longest lead of all routes that have a program; a program of a mod lane is sent early in the rest before it, as
	// far as that is foreseen: nothing of the track sounds, and the song does not go on elsewhere in between.
	Lead int `json:"lead,omitempty" jsonschema:"minimum=0,maximum=2000"`
	// Patch is by which patch the built-in sound plays a melodic track; without one it is a bell. A kit is a kit there.
	Patch Patch `json:"patch,omitempty" jsonschema:"enum=,enum=bell,enum=pluck,enum=bass,enum=pad,enum=lead,enum=organ"`
}

// Patch is one of the sounds of the built-in sound.
type Patch string

// patches are in the order in which to offer them.
var patches = options[Patch]{
	{"bell", "bell", "A struck bell, which rings on quietly while the key is down."},
	{"pluck", "pluck", "A plucked string."},
	{"bass", "bass", "A bass that begins bright and closes at once."},
	{"pad", "pad", "Slow and wide: it swells while the key is down."},
	{"lead", "lead", "A narrow pulse, which wavers when it is held."},
	{"organ", "organ", "Sounds as long as the key is down."},
}

// PatchOptions lists the patches as options.
func PatchOptions() []Option { return patches.list() }

// ChannelOf returns the MIDI channel, 1 to 16, on which the route takes a track.
func (r Route) ChannelOf(t *Track) int {
	if r.Channel == 0 || t.Tuned != nil && t.Tuned.By == BendTuned {
		return t.Channel
	}
	return r.Channel
}

// Channels returns the first MIDI channel, 1 to 16, on which the route takes a track, and on how many its notes go.
func (r Route) Channels(t *Track) (first, count int) {
	first, count = r.ChannelOf(t), 1
	if t.Tuned == nil || t.Tuned.By != BendTuned {
		count = max(1, min(r.Voices, lastChannel+1-first))
	}
	return first, count
}

const lastChannel = 16

// WholeRoute returns a route by which all of a track goes to an output as it is.
func WholeRoute(output int) Route {
	return Route{Output: output, Highest: 127, Softest: 1, Loudest: 127}
}

// RouteList returns the track's routes. A track that says nothing of them goes to the built-in sound.
func (t *Track) RouteList() []Route {
	if t.Routes == nil {
		return []Route{WholeRoute(BuiltIn)}
	}
	return *t.Routes
}

// Output returns the output of the id, or nil if the project does not list it, as it does not list the built-in sound.
func (p *Project) Output(id int) *Output {
	for i := range p.Outputs {
		if p.Outputs[i].ID == id {
			return &p.Outputs[i]
		}
	}
	return nil
}

// swapRoutes is swap for routes, of which a track that only goes to the built-in sound keeps none.
func swapRoutes(field **[]Route, value *[]Route) *[]Route {
	if value == nil {
		return nil
	}
	before := (&Track{Routes: *field}).RouteList()
	routes := append([]Route{}, *value...)
	*field = &routes
	if slices.Equal(routes, []Route{WholeRoute(BuiltIn)}) {
		*field = nil
	}
	return &before
}

// keepKnownRoutes drops a track's routes to outputs that the project does not have, as of a track of another project. If none is
// left of them it goes to the built-in sound.
func (p *Project) keepKnownRoutes(t *Track) {
	if t.Routes == nil {
		return
	}
	known := []Route{}
	for _, route := range *t.Routes {
		if route.Output == BuiltIn || p.Output(route.Output) != nil {
			known = append(known, route)
		}
	}
	switch {
	case len(known) == len(*t.Routes):
	case len(known) == 0:
		t.Routes = nil
	default:
		t.Routes = &known
	}
}

// validateOutputs checks outputs and what tracks say of them, beyond the bounds of their types.
func (p *Project) validateOutputs() error {
	for i, output := range p.Outputs {
		at := fmt.Sprintf("outputs[%d]", i)
		if err := firstOf([]error{CheckName(at+".name", output.Name), checkListed(at+".kind", output.Kind, OutputKinds())}); err != nil {
			return err
		}
		if (output.Voltages != nil) != (output.Kind == Voltages) {
			return &FieldError{at + ".voltages", output.Voltages != nil, "given for an output of voltages, and left out for all others"}
		}
		if output.Clock != nil && output.Kind != BrowserPort && output.Kind != ServerDevice {
			return &FieldError{at + ".clock", true, "left out: only MIDI ports and devices have one; voltages have a channel for it"}
		}
		if output.Voltages != nil {
			if err := output.Voltages.validate(at + ".voltages"); err != nil {
				return err
			}
		}
		for _, other := range p.Outputs[:i] {
			if other.ID == output.ID {
				return &FieldError{at + ".id", output.ID, "different from every other output's"}
			}
			if other.Name == output.Name {
				return &FieldError{at + ".name", output.Name, "different from every other output's"}
			}
		}
	}
	for i := range p.Tracks {
		if p.Tracks[i].Routes == nil {
			continue
		}
		for j, route := range *p.Tracks[i].Routes {
			at := fmt.Sprintf("tracks[%d].routes[%d]", i, j)
			if route.Output != BuiltIn && p.Output(route.Output) == nil {
				return &FieldError{at + ".output", route.Output, fmt.Sprintf("an output of the project: “%s” goes there, so take its route away first", p.Tracks[i].Name)}
			}
			if route.OnlyPart && p.Tracks[i].Kind == Melodic {
				return &FieldError{at + ".onlyPart", true, "left out: only kits have parts, and fields travellers, that go elsewhere"}
			}
			if route.Patch != "" && route.Output != BuiltIn {
				return &FieldError{at + ".patch", string(route.Patch), "left out: only the built-in sound has patches"}
			}
			if route.Patch != "" {
				if err := checkListed(at+".patch", route.Patch, patches.values()); err != nil {
					return err
				}
			}
			if err := firstOf([]error{
				checkRange(at+".highest", route.Highest, route.Lowest, 127), checkRange(at+".loudest", route.Loudest, route.Softest, 127),
			}); err != nil {
				return err
			}
		}
	}
	return nil
}
