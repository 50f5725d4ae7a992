package score

import (
	"fmt"
	"strings"
)

// LaneAddress names a lane.
type LaneAddress struct {
	PartAddress
	Lane LaneName `json:"lane"`
}

// own returns a lane of the part's own, which is made if the part had none, and the edit that brings the
// lane back to what it is now.
func (p *Project) own(a LaneAddress) (lane *Lane, inverse Edit, err error) {
	part, err := p.Part(a.PartAddress)
	if err != nil {
		return nil, nil, err
	}
	if part.Lanes.field(a.Lane) == nil {
		return nil, nil, checkListed("lane", a.Lane, LaneNames())
	}
	restore := RestoreLane{LaneAddress: a}
	if part.Lanes.Has(a.Lane) {
		restore.Value = part.Lanes.Lane(a.Lane).Clone()
	} else {
		part.Lanes.Set(a.Lane, newLane(a.Lane.Spec()))
	}
	return part.Lanes.Lane(a.Lane), restore, nil
}

// SetLane changes the given properties of a lane and leaves the others, and all step values.
type SetLane struct {
	LaneAddress
	Linked *bool      `json:"linked,omitempty"`
	First  *int       `json:"first,omitempty"`
	Length *int       `json:"length,omitempty"`
	Rate   *NoteValue `json:"rate,omitempty"`
	Order  *Order     `json:"order,omitempty"`
	Drift  *DriftOdds `json:"drift,omitempty"`
	Path   *[]int     `json:"path,omitempty"`
	// Shape is the name of one of Shapes: the lane takes the order Path, along the shape over its length.
	Shape   *string   `json:"shape,omitempty"`
	Moves   *Mover    `json:"moves,omitempty"`
	Amount  *int      `json:"amount,omitempty"`
	Spread  *Spread   `json:"spread,omitempty"`
	Weights *[]Weight `json:"weights,omitempty"`
	Evolve  *Evolve   `json:"evolve,omitempty"`
	Locked  *[]int    `json:"locked,omitempty"`
}

// Label implements Edit.
func (e SetLane) Label() string {
	what := []string{string(e.Lane)}
	add := func(given bool, words string) {
		if given {
			what = append(what, words)
		}
	}
	if e.Linked != nil {
		add(*e.Linked, "linked")
		add(!*e.Linked, "unlinked")
	}
	add(e.First != nil, "first step")
	if e.Length != nil {
		add(true, fmt.Sprintf("length %d", *e.Length))
	}
	if e.Rate != nil {
		add(true, "rate "+string(*e.Rate))
	}
	if e.Order != nil {
		add(true, string(*e.Order))
	}
	add(e.Drift != nil, "drift")
	add(e.Path != nil, "path")
	if e.Shape != nil {
		add(true, "along "+*e.Shape)
	}
	if e.Moves != nil {
		add(true, "by "+string(*e.Moves))
	}
	if e.Amount != nil {
		add(true, fmt.Sprintf("amount %d %%", *e.Amount))
	}
	add(e.Spread != nil, "spread")
	add(e.Weights != nil, "weights")
	add(e.Evolve != nil, "evolve")
	add(e.Locked != nil, "locks")
	return strings.Join(what, " ")
}

func (e SetLane) apply(p *Project) (Edit, error) {
	lane, inverse, err := p.own(e.LaneAddress)
	if err != nil {
		return nil, err
	}
	swap(&lane.Linked, e.Linked)
	swap(&lane.First, e.First)
	swap(&lane.Length, e.Length)
	swap(&lane.Rate, e.Rate)
	swap(&lane.Order, e.Order)
	swap(&lane.Drift, e.Drift)
	swapList(&lane.Path, e.Path)
	if e.Shape != nil {
		shape, err := shapeOf(*e.Shape)
		if err != nil {
			return nil, err
		}
		lane.Order, lane.Path = Path, shape.Path(min(max(lane.Length, 1), MaxSteps))
	}
	swap(&lane.Moves, e.Moves)
	swap(&lane.Amount, e.Amount)
	swapList(&lane.Weights, e.Weights)
	swapList(&lane.Locked, e.Locked)
	if e.Evolve != nil {
		evolve := *e.Evolve
		lane.Evolve = &evolve
	}
	if e.Spread != nil {
		spread := *e.Spread
		lane.Spread = &spread
	}
	return inverse, nil
}

// RestoreLane puts a whole lane in its place, or takes it away; it undoes edits of lanes.
type RestoreLane struct {
	LaneAddress
	// Value is the lane; without it the part has none of that name.
	Value *Lane `json:"value,omitempty"`
}

// Label implements Edit.
func (e RestoreLane) Label() string { return string(e.Lane) }

func (e RestoreLane) apply(p *Project) (Edit, error) {
	_, inverse, err := p.own(e.LaneAddress)
	if err != nil {
		return nil, err
	}
	part, err := p.Part(e.PartAddress)
	if err != nil {
		return nil, err
	}
	part.Lanes.Set(e.Lane, nil)
	if e.Value != nil {
		part.Lanes.Set(e.Lane, e.Value.Clone())
	}
	return inverse, nil
}

// StepValue is a value for one step.
type StepValue struct {
	// Step counts from 0 to MaxSteps-1.
	Step int `json:"step" jsonschema:"minimum=0,maximum=63"`
	// Value is within the bounds of the lane's LaneSpec.
	Value int `json:"value"`
}

// SetSteps writes values into steps of one lane: a whole stroke of painting is one edit.
type SetSteps struct {
	LaneAddress
	// Steps holds 1 to MaxSteps values; where a step comes twice, the last one counts.
	Steps []StepValue `json:"steps" jsonschema:"minItems=1,maxItems=64"`
}

// Label implements Edit.
func (e SetSteps) Label() string {
	if len(e.Steps) == 1 {
		return fmt.Sprintf("%s of step %d", e.Lane, e.Steps[0].Step+1)
	}
	return fmt.Sprintf("%s of %s", e.Lane, Counted(len(e.Steps), "step"))
}

func (e SetSteps) apply(p *Project) (Edit, error) {
	lane, inverse, err := p.own(e.LaneAddress)
	if err != nil {
		return nil, err
	}
	if err := checkRange("the number of steps", len(e.Steps), 1, MaxSteps); err != nil {
		return nil, err
	}
	for i, s := range e.Steps {
		if err := checkRange(fmt.Sprintf("steps[%d].step", i), s.Step, 0, MaxSteps-1); err != nil {
			return nil, err
		}
		lane.Steps[s.Step] = s.Value
	}
	if e.Lane == Chord || e.Lane == Length {
		inverse = p.alsoWriting(e.LaneAddress, Pitch, inverse, e.writtenOver)
	}
	return inverse, nil
}
