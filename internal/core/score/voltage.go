package score

import (
	"fmt"
	"slices"
)

// Voltages is the kind of an output that drives modular gear by the channels of a DC-coupled audio interface.
const Voltages OutputKind = "voltages"

// VoltageSetup is how an output of voltages uses its channels. Times are in tenths of a millisecond, voltages in millivolts.
type VoltageSetup struct {
	// FullScale is what the interface gives at full scale.
	FullScale int `json:"fullScale" jsonschema:"minimum=1000,maximum=20000"`
	// Silence is after how long of hearing nothing from the program gates are off, in tenths of a second; 0 leaves them until stop.
	Silence int `json:"silence,omitempty" jsonschema:"minimum=0,maximum=100"`
	// LowestFree has each note of a track with several voices go to the first voice that is free; else they take turns.
	LowestFree bool `json:"lowestFree,omitempty"`
	// Channels carry voltages; those of the interface that are not listed carry nothing.
	Channels []VoltageChannel `json:"channels" jsonschema:"maxItems=32"`
}

// Signal is what a channel of voltages says.
type Signal string

// The signals.
const (
	PitchSignal    Signal = "pitch"
	GateSignal     Signal = "gate"
	TriggerSignal  Signal = "trigger"
	VelocitySignal Signal = "velocity"
	ModSignal      Signal = "mod"
	ClockSignal    Signal = "clock"
	RunSignal      Signal = "run"
	ResetSignal    Signal = "reset"
)

// Signals lists the signals.
func Signals() []Signal {
	return []Signal{PitchSignal, GateSignal, TriggerSignal, VelocitySignal, ModSignal, ClockSignal, RunSignal, ResetSignal}
}

// VoltageChannel is a channel of an interface that carries voltages. Each signal heeds its own fields, and leaves the others.
type VoltageChannel struct {
	// Channel is that of the interface, from 1.
	Channel int    `json:"channel" jsonschema:"minimum=1,maximum=32"`
	Signal  Signal `json:"signal" jsonschema:"enum=pitch,enum=gate,enum=trigger,enum=velocity,enum=mod,enum=clock,enum=run,enum=reset"`
	// Track is the id of the track whose it is; of a reset the track whose realignments reset too, or 0 for none.
	Track int `json:"track,omitempty" jsonschema:"minimum=0"`
	// Voice is which voice of the track, from 1; a track has as many as it is given.
	Voice int `json:"voice,omitempty" jsonschema:"minimum=0,maximum=16"`
	// Part is the id of the part of a kit that triggers.
	Part int `json:"part,omitempty" jsonschema:"minimum=0,maximum=255"`
	// Mod is which mod lane, from 1; from 9 on it is which of the curves of modulators that the track sends, in their order.
	Mod int `json:"mod,omitempty" jsonschema:"minimum=0,maximum=15"`

	// Lowest and Highest bound the voltage: what a pitch would have beyond them is kept at them, and a velocity or a mod goes from one to
	// the other, a velocity and a unipolar mod from 0.
	Lowest  int `json:"lowest" jsonschema:"minimum=-20000,maximum=20000"`
	Highest int `json:"highest" jsonschema:"minimum=-20000,maximum=20000"`
	// Rest is the voltage while nothing plays; StaysOnStop leaves a pitch, a velocity or a mod as it was.
	Rest        int  `json:"rest,omitempty" jsonschema:"minimum=-20000,maximum=20000"`
	StaysOnStop bool `json:"staysOnStop,omitempty"`

	// Zero is the MIDI note of a pitch at 0 V, or with HertzPerVolt at 1 V.
	Zero         int  `json:"zero,omitempty" jsonschema:"minimum=0,maximum=127"`
	HertzPerVolt bool `json:"hertzPerVolt,omitempty"`
	// Slide is how long a pitch that slides takes; Exponential has it go fast first, and reach its end at 99.9 %.
	Slide       int  `json:"slide,omitempty" jsonschema:"minimum=0,maximum=20000"`
	Exponential bool `json:"exponential,omitempty"`
	// Lead is how long before its gate a pitch, a velocity or a stepped mod changes, or a reset comes before the first pulse.
	Lead int `json:"lead,omitempty" jsonschema:"minimum=0,maximum=100"`
	// Slew is how long a change takes.
	Slew int `json:"slew,omitempty" jsonschema:"minimum=0,maximum=500"`

	// Height is the voltage of a gate, a trigger, a pulse or of run. Inverted is low while it is on, and Height else.
	Height   int  `json:"height,omitempty" jsonschema:"minimum=0,maximum=20000"`
	Inverted bool `json:"inverted,omitempty"`
	// ByVelocity has a gate as high as its note is loud.
	ByVelocity bool `json:"byVelocity,omitempty"`
	// Gap is how long a gate is off before the next note, taken from the one before, at most half of it; tied notes have none.
	Gap int `json:"gap,omitempty" jsonschema:"minimum=0,maximum=50"`
	// Length is how long a trigger or a pulse is on.
	Length int `json:"length,omitempty" jsonschema:"minimum=0,maximum=500"`

	// Bipolar has a mod go from Lowest to Highest. Smooth has it go from value to value in a line, over a 24th of a quarter note.
	Bipolar bool `json:"bipolar,omitempty"`
	Smooth  bool `json:"smooth,omitempty"`
	// Pulses is how many pulses of a clock there are in a quarter note.
	Pulses int `json:"pulses,omitempty" jsonschema:"minimum=0,maximum=48"`
	// Swung has a clock follow the swing of the project; without it its pulses are evenly apart.
	Swung bool `json:"swung,omitempty"`
}

// NewVoltageChannel returns a channel of a signal with what is common practice: 1 V an octave around middle C, gates and pulses of 5 V,
// triggers of 5 ms, gaps of 1 ms, velocities and mods of 5 V, a clock of 4 pulses a quarter.
func NewVoltageChannel(channel int, signal Signal) VoltageChannel {
	c := VoltageChannel{Channel: channel, Signal: signal}
	switch signal {
	case PitchSignal:
		c.Voice, c.Zero, c.Lowest, c.Highest, c.Slide, c.StaysOnStop = 1, 60, -5000, 5000, 600, true
	case GateSignal:
		c.Voice, c.Highest, c.Height, c.Gap = 1, 10_000, 5000, 10
	case TriggerSignal:
		c.Highest, c.Height, c.Length = 10_000, 5000, 50
	case VelocitySignal:
		c.Voice, c.Highest = 1, 5000
	case ModSignal:
		c.Mod, c.Lowest, c.Highest = 1, -5000, 5000
	case ClockSignal:
		c.Highest, c.Height, c.Length, c.Pulses = 10_000, 5000, 50, 4
	case RunSignal:
		c.Highest, c.Height = 10_000, 5000
	case ResetSignal:
		c.Highest, c.Height, c.Length, c.Lead = 10_000, 5000, 50, 10
	}
	return c
}

// Voices returns how many voices a track has at the output.
func (v *VoltageSetup) Voices(track int) (voices int) {
	for _, c := range v.Channels {
		if c.Track == track && slices.Contains([]Signal{PitchSignal, GateSignal, VelocitySignal}, c.Signal) {
			voices = max(voices, c.Voice)
		}
	}
	return voices
}

// validate refuses channels that cannot be. What belongs to a track that is gone rests.
func (v *VoltageSetup) validate(field string) error {
	for i, c := range v.Channels {
		at := fmt.Sprintf("%s.channels[%d]", field, i)
		reach := max(-c.Lowest, c.Highest)
		if err := firstOf([]error{
			checkListed(at+".signal", c.Signal, Signals()),
			checkRange(at+".highest", c.Highest, c.Lowest, v.FullScale),
			checkRange(at+".lowest", c.Lowest, -v.FullScale, c.Highest),
			checkRange(at+".rest", c.Rest, c.Lowest, c.Highest),
			checkRange(at+".height", c.Height, 0, max(0, reach)),
		}); err != nil {
			return err
		}
		for _, other := range v.Channels[:i] {
			if other.Channel == c.Channel {
				return &FieldError{at + ".channel", c.Channel, "different from every other channel's of the output"}
			}
		}
		if err := c.validateSignal(at); err != nil {
			return err
		}
	}
	return nil
}

// validateSignal refuses a channel without what its signal needs.
func (c VoltageChannel) validateSignal(at string) error {
	switch c.Signal {
	case PitchSignal, VelocitySignal:
		return firstOf([]error{checkRange(at+".voice", c.Voice, 1, 16), checkRange(at+".lead", c.Lead, 0, 50)})
	case GateSignal:
		return checkRange(at+".voice", c.Voice, 1, 16)
	case TriggerSignal, ResetSignal:
		return checkRange(at+".length", c.Length, 10, 500)
	case ModSignal:
		return firstOf([]error{checkRange(at+".mod", c.Mod, 1, MaxMods+MaxTrackSends), checkRange(at+".lead", c.Lead, 0, 50)})
	case ClockSignal:
		return firstOf([]error{checkRange(at+".length", c.Length, 10, 500), checkRange(at+".pulses", c.Pulses, 1, 48)})
	}
	return nil
}

// cloneOutputs returns copies that share nothing with outputs.
func cloneOutputs(outputs []Output) []Output {
	clones := slices.Clone(outputs)
	for i := range clones {
		if v := clones[i].Voltages; v != nil {
			clones[i].Voltages = &VoltageSetup{v.FullScale, v.Silence, v.LowestFree, slices.Clone(v.Channels)}
		}
		if c := clones[i].Clock; c != nil {
			clock := *c
			clones[i].Clock = &clock
		}
	}
	return clones
}

// ofTracks returns outputs whose channels of voltages are of other tracks, by the ids of those that they are of; what has no other
// is of none.
func ofTracks(outputs []Output, ids map[int]int) []Output {
	outputs = cloneOutputs(outputs)
	for i := range outputs {
		if outputs[i].Voltages == nil {
			continue
		}
		for j := range outputs[i].Voltages.Channels {
			channel := &outputs[i].Voltages.Channels[j]
			channel.Track = ids[channel.Track]
		}
	}
	return outputs
}
