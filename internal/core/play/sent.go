package play

// Sent is what was sent to the instruments of a port last, so that only what changes is sent. The zero value
// knows nothing of them.
type Sent struct {
	values map[setting]uint32
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
		if of, value, ok := m.setting(); ok {
			if s.values == nil {
				s.values = map[setting]uint32{}
			}
			s.values[of] = value
		}
	}
}

// Missing appends to dst those of the messages that would change something.
func (s *Sent) Missing(messages, dst []Message) []Message {
	for _, m := range messages {
		of, value, ok := m.setting()
		known, sent := s.values[of]
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
		return of, uint32(m.Key), true
	case NoteOn, NoteOff:
		return of, 0, false
	}
	return of, uint32(m.Value), true
}
