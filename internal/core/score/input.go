package score

import (
	"fmt"
	"slices"
)

// InputKind is where what comes in comes from.
type InputKind string

// The kinds.
const (
	ScreenInput  InputKind = "screen"       // the keyboard on the screen, and the computer's keys
	PortInput    InputKind = "browserPort"  // a MIDI port of the browser in which the page is open
	DeviceInput  InputKind = "serverDevice" // a MIDI device of the machine on which the program runs
	ProgramInput InputKind = "osc"          // programs of this machine that speak OSC
)

// InputKinds lists the kinds.
func InputKinds() []InputKind { return []InputKind{ScreenInput, PortInput, DeviceInput, ProgramInput} }

// Input says what becomes of what comes in somewhere. Which port or device it is belongs to the machine: a project knows its inputs by
// name. The keyboard on the screen and programs are played in and press switches where the project has no input for them.
type Input struct {
	// ID stays with the input. From 1 up.
	ID   int       `json:"id" jsonschema:"minimum=1,maximum=255"`
	Name string    `json:"name" jsonschema:"minLength=1,maxLength=60"`
	Kind InputKind `json:"kind" jsonschema:"enum=screen,enum=browserPort,enum=serverDevice,enum=osc"`
	// Channel is the only MIDI channel of which notes and controllers count, 1 to 16; 0 is all.
	Channel int `json:"channel,omitempty" jsonschema:"minimum=0,maximum=16"`
	// PlaysIn has tracks hear its notes and controllers, and the track that is written be played by it. Switches has it press the
	// project's switches.
	PlaysIn  bool `json:"playsIn,omitempty"`
	Switches bool `json:"switches,omitempty"`
	// PassesTo are the tracks to whose outputs its notes go on at once.
	PassesTo []Passage `json:"passesTo,omitempty" jsonschema:"maxItems=32"`
	// Transposes says which tracks its notes transpose; nil is none.
	Transposes *Transposing `json:"transposes,omitempty"`
	// Holds is how notes that are passed on last longer than their keys are down.
	Holds Holding `json:"holds,omitempty" jsonschema:"enum=,enum=pedal,enum=latch"`
}

// Passage is a track to which notes of a channel go on.
type Passage struct {
	// Channel is the MIDI channel of the notes, 1 to 16; 0 is any.
	Channel int `json:"channel,omitempty" jsonschema:"minimum=0,maximum=16"`
	Track   int `json:"track" jsonschema:"minimum=1,maximum=255"`
}

// Transposing says how keys transpose tracks.
type Transposing struct {
	// Tracks are the ids of the tracks.
	Tracks []int `json:"tracks" jsonschema:"minItems=1,maxItems=32"`
	// Root is the key that transposes by nothing; one so many semitones above it transposes by as many, as far as tracks can be.
	Root int `json:"root" jsonschema:"minimum=0,maximum=127"`
	// Latches has a transposition stay after its key; else it holds while the key is down.
	Latches bool `json:"latches,omitempty"`
	// Lowest has the lowest of the keys that are down transpose, in place of the last.
	Lowest bool `json:"lowest,omitempty"`
}

// Holding is how notes last longer than their keys are down.
type Holding string

// The ways of holding: the pedal (CC 64) has notes last until it is up, latch until another key is struck after all were up.
const (
	NoHold    Holding = ""
	PedalHold Holding = "pedal"
	LatchHold Holding = "latch"
)

// ClockFrom is what another machine's clock is made of.
type ClockFrom string

// The kinds of pulses: MIDI clock, notes that are struck, or a controller that comes up from below 64.
const (
	MIDIClock    ClockFrom = "clock"
	NotePulse    ClockFrom = "note"
	ControlPulse ClockFrom = "control"
)

// ClockIn says which clock is followed. The zero value follows none: the project's own tempo holds.
type ClockIn struct {
	// Input is the id of the input at which the clock comes in; 0 is none.
	Input int       `json:"input,omitempty" jsonschema:"minimum=0,maximum=255"`
	From  ClockFrom `json:"from,omitempty" jsonschema:"enum=,enum=clock,enum=note,enum=control"`
	// Channel is the MIDI channel of notes or a controller that are pulses, 1 to 16, or 0 for any; Number that of the note or controller. So
	// many come a quarter note; of MIDI clock 24 do.
	Channel    int `json:"channel,omitempty" jsonschema:"minimum=0,maximum=16"`
	Number     int `json:"number,omitempty" jsonschema:"minimum=0,maximum=127"`
	PerQuarter int `json:"perQuarter,omitempty" jsonschema:"minimum=0,maximum=48"`
	// Offset is how much later than its pulses the beats are, in milliseconds; below 0 earlier.
	Offset int `json:"offset,omitempty" jsonschema:"minimum=-100,maximum=250"`
	// RunsOn has playing go on at the last tempo where the clock is lost; else it stops.
	RunsOn bool `json:"runsOn,omitempty"`
}

// Pulses returns how many pulses a quarter note has.
func (c ClockIn) Pulses() int {
	if c.From == NotePulse || c.From == ControlPulse {
		return max(1, c.PerQuarter)
	}
	return 24
}

// Input returns the input of the id, or nil if the project does not list it.
func (p *Project) Input(id int) *Input {
	for i := range p.Inputs {
		if p.Inputs[i].ID == id {
			return &p.Inputs[i]
		}
	}
	return nil
}

// InputOf returns what becomes of what comes in at the keyboard on the screen, or from programs.
func (p *Project) InputOf(kind InputKind) Input {
	for _, input := range p.Inputs {
		if input.Kind == kind {
			return input
		}
	}
	return Input{Kind: kind, PlaysIn: true, Switches: true}
}

func cloneInputs(inputs []Input) []Input {
	clone := slices.Clone(inputs)
	for i, input := range clone {
		clone[i].PassesTo = slices.Clone(input.PassesTo)
		if input.Transposes != nil {
			transposes := *input.Transposes
			transposes.Tracks = slices.Clone(transposes.Tracks)
			clone[i].Transposes = &transposes
		}
	}
	return clone
}

// validateInputs checks inputs and the clock beyond the bounds of their types. Tracks that are gone are left standing there, and do
// nothing.
func (p *Project) validateInputs() error {
	for i, input := range p.Inputs {
		at := fmt.Sprintf("inputs[%d]", i)
		if err := firstOf([]error{
			CheckName(at+".name", input.Name), checkListed(at+".kind", input.Kind, InputKinds()),
			checkListed(at+".holds", input.Holds, []Holding{NoHold, PedalHold, LatchHold}),
		}); err != nil {
			return err
		}
		for _, other := range p.Inputs[:i] {
			switch {
			case other.ID == input.ID:
				return &FieldError{at + ".id", input.ID, "different from every other input's"}
			case other.Name == input.Name:
				return &FieldError{at + ".name", input.Name, "different from every other input's"}
			case other.Kind == input.Kind && (input.Kind == ScreenInput || input.Kind == ProgramInput):
				return &FieldError{at + ".kind", string(input.Kind), "that of one input only"}
			}
		}
	}
	clock := p.ClockIn
	if clock.Input != 0 && p.Input(clock.Input) == nil {
		return &FieldError{"clockIn.input", clock.Input, "an input of the project, or 0: its clock is followed, so follow none first"}
	}
	return checkListed("clockIn.from", clock.From, []ClockFrom{"", MIDIClock, NotePulse, ControlPulse})
}
