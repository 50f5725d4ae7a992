package live

import (
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// pressed is from which value on a controller is a switch that is pressed, as MIDI 1.0 has it of its own switches.
const pressed = 64

// controller names a controller that comes in.
type controller struct{ channel, number uint8 }

// switched returns the switches of the project that a message that comes in presses.
func (t *Transport) switched(m midi.Message) (pressedNow []score.Switch) {
	var kind score.SwitchMessage
	switch m.Kind {
	case midi.NoteOn:
		kind = score.NoteSwitch
	case midi.Program:
		kind = score.ProgramSwitch
	case midi.ControlChange:
		kind = score.ControlSwitch
		of := controller{m.Channel, m.Key}
		was := t.controllers[of]
		if t.controllers == nil {
			t.controllers = map[controller]bool{}
		}
		if t.controllers[of] = m.Value >= pressed; was || m.Value < pressed {
			return nil
		}
	default:
		return nil
	}
	for _, s := range t.project.Switches {
		if s.Hears(kind, int(m.Channel)+1, int(m.Key)) {
			pressedNow = append(pressedNow, s)
		}
	}
	return pressedNow
}

// press does what a switch says. The errors are those of Do, and score.ErrUnknownScene.
func (t *Transport) press(s score.Switch) error {
	c := stage.Control(s.Control)
	if c == (stage.Control{Name: stage.SceneOn}) {
		_, err := t.DoScene(s.Value, When(s.When), 0)
		return err
	}
	return t.Do([]Doing{{Control: c, Value: &s.Value}}, When(s.When), 0)
}
