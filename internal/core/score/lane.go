package score

import "slices"

// MaxSteps is how many step values a lane keeps, whatever its length.
const MaxSteps = 64

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

// Values of the gate lane.
const (
	Off = 0 // silence
	On  = 1 // a note starts
	Tie = 2 // the sounding note goes on
)

// WholeStep is the length of a note that lasts as long as its step, in percent. Longer lengths count
// steps: WholeStep+1 is two steps, WholeStep+63 is 64.
const WholeStep = 100

// LaneSpec tells what values a lane holds.
type LaneSpec struct {
	Name LaneName `json:"name"`
	// Least and Most bound the values.
	Least int `json:"least"`
	Most  int `json:"most"`
	// Default is the value of a new step.
	Default int `json:"default"`
	// Always says that every part has the lane; others come into being when they are edited.
	Always bool `json:"always"`
	// Movers are what can move the lane where it runs a loop of its own; LaneSpecs fills them in.
	Movers []Mover `json:"movers"`
	// number stands for the lane in the address of a random number, so it never changes.
	number uint8
}

// Number stands for the lane in the address of a random number.
func (s LaneSpec) Number() uint8 { return s.number }

// laneSpecs is in the order in which lanes are shown.
var laneSpecs = []LaneSpec{
	{Name: Gate, Least: Off, Most: Tie, Default: Off, Always: true, number: 0},
	{Name: Pitch, Least: -28, Most: 28, Default: 0, Always: true, number: 1},             // degrees of the key
	{Name: Octave, Least: -4, Most: 4, Default: 0, number: 5},                            // octaves up
	{Name: Alteration, Least: -2, Most: 2, Default: 0, number: 10},                       // sharps above 0, flats below
	{Name: Chord, Least: 0, Most: len(chords) - 1, Default: 0, number: 8},                // index of Chords
	{Name: Velocity, Least: 1, Most: 127, Default: 96, Always: true, number: 2},          // MIDI velocity
	{Name: Length, Least: 1, Most: WholeStep + 63, Default: 60, Always: true, number: 3}, // see WholeStep
	{Name: Ratchet, Least: 1, Most: 16, Default: 1, number: 6},                           // strikes in a step
	{Name: Probability, Least: 0, Most: 100, Default: 100, Always: true, number: 4},      // percent
	{Name: Nudge, Least: -50, Most: 50, Default: 0, number: 7},                           // percent of the step
	{Name: Swing, Least: 0, Most: 200, Default: 100, number: 11},                         // percent of the swing in force
	{Name: Slide, Least: 0, Most: 1, Default: 0, number: 9},                              // 1 slides into the next step that is on
	{Name: Mod1, Least: 0, Most: 127, Default: 0, number: 16},                            // shares of the way from least to most of a Mod
	{Name: Mod2, Least: 0, Most: 127, Default: 0, number: 17},
	{Name: Mod3, Least: 0, Most: 127, Default: 0, number: 18},
	{Name: Mod4, Least: 0, Most: 127, Default: 0, number: 19},
	{Name: Mod5, Least: 0, Most: 127, Default: 0, number: 20},
	{Name: Mod6, Least: 0, Most: 127, Default: 0, number: 21},
	{Name: Mod7, Least: 0, Most: 127, Default: 0, number: 22},
	{Name: Mod8, Least: 0, Most: 127, Default: 0, number: 23},
}

// LaneSpecs lists the lanes in the order in which to show them.
func LaneSpecs() []LaneSpec {
	specs := slices.Clone(laneSpecs)
	for i := range specs {
		specs[i].Movers = specs[i].Name.Movers()
	}
	return specs
}

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
	for _, spec := range laneSpecs {
		if spec.Name == n {
			return spec
		}
	}
	return LaneSpec{}
}

// Order is the way in which a lane walks through the steps of its loop.
type Order string

// The orders.
const (
	Forward      Order = "forward"
	Backward     Order = "backward"
	ThereAndBack Order = "there and back"       // the ends are played once
	TurnTwice    Order = "there and back twice" // the ends are played twice
	Random       Order = "random"               // any step, each time anew
	Shuffle      Order = "shuffle"              // every step once a pass, in an order drawn for the pass
	Drift        Order = "drift"                // a step on, a step back or none, see DriftOdds
	Path         Order = "path"                 // along a list of steps
)

// Orders lists the orders in the order in which to offer them.
func Orders() []Order {
	return []Order{Forward, Backward, ThereAndBack, TurnTwice, Random, Shuffle, Drift, Path}
}

// Mover is what moves a lane that runs a loop of its own.
type Mover string

// The movers.
const (
	ByClock  Mover = "clock"  // each of the lane's own steps of time
	ByStep   Mover = "step"   // whenever the gate lane goes on, sounding or not
	ByHit    Mover = "hit"    // only when a note really starts
	ByStrike Mover = "strike" // at every strike of a ratchet too
)

// Movers lists the movers in the order in which to offer them.
func Movers() []Mover { return []Mover{ByClock, ByStep, ByHit, ByStrike} }

// Movers lists those that can move the lane, in the order in which to offer them. The gate lane moves the others, and
// probability decides before there is a hit.
func (n LaneName) Movers() []Mover {
	switch n {
	case Gate:
		return []Mover{ByClock}
	case Probability:
		return []Mover{ByClock, ByStep}
	}
	return Movers()
}

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
	// Steps holds MaxSteps values within the bounds of the lane's LaneSpec.
	Steps []int `json:"steps" jsonschema:"minItems=64,maxItems=64"`
}

func newLane(spec LaneSpec) *Lane {
	return &Lane{
		Linked: spec.Name != Gate,
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
	// Lowest and Highest bound what is added, in the lane's unit.
	Lowest  int `json:"lowest" jsonschema:"minimum=-200,maximum=200"`
	Highest int `json:"highest" jsonschema:"minimum=-200,maximum=200"`
	// Lean is where in the range the number tends to land, -100 to 100.
	Lean int `json:"lean" jsonschema:"minimum=-100,maximum=100"`
	// Grain is the distance between the numbers that can be added, from 1.
	Grain int `json:"grain" jsonschema:"minimum=1,maximum=64"`
}
