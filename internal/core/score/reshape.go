package score

import (
	"fmt"
	"slices"
)

// Reshaping is a way of writing a lane's steps anew from what they are.
type Reshaping string

// The ways. All but Double and Halve are about the steps of the lane's loop, or those that are chosen.
const (
	Rotate    Reshaping = "rotate"  // By steps to the right, or to the left below 0; what leaves comes in at the other end
	Reverse   Reshaping = "reverse" // the last step first
	Invert    Reshaping = "invert"  // high is low within the values that there are; on is off
	Clear     Reshaping = "clear"   // the usual values
	Least     Reshaping = "least"   // the least value of the lane
	Most      Reshaping = "most"    // the greatest value of the lane; gates on
	Euclidean Reshaping = "euclid"  // By gates as even as can be, all others off
	Double    Reshaping = "double"  // the loop twice over in a loop twice as long
	Halve     Reshaping = "halve"   // half the loop; the steps beyond are kept
)

// Reshapings lists the ways in the order in which to offer them.
func Reshapings() []Reshaping {
	return []Reshaping{Rotate, Reverse, Invert, Double, Halve, Clear, Least, Most, Euclidean}
}

// Reshape writes the steps of a lane anew from what they are. The conditions and the like of gate steps, and what steps have
// of their own, go with their steps; only clearing takes it away. Lanes that are linked to the gate lane are doubled with it.
type Reshape struct {
	LaneAddress
	Do Reshaping `json:"do" jsonschema:"enum=rotate,enum=reverse,enum=invert,enum=double,enum=halve,enum=clear,enum=least,enum=most,enum=euclid"`
	By int       `json:"by,omitempty" jsonschema:"minimum=-64,maximum=64"`
	// Steps are the chosen steps, ascending; empty is the lane's loop.
	Steps []int `json:"steps,omitempty" jsonschema:"maxItems=64"`
}

// Label implements Edit.
func (e Reshape) Label() string { return fmt.Sprintf("%s %s", e.Do, e.Lane) }

func (e Reshape) apply(p *Project) (Edit, error) {
	part, err := p.Part(e.PartAddress)
	if err != nil {
		return nil, err
	}
	inverse := RestorePart{PartAddress: e.PartAddress, Value: part.Clone()}
	lane, _, err := p.own(e.LaneAddress)
	if err != nil {
		return nil, err
	}
	if err := firstOf([]error{
		checkListed("do", e.Do, Reshapings()), checkRange("by", e.By, -MaxSteps, MaxSteps),
		checkAscending("steps", e.Steps, 0, MaxSteps-1),
	}); err != nil {
		return nil, err
	}
	steps := e.Steps
	if len(steps) == 0 {
		loop := part.Lanes.Loop(e.Lane)
		for step := loop.First; step < loop.First+loop.Length; step++ {
			steps = append(steps, step)
		}
	}
	switch e.Do {
	case Double, Halve:
		return inverse, part.changeLength(e.Lane, e.Do)
	case Clear:
		for _, step := range steps {
			lane.Steps[step] = e.Lane.Spec().Default
			lane.setOwn(step, StepOwn{})
			if e.Lane == Gate {
				part.setDetail(step, StepDetail{})
			}
		}
	case Least, Most:
		for _, step := range steps {
			lane.Steps[step] = e.Lane.end(e.Do)
		}
	case Invert:
		invert(e.Lane, lane.Steps, steps)
	case Euclidean:
		if e.Lane != Gate {
			return nil, &FieldError{"lane", e.Lane, "gate, whose steps a Euclidean rhythm switches on and off"}
		}
		for i, value := range Euclid(e.By, len(steps)) {
			lane.Steps[steps[i]] = value
		}
	case Rotate, Reverse:
		part.permute(e.Lane, steps, e.order(len(steps)))
	}
	return inverse, nil
}

// end returns the least or the greatest value of a lane; that of gates is on.
func (name LaneName) end(which Reshaping) int {
	switch {
	case which == Least:
		return name.Spec().Least
	case name == Gate:
		return On
	}
	return name.Spec().Most
}

// order returns which of n steps comes to stand where.
func (e Reshape) order(n int) []int {
	from := make([]int, n)
	for i := range from {
		from[i] = ((i-e.By)%n + n) % n
		if e.Do == Reverse {
			from[i] = n - 1 - i
		}
	}
	return from
}

// permute brings the values of the given steps into another order, and what is special of gate steps.
func (part *Part) permute(name LaneName, steps, from []int) {
	lane := part.Lanes.Lane(name)
	values := slices.Clone(lane.Steps)
	details, owns := make([]StepDetail, len(steps)), make([]StepOwn, len(steps))
	for i := range steps {
		details[i], owns[i] = part.Details[steps[from[i]]], lane.Own[steps[from[i]]]
		lane.Steps[steps[i]] = values[steps[from[i]]]
	}
	for i, step := range steps {
		lane.setOwn(step, owns[i])
	}
	if name == Gate {
		for i, step := range steps {
			part.setDetail(step, details[i])
		}
	}
}

// invert mirrors values within those that there are; a gate that is on goes off, and one that is off on.
func invert(name LaneName, values, steps []int) {
	least, most := values[steps[0]], values[steps[0]]
	for _, step := range steps {
		least, most = min(least, values[step]), max(most, values[step])
	}
	for _, step := range steps {
		switch {
		case name != Gate:
			values[step] = least + most - values[step]
		case values[step] == Off:
			values[step] = On
		case values[step] == On:
			values[step] = Off
		}
	}
}

// changeLength doubles or halves the loop of a lane, and for the gate lane doubles what is linked to it too.
func (part *Part) changeLength(name LaneName, do Reshaping) error {
	loop := part.Lanes.Lane(name)
	if loop.Linked {
		return &FieldError{"lane", name, "one with a loop of its own; this one goes with the gate lane"}
	}
	if do == Halve {
		loop.Length = max(1, loop.Length/2)
		return nil
	}
	if err := checkRange("the length of the loop", 2*loop.Length, 1, MaxSteps-loop.First); err != nil {
		return err
	}
	for _, spec := range laneSpecs {
		lane := part.Lanes.Lane(spec.Name)
		if spec.Name == name || name == Gate && lane.Linked && part.Lanes.Has(spec.Name) {
			for step := loop.First; step < loop.First+loop.Length; step++ {
				lane.Steps[step+loop.Length] = lane.Steps[step]
				lane.setOwn(step+loop.Length, lane.Own[step])
			}
		}
	}
	if name == Gate {
		for step := loop.First; step < loop.First+loop.Length; step++ {
			part.setDetail(step+loop.Length, part.Details[step])
		}
	}
	loop.Length *= 2
	return nil
}
