package stage

import (
	"errors"
	"fmt"
	"slices"

	"jettyfog/internal/core/score"
)

// Control names a control. The zero value of what it does not belong to stays out: a control of a track has no lane.
type Control struct {
	// Name is that of a Spec.
	Name string `json:"name"`
	// Track, Pattern and Part are ids.
	Track   int            `json:"track,omitempty" jsonschema:"minimum=0"`
	Pattern int            `json:"pattern,omitempty" jsonschema:"minimum=0"`
	Part    int            `json:"part,omitempty" jsonschema:"minimum=0"`
	Lane    score.LaneName `json:"lane,omitempty"`
	// Bar is that from which a tempo or a meter holds, from 0; without it a tempo holds from the beginning.
	Bar int `json:"bar,omitempty" jsonschema:"minimum=0,maximum=1000000"`
	// ID is that of a macro or a modulator.
	ID int `json:"id,omitempty" jsonschema:"minimum=0,maximum=255"`
}

// Scope is what controls belong to.
type Scope string

// The scopes.
const (
	OfProject Scope = "project"
	OfTrack   Scope = "track"
	OfPart    Scope = "part"
	OfLane    Scope = "lane"
	OfMacro   Scope = "macro"

	OfModulator Scope = "modulator"
)

// Spec says what a control is.
type Spec struct {
	Name string `json:"name"`
	Of   Scope  `json:"of"`
	// Words say what it changes, in a few words.
	Words string `json:"words"`
	// Unit is what its numbers count; empty for a choice, for on and off, and for plain numbers.
	Unit string `json:"unit,omitempty"`
	// Min and Max bound its values.
	Min int `json:"min"`
	Max int `json:"max"`
	// Values name the values of a choice, from 0 up.
	Values []string `json:"values,omitempty"`
	// Momentary says that it falls back to what is written when playing stops, and is never stored.
	Momentary bool `json:"momentary,omitempty"`
	// Once says that it is done once, at its tick, and changes nothing that stays.
	Once bool `json:"once,omitempty"`
	// OfSong says that only sections of the song set it.
	OfSong bool `json:"ofSong,omitempty"`
	// Movable says that macros can move it, Modulated that modulators can.
	Movable   bool `json:"movable,omitempty"`
	Modulated bool `json:"modulated,omitempty"`

	layer    score.LayerKind         // what of a field it gives
	silences bool                    // decides which parts are heard, and nothing else
	byBar    bool                    // it can hold from a bar on
	hears    func(*score.Track) bool // which tracks hear what is of the project; nil is all
	control
}

// control is how a control is read and written.
type control struct {
	// read returns the value that is written in a project, in which the control is.
	read func(t *target) int
	// edit returns what writes a value there.
	edit func(t *target, value int) score.EditJSON
	// has reports whether what the control belongs to has it; nil is always.
	has func(t *target) bool
	// sameAs reports whether what the control changes is written alike in two projects; nil is by the value alone.
	sameAs func(t, other *target) bool
}

// target is what a control belongs to, as far as that has been found, and the live changes that stand there.
type target struct {
	Control
	stage   Stage
	project *score.Project
	track   *score.Track
	part    *score.Part
	lane    *score.Lane
	given   *int // the value that the control is to have, while that is being written
	unmoved bool // without what macros add
}

// ErrGone is returned for a control whose track, pattern, part or lane is not there.
var ErrGone = errors.New("what it would change is not there any more")

// Specs lists all controls: those of the project, of tracks, of parts and of lanes.
func Specs() []Spec { return slices.Clone(specs) }

// SpecOf returns the spec of a control; nil if there is none.
func SpecOf(name string, of Scope) *Spec {
	for i := range specs {
		if specs[i].Name == name && specs[i].Of == of {
			return &specs[i]
		}
	}
	return nil
}

// Spec returns what there is to know of a control; nil if there is none of its name.
func (c Control) Spec() *Spec { return SpecOf(c.Name, c.scope()) }

// scope returns what a control belongs to by what it names.
func (c Control) scope() Scope {
	switch {
	case c.Name == Macro:
		return OfMacro
	case c.Name == Modulation:
		return OfModulator
	case c.Track == 0:
		return OfProject
	case c.Lane != "":
		return OfLane
	case SpecOf(c.Name, OfTrack) != nil:
		return OfTrack
	}
	return OfPart
}

// find returns a control of a project and its spec. The error is a *score.FieldError or wraps ErrGone.
func (c Control) find(p *score.Project, s Stage) (*Spec, *target, error) {
	t := &target{Control: c, project: p, stage: s}
	of := c.scope()
	spec := SpecOf(c.Name, of)
	if spec == nil {
		return nil, nil, &score.FieldError{Field: "control.name", Got: fmt.Sprintf("%.40q", c.Name), Allowed: "a control of a " + string(of)}
	}
	if c.Bar != 0 && !spec.byBar {
		return nil, nil, &score.FieldError{Field: "control.bar", Got: c.Bar, Allowed: "0 for what does not hold from a bar on"}
	}
	mover := of == OfMacro || of == OfModulator
	switch {
	case c.ID != 0 && !mover:
		return nil, nil, &score.FieldError{Field: "control.id", Got: c.ID, Allowed: "0 for what is no macro and no modulator"}
	case mover && !spec.has(t):
		return nil, nil, fmt.Errorf("%s %d: %w", of, c.ID, ErrGone)
	case mover, of == OfProject:
		return spec, t, nil
	}
	if t.track = p.Track(c.Track); t.track == nil {
		return nil, nil, fmt.Errorf("%s of track %d: %w", spec.Words, c.Track, ErrGone)
	}
	if of == OfTrack {
		return spec, t, nil
	}
	part, err := p.Part(score.PartAddress{Track: c.Track, Pattern: c.Pattern, Part: c.Part})
	if err != nil {
		return nil, nil, fmt.Errorf("%s of part %d of track %d: %w", spec.Words, c.Part, c.Track, ErrGone)
	}
	t.part = part
	if of == OfLane {
		if c.Lane.Spec().Name == "" || !part.Lanes.Has(c.Lane) {
			return nil, nil, fmt.Errorf("%s of the lane %.20s of track %d: %w", spec.Words, c.Lane, c.Track, ErrGone)
		}
		t.lane = part.Lanes.Lane(c.Lane)
	}
	if spec.has != nil && !spec.has(t) {
		return nil, nil, fmt.Errorf("%s of track %d: %w", spec.Words, c.Track, ErrGone)
	}
	return spec, t, nil
}

// Check refuses a value that a control of a project cannot have. The error is a *score.FieldError or wraps ErrGone.
func (c Control) Check(p *score.Project, value int) error {
	spec, t, err := c.find(p, Stage{})
	if err != nil {
		return err
	}
	if err := c.CheckRange(value); err != nil || spec.Once {
		return err
	}
	edit, err := spec.edit(t, value).Edit()
	if err != nil {
		return err
	}
	_, _, err = score.Apply(p, edit)
	return err
}

// CheckRange refuses a value that a control can have of no project. The error is a *score.FieldError.
func (c Control) CheckRange(value int) error {
	spec := SpecOf(c.Name, c.scope())
	if spec == nil {
		return &score.FieldError{Field: "control.name", Got: fmt.Sprintf("%.40q", c.Name), Allowed: "a control of a " + string(c.scope())}
	}
	if value < spec.Min || value > spec.Max {
		return &score.FieldError{Field: spec.Words, Got: value, Allowed: fmt.Sprintf("%d to %d", spec.Min, spec.Max)}
	}
	return nil
}

// Written returns the value that a control has in a project; ok is false if it is not there.
func (c Control) Written(p *score.Project) (value int, ok bool) {
	spec, t, err := c.find(p, Stage{})
	if err != nil {
		return 0, false
	}
	return spec.read(t), true
}

// Silences reports whether a control decides which parts are heard, and nothing else.
func (c Control) Silences() bool {
	spec := SpecOf(c.Name, c.scope())
	return spec != nil && spec.silences
}

// Tracks returns the ids of the tracks of a project that a control is about, a macro by what it moves; nil is all.
func (c Control) Tracks(p *score.Project) []int {
	if c.Name == Macro {
		return TracksOf(c.movedBy(p)[1:], p)
	}
	if c.Name == Modulation {
		return c.reached(p)
	}
	if c.Track != 0 {
		return []int{c.Track}
	}
	spec := SpecOf(c.Name, OfProject)
	if spec == nil || spec.hears == nil {
		return nil
	}
	tracks := []int{}
	for i := range p.Tracks {
		if spec.hears(&p.Tracks[i]) {
			tracks = append(tracks, p.Tracks[i].ID)
		}
	}
	return tracks
}

// TracksOf returns the ids of the tracks of a project that some controls are about; nil is all.
func TracksOf(controls []Control, p *score.Project) []int {
	tracks := []int{}
	for _, c := range controls {
		about := c.Tracks(p)
		if about == nil {
			return nil
		}
		for _, id := range about {
			if !slices.Contains(tracks, id) {
				tracks = append(tracks, id)
			}
		}
	}
	return tracks
}

// Momentary reports whether a control falls back when playing stops.
func (c Control) Momentary() bool {
	spec := SpecOf(c.Name, c.scope())
	return spec != nil && spec.Momentary
}

// Once reports whether a control is something that is done once, and changes nothing that stays.
func (c Control) Once() bool {
	spec := SpecOf(c.Name, c.scope())
	return spec != nil && spec.Once
}

// Steers reports whether a control says which section of the song plays.
func (c Control) Steers() bool { return c.Track == 0 && (c.Name == Section || c.Name == Release) }

// Words say which control it is, as "Bell buoy: mute".
func (c Control) Words(p *score.Project) string {
	spec, t, err := c.find(p, Stage{})
	if err != nil {
		return c.Name
	}
	words := spec.Words
	switch spec.Of {
	case OfMacro:
		return p.Macro(c.ID).Name
	case OfModulator:
		return p.Modulator(c.ID).Name + ": " + words
	}
	if t.lane != nil {
		words = string(c.Lane) + " " + words
	}
	switch {
	case t.track == nil:
		return words
	case t.part != nil && t.track.Kind == score.Kit:
		return t.track.Name + ", " + t.part.Name + ": " + words
	}
	return t.track.Name + ": " + words
}

// ValueWords say a value of a control, as "on", "1/16" or "58.3 %".
func (c Control) ValueWords(p *score.Project, value int) string {
	spec, t, err := c.find(p, Stage{})
	switch {
	case err != nil:
		return fmt.Sprint(value)
	case spec.Name == "pattern":
		if pattern := t.track.Pattern(value); pattern != nil {
			return pattern.Name
		}
		return fmt.Sprint(value)
	case spec.layer != "":
		if layer := p.FieldLayer(spec.layer, value); layer != nil {
			return layer.Name
		}
		return fmt.Sprint(value)
	case spec.Name == SceneOn || spec.Name == SectionOn:
		return onWords(p, spec.Name, value)
	case slices.Contains(loopNames[:], spec.Name):
		return stepWords(value, slices.Index(loopNames[:], spec.Name))
	case len(spec.Values) > 0 && value >= 0 && value < len(spec.Values):
		return spec.Values[value]
	case spec.Unit == perMille:
		return fmt.Sprintf("%.1f %%", float64(value)/10)
	case spec.Unit != "":
		return fmt.Sprintf("%d %s", value, spec.Unit)
	}
	return fmt.Sprint(value)
}
