package osc

import (
	"fmt"
	"math"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/stage"
)

// incoming says what a message that comes in is, by its address: its arguments with their bounds, behind which the MIDI channel can stand, 1 to 16.
var incoming = map[string]struct {
	names  []string
	bounds [][2]int
	of     func(a []int) midi.Message
}{
	"/note": {[]string{"key", "velocity"}, [][2]int{{0, 127}, {0, 127}}, func(a []int) midi.Message {
		m := midi.Message{Kind: midi.NoteOn, Key: uint8(a[0]), Velocity: uint8(a[1])}
		if m.Velocity == 0 {
			m.Kind = midi.NoteOff
		}
		return m
	}},
	"/cc": {[]string{"controller", "value"}, [][2]int{{0, 127}, {0, 127}}, func(a []int) midi.Message {
		return midi.Message{Kind: midi.ControlChange, Key: uint8(a[0]), Value: uint16(a[1])}
	}},
	"/program": {[]string{"program"}, [][2]int{{1, 128}}, func(a []int) midi.Message {
		return midi.Message{Kind: midi.Program, Key: uint8(a[0] - 1)}
	}},
	"/pressure": {[]string{"pressure"}, [][2]int{{0, 127}}, func(a []int) midi.Message {
		return midi.Message{Kind: midi.Pressure, Value: uint16(a[0])}
	}},
	"/clock":    {of: just(midi.Clock)},
	"/start":    {of: just(midi.Start)},
	"/continue": {of: just(midi.Continue)},
	"/stop":     {of: just(midi.Stop)},
	"/position": {[]string{"position"}, [][2]int{{0, midi.MaxSongPosition}}, func(a []int) midi.Message {
		return midi.Message{Kind: midi.SongPosition, Value: uint16(a[0])}
	}},
	"/bend": {[]string{"bend"}, [][2]int{{-8192, 8191}}, func(a []int) midi.Message {
		return midi.Message{Kind: midi.Bend, Value: uint16(a[0] + 8192)}
	}},
}

// just returns what makes a message of a kind that says nothing else.
func just(kind midi.Kind) func([]int) midi.Message {
	return func([]int) midi.Message { return midi.Message{Kind: kind} }
}

// Heard returns what a message that came in is to the tracks. The error says why it is nothing.
func Heard(m Message) (midi.Message, error) {
	of, known := incoming[m.Address]
	if !known {
		return midi.Message{}, fmt.Errorf("nobody hears %s: there are /note, /cc, /program, /pressure, /bend, /clock, /start, /continue, /stop and /position, and the addresses of controls", short(m.Address))
	}
	if len(m.Arguments) != len(of.names) && len(m.Arguments) != len(of.names)+1 {
		return midi.Message{}, fmt.Errorf("%s has %d arguments: it needs %v, and can have a channel", m.Address, len(m.Arguments), of.names)
	}
	names, bounds := append(of.names[:len(of.names):len(of.names)], "channel"), append(of.bounds[:len(of.bounds):len(of.bounds)], [2]int{1, 16})
	numbers := make([]int, len(m.Arguments))
	for i, argument := range m.Arguments {
		number := math.NaN()
		switch a := argument.(type) {
		case int32:
			number = float64(a)
		case float32:
			number = math.Round(float64(a))
		}
		if low, high := bounds[i][0], bounds[i][1]; !(number >= float64(low) && number <= float64(high)) {
			return midi.Message{}, fmt.Errorf("the %s of %s must be a number of %d to %d", names[i], m.Address, low, high)
		}
		numbers[i] = int(number)
	}
	heard := of.of(numbers)
	if len(numbers) > len(of.names) {
		heard.Channel = uint8(numbers[len(of.names)] - 1)
	}
	return heard, nil
}

// Turned returns which control a message turns, and to which value; turns is false if its address is that of none. The error says why it
// is nothing.
func Turned(m Message) (c stage.Control, value int, turns bool, err error) {
	if c, err = stage.ControlAt(m.Address); err != nil {
		return c, 0, false, nil
	}
	if len(m.Arguments) != 1 {
		return c, 0, true, fmt.Errorf("%s has %d arguments: it needs its value", m.Address, len(m.Arguments))
	}
	number, is := 0.0, false
	switch a := m.Arguments[0].(type) {
	case int32:
		number, is = float64(a), true
	case float32:
		number = math.Round(float64(a))
		is = math.Abs(number) <= math.MaxInt32
	}
	if !is {
		return c, 0, true, fmt.Errorf("the value of %s must be a number", m.Address)
	}
	return c, int(number), true, nil
}

// short returns text that came from outside so that it can be shown.
func short(text string) string {
	const most = 40
	if len(text) > most {
		text = text[:most] + "…"
	}
	return fmt.Sprintf("%q", text)
}
