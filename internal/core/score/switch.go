package score

import "fmt"

// Switch has a message that comes in, as of a button or a pedal, do something: give a control a value, as of a scene, a section or a
// pattern, or what else Do says. The scene that is on is a control too: the switch does all that the scene names.
type Switch struct {
	// Message is a note that is struck, a controller that comes up from below 64, a program, or a key of the computer.
	Message SwitchMessage `json:"message" jsonschema:"enum=note,enum=control,enum=program,enum=key"`
	// Key is the key of the computer, as the web's UI Events name its place (KeyboardEvent.code); others have none.
	Key string `json:"key,omitempty" jsonschema:"maxLength=20"`
	// Inverted has a controller press the switch when it comes down below 64, as some pedals do.
	Inverted bool `json:"inverted,omitempty"`
	// Press says which of the ways of pressing counts. Where a message has switches of several ways, the usual press waits until it is
	// known to be none of the others. Programs know only the usual one.
	Press SwitchPress `json:"press,omitempty" jsonschema:"enum=,enum=long,enum=double"`
	// Way is what becomes of the control when the switch is released, or pressed once more.
	Way SwitchWay `json:"way,omitempty" jsonschema:"enum=,enum=momentary,enum=latching"`
	// Do is what is done instead of giving a control a value; Value is then how many bars are kept, and else counts for nothing.
	Do SwitchDo `json:"do,omitempty" jsonschema:"enum=,enum=play,enum=record,enum=keep,enum=tap,enum=one,enum=back,enum=panic,enum=next,enum=previous,enum=luck"`
	// Channel counts from 1; 0 is any. Number is that of the note, the controller or the program, from 0.
	Channel int `json:"channel" jsonschema:"minimum=0,maximum=16"`
	Number  int `json:"number" jsonschema:"minimum=0,maximum=127"`
	// Control gets the value, unless Do says something else. A switch of one that is gone does nothing.
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
	KeySwitch     SwitchMessage = "key"
)

// SwitchPress is a way of pressing.
type SwitchPress string

// The ways: at once; for half a second; twice within 0.3 s.
const (
	UsualPress  SwitchPress = ""
	LongPress   SwitchPress = "long"
	DoublePress SwitchPress = "double"
)

// SwitchWay is what a switch does besides setting a value.
type SwitchWay string

// The ways: the value stays; it is taken away when the switch is released; each press sets it or takes it away.
const (
	Sets      SwitchWay = ""
	Momentary SwitchWay = "momentary"
	Latching  SwitchWay = "latching"
)

// SwitchDo is what a switch does that is no value of a control.
type SwitchDo string

// What there is: give the control its value; play, or stop; begin a take, or end it; keep the last bars as a take; a tap of the tempo; have
// the nearest bar line be now; undo the last action; end all that sounds; go on with the next section
// of the song, or the one before, with the next bar; another luck.
const (
	DoControl SwitchDo = ""
	DoPlay    SwitchDo = "play"
	DoRecord  SwitchDo = "record"
	DoKeep    SwitchDo = "keep"
	DoTap     SwitchDo = "tap"
	DoOne     SwitchDo = "one"
	DoBack    SwitchDo = "back"
	DoPanic   SwitchDo = "panic"

	DoNext     SwitchDo = "next"
	DoPrevious SwitchDo = "previous"
	DoLuck     SwitchDo = "luck"
)

// SwitchDoings lists what switches do that is no value of a control.
func SwitchDoings() []SwitchDo {
	return []SwitchDo{DoPlay, DoRecord, DoKeep, DoTap, DoOne, DoBack, DoPanic, DoNext, DoPrevious, DoLuck}
}

// MaxSwitches bounds how many switches there are.
const MaxSwitches = 256

// Hears reports whether a message of a kind, on a channel from 1, or a key is that of the switch.
func (s Switch) Hears(message SwitchMessage, channel, number int, key string) bool {
	if message == KeySwitch {
		return s.Message == KeySwitch && s.Key == key
	}
	return s.Message == message && s.Number == number && (s.Channel == 0 || s.Channel == channel)
}

func (s Switch) validate(field string) error {
	if (s.Message == KeySwitch) != (s.Key != "") {
		return &FieldError{field + ".key", s.Key, "given for a key of the computer, and left out for all else"}
	}
	return firstOf([]error{
		checkListed(field+".do", s.Do, append([]SwitchDo{DoControl}, SwitchDoings()...)),
		checkListed(field+".press", s.Press, []SwitchPress{UsualPress, LongPress, DoublePress}),
		checkListed(field+".way", s.Way, []SwitchWay{Sets, Momentary, Latching}),
		checkListed(field+".message", s.Message, []SwitchMessage{NoteSwitch, ControlSwitch, ProgramSwitch, KeySwitch}),
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
