package score

// Traveller moves over a field. At the moment at which it starts it is in its first cell, and is taken to arrive there; from then on it moves once every
// step of its rate.
type Traveller struct {
	// ID stays with the traveller, because its random numbers follow from it.
	ID     int             `json:"id" jsonschema:"minimum=1,maximum=255"`
	Motion TravellerMotion `json:"motion" jsonschema:"enum=straight,enum=arrows,enum=wave"`
	// Column and Row are where it starts. One that starts outside of the grid, or in a wall, waits.
	Column    int       `json:"column" jsonschema:"minimum=0,maximum=15"`
	Row       int       `json:"row" jsonschema:"minimum=0,maximum=15"`
	Direction Direction `json:"direction,omitempty" jsonschema:"minimum=0,maximum=7"`
	// Rate is how long it stays in a cell; a wave widens as often.
	Rate NoteValue `json:"rate"`
	// StartsAfter is after how many steps of its rate it starts.
	StartsAfter int `json:"startsAfter,omitempty" jsonschema:"minimum=0,maximum=256"`
	// Velocity and Length are percents of its notes' velocities and lengths; Octave is added to their pitches.
	Velocity int `json:"velocity" jsonschema:"minimum=0,maximum=200"`
	Length   int `json:"length" jsonschema:"minimum=1,maximum=800"`
	Octave   int `json:"octave,omitempty" jsonschema:"minimum=-4,maximum=4"`
	// OneVoice has each of its notes end with its next move.
	OneVoice bool `json:"oneVoice,omitempty"`

	// At says what one that goes straight does at the edge or a wall, and Meets what it does where it meets another one.
	At    EdgeTurn    `json:"at,omitempty" jsonschema:"enum=,enum=back,enum=right,enum=end"`
	Meets MeetingTurn `json:"meets,omitempty" jsonschema:"enum=,enum=back,enum=right"`
	// AtTurns has one that goes straight sound where it turns at an edge or a wall, in place of in cells with notes: the note of its row if it turns at the
	// left or the right, else that of its column.
	AtTurns bool `json:"atTurns,omitempty"`

	// Every is how many steps of its rate go by from one wave to the next; 0 is 8. Shape is what counts as a distance from where it starts.
	Every int       `json:"every,omitempty" jsonschema:"minimum=0,maximum=256"`
	Shape RingShape `json:"shape,omitempty" jsonschema:"enum=,enum=square,enum=diamond"`
}

// UsualEvery is how many steps go by from one wave to the next where nothing else is said.
const UsualEvery = 8

// WaveEvery returns how many steps go by from one wave to the next.
func (t *Traveller) WaveEvery() int {
	if t.Every == 0 {
		return UsualEvery
	}
	return t.Every
}

// TravellerMotion is how a traveller moves.
type TravellerMotion string

// The motions.
const (
	StraightMotion TravellerMotion = "straight"
	ArrowsMotion   TravellerMotion = "arrows"
	WaveMotion     TravellerMotion = "wave"
)

var travellerMotions = options[TravellerMotion]{
	{StraightMotion, "straight", "It goes on in its direction."},
	{ArrowsMotion, "follows arrows", "It goes where arrows lead; at a fork chance decides. Where none leads on it ends."},
	{WaveMotion, "wave", "It stays, and waves start from it, which widen by a ring a step."},
}

// TravellerMotions lists the motions as options.
func TravellerMotions() []Option { return travellerMotions.list() }

// EdgeTurn is what a traveller that goes straight does at the edge or a wall.
type EdgeTurn string

// The turns. Through leads to the other side: of the grid, or of the wall.
const (
	GoThrough EdgeTurn = ""
	TurnBack  EdgeTurn = "back"
	TurnRight EdgeTurn = "right"
	EndThere  EdgeTurn = "end"
)

var edgeTurns = options[EdgeTurn]{
	{GoThrough, "goes through", "It goes on at the other side of the grid, or of the wall."},
	{TurnBack, "turns back", "It goes back the way it came."},
	{TurnRight, "turns right", "It turns to the right by a quarter, until the way is free."},
	{EndThere, "ends", "It is gone until the field begins anew."},
}

// EdgeTurns lists them as options.
func EdgeTurns() []Option { return edgeTurns.list() }

// MeetingTurn is what a traveller that goes straight does where it meets another one.
type MeetingTurn string

// The turns at meetings.
const (
	MeetPass  MeetingTurn = ""
	MeetBack  MeetingTurn = "back"
	MeetRight MeetingTurn = "right"
)

var meetingTurns = options[MeetingTurn]{
	{MeetPass, "passes", "It goes on."},
	{MeetBack, "turns back", "It goes back the way it came."},
	{MeetRight, "turns right", "It turns to the right by a quarter."},
}

// MeetingTurns lists them as options.
func MeetingTurns() []Option { return meetingTurns.list() }

// RingShape is what counts as the distance of a cell from a wave's beginning.
type RingShape string

// The shapes, where the cell lies dx columns and dy rows away.
const (
	RoundRings   RingShape = ""        // √(dx² + dy²), to the nearest whole number
	SquareRings  RingShape = "square"  // the larger of |dx| and |dy|
	DiamondRings RingShape = "diamond" // |dx| + |dy|
)

var ringShapes = options[RingShape]{
	{RoundRings, "round", "Rings as circles."},
	{SquareRings, "square", "Rings as squares."},
	{DiamondRings, "diamond", "Rings as squares on their points."},
}

// RingShapes lists the shapes as options.
func RingShapes() []Option { return ringShapes.list() }

// Distance returns how far a cell is that lies so many columns and rows away: for a round wave ⌊√(dx² + dy²) + ½⌋, in whole numbers.
func (s RingShape) Distance(dx, dy int) int {
	dx, dy = max(dx, -dx), max(dy, -dy)
	switch s {
	case SquareRings:
		return max(dx, dy)
	case DiamondRings:
		return dx + dy
	}
	// r is the root rounded to the nearest if (2r−1)² ≤ 4(dx²+dy²) < (2r+1)², as no root of a whole number lies half way.
	square, r := 4*(dx*dx+dy*dy), 0
	for (2*r+1)*(2*r+1) <= square {
		r++
	}
	return r
}
