package score

import "slices"

// MaxSteps is how many step values a lane keeps, whatever its length.
const MaxSteps = 64

// LaneName names one of the lanes of a part.
type LaneName string

// The lanes of a melodic part.
const (
	Gate        LaneName = "gate"
	Pitch       LaneName = "pitch"
	Velocity    LaneName = "velocity"
	Length      LaneName = "length"
	Probability LaneName = "probability"
)

// Values of the gate lane.
const (
	Off = 0 // silence
	On  = 1 // a note starts
	Tie = 2 // the sounding note goes on
)

// LaneSpec tells what values a lane holds.
type LaneSpec struct {
	Name LaneName `json:"name"`
	// Least and Most bound the values.
	Least int `json:"least"`
	Most  int `json:"most"`
	// Default is the value of a new step.
	Default int `json:"default"`
}

// laneSpecs is in the order in which lanes are shown. A lane's place here is its number in the
// address of a random number, so it never changes.
var laneSpecs = []LaneSpec{
	{Name: Gate, Least: Off, Most: Tie, Default: Off},
	{Name: Pitch, Least: -28, Most: 28, Default: 0},        // degrees of the key
	{Name: Velocity, Least: 1, Most: 127, Default: 96},     // MIDI velocity
	{Name: Length, Least: 1, Most: 100, Default: 60},       // percent of the step
	{Name: Probability, Least: 0, Most: 100, Default: 100}, // percent
}

// LaneSpecs lists the lanes in the order in which to show them.
func LaneSpecs() []LaneSpec { return slices.Clone(laneSpecs) }

// Index returns the lane's place among the lanes of a part, or -1 if there is no such lane.
func (n LaneName) Index() int {
	return slices.IndexFunc(laneSpecs, func(s LaneSpec) bool { return s.Name == n })
}

// Order is the way in which a lane walks through its steps.
type Order string

// The orders.
const (
	Forward  Order = "forward"
	Backward Order = "backward"
)

// Orders lists the orders in the order in which to offer them.
func Orders() []Order { return []Order{Forward, Backward} }

// Lane is a row of step values with a loop of its own.
type Lane struct {
	// Linked lanes sit on the gate lane's step. The gate lane itself is never linked.
	Linked bool `json:"linked"`
	// Length is the number of steps in the loop, 1 to MaxSteps.
	Length int `json:"length" jsonschema:"minimum=1,maximum=64"`
	// Rate is the length of a step.
	Rate NoteValue `json:"rate"`
	// Order is the way through the steps.
	Order Order `json:"order" jsonschema:"enum=forward,enum=backward"`
	// Steps holds MaxSteps values within the bounds of the lane's LaneSpec.
	Steps []int `json:"steps" jsonschema:"minItems=64,maxItems=64"`
}

// Lanes are the lanes of a part.
type Lanes struct {
	Gate        Lane `json:"gate"`
	Pitch       Lane `json:"pitch"`
	Velocity    Lane `json:"velocity"`
	Length      Lane `json:"length"`
	Probability Lane `json:"probability"`
}

// Lane returns the lane of that name, or nil if there is none.
func (l *Lanes) Lane(name LaneName) *Lane {
	switch name {
	case Gate:
		return &l.Gate
	case Pitch:
		return &l.Pitch
	case Velocity:
		return &l.Velocity
	case Length:
		return &l.Length
	case Probability:
		return &l.Probability
	}
	return nil
}

// Loop returns the lane whose loop decides where the named lane stands: the gate lane for a linked
// lane, else the lane itself.
func (l *Lanes) Loop(name LaneName) *Lane {
	lane := l.Lane(name)
	if lane.Linked {
		return &l.Gate
	}
	return lane
}

// newLanes returns lanes of default values, all but the gate linked.
func newLanes() Lanes {
	var lanes Lanes
	for _, spec := range laneSpecs {
		*lanes.Lane(spec.Name) = Lane{
			Linked: spec.Name != Gate,
			Length: 16, Rate: "1/16", Order: Forward,
			Steps: slices.Repeat([]int{spec.Default}, MaxSteps),
		}
	}
	return lanes
}
