package score

// MeetingRule has something happen when two travellers stand to each other in some way. It is judged whenever one of them moves.
type MeetingRule struct {
	// A and B are the ids of travellers; a rule about one that there is not does nothing.
	A int `json:"a" jsonschema:"minimum=0,maximum=255"`
	B int `json:"b" jsonschema:"minimum=0,maximum=255"`
	// When is how A stands to B; Distance is for Near.
	When     MeetingWhen `json:"when" jsonschema:"enum=cell,enum=row,enum=column,enum=diagonal,enum=near,enum=left,enum=right,enum=above,enum=below"`
	Distance int         `json:"distance,omitempty" jsonschema:"minimum=0,maximum=16"`
	// Do is what A does; Letter, Rate and Track are for what needs them.
	Do     MeetingDo `json:"do" jsonschema:"enum=sounds,enum=silent,enum=turns,enum=start,enum=letter,enum=rate,enum=clock"`
	Letter string    `json:"letter,omitempty" jsonschema:"maxLength=1"`
	Rate   NoteValue `json:"rate,omitempty"`
	Track  int       `json:"track,omitempty" jsonschema:"minimum=0,maximum=2147483647"`
	// Odds is how often, in percent.
	Odds int `json:"odds" jsonschema:"minimum=0,maximum=100"`
}

// MeetingWhen is how a traveller A stands to B.
type MeetingWhen string

// The ways. A meeting in one cell is also one where they have changed places.
const (
	InOneCell     MeetingWhen = "cell"
	InOneRow      MeetingWhen = "row"
	InOneColumn   MeetingWhen = "column"
	InOneDiagonal MeetingWhen = "diagonal"
	NearEachOther MeetingWhen = "near" // within Distance, as of a round wave
	LeftOf        MeetingWhen = "left"
	RightOf       MeetingWhen = "right"
	AboveOf       MeetingWhen = "above"
	BelowOf       MeetingWhen = "below"
)

var meetingWhens = options[MeetingWhen]{
	{InOneCell, "in one cell with", "They are in one cell, or have just changed places."},
	{InOneRow, "in one row with", "They are in one row."},
	{InOneColumn, "in one column with", "They are in one column."},
	{InOneDiagonal, "in one diagonal with", "They are in one diagonal."},
	{NearEachOther, "near", "They are at most so many cells apart."},
	{LeftOf, "left of", "The first is farther left."},
	{RightOf, "right of", "The first is farther right."},
	{AboveOf, "above", "The first is higher up."},
	{BelowOf, "below", "The first is lower down."},
}

// MeetingWhens lists the ways as options.
func MeetingWhens() []Option { return meetingWhens.list() }

// MeetingDo is what a traveller does by a rule.
type MeetingDo string

// What there is.
const (
	DoSound     MeetingDo = "sounds"
	DoSilence   MeetingDo = "silent"
	DoTurn      MeetingDo = "turns"
	DoStart     MeetingDo = "start"
	DoLetter    MeetingDo = "letter"
	DoRate      MeetingDo = "rate"
	DoClockTick MeetingDo = "clock"
)

var meetingDos = options[MeetingDo]{
	{DoSound, "sounds", "It sounds, also where it would not, if its cell has a note."},
	{DoSilence, "is silent", "It does not sound."},
	{DoTurn, "turns right", "It turns to the right by a quarter."},
	{DoStart, "jumps to its start", "It goes on from where it started."},
	{DoLetter, "jumps to a letter", "It goes on from the first cell of a letter."},
	{DoRate, "changes its rate", "It moves at another rate from then on."},
	{DoClockTick, "moves a track on", "A track advances by a step whose clock source is the rules of this field."},
}

// MeetingDos lists them as options.
func MeetingDos() []Option { return meetingDos.list() }

func (r *MeetingRule) validate(field string) error {
	switch {
	case r.Letter != "" && (r.Letter < "A" || r.Letter > "Z"):
		return &FieldError{field + ".letter", r.Letter, "a letter from A to Z"}
	case r.Do == DoRate:
		return checkListed(field+".rate", r.Rate, noteValues)
	}
	return nil
}
