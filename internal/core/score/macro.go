package score

import (
	"fmt"
	"slices"
)

// Bounds of macros.
const (
	MaxMacros       = 16
	MaxMacroTargets = 32
	// FullTravel is the position of a macro that is all the way up.
	FullTravel = 1000
)

// Macro moves several controls with one hand. It adds to what stands as much as it is away from its rest position; several add up.
type Macro struct {
	// ID stays with the macro. From 1 up.
	ID   int    `json:"id" jsonschema:"minimum=1,maximum=255"`
	Name string `json:"name" jsonschema:"minLength=1,maxLength=60"`
	// Position is where it stands, in thousandths of its travel; Rest is the position in which it adds nothing.
	Position int `json:"position" jsonschema:"minimum=0,maximum=1000"`
	Rest     int `json:"rest,omitempty" jsonschema:"minimum=0,maximum=1000"`
	// Moves are what it moves. A control that is gone stays named, and is moved again once it is back.
	Moves []MacroMove `json:"moves" jsonschema:"maxItems=32"`
}

// MacroMove is a control that a macro moves.
type MacroMove struct {
	Control ControlAddress `json:"control"`
	// By is how much the whole travel of the macro adds, in the control's units; below 0 it takes away.
	By int `json:"by,omitempty" jsonschema:"minimum=-1000000000,maximum=1000000000"`
	// Absolute has the control go from From to To with the macro's travel in place of what stands. Of several absolute ones the last counts.
	Absolute bool `json:"absolute,omitempty"`
	From     int  `json:"from,omitempty" jsonschema:"minimum=-1000000000,maximum=1000000000"`
	To       int  `json:"to,omitempty" jsonschema:"minimum=-1000000000,maximum=1000000000"`
	// Curve is how the travel is shared out.
	Curve Curve `json:"curve,omitempty" jsonschema:"enum=,enum=slow start,enum=fast start,enum=s"`
}

// MovedValue is the value that macros give a control, in sixteen bits after the point, before it is rounded and bounded.
type MovedValue struct {
	Control ControlAddress
	Value   int
}

// Curve is how evenly something follows the travel of a macro or a fader.
type Curve string

// The curves: a straight line; slow first; fast first; slow at both ends.
const (
	Linear    Curve = ""
	SlowStart Curve = "slow start"
	FastStart Curve = "fast start"
	SCurve    Curve = "s"
)

// Curves lists the curves.
func Curves() []Curve { return []Curve{Linear, SlowStart, FastStart, SCurve} }

// Macro returns the macro of the id, or nil.
func (p *Project) Macro(id int) *Macro {
	for i := range p.Macros {
		if p.Macros[i].ID == id {
			return &p.Macros[i]
		}
	}
	return nil
}

func cloneMacros(macros []Macro) []Macro {
	clone := slices.Clone(macros)
	for i := range clone {
		clone[i].Moves = slices.Clone(clone[i].Moves)
	}
	return clone
}

func (p *Project) validateMacros() error {
	for i, macro := range p.Macros {
		at := fmt.Sprintf("macros[%d]", i)
		if err := CheckName(at+".name", macro.Name); err != nil {
			return err
		}
		for _, other := range p.Macros[:i] {
			switch {
			case other.ID == macro.ID:
				return &FieldError{at + ".id", macro.ID, "different from every other macro's"}
			case other.Name == macro.Name:
				return &FieldError{at + ".name", macro.Name, "different from every other macro's"}
			}
		}
		for k, move := range macro.Moves {
			if err := move.validate(fmt.Sprintf("%s.moves[%d]", at, k)); err != nil {
				return err
			}
			if slices.ContainsFunc(macro.Moves[:k], func(other MacroMove) bool { return other.Control == move.Control }) {
				return &FieldError{fmt.Sprintf("%s.moves[%d].control", at, k), move.Control.Name, "moved by a macro once only"}
			}
		}
	}
	return nil
}

func (m MacroMove) validate(at string) error {
	switch {
	case m.Absolute && m.From == m.To:
		return &FieldError{at + ".to", m.To, "another value than from, or it would move nothing"}
	case !m.Absolute && (m.From != 0 || m.To != 0):
		return &FieldError{at + ".from", m.From, "left out, as is to, where a macro adds to what stands"}
	case m.Absolute && m.By != 0:
		return &FieldError{at + ".by", m.By, "left out where a macro sets from and to"}
	case m.Control.Bar != 0:
		return &FieldError{at + ".control.bar", m.Control.Bar, "0, as a macro moves nothing that holds from a bar on"}
	}
	return firstOf([]error{m.Control.validate(at + ".control"), checkListed(at+".curve", m.Curve, Curves())})
}
