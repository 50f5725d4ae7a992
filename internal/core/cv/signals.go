package cv

import (
	"fmt"
	"math"
	"slices"

	"jettyfog/internal/core/score"
)

const tenth = 100_000 // nanoseconds in a tenth of a millisecond

// volts turns millivolts into volts.
func volts(milli int) float64 { return float64(milli) / 1000 }

// Channel is what a channel of an output does.
type Channel struct {
	score.VoltageChannel
	Line Line
	// Of the notes beyond the channel's range, which are kept within it, the lowest and the highest.
	low, high float64

	settled int64 // when the mod's last value came
	off     int64 // when the last trigger, pulse or reset is over
	on      int64 // when it began
}

// begin returns the channel at rest from a moment on.
func begin(c score.VoltageChannel, from int64) *Channel {
	channel := &Channel{VoltageChannel: c, low: math.Inf(1), high: math.Inf(-1), settled: from, off: never, on: never}
	rest, is := channel.OffVoltage()
	if !is {
		rest = volts(c.Rest)
	}
	channel.Line = Steady(from, rest)
	return channel
}

func (c *Channel) clone() *Channel {
	clone := *c
	clone.Line = slices.Clone(c.Line)
	return &clone
}

// to has the channel go to a voltage by its slew.
func (c *Channel) to(at int64, volts float64) { c.Line.to(at, volts, int64(c.Slew)*tenth, 0) }

// stop has a channel be at rest from a moment on; a pitch, a velocity or a mod can stay.
func (c *Channel) stop(at int64) {
	if off, is := c.OffVoltage(); is {
		if last := c.Line[len(c.Line)-1]; last.From > at || last.End != off {
			c.to(at, off)
		}
	} else if !c.StaysOnStop {
		c.to(at, volts(c.Rest))
	}
}

// OffVoltage returns the voltage at which the channel is off, if its signal is on or off.
func (c *Channel) OffVoltage() (volts float64, is bool) {
	switch c.Signal {
	case score.PitchSignal, score.VelocitySignal, score.ModSignal:
		return 0, false
	}
	return level(c.VoltageChannel, false, 0), true
}

// Beyond says what of the channel was beyond its range and is kept within it; empty if nothing was.
func (c *Channel) Beyond() string {
	if c.low > c.high {
		return ""
	}
	return fmt.Sprintf("notes from %d to %d are beyond %g to %g V and kept there", int(math.Floor(c.low)), int(math.Ceil(c.high)), volts(c.Lowest), volts(c.Highest))
}

// level is the voltage of what is on or off.
func level(c score.VoltageChannel, on bool, velocity int) float64 {
	if c.Inverted == on {
		return 0
	}
	height := volts(c.Height)
	if c.ByVelocity && on {
		height *= float64(velocity) / 127
	}
	return height
}

// pitchOf is the voltage of a pitch, in MIDI notes: a volt an octave (1/12 V, 83.33 mV, a semitone), or a voltage that is twice as high an
// octave above, as frequency is. Both are common practice.
func pitchOf(c score.VoltageChannel, pitch float64) float64 {
	octaves := (pitch - float64(c.Zero)) / 12
	if c.HertzPerVolt {
		return math.Exp2(octaves)
	}
	return octaves
}

// sounds has a channel carry a span of its voice, after the one before it.
func (c *Channel) sounds(before, s span) {
	switch c.Signal {
	case score.PitchSignal:
		c.pitch(before, s)
	case score.GateSignal:
		c.gate(before, s)
	case score.VelocitySignal:
		c.to(max(before.from, s.from-c.lead(s)), volts(c.Highest)*float64(s.velocity)/127)
	}
}

// pitch goes to the pitch of a span.
func (c *Channel) pitch(before, s span) {
	lowest, highest := volts(c.Lowest), volts(c.Highest)
	v := pitchOf(c.VoltageChannel, s.pitch)
	if v < lowest || v > highest {
		c.low, c.high = min(c.low, s.pitch), max(c.high, s.pitch)
		v = min(highest, max(lowest, v))
	}
	if s.slides && before.from != never {
		bend := 0.0
		if c.Exponential {
			bend = exponential
		}
		c.Line.to(s.from, v, int64(c.Slide)*tenth, bend)
		return
	}
	c.to(max(before.from, s.from-c.lead(s)), v)
}

// lead is how long before the beginning of a span what goes with its gate changes.
func (c *Channel) lead(s span) int64 {
	if s.tied {
		return 0
	}
	return int64(c.Lead) * tenth
}

// gate is on from the beginning of a span, with a gap before it unless it is tied.
func (c *Channel) gate(before, s span) {
	if gap := s.from - int64(c.Gap)*tenth; before.from != never && !s.tied && min(before.to, s.from) >= gap {
		over := min(before.to, s.from)
		half := before.from + (over-before.from+1)/2
		c.to(max(gap, half), level(c.VoltageChannel, false, before.velocity))
	}
	c.to(s.from, level(c.VoltageChannel, true, s.velocity))
}

// ends has a gate be off from the end of a span.
func (c *Channel) ends(at int64) {
	if c.Signal == score.GateSignal {
		c.to(at, level(c.VoltageChannel, false, 0))
	}
}

// apart is how long a trigger is off at least before the next.
const apart = 10 * tenth

// pulse has a channel be on from a moment on for a length, or as long as leaves the least time off before the next. One that would leave no
// time to be on goes on in the one before.
func (c *Channel) pulse(at int64, velocity int) {
	if c.on != never && at-c.on <= apart {
		return
	}
	if at-apart < c.off {
		c.to(at-apart, level(c.VoltageChannel, false, 0))
	}
	c.on, c.off = at, at+int64(c.Length)*tenth
	c.to(at, level(c.VoltageChannel, true, velocity))
	c.to(c.off, level(c.VoltageChannel, false, 0))
}

// tick is a pulse of a clock, on for its length or half of the time to the next at most.
func (c *Channel) tick(at, next int64) {
	c.to(at, level(c.VoltageChannel, true, 127))
	c.to(at+min(int64(c.Length)*tenth, next/2), level(c.VoltageChannel, false, 127))
}

// mod goes to the value of a mod lane.
func (c *Channel) mod(t turn) {
	lowest, highest := 0.0, volts(c.Highest)
	if c.Bipolar {
		lowest = volts(c.Lowest)
	}
	v := lowest + (highest-lowest)*t.share
	if c.Smooth {
		c.Line.to(t.at, v, t.takes, 0)
	} else {
		c.to(max(c.settled, t.at-int64(c.Lead)*tenth), v)
	}
	c.settled = t.at
}
