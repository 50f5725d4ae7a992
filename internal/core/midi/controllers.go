package midi

// Controllers with a meaning of their own (MIDI 1.0, table III).
const (
	// BankSelect is the controller, of 14 bits, of the bank from which the next program is.
	BankSelect = 0
	// PortamentoTime says how long a pitch slides, PortamentoSwitch whether it does: 64 and above is on.
	PortamentoTime   = 5
	PortamentoSwitch = 65
	// LSBOffset leads from a controller of 14 bits to the controller of its lower seven.
	LSBOffset = 32
)

// Controllers by which registered parameters are set.
const (
	dataEntry       = 6
	parameterLSB    = 100
	parameterMSB    = 101
	noParameter     = 127
	bendSensitivity = 0
	selectTuning    = 3
)

// Split returns the messages of MIDI 1.0 that a message goes out as, in order.
func Split(m Message) []Message {
	control := func(number uint8, value uint16) Message {
		return Message{Tick: m.Tick, Track: m.Track, Kind: ControlChange, Channel: m.Channel, Key: number, Value: value}
	}
	registered := func(parameter uint16) []Message {
		return []Message{
			control(parameterMSB, 0), control(parameterLSB, parameter), control(dataEntry, m.Value), control(dataEntry+LSBOffset, 0),
			control(parameterMSB, noParameter), control(parameterLSB, noParameter), // so that nothing else changes it
		}
	}
	switch m.Kind {
	case WideControl:
		return []Message{control(m.Key, m.Value>>7), control(m.Key+LSBOffset, m.Value&0x7F)}
	case Program:
		if m.Value > 0 {
			bank := m.Value - 1
			m.Value = 0
			return []Message{control(BankSelect, bank>>7), control(BankSelect+LSBOffset, bank&0x7F), m}
		}
	case BendRange:
		return registered(bendSensitivity)
	case TuningProgram:
		return registered(selectTuning)
	}
	return []Message{m}
}
