package midi

import "slices"

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

// Controllers that are no values that move: pedals and switches, parameters and their steps, and messages to a channel as a whole.
const (
	sustain       = 64
	lastSwitch    = 69
	firstStep     = 96
	lastParameter = 101
	allSoundOff   = 120
	allNotesOff   = 123
)

// bendMiddle is the value of a bend that bends nothing.
const bendMiddle = 8192

// Moves reports whether a message is a value that moves, a controller's or a pressure, of which a later one takes the place. Banks,
// portamento, pedals, switches and parameters are none, nor are bends, which can get notes in tune.
func (m Message) Moves() bool {
	if m.Kind != ControlChange && m.Kind != WideControl {
		return m.Kind == Pressure
	}
	switch k := m.Key; {
	case k < 2*LSBOffset: // those of 14 bits, and their lower seven
		return !slices.Contains([]uint8{BankSelect, PortamentoTime, dataEntry}, k%LSBOffset)
	case k <= lastSwitch, k >= firstStep && k <= lastParameter, k >= allSoundOff:
		return false
	}
	return true
}

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
