package live

import (
	"cmp"
	"errors"
	"fmt"
	"maps"
	"math/rand/v2"
	"slices"

	"jettyfog/internal/core/button"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// up is from which value on a controller is up, as MIDI 1.0 has it of its own switches.
const up = 64

// trigger is what presses switches: a key, a controller or a program of an input. Inverted, a controller presses when it comes down.
type trigger struct {
	Source
	message         score.SwitchMessage
	channel, number uint8
	key             string // of the computer
	inverted        bool
}

// pressed is a switch that was pressed, or released.
type pressed struct {
	score.Switch
	released bool
	at       int64
}

var presses = map[button.Press]score.SwitchPress{button.Usual: score.UsualPress, button.Long: score.LongPress, button.Double: score.DoublePress}

// switched returns the switches of the project that a message presses or releases.
func (t *Transport) switched(in Incoming) (all []pressed) {
	of := trigger{Source: in.Source, channel: in.Channel, number: in.Key}
	switch in.Message.Kind {
	case midi.NoteOn, midi.NoteOff:
		of.message = score.NoteSwitch
		return t.turn(of, in.Message.Kind == midi.NoteOn, in.At)
	case midi.Program:
		of.message = score.ProgramSwitch
		return append(t.turn(of, true, in.At), t.turn(of, false, in.At)...)
	case midi.ControlChange:
		of.message = score.ControlSwitch
		all = t.turn(of, in.Value >= up, in.At)
		of.inverted = true
		return append(all, t.turn(of, in.Value < up, in.At)...)
	}
	return nil
}

// Press presses a key of the computer, or releases it, at a moment of the transport's clock. The errors are those of Hear.
func (t *Transport) Press(key string, down bool, at int64) error {
	t.mu.Lock()
	pressed := t.turn(trigger{Source: Source{Kind: score.ScreenInput}, message: score.KeySwitch, key: key}, down, at)
	t.mu.Unlock()
	return t.pressAll(pressed)
}

// turn presses or releases a button, and returns which of its switches that is of.
func (t *Transport) turn(of trigger, down bool, at int64) []pressed {
	if len(t.switchesOf(of)) == 0 {
		return nil
	}
	b := t.buttons[of]
	if b == nil {
		if t.buttons == nil {
			t.buttons = map[trigger]*button.Button{}
		}
		b = &button.Button{}
		t.buttons[of] = b
	}
	if !down {
		return t.those(of, b.Up(at), at)
	}
	b.Long, b.Double = false, false
	for _, s := range t.switchesOf(of) {
		b.Long, b.Double = b.Long || s.Press == score.LongPress, b.Double || s.Press == score.DoublePress
	}
	return t.those(of, b.Down(at), at)
}

func (t *Transport) switchesOf(of trigger) (all []score.Switch) {
	for _, s := range t.project.Switches {
		if s.Hears(of.message, int(of.channel)+1, int(of.number), of.key) && s.Inverted == of.inverted {
			all = append(all, s)
		}
	}
	return all
}

// those returns the switches of a trigger that are pressed in the ways that have become known.
func (t *Transport) those(of trigger, events []button.Event, at int64) (all []pressed) {
	for _, event := range events {
		for _, s := range t.switchesOf(of) {
			if s.Press == presses[event.Press] {
				all = append(all, pressed{s, event.Released, at})
			}
		}
	}
	return all
}

// pressDue presses the switches whose ways of being pressed have become known by time alone, and does what faders have given.
func (t *Transport) pressDue() {
	t.mu.Lock()
	var all []pressed
	now := t.Now()
	for of, b := range t.buttons {
		all = append(all, t.those(of, b.Due(now), now)...)
	}
	t.turnDue()
	t.mu.Unlock()
	if err := t.pressAll(all); err != nil {
		t.options.Notice(fmt.Sprintf("A switch did nothing: %s.", err))
	}
}

// releaseButtons releases what an input has left down.
func (t *Transport) releaseButtons(from Source) (all []pressed) {
	now := t.Now()
	for _, of := range slices.SortedFunc(maps.Keys(t.buttons), func(a, b trigger) int { return cmp.Or(cmp.Compare(a.number, b.number), cmp.Compare(a.key, b.key)) }) {
		if of.Source == from {
			all = append(all, t.those(of, t.buttons[of].Up(now), now)...)
			delete(t.buttons, of)
		}
	}
	return all
}

// pressAll does what switches say. The errors are those of Do, and score.ErrUnknownScene.
func (t *Transport) pressAll(all []pressed) (err error) {
	for _, p := range all {
		err = errors.Join(err, t.press(p))
	}
	return err
}

func (t *Transport) press(p pressed) error {
	if p.Do != score.DoControl {
		if p.released {
			return nil
		}
		return t.pressAct(p)
	}
	c := stage.Control(p.Control)
	doing := Doing{Control: c, Value: &p.Value}
	switch {
	case p.Way == score.Momentary && p.released:
		doing.Value = nil
	case p.released:
		return nil
	case p.Way == score.Latching && t.stands(c, p.Value):
		doing.Value = nil
	case c == (stage.Control{Name: stage.SceneOn}):
		_, err := t.DoScene(p.Value, When(p.When), 0)
		return err
	}
	return t.Do([]Doing{doing}, When(p.When), 0)
}

// stands reports whether a control has a live change to a value, or one waits.
func (t *Transport) stands(c stage.Control, value int) bool {
	t.mu.Lock()
	defer t.mu.Unlock()
	for _, q := range t.queue {
		if q.Control == c {
			return q.Value != nil && *q.Value == value
		}
	}
	stands, changed := t.stage.Value(c)
	return changed && stands == value
}

// pressAct does what a switch says that is no value of a control.
func (t *Transport) pressAct(p pressed) error {
	switch p.Do {
	case score.DoPlay:
		if status := t.Status(); status.Playing || status.Clock != nil && status.Clock.State == ClockWaits {
			t.Stop()
		} else {
			t.Play()
		}
	case score.DoRecord:
		if status := t.Status(); status.Recording || status.Armed {
			t.EndRecording()
		} else {
			return t.Record(Recording{})
		}
	case score.DoKeep:
		t.options.Keep(p.Value)
	case score.DoTap:
		return t.tap(p.at)
	case score.DoOne:
		return t.OneIsNow(p.at, 1)
	case score.DoBack:
		if err := t.Back(); !errors.Is(err, ErrNoBack) {
			return err
		}
	case score.DoPanic:
		t.Panic()
	case score.DoNext:
		return t.GoOver(1, NextBar, 0)
	case score.DoPrevious:
		return t.GoOver(-1, NextBar, 0)
	case score.DoLuck:
		luck := rand.IntN(score.MaxLuck + 1)
		return t.Do([]Doing{{Control: stage.Control{Name: "luck"}, Value: &luck}}, When(p.When), 0)
	}
	return nil
}
