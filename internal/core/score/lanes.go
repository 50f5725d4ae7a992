package score

import (
	"cmp"
	"fmt"
	"slices"
)

// LaneName names one of the lanes of a part.
type LaneName string

// The lanes of a part.
const (
	Gate        LaneName = "gate"
	Pitch       LaneName = "pitch"
	Octave      LaneName = "octave"
	Alteration  LaneName = "alteration"
	Velocity    LaneName = "velocity"
	Length      LaneName = "length"
	Ratchet     LaneName = "ratchet"
	Probability LaneName = "probability"
	Nudge       LaneName = "nudge"
	Swing       LaneName = "swing"
	Chord       LaneName = "chord"
	Slide       LaneName = "slide"
	Mod1        LaneName = "mod1"
	Mod2        LaneName = "mod2"
	Mod3        LaneName = "mod3"
	Mod4        LaneName = "mod4"
	Mod5        LaneName = "mod5"
	Mod6        LaneName = "mod6"
	Mod7        LaneName = "mod7"
	Mod8        LaneName = "mod8"
)

// Reading is how the values of a lane read.
type Reading string

// The readings.
const (
	AsNumber  Reading = "number"
	AsSigned  Reading = "signed" // with + or −
	AsPercent Reading = "percent"
	AsDegree  Reading = "degree"   // a degree of the key, and the note that it is
	AsLength  Reading = "duration" // see WholeStep
	AsWords   Reading = "words"    // a word for each value: LaneSpec.Words
)

// Marks is how the values of a lane are drawn.
type Marks string

// The kinds of marks.
const (
	GateMarks   Marks = "gates"   // bars as wide as the notes that sound
	PitchMarks  Marks = "heads"   // heads on the lines of degrees
	StemMarks   Marks = "stems"   // the higher, the taller
	LengthMarks Marks = "lengths" // bars as wide as their share of the step
	FogMarks    Marks = "fog"     // fog above what is certain
)

// LaneSpec tells what values a lane holds, and what a screen has to know to show it.
type LaneSpec struct {
	Name LaneName `json:"name"`
	// Label is what the lane is called on the screen.
	Label string `json:"label"`
	// Help says in a sentence what the lane is for.
	Help string `json:"help"`
	// Least and Most bound the values.
	Least int `json:"least"`
	Most  int `json:"most"`
	// Default is the value of a new step.
	Default int `json:"default"`
	// Reads is how values read; Words are the words for them, from Least on, if they read so.
	Reads Reading  `json:"reads" jsonschema:"enum=number,enum=signed,enum=percent,enum=degree,enum=duration,enum=words"`
	Words []string `json:"words,omitempty"`
	Marks Marks    `json:"marks" jsonschema:"enum=gates,enum=heads,enum=stems,enum=lengths,enum=fog"`
	// Leads says that the other lanes can sit on this one's steps: the gate lane.
	Leads bool `json:"leads"`
	// Scaled says that the lane has an amount.
	Scaled bool `json:"scaled"`
	// Pitched says that only tracks with pitches have the lane: parts of a kit play a note of their own.
	Pitched bool `json:"pitched"`
	// Rests says that a line of a table of weights can be a rest.
	Rests bool `json:"rests"`
	// Notes says that a step can have several notes, and allowed notes, of its own.
	Notes bool `json:"notes"`
	// Mod is the number of a lane that sends a controller, from 1; 0 is none.
	Mod int `json:"mod"`
	// Always says that every part has the lane; others come into being when they are edited.
	Always bool `json:"always"`
	// Movers are what can move the lane where it runs a loop of its own.
	Movers []Option `json:"movers"`
	// RollMost is the highest value of a roll of a lane that holds a single value so far, and RollDensity the share of
	// steps that it writes, in percent.
	RollMost    int `json:"rollMost"`
	RollDensity int `json:"rollDensity"`
	// movers are those of Movers, in the order in which to offer them; nil are all.
	movers []Mover
	// number stands for the lane in the address of a random number, so it never changes.
	number uint8
	// scale returns a value times an amount in percent, if it is the value that is scaled.
	scale func(value, amount int) float64
	// field returns where parts keep the lane.
	field func(*Lanes) **Lane
}

// Number stands for the lane in the address of a random number.
func (s LaneSpec) Number() uint8 { return s.number }

// laneSpecs is in the order in which lanes are shown.
var laneSpecs = []LaneSpec{
	{
		Name: Gate, number: 0, field: func(l *Lanes) **Lane { return &l.Gate },
		Help:  "Gate: which steps start a note. Click or drag to switch; Shift ties a step to the note before it.",
		Least: Off, Most: Tie, Reads: AsWords, Words: []string{"off", "on", "tie"}, Marks: GateMarks,
		Always: true, Leads: true, RollDensity: 50,
		movers: []Mover{ByClock}, // it moves the others
	},
	{
		Name: Pitch, number: 1, field: func(l *Lanes) **Lane { return &l.Pitch },
		Help: "Pitch: a degree of the key for each step, typed as a note (C2, Eb3) or as a number, of which 1 is the root. " +
			"Draw across it; Shift adds a note to a step or takes it away; pull the notes at its left, or turn the wheel, for other octaves.",
		Least: -28, Most: 28, Reads: AsDegree, Marks: PitchMarks, Always: true, Pitched: true, Rests: true, Notes: true, RollMost: 7,
	},
	{
		Name: Octave, number: 5, field: func(l *Lanes) **Lane { return &l.Octave },
		Help:  "Octave: octaves up or down.",
		Least: -4, Most: 4, Reads: AsSigned, Pitched: true,
	},
	{
		Name: Alteration, number: 10, field: func(l *Lanes) **Lane { return &l.Alteration },
		Help:  "Alteration: semitones out of the scale, 2 down to 2 up.",
		Least: -2, Most: 2, Reads: AsSigned, Pitched: true,
	},
	{
		Name: Chord, number: 8, field: func(l *Lanes) **Lane { return &l.Chord },
		Help:  "Chord: the chord that is built on the note, by its number in the list or by its name.",
		Least: 0, Most: len(chords) - 1, Reads: AsWords, Words: chordNames(), Pitched: true,
	},
	{
		Name: Velocity, number: 2, field: func(l *Lanes) **Lane { return &l.Velocity },
		Help:  "Velocity: how hard a note is played, 1 to 127.",
		Least: 1, Most: 127, Default: 96, Always: true, Scaled: true,
		scale: func(value, amount int) float64 { return float64(Rounded(value*amount, 100)) },
	},
	{
		Name: Length, number: 3, field: func(l *Lanes) **Lane { return &l.Length },
		Help:  "Length: how much of its step a note sounds, 1 to 100 %; above that, 2 to 64 steps.",
		Least: 1, Most: WholeStep + 63, Default: 60, Reads: AsLength, Marks: LengthMarks, Always: true, Scaled: true,
	},
	{
		Name: Ratchet, number: 6, field: func(l *Lanes) **Lane { return &l.Ratchet },
		Help:  "Ratchet: how many times a step is hit, 1 to 16.",
		Least: 1, Most: 16, Default: 1,
	},
	{
		Name: Probability, number: 4, field: func(l *Lanes) **Lane { return &l.Probability },
		Help:  "Probability: how often a step sounds. The fog is what is left to chance.",
		Least: 0, Most: 100, Default: 100, Reads: AsPercent, Marks: FogMarks, Always: true, Scaled: true,
		movers: []Mover{ByClock, ByStep}, // it decides before there is a hit
		scale:  func(value, amount int) float64 { return float64(value*amount) / 100 },
	},
	{
		Name: Nudge, number: 7, field: func(l *Lanes) **Lane { return &l.Nudge },
		Help:  "Nudge: how early or late a note comes, in percent of its step.",
		Least: -50, Most: 50, Reads: AsPercent,
	},
	{
		Name: Swing, number: 11, field: func(l *Lanes) **Lane { return &l.Swing },
		Help:  "Swing: how much of the swing in force a step takes, in percent; 100 is all of it.",
		Least: 0, Most: 200, Default: 100, Reads: AsPercent,
	},
	{
		Name: Slide, number: 9, field: func(l *Lanes) **Lane { return &l.Slide },
		Help:  "Slide: ties a step to the next note, with portamento.",
		Least: 0, Most: 1, Reads: AsWords, Words: []string{"none", "slide"},
	},
	mod(Mod1, 1, func(l *Lanes) **Lane { return &l.Mod1 }),
	mod(Mod2, 2, func(l *Lanes) **Lane { return &l.Mod2 }),
	mod(Mod3, 3, func(l *Lanes) **Lane { return &l.Mod3 }),
	mod(Mod4, 4, func(l *Lanes) **Lane { return &l.Mod4 }),
	mod(Mod5, 5, func(l *Lanes) **Lane { return &l.Mod5 }),
	mod(Mod6, 6, func(l *Lanes) **Lane { return &l.Mod6 }),
	mod(Mod7, 7, func(l *Lanes) **Lane { return &l.Mod7 }),
	mod(Mod8, 8, func(l *Lanes) **Lane { return &l.Mod8 }),
}

// mod returns the spec of a lane whose values are shares of the way from the least to the most of a Mod.
func mod(name LaneName, number int, field func(*Lanes) **Lane) LaneSpec {
	return LaneSpec{
		Name: name, Label: fmt.Sprintf("mod %d", number), number: uint8(15 + number), field: field, Mod: number, Most: 127,
		Help: "Mod: a controller, from the min (0) to the max (127) of its range. Where it goes is set under lane.",
	}
}

func init() {
	for i := range laneSpecs {
		spec := &laneSpecs[i]
		spec.Label = cmp.Or(spec.Label, string(spec.Name))
		spec.Reads, spec.Marks = cmp.Or(spec.Reads, AsNumber), cmp.Or(spec.Marks, StemMarks)
		spec.RollMost, spec.RollDensity = cmp.Or(spec.RollMost, spec.Most), cmp.Or(spec.RollDensity, 100)
		if spec.movers == nil {
			spec.movers = Movers()
		}
		for _, mover := range spec.movers {
			spec.Movers = append(spec.Movers, movers.option(mover))
		}
	}
}

// LaneSpecs lists the lanes in the order in which to show them.
func LaneSpecs() []LaneSpec { return slices.Clone(laneSpecs) }

// LaneNames lists the names of the lanes in the order in which to show them.
func LaneNames() []LaneName {
	names := make([]LaneName, len(laneSpecs))
	for i, spec := range laneSpecs {
		names[i] = spec.Name
	}
	return names
}

// Spec returns the spec of the lane, or the zero LaneSpec if there is no such lane.
func (n LaneName) Spec() LaneSpec {
	if at, found := laneIndex[n]; found {
		return laneSpecs[at]
	}
	return LaneSpec{}
}

// laneIndex is where each lane stands in laneSpecs.
var laneIndex = func() map[LaneName]int {
	index := map[LaneName]int{}
	for i, spec := range laneSpecs {
		index[spec.Name] = i
	}
	return index
}()

// InForce returns what each value of the lane, from Least up, is with an amount in percent, where values themselves are
// scaled: velocities are rounded, probabilities are not, and both keep within the bounds. It is nil where nothing changes.
func (s LaneSpec) InForce(amount int) []float64 {
	if s.scale == nil || amount == 100 {
		return nil
	}
	values := make([]float64, s.Most-s.Least+1)
	for i := range values {
		values[i] = min(float64(s.Most), max(float64(s.Least), s.scale(s.Least+i, amount)))
	}
	return values
}

// Movers lists those that can move the lane, in the order in which to offer them.
func (n LaneName) Movers() []Mover { return slices.Clone(n.Spec().movers) }

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
	if at, found := laneIndex[name]; found {
		return laneSpecs[at].field(l)
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
