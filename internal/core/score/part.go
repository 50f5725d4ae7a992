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
	// Held is the range of steps to which the gate lane is held while performing.
	Held Window `json:"held"`
	// Details holds what is special of gate steps, by step from 0.
	Details map[int]StepDetail `json:"details,omitempty"`
	Lanes   Lanes              `json:"lanes"`
}

// GateLane returns the gate lane of the part, with the loop to which it is held.
func (part *Part) GateLane() *Lane {
	gate := part.Lanes.Lane(Gate)
	if part.Held.Length == 0 {
		return gate
	}
	held := *gate
	held.First, held.Length = part.Held.First, part.Held.Length
	return &held
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

// Spacings lists the spacings in the order in which to offer them.
func Spacings() []Spacing { return []Spacing{Even, Gathering, Slackening} }

// Lanes are the lanes of a part. Those that were never edited are missing and hold default values.
type Lanes struct {
	Gate        *Lane `json:"gate,omitempty"`
	Pitch       *Lane `json:"pitch,omitempty"`
	Octave      *Lane `json:"octave,omitempty"`
	Alteration  *Lane `json:"alteration,omitempty"`
	Velocity    *Lane `json:"velocity,omitempty"`
	Length      *Lane `json:"length,omitempty"`
	Ratchet     *Lane `json:"ratchet,omitempty"`
	Probability *Lane `json:"probability,omitempty"`
	Nudge       *Lane `json:"nudge,omitempty"`
	Swing       *Lane `json:"swing,omitempty"`
	Chord       *Lane `json:"chord,omitempty"`
	Slide       *Lane `json:"slide,omitempty"`
	Mod1        *Lane `json:"mod1,omitempty"`
	Mod2        *Lane `json:"mod2,omitempty"`
	Mod3        *Lane `json:"mod3,omitempty"`
	Mod4        *Lane `json:"mod4,omitempty"`
	Mod5        *Lane `json:"mod5,omitempty"`
	Mod6        *Lane `json:"mod6,omitempty"`
	Mod7        *Lane `json:"mod7,omitempty"`
	Mod8        *Lane `json:"mod8,omitempty"`
}

// field returns where the lane is kept, or nil if there is no such lane.
func (l *Lanes) field(name LaneName) **Lane {
	switch name {
	case Gate:
		return &l.Gate
	case Pitch:
		return &l.Pitch
	case Octave:
		return &l.Octave
	case Alteration:
		return &l.Alteration
	case Velocity:
		return &l.Velocity
	case Length:
		return &l.Length
	case Ratchet:
		return &l.Ratchet
	case Probability:
		return &l.Probability
	case Nudge:
		return &l.Nudge
	case Swing:
		return &l.Swing
	case Chord:
		return &l.Chord
	case Slide:
		return &l.Slide
	case Mod1:
		return &l.Mod1
	case Mod2:
		return &l.Mod2
	case Mod3:
		return &l.Mod3
	case Mod4:
		return &l.Mod4
	case Mod5:
		return &l.Mod5
	case Mod6:
		return &l.Mod6
	case Mod7:
		return &l.Mod7
	case Mod8:
		return &l.Mod8
	}
	return nil
}

// defaults holds a lane of default values for each name; nobody changes them.
var defaults = func() map[LaneName]*Lane {
	lanes := map[LaneName]*Lane{}
	for _, spec := range laneSpecs {
		lanes[spec.Name] = newLane(spec)
	}
	return lanes
}()

// Has reports whether the part has a lane of that name of its own.
func (l *Lanes) Has(name LaneName) bool {
	field := l.field(name)
	return field != nil && *field != nil
}

// Lane returns the lane of that name; the caller must not change it. It is nil if there is no such
// lane.
func (l *Lanes) Lane(name LaneName) *Lane {
	field := l.field(name)
	if field == nil {
		return nil
	}
	if *field == nil {
		return defaults[name]
	}
	return *field
}

// Set puts a lane in its place.
func (l *Lanes) Set(name LaneName, lane *Lane) {
	*l.field(name) = lane
}

// Loop returns the lane whose loop decides where the named lane stands: the gate lane for a linked
// lane, else the lane itself.
func (l *Lanes) Loop(name LaneName) *Lane {
	lane := l.Lane(name)
	if lane.Linked {
		return l.Lane(Gate)
	}
	return lane
}

// Clone returns a copy that shares nothing with p.
func (p *Part) Clone() Part {
	clone := *p
	clone.Mods, clone.Durations = slices.Clone(p.Mods), slices.Clone(p.Durations)
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
