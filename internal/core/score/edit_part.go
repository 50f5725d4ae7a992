package score

import (
	"errors"
	"fmt"
	"strings"
)

// PartAddress names a part: its track, its pattern and the part itself, each by its id.
type PartAddress struct {
	Track   int `json:"track"`
	Pattern int `json:"pattern"`
	Part    int `json:"part"`
}

// ErrUnknownPart is returned for an edit of a pattern or part that the track does not have.
var ErrUnknownPart = errors.New("there is no such part")

// Part returns the part of an address. The error wraps ErrUnknownTrack or ErrUnknownPart.
func (p *Project) Part(a PartAddress) (*Part, error) {
	_, pattern, err := p.pattern(a.Track, a.Pattern)
	if err != nil {
		return nil, err
	}
	if part := pattern.Part(a.Part); part != nil {
		return part, nil
	}
	return nil, fmt.Errorf("part %d of track %d: %w", a.Part, a.Track, ErrUnknownPart)
}

// SetPart changes the given properties of a part and leaves the others.
type SetPart struct {
	PartAddress
	Name       *string       `json:"name,omitempty"`
	Note       *int          `json:"note,omitempty"`
	Mute       *bool         `json:"mute,omitempty"`
	Fill       *int          `json:"fill,omitempty"`
	Ratchet    *RatchetShape `json:"ratchet,omitempty"`
	Voicing    *Voicing      `json:"voicing,omitempty"`
	Held       *HeldSteps    `json:"held,omitempty"`
	Mods       *[]Mod        `json:"mods,omitempty"`
	SlideTime  *int          `json:"slideTime,omitempty"`
	LengthUnit *NoteValue    `json:"lengthUnit,omitempty"`
	Durations  *[]Duration   `json:"durations,omitempty"`
}

// Label implements Edit.
func (e SetPart) Label() string {
	var what []string
	add := func(given bool, words string) {
		if given {
			what = append(what, words)
		}
	}
	add(e.Name != nil, "part name")
	add(e.Note != nil, "note")
	if e.Mute != nil {
		add(*e.Mute, "mute part")
		add(!*e.Mute, "unmute part")
	}
	add(e.Fill != nil, "fill")
	add(e.Ratchet != nil, "ratchet")
	add(e.Voicing != nil, "voicing")
	add(e.Held != nil, "loop steps")
	add(e.Mods != nil, "mods")
	add(e.SlideTime != nil, "slide time")
	add(e.LengthUnit != nil, "unit of lengths")
	add(e.Durations != nil, "durations")
	return strings.Join(what, ", ")
}

func (e SetPart) apply(p *Project) (Edit, error) {
	part, err := p.Part(e.PartAddress)
	if err != nil {
		return nil, err
	}
	return SetPart{
		PartAddress: e.PartAddress,
		Name:        swap(&part.Name, e.Name),
		Note:        swap(&part.Note, e.Note),
		Mute:        swap(&part.Mute, e.Mute),
		Fill:        swap(&part.Fill, e.Fill),
		Ratchet:     swap(&part.Ratchet, e.Ratchet),
		Voicing:     swap(&part.Voicing, e.Voicing),
		Held:        swapList(&part.Held, e.Held),
		Mods:        swapList(&part.Mods, e.Mods),
		SlideTime:   swap(&part.SlideTime, e.SlideTime),
		LengthUnit:  swap(&part.LengthUnit, e.LengthUnit),
		Durations:   swapList(&part.Durations, e.Durations),
	}, nil
}

// SetDetail changes what is special of a gate step.
type SetDetail struct {
	PartAddress
	Step   int        `json:"step" jsonschema:"minimum=0,maximum=63"`
	Detail StepDetail `json:"detail"`
}

// Label implements Edit.
func (e SetDetail) Label() string { return fmt.Sprintf("step %d", e.Step+1) }

func (e SetDetail) apply(p *Project) (Edit, error) {
	part, err := p.Part(e.PartAddress)
	if err != nil {
		return nil, err
	}
	if err := checkRange("step", e.Step, 0, MaxSteps-1); err != nil {
		return nil, err
	}
	inverse := SetDetail{PartAddress: e.PartAddress, Step: e.Step, Detail: part.Details[e.Step]}
	part.setDetail(e.Step, e.Detail)
	return inverse, nil
}

// setDetail sets what is special of a gate step; a plain step has no entry.
func (part *Part) setDetail(step int, detail StepDetail) {
	if part.Details == nil {
		part.Details = map[int]StepDetail{}
	}
	part.Details[step] = detail
	if detail == (StepDetail{}) {
		delete(part.Details, step)
	}
	if len(part.Details) == 0 {
		part.Details = nil
	}
}

// RestorePart puts a whole part in the place of one, whose id it gets; it undoes edits of several lanes, and pastes. A field
// stays, unless another one comes in its place.
type RestorePart struct {
	PartAddress
	Value Part `json:"value"`
}

// Label implements Edit.
func (e RestorePart) Label() string { return fmt.Sprintf("part “%s”", e.Value.Name) }

func (e RestorePart) apply(p *Project) (Edit, error) {
	part, err := p.Part(e.PartAddress)
	if err != nil {
		return nil, err
	}
	inverse := RestorePart{PartAddress: e.PartAddress, Value: part.Clone()}
	field := part.Field
	*part = e.Value.Clone()
	part.ID = e.Part
	if part.Field == nil || field == nil { // steps are pasted on a field, and lanes of one on steps
		part.Field = field
	}
	return inverse, nil
}
