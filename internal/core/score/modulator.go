package score

import (
	"fmt"
	"slices"
)

// Bounds of modulators.
const (
	MaxModulators = 16
	// MaxTrackSends is how many messages of modulators a track sends at most.
	MaxTrackSends = 7
	// FullDepth has a modulator move a control over all its range.
	FullDepth = 1000
)

// Modulator moves controls by itself: along a shape in time, or with what happens. It goes from −1 to 1, or where something drives it from 0 to
// 1. Each control gets depth × wave × half its range added to what stands.
type Modulator struct {
	// ID stays with the modulator. From 1 up.
	ID    int       `json:"id" jsonschema:"minimum=1,maximum=255"`
	Name  string    `json:"name" jsonschema:"minLength=1,maxLength=60"`
	Shape WaveShape `json:"shape" jsonschema:"enum=sine,enum=triangle,enum=ramp,enum=pulse,enum=random,enum=drawn,enum=copy,enum=notes,enum=velocity,enum=pitch,enum=mod,enum=control"`
	// Amount scales all its depths, in percent.
	Amount int `json:"amount" jsonschema:"minimum=0,maximum=100"`

	// A pass lasts Times × Value, or with Hertz, in thousandths, a second divided by it.
	Value NoteValue `json:"value,omitempty"`
	Times int       `json:"times,omitempty" jsonschema:"minimum=0,maximum=256"`
	Hertz int       `json:"hertz,omitempty" jsonschema:"minimum=0,maximum=20000"`
	// Phase is how far along its pass it begins, in thousandths.
	Phase int `json:"phase,omitempty" jsonschema:"minimum=0,maximum=999"`
	// Symmetry moves the middle of a pass from its half, in percent of a pass: of a pulse that is how long it is high.
	Symmetry int `json:"symmetry,omitempty" jsonschema:"minimum=-49,maximum=49"`
	// Skew bends its levels: above 0 it stays high for longer, below 0 low.
	Skew int `json:"skew,omitempty" jsonschema:"minimum=-100,maximum=100"`
	// FadeIn is how many bars it takes until it moves by all of its depth.
	FadeIn int `json:"fadeIn,omitempty" jsonschema:"minimum=0,maximum=64"`
	// Once has it go along one pass and stay at its end.
	Once bool `json:"once,omitempty"`
	// Restart begins it anew every so many bars, RestartSections with each section of the song. What is random goes on with new numbers.
	Restart         int  `json:"restart,omitempty" jsonschema:"minimum=0,maximum=4096"`
	RestartSections bool `json:"restartSections,omitempty"`
	// Points are the levels of a drawn shape, in percent, evenly over a pass.
	Points []int `json:"points,omitempty" jsonschema:"maxItems=64"`
	// Between is how a drawn or a random shape goes from one level to the next.
	Between Interpolation `json:"between,omitempty" jsonschema:"enum=,enum=line,enum=smooth"`

	// Copies is the id of the modulator whose curve a copy follows, with its own Stretch, which scales how long a pass lasts, Phase, Between and Amount.
	Copies  int    `json:"copies,omitempty" jsonschema:"minimum=0,maximum=255"`
	Stretch *Ratio `json:"stretch,omitempty"`

	// Track is the one that drives it; Mod which of its mod lanes.
	Track int `json:"track,omitempty" jsonschema:"minimum=0,maximum=255"`
	Mod   int `json:"mod,omitempty" jsonschema:"minimum=0,maximum=8"`
	// Attack and Release are how long an envelope by notes rises and falls, in milliseconds.
	Attack  int `json:"attack,omitempty" jsonschema:"minimum=0,maximum=10000"`
	Release int `json:"release,omitempty" jsonschema:"minimum=0,maximum=10000"`
	// Channel, 1 to 16 or 0 for all, and Controller are what drives it of what comes in.
	Channel    int `json:"channel,omitempty" jsonschema:"minimum=0,maximum=16"`
	Controller int `json:"controller,omitempty" jsonschema:"minimum=0,maximum=119"`

	// Moves are the controls that it moves, Sends the messages by which tracks send its curve.
	Moves []ModulatorMove `json:"moves" jsonschema:"maxItems=32"`
	Sends []ModulatorSend `json:"sends,omitempty" jsonschema:"maxItems=8"`
}

// ModulatorMove is a control that a modulator moves. One that is gone stays named, and is moved again once it is back.
type ModulatorMove struct {
	Control ControlAddress `json:"control"`
	// Depth is the share of the control's range, in thousandths; below 0 it moves the other way around.
	Depth int `json:"depth" jsonschema:"minimum=-1000,maximum=1000"`
}

// ModulatorSend is a message that a track sends as the curve goes.
type ModulatorSend struct {
	Track int `json:"track" jsonschema:"minimum=1,maximum=255"`
	// Mod says what is sent: its Least for −1, of what is driven for 0, and its Most for 1. Glide counts for nothing.
	Mod
}

// WaveShape is how a modulator goes.
type WaveShape string

// The shapes. Free ones follow from the time alone, a random one also from the luck; the others from what drives them: when notes of a
// track sound, the velocity or the pitch of its last note, one of its mod lanes, a controller that comes in.
const (
	SineShape     WaveShape = "sine"
	TriangleShape WaveShape = "triangle"
	RampShape     WaveShape = "ramp"
	PulseShape    WaveShape = "pulse"
	RandomShape   WaveShape = "random"
	DrawnShape    WaveShape = "drawn"
	CopyShape     WaveShape = "copy"
	NotesShape    WaveShape = "notes"
	VelocityShape WaveShape = "velocity"
	PitchShape    WaveShape = "pitch"
	ModShape      WaveShape = "mod"
	ControlShape  WaveShape = "control"
)

// WaveShapeSpec tells what a shape is.
type WaveShapeSpec struct {
	Name  WaveShape `json:"name"`
	Label string    `json:"label"`
	Help  string    `json:"help"`
	// Free says that it goes by itself, in time, Leveled that it goes from level to level, ByTrack that a track drives it, and ByMod that it is a
	// mod lane of it.
	Free    bool `json:"free,omitempty"`
	Leveled bool `json:"leveled,omitempty"`
	ByTrack bool `json:"byTrack,omitempty"`
	ByMod   bool `json:"byMod,omitempty"`
}

// waveShapes is in the order in which to offer them.
var waveShapes = []WaveShapeSpec{
	{Name: SineShape, Label: "sine", Help: "Up, down, and back, softly.", Free: true},
	{Name: TriangleShape, Label: "triangle", Help: "Up, down, and back, in lines.", Free: true},
	{Name: RampShape, Label: "ramp", Help: "From the bottom to the top, and again.", Free: true},
	{Name: PulseShape, Label: "pulse", Help: "High, then low.", Free: true},
	{Name: RandomShape, Label: "random", Help: "A level for each pass, by the luck.", Free: true, Leveled: true},
	{Name: DrawnShape, Label: "drawn", Help: "Levels that you write.", Free: true, Leveled: true},
	{Name: CopyShape, Label: "as another", Help: "The curve of another modulator, in its own time.", Leveled: true},
	{Name: NotesShape, Label: "by notes", Help: "Up while notes of a track sound.", ByTrack: true},
	{Name: VelocityShape, Label: "by velocity", Help: "As loud as the last note of a track.", ByTrack: true},
	{Name: PitchShape, Label: "by pitch", Help: "As high as the last note of a track, within its register.", ByTrack: true},
	{Name: ModShape, Label: "by a mod lane", Help: "As a mod lane of a track.", ByTrack: true, ByMod: true},
	{Name: ControlShape, Label: "by CC", Help: "As a controller that comes in."},
}

// WaveShapeSpecs lists what the shapes are, in the order in which to offer them.
func WaveShapeSpecs() []WaveShapeSpec { return slices.Clone(waveShapes) }

// WaveShapes lists the shapes in that order.
func WaveShapes() (names []WaveShape) {
	for _, spec := range waveShapes {
		names = append(names, spec.Name)
	}
	return names
}

// DrivenByTrack reports whether a track drives a modulator of the shape, Driven whether anything does.
func (s WaveShape) DrivenByTrack() bool {
	return s == NotesShape || s == VelocityShape || s == PitchShape || s == ModShape
}

// Driven reports whether something drives a modulator of the shape.
func (s WaveShape) Driven() bool { return s.DrivenByTrack() || s == ControlShape }

// Interpolation is how a modulator goes from level to level.
type Interpolation string

// The ways: at once; in a straight line; slow at both ends.
const (
	StepsBetween  Interpolation = ""
	LineBetween   Interpolation = "line"
	SmoothBetween Interpolation = "smooth"
)

// Modulator returns the modulator of the id, or nil.
func (p *Project) Modulator(id int) *Modulator {
	for i := range p.Modulators {
		if p.Modulators[i].ID == id {
			return &p.Modulators[i]
		}
	}
	return nil
}

// SendsOf lists what a track sends of curves, in the order of the modulators.
func (p *Project) SendsOf(track int) (sends []Mod) {
	for i := range p.Modulators {
		for _, send := range p.Modulators[i].Sends {
			if send.Track == track && len(sends) < MaxTrackSends {
				sends = append(sends, send.Mod)
			}
		}
	}
	return sends
}

// bendsByCurve reports whether the curve of a modulator is sent as a track's pitch bend.
func (p *Project) bendsByCurve(t *Track) bool {
	return slices.ContainsFunc(p.SendsOf(t.ID), func(m Mod) bool { return m.Target == BendTarget })
}

// Original returns the modulator whose curve one follows: itself, unless it is a copy; nil if that is gone.
func (p *Project) Original(m *Modulator) *Modulator {
	for range MaxModulators {
		if m == nil || m.Shape != CopyShape {
			return m
		}
		m = p.Modulator(m.Copies)
	}
	return nil
}

func cloneModulators(modulators []Modulator) []Modulator {
	clone := slices.Clone(modulators)
	for i := range clone {
		if clone[i].Stretch != nil {
			stretch := *clone[i].Stretch
			clone[i].Stretch = &stretch
		}
		clone[i].Points, clone[i].Moves, clone[i].Sends = slices.Clone(clone[i].Points), slices.Clone(clone[i].Moves), slices.Clone(clone[i].Sends)
	}
	return clone
}

func (p *Project) validateModulators() error {
	for i := range p.Modulators {
		m, at := &p.Modulators[i], fmt.Sprintf("modulators[%d]", i)
		if err := m.validate(at); err != nil {
			return err
		}
		for _, other := range p.Modulators[:i] {
			switch {
			case other.ID == m.ID:
				return &FieldError{at + ".id", m.ID, "different from every other modulator's"}
			case other.Name == m.Name:
				return &FieldError{at + ".name", m.Name, "different from every other modulator's"}
			}
		}
	}
	for i := range p.Tracks {
		sends := 0
		for k := range p.Modulators {
			for _, send := range p.Modulators[k].Sends {
				if send.Track == p.Tracks[i].ID {
					sends++
				}
			}
		}
		if t := &p.Tracks[i]; t.Tuned != nil && t.Tuned.By == BendTuned && p.bendsByCurve(t) {
			return &FieldError{fmt.Sprintf("tracks[%d].tuned.by", i), string(BendTuned), "another way, because the curve of a modulator bends the track already"}
		}
		if err := checkRange("the number of curves that "+p.Tracks[i].Name+" sends", sends, 0, MaxTrackSends); err != nil {
			return err
		}
	}
	return p.validateGraph()
}

func (m *Modulator) validate(at string) error {
	free := !m.Shape.Driven() && m.Shape != CopyShape
	switch {
	case free && m.Hertz == 0 && (m.Times == 0 || m.Value.Ticks() == 0):
		return &FieldError{at + ".times", m.Times, "1 or more of a note value, or hertz above 0"}
	case m.Shape == DrawnShape && len(m.Points) < 2:
		return &FieldError{at + ".points", len(m.Points), "2 levels or more"}
	case m.Shape == CopyShape && m.Stretch == nil:
		return &FieldError{at + ".stretch", "left out", "1:16 to 16:1 for a copy"}
	case m.Shape == ModShape && m.Mod == 0:
		return &FieldError{at + ".mod", m.Mod, "1 to 8"}
	}
	for i, level := range m.Points {
		if err := checkRange(fmt.Sprintf("%s.points[%d]", at, i), level, -100, 100); err != nil {
			return err
		}
	}
	for i, move := range m.Moves {
		field := fmt.Sprintf("%s.moves[%d].control", at, i)
		if err := move.Control.validate(field); err != nil {
			return err
		}
		if slices.ContainsFunc(m.Moves[:i], func(other ModulatorMove) bool { return other.Control == move.Control }) {
			return &FieldError{field, move.Control.Name, "moved by a modulator once only"}
		}
	}
	for i, send := range m.Sends {
		if err := send.validate(fmt.Sprintf("%s.sends[%d]", at, i)); err != nil {
			return err
		}
	}
	return firstOf([]error{
		CheckName(at+".name", m.Name), checkListed(at+".shape", m.Shape, WaveShapes()),
		checkListed(at+".between", m.Between, []Interpolation{StepsBetween, LineBetween, SmoothBetween}),
	})
}

func (s ModulatorSend) validate(at string) error {
	switch {
	case s.Target == ProgramTarget:
		return &FieldError{at + ".target", string(s.Target), "a controller, the pitch bend or the pressure"}
	case s.Least == s.Most:
		return &FieldError{at + ".most", s.Most, "another value than least, or it would send nothing"}
	}
	return s.Mod.validate(at)
}
