package score

import (
	"maps"
	"slices"
)

// MaxSteps is how many step values a lane keeps, whatever its length.
const MaxSteps = 64

// Values of the gate lane.
const (
	Off = 0 // silence
	On  = 1 // a note starts
	Tie = 2 // the sounding note goes on
)

// WholeStep is the length of a note that lasts as long as its step, in percent. Longer lengths count
// steps: WholeStep+1 is two steps, WholeStep+63 is 64.
const WholeStep = 100

// Order is the way in which a lane walks through the steps of its loop.
type Order string

// The orders.
const (
	Forward      Order = "forward"
	Backward     Order = "backward"
	ThereAndBack Order = "there and back"
	TurnTwice    Order = "there and back twice"
	Random       Order = "random"
	Shuffle      Order = "shuffle"
	Drift        Order = "drift"
	Path         Order = "path"
)

// OrderSpec tells of an order what a screen shows.
type OrderSpec struct {
	Name Order `json:"name"`
	// Label is what it is called, and Help a sentence about it.
	Label string `json:"label"`
	Help  string `json:"help"`
	// Picture is how the first moves through a loop are drawn: the steps from 0, of five.
	Picture []int `json:"picture"`
}

// orders is in the order in which to offer them.
var orders = []OrderSpec{
	{Forward, "forward", "From the first step to the last.", []int{0, 1, 2, 3, 4}},
	{Backward, "backward", "From the last step to the first.", []int{4, 3, 2, 1, 0}},
	{ThereAndBack, "there and back", "To the last step and back; the ends are played once.", []int{0, 2, 4, 2, 0}},
	{TurnTwice, "there and back twice", "To the last step and back; the ends are played twice.", []int{0, 4, 4, 0, 0}},
	{Random, "random", "Any step, drawn anew each time.", []int{2, 0, 4, 1, 3}},
	{Shuffle, "shuffle", "Every step once a pass, in an order that is drawn for the pass.", []int{2, 4, 0, 3, 1}},
	{Drift, "drift", "A step on, a step back, or none, drawn each time by the odds below.", []int{1, 0, 1, 2, 2}},
	{Path, "path", "Along a list of steps, or along a shape.", []int{0, 4, 2, 4, 3}},
}

// OrderSpecs lists what there is to know of the orders, in the order in which to offer them.
func OrderSpecs() []OrderSpec { return slices.Clone(orders) }

// Orders lists the orders.
func Orders() (names []Order) {
	for _, spec := range orders {
		names = append(names, spec.Name)
	}
	return names
}

// Mover is what moves a lane that runs a loop of its own.
type Mover string

// The movers.
const (
	ByClock  Mover = "clock"
	ByStep   Mover = "step"
	ByHit    Mover = "hit"
	ByStrike Mover = "strike"
)

// movers is in the order in which to offer them.
var movers = options[Mover]{
	{ByClock, "its own rate", "Each time that a step of its own rate is over."},
	{ByStep, "gate steps", "Whenever the gate lane goes on, whether the step sounds or not."},
	{ByHit, "notes", "Only when a note starts."},
	{ByStrike, "ratchet hits", "When a note starts, and with each further hit of a ratchet."},
}

// Movers lists the movers in the order in which to offer them.
func Movers() []Mover { return movers.values() }

// DriftOdds are the odds of a drift in percent; what is missing to 100 is the odds of staying.
type DriftOdds struct {
	Forward int `json:"forward" jsonschema:"minimum=0,maximum=100"`
	Back    int `json:"back" jsonschema:"minimum=0,maximum=100"`
}

// Lane is a row of step values with a loop of its own.
type Lane struct {
	// Linked lanes sit on the gate lane's step. The gate lane itself is never linked.
	Linked bool `json:"linked"`
	// First is the loop's first step, from 0; First + Length is at most MaxSteps.
	First int `json:"first" jsonschema:"minimum=0,maximum=63"`
	// Length is the number of steps in the loop, 1 to MaxSteps.
	Length int `json:"length" jsonschema:"minimum=1,maximum=64"`
	// Rate is the length of a step.
	Rate NoteValue `json:"rate"`
	// Order is the way through the steps.
	Order Order `json:"order"`
	// Drift holds the odds of the order Drift.
	Drift DriftOdds `json:"drift"`
	// Path holds the steps of the order Path, counted from First; empty means forward.
	Path []int `json:"path,omitempty" jsonschema:"maxItems=64"`
	// Moves is what moves the lane. The gate lane moves with the clock.
	Moves Mover `json:"moves"`
	// Amount scales the values of velocity, length and probability, in percent.
	Amount int `json:"amount" jsonschema:"minimum=0,maximum=200"`
	// Spread varies the values as they are played.
	Spread *Spread `json:"spread,omitempty"`
	// Weights, if there are any, are a table from which the value is drawn instead of from the steps.
	Weights []Weight `json:"weights,omitempty" jsonschema:"maxItems=32"`
	// Evolve writes new values over the steps as time goes by; the stored ones stay.
	Evolve *Evolve `json:"evolve,omitempty"`
	// Locked are steps that keep their values when the lane is rolled or evolves, ascending.
	Locked []int `json:"locked,omitempty" jsonschema:"maxItems=64"`
	// Own holds what steps have of their own in place of the lane's, by step from 0.
	Own map[int]StepOwn `json:"own,omitempty"`
	// Steps holds MaxSteps values within the bounds of the lane's LaneSpec.
	Steps []int `json:"steps" jsonschema:"minItems=64,maxItems=64"`

	held HeldSteps // of a gate lane, its loop in place of First and Length
}

// StepAt returns the step that has a position in the loop, from 0.
func (l *Lane) StepAt(position int) int {
	if l.held != nil {
		return l.held[position]
	}
	return l.First + position
}

// LoopSteps lists the steps of the loop.
func (l *Lane) LoopSteps() []int {
	steps := make([]int, l.Length)
	for i := range steps {
		steps[i] = l.StepAt(i)
	}
	return steps
}

func newLane(spec LaneSpec) *Lane {
	return &Lane{
		Linked: !spec.Leads,
		Length: 16, Rate: "1/16", Order: Forward, Drift: DriftOdds{Forward: 50, Back: 25},
		Moves: ByClock, Amount: 100,
		Steps: slices.Repeat([]int{spec.Default}, MaxSteps),
	}
}

// Clone returns a copy that shares nothing with l.
func (l *Lane) Clone() *Lane {
	clone := *l
	clone.Steps, clone.Path = slices.Clone(l.Steps), slices.Clone(l.Path)
	clone.Weights, clone.Locked = slices.Clone(l.Weights), slices.Clone(l.Locked)
	clone.Own = maps.Clone(l.Own)
	if l.Evolve != nil {
		evolve := *l.Evolve
		clone.Evolve = &evolve
	}
	if l.Spread != nil {
		spread := *l.Spread
		clone.Spread = &spread
	}
	return &clone
}

// Spread varies a lane's value as it is played; the stored value stays. The value that is played is
// the stored one, scaled by the amount, plus Depth percent of one of these numbers, kept within the bounds of the
// lane: Lowest, Highest, and between them the multiples of Grain, 0 among them.
//
// Where in the range the number lands: with x from 0 at Lowest to 1 at Highest and l = Lean/100, its
// density is 1 - l + 3·l·x² for a Lean of 0 or above, and the mirror image 1 - |l| + 3·|l|·(1-x)²
// below. So 0 is even, and 100 crowds at the highest.
type Spread struct {
	// Chance is how often the spread applies, in percent.
	Chance int `json:"chance" jsonschema:"minimum=0,maximum=100"`
	// Depth scales the whole spread, in percent; at 0 the value is exactly the written one.
	Depth int `json:"depth" jsonschema:"minimum=0,maximum=100"`
	// Lowest and Highest bound what is added, in the lane's unit, or with Limits the result: then what is added at full depth goes from as much as leads
	// from the value to Lowest to as much as leads to Highest, by multiples of Grain from the value on.
	Lowest  int  `json:"lowest" jsonschema:"minimum=-200,maximum=200"`
	Highest int  `json:"highest" jsonschema:"minimum=-200,maximum=200"`
	Limits  bool `json:"limits,omitempty"`
	// Lean is where in the range the number tends to land, -100 to 100.
	Lean int `json:"lean" jsonschema:"minimum=-100,maximum=100"`
	// Grain is the distance between the numbers that can be added, from 1.
	Grain int `json:"grain" jsonschema:"minimum=1,maximum=64"`
	// Touches says to which written values anything is added: all, or those From to To, or all but those.
	Touches Touch `json:"touches,omitempty" jsonschema:"enum=,enum=within,enum=outside"`
	From    int   `json:"from,omitempty" jsonschema:"minimum=-200,maximum=200"`
	To      int   `json:"to,omitempty" jsonschema:"minimum=-200,maximum=200"`
}

// Touch says which written values a spread touches.
type Touch string

// The touches.
const (
	TouchAll     Touch = ""
	TouchWithin  Touch = "within"
	TouchOutside Touch = "outside"
)

// Touched reports whether anything is added to a written value.
func (s *Spread) Touched(written int) bool {
	within := s.From <= written && written <= s.To
	return s.Touches == TouchAll || within == (s.Touches == TouchWithin)
}
