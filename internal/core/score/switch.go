package score

import "fmt"

// Switch has a message that comes in give a control a value, as of a scene, a section or a pattern. The scene that is on is one: the
// switch does all that the scene names.
type Switch struct {
	// Message is a note that is struck, a controller that comes up from below 64, or a program.
	Message SwitchMessage `json:"message" jsonschema:"enum=note,enum=control,enum=program"`
	// Channel counts from 1; 0 is any. Number is that of the note, the controller or the program, from 0.
	Channel int `json:"channel" jsonschema:"minimum=0,maximum=16"`
	Number  int `json:"number" jsonschema:"minimum=0,maximum=127"`
	// Control gets the value. A switch of one that is gone does nothing.
	Control ControlAddress `json:"control"`
	Value   int            `json:"value" jsonschema:"minimum=-1000000000,maximum=1000000000"`
	// When says from which moment on, while playing.
	When string `json:"when" jsonschema:"enum=now,enum=step,enum=beat,enum=bar,enum=pattern"`
}

// SwitchMessage is a kind of message that switches.
type SwitchMessage string

// The messages that switch.
const (
	NoteSwitch    SwitchMessage = "note"
	ControlSwitch SwitchMessage = "control"
	ProgramSwitch SwitchMessage = "program"
)

// MaxSwitches bounds how many switches there are.
const MaxSwitches = 256

// Hears reports whether a message of a kind, on a channel from 1, is that of the switch.
func (s Switch) Hears(message SwitchMessage, channel, number int) bool {
	return s.Message == message && s.Number == number && (s.Channel == 0 || s.Channel == channel)
}

func (s Switch) validate(field string) error {
	return firstOf([]error{
		checkListed(field+".message", s.Message, []SwitchMessage{NoteSwitch, ControlSwitch, ProgramSwitch}),
		checkListed(field+".when", s.When, []string{"now", "step", "beat", "bar", "pattern"}),
		s.Control.validate(field + ".control"),
	})
}

func (c ControlAddress) validate(field string) error {
	if err := CheckName(field+".name", c.Name); err != nil || c.Lane == "" {
		return err
	}
	return checkListed(field+".lane", c.Lane, LaneNames())
}

func validateSwitches(switches []Switch) error {
	for i, s := range switches {
		if err := s.validate(fmt.Sprintf("switches[%d]", i)); err != nil {
			return err
		}
	}
	return nil
}
