package score

import "slices"

// Part is one voice of a track: its lanes, and what each gate step asks for beyond on and off.
type Part struct {
	// ID stays with the part, because its random numbers follow from it. It is different from those of the
	// other parts of the pattern; copies of the pattern keep it.
	ID   int    `json:"id" jsonschema:"minimum=0,maximum=255"`
	Name string `json:"name" jsonschema:"minLength=1,maxLength=60"`
	// Note is the MIDI note of a part of a kit; a melodic part plays its pitch lane.
	Note int `json:"note" jsonschema:"minimum=0,maximum=127"`
	// Mute silences the part; it decides all the same.
	Mute bool `json:"mute"`
	// Fill is how often an off step sounds while the project is filling, in percent.
	Fill int `json:"fill" jsonschema:"minimum=0,maximum=100"`
	// LengthUnit is the note value of which the length lane's values are shares and multiples; empty is the
	// step itself.
	LengthUnit NoteValue `json:"lengthUnit,omitempty"`
	// Durations, if there are any, are a table from which each step's duration is drawn instead of all
	// lasting the gate lane's rate.
	Durations []Duration `json:"durations,omitempty" jsonschema:"maxItems=32"`
	// Ratchet shapes the strikes of all ratchets.
	Ratchet RatchetShape `json:"ratchet"`
	// Voicing shapes all chords.
	Voicing Voicing `json:"voicing"`
	// Mods says where the lanes mod1 to mod8 go, in this order; those beyond the list go nowhere.
	Mods []Mod `json:"mods,omitempty" jsonschema:"maxItems=8"`
	// SlideTime is the portamento time that is sent for slides (CC 5).
	SlideTime int `json:"slideTime" jsonschema:"minimum=0,maximum=127"`
	// Held are the looped steps: those that the gate lane goes over in place of its loop.
	Held HeldSteps `json:"held,omitempty" jsonschema:"maxItems=64"`
	// Details holds what is special of gate steps, by step from 0.
	Details map[int]StepDetail `json:"details,omitempty"`
	// Field is the grid of the part of a field track.
	Field *Field `json:"field,omitempty"`
	Lanes Lanes  `json:"lanes"`
}

// RatchetShape says how the strikes of a ratchet follow each other.
type RatchetShape struct {
	// Spacing is how the strikes lie in the step.
	Spacing Spacing `json:"spacing" jsonschema:"enum=even,enum=gathering,enum=slackening"`
	// Ramp changes the velocity from the first strike to the last, in percent of the first.
	Ramp int `json:"ramp" jsonschema:"minimum=-100,maximum=100"`
	// Odds is how often each strike but the first sounds, in percent.
	Odds int `json:"odds" jsonschema:"minimum=0,maximum=100"`
}

// Spacing is how the strikes of a ratchet lie in their step.
type Spacing string

// The spacings: of r strikes the i-th, from 0, starts at this share of the step, with x = i/r.
const (
	Even       Spacing = "even"       // x
	Gathering  Spacing = "gathering"  // x·(2 - x): closer and closer
	Slackening Spacing = "slackening" // x²: wider and wider
)

// spacings is in the order in which to offer them.
var spacings = options[Spacing]{
	{Even, "even", "The hits of a ratchet are equally far apart."},
	{Gathering, "speeding up", "The hits of a ratchet come closer and closer."},
	{Slackening, "slowing down", "The hits of a ratchet come wider and wider apart."},
}

// Spacings lists the spacings in the order in which to offer them.
func Spacings() []Spacing { return spacings.values() }

// SpacingOptions lists the spacings as options.
func SpacingOptions() []Option { return spacings.list() }

// Clone returns a copy that shares nothing with p.
func (p *Part) Clone() Part {
	clone := *p
	clone.Mods, clone.Durations = slices.Clone(p.Mods), slices.Clone(p.Durations)
	clone.Held = slices.Clone(p.Held)
	clone.Field = p.Field.clone()
	if p.Details != nil {
		clone.Details = make(map[int]StepDetail, len(p.Details))
		for step, detail := range p.Details {
			clone.Details[step] = detail
		}
	}
	for _, spec := range laneSpecs {
		if p.Lanes.Has(spec.Name) {
			clone.Lanes.Set(spec.Name, p.Lanes.Lane(spec.Name).Clone())
		}
	}
	return clone
}

// usualSlideTime is the portamento time of a new part (CC 5), at which a slide is heard on most instruments.
const usualSlideTime = 40

// NewPart returns a part of the lanes that every part has, of sixteen steps that are off.
func NewPart(name string) Part {
	part := Part{Name: name, Note: 60, SlideTime: usualSlideTime, Ratchet: RatchetShape{Spacing: Even, Odds: 100}}
	for _, spec := range laneSpecs {
		if spec.Always {
			part.Lanes.Set(spec.Name, newLane(spec))
		}
	}
	return part
}
