package play

import (
	"maps"
	"slices"

	"jettyfog/internal/core/score"
)

// Sent is what was sent to the instruments of a port last, so that only what changes is sent. The zero value
// knows nothing of them.
type Sent struct {
	last map[setting]Message
}

// setting is something that an instrument remembers.
type setting struct {
	kind    Kind
	channel uint8
	number  uint8 // of a controller, or of a key that is tuned
}

// Note remembers messages that are sent.
func (s *Sent) Note(messages []Message) {
	for _, m := range messages {
		if of, _, ok := m.setting(); ok {
			if s.last == nil {
				s.last = map[setting]Message{}
			}
			s.last[of] = m
		}
	}
}

// Standing returns what is in force, as sent at a tick, in the order of messages.
func (s *Sent) Standing(tick score.Tick) []Message {
	standing := slices.Collect(maps.Values(s.last))
	for i := range standing {
		standing[i].Tick = tick
	}
	slices.SortFunc(standing, CompareMessages)
	return standing
}

// Missing appends to dst those of the messages that would change something.
func (s *Sent) Missing(messages, dst []Message) []Message {
	for _, m := range messages {
		of, value, ok := m.setting()
		last, sent := s.last[of]
		_, known, _ := last.setting()
		if of.kind == ControlChange && of.number == portamentoSwitch {
			sent = true // an instrument that was told nothing of portamento has it off
		}
		if ok && (!sent || known != value) {
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
