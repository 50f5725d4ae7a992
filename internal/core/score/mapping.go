package score

import "fmt"

// MaxMappings bounds how many mappings there are.
const MaxMappings = 256

// Mapping has a fader, a knob or a wheel turn a control.
type Mapping struct {
	Message MappedMessage `json:"message" jsonschema:"enum=control,enum=control14,enum=bend,enum=pressure,enum=note"`
	// Channel counts from 1; 0 is any. Number is that of the controller; of one of 14 bits that of its coarse half, up to 31.
	Channel int `json:"channel" jsonschema:"minimum=0,maximum=16"`
	Number  int `json:"number" jsonschema:"minimum=0,maximum=127"`
	// Control is turned. A mapping of one that is gone does nothing.
	Control ControlAddress `json:"control"`
	// From and To are the values at the lowest and at the highest position; from above to is upside down.
	From  int   `json:"from" jsonschema:"minimum=-1000000000,maximum=1000000000"`
	To    int   `json:"to" jsonschema:"minimum=-1000000000,maximum=1000000000"`
	Curve Curve `json:"curve,omitempty" jsonschema:"enum=,enum=slow start,enum=fast start,enum=s"`
	// Turns is how a position becomes a value.
	Turns Turning `json:"turns,omitempty" jsonschema:"enum=,enum=jump,enum=signed,enum=offset,enum=twos"`
	// SendsTo is the output to which the value goes back whenever it changes, so that a ring of lights or a motor follows; 0 is none.
	SendsTo int `json:"sendsTo,omitempty" jsonschema:"minimum=0,maximum=255"`
}

// MappedMessage is a kind of message that turns controls.
type MappedMessage string

// The messages: a controller, one of 14 bits whose fine half comes 32 numbers higher (MIDI 1.0), the pitch bend, the pressure of a
// channel, and how loud a note is struck.
const (
	MappedControl   MappedMessage = "control"
	MappedControl14 MappedMessage = "control14"
	MappedBend      MappedMessage = "bend"
	MappedPressure  MappedMessage = "pressure"
	MappedNote      MappedMessage = "note"
)

// Turning is how positions of a fader or a knob become values.
type Turning string

// The ways. A soft takeover has a fader do nothing until it has come to where the value stands; a jump has it set its value at once. Of
// endless knobs each message turns by as many steps as it says, in one of the three codes that are common practice: bit 6 is the sign;
// as much as the value is away from 64; or 7 bits of two's complement.
const (
	SoftTakeover Turning = ""
	Jumps        Turning = "jump"
	SignedTurns  Turning = "signed"
	OffsetTurns  Turning = "offset"
	TwosTurns    Turning = "twos"
)

// Turnings lists the ways.
func Turnings() []Turning {
	return []Turning{SoftTakeover, Jumps, SignedTurns, OffsetTurns, TwosTurns}
}

// Relative reports whether messages say by how much to turn, and not where something stands.
func (t Turning) Relative() bool { return t == SignedTurns || t == OffsetTurns || t == TwosTurns }

// Steps returns by how many steps a message of an endless knob turns, −64 to 63.
func (t Turning) Steps(value int) int {
	switch {
	case t == OffsetTurns:
		return value - 64
	case t == TwosTurns && value >= 64:
		return value - 128
	case t == SignedTurns && value > 64:
		return 64 - value
	case t == SignedTurns && value == 64: // a step of nothing, backward
		return 0
	}
	return value
}

func (m Mapping) validate(field string) error {
	switch {
	case m.From == m.To:
		return &FieldError{field + ".to", m.To, "another value than from, or the control would not move"}
	case m.Message == MappedControl14 && m.Number > 31:
		return &FieldError{field + ".number", m.Number, "0 to 31, as the fine half of a 14-bit controller comes 32 higher"}
	case m.Turns.Relative() && m.Message != MappedControl:
		return &FieldError{field + ".turns", string(m.Turns), "a takeover or a jump, as only controllers are endless knobs"}
	}
	return firstOf([]error{
		checkListed(field+".message", m.Message, []MappedMessage{MappedControl, MappedControl14, MappedBend, MappedPressure, MappedNote}),
		checkListed(field+".turns", m.Turns, Turnings()), checkListed(field+".curve", m.Curve, Curves()), m.Control.validate(field + ".control"),
	})
}

func validateMappings(mappings []Mapping) error {
	for i, m := range mappings {
		if err := m.validate(fmt.Sprintf("mappings[%d]", i)); err != nil {
			return err
		}
	}
	return nil
}
