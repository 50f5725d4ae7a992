package midi

import (
	"maps"
	"slices"

	"jettyfog/internal/core/score"
)

// Settings are what the instruments of an output were told last and remember, so that only what changes need be sent.
// The zero value knows nothing of them.
type Settings struct {
	last map[setting]Message
}

// setting is something that an instrument remembers.
type setting struct {
	kind    Kind
	channel uint8
	number  uint8 // of a controller, or of a key that is tuned
}

// Set remembers a message that is sent, and reports whether it changes something. Notes change nothing.
func (s *Settings) Set(m Message) (changes bool) {
	of, _, ok := m.setting()
	if !ok {
		return false
	}
	if s.last == nil {
		s.last = map[setting]Message{}
	}
	changes = s.changed(m)
	s.last[of] = m
	return changes
}

// Note remembers messages that are sent.
func (s *Settings) Note(messages []Message) {
	for _, m := range messages {
		s.Set(m)
	}
}

// changed reports whether a message would change something.
func (s *Settings) changed(m Message) bool {
	of, value, ok := m.setting()
	last, known := s.last[of]
	_, before, _ := last.setting()
	return ok && (!known || before != value)
}

// Standing returns what is in force, as sent at a tick, in the order of messages.
func (s *Settings) Standing(tick score.Tick) []Message {
	standing := slices.Collect(maps.Values(s.last))
	for i := range standing {
		standing[i].Tick = tick
	}
	slices.SortFunc(standing, Compare)
	return standing
}

// Missing appends to dst those of the messages that would change something.
func (s *Settings) Missing(messages, dst []Message) []Message {
	for _, m := range messages {
		_, known := s.last[setting{kind: m.Kind, channel: m.Channel, number: PortamentoSwitch}]
		if m.Kind == ControlChange && m.Key == PortamentoSwitch && !known && m.Value == 0 {
			continue // an instrument that was told nothing of portamento has it off
		}
		if s.changed(m) {
			dst = append(dst, m)
		}
	}
	return dst
}

// setting returns what a message sets, and to what; ok is false for notes.
func (m Message) setting() (of setting, value uint32, ok bool) {
	of = setting{kind: m.Kind, channel: m.Channel}
	switch m.Kind {
	case ControlChange, WideControl:
		of.number = m.Key
	case KeyTuning:
		of.number = m.Key
		return of, uint32(m.Velocity)<<14 | uint32(m.Value), true
	case Program:
		return of, uint32(m.Value)<<7 | uint32(m.Key), true
	case NoteOn, NoteOff:
		return of, 0, false
	}
	return of, uint32(m.Value), true
}
