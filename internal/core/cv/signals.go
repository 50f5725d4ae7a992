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
	// Beyond says what of it was beyond the channel's range and is kept within it; empty if nothing was.
	Beyond string
}

// begin returns the channel at rest from a moment on.
func begin(c score.VoltageChannel, from int64) *Channel {
	rest := volts(c.Rest)
	if slices.Contains([]score.Signal{score.GateSignal, score.TriggerSignal, score.ClockSignal, score.RunSignal, score.ResetSignal}, c.Signal) {
		rest = level(c, false, 127)
	}
	return &Channel{VoltageChannel: c, Line: lineFrom(from, rest)}
}

// to has the channel go to a voltage by its slew.
func (c *Channel) to(at int64, volts float64) { c.Line.to(at, volts, int64(c.Slew)*tenth, 0) }

// stop has a pitch, a velocity or a mod be at rest, unless it stays.
func (c *Channel) stop(at int64) {
	if !c.StaysOnStop {
		c.to(at, volts(c.Rest))
	}
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

// pitches has a channel carry the pitches of a voice.
func (c *Channel) pitches(spans []span, end int64) {
	lowest, highest := volts(c.Lowest), volts(c.Highest)
	low, high := math.Inf(1), math.Inf(-1) // of what is beyond
	for i, s := range spans {
		v := pitchOf(c.VoltageChannel, s.pitch)
		if v < lowest || v > highest {
			low, high = min(low, s.pitch), max(high, s.pitch)
			v = min(highest, max(lowest, v))
		}
		switch {
		case s.slides && i > 0:
			bend := 0.0
			if c.Exponential {
				bend = exponential
			}
			c.Line.to(s.from, v, int64(c.Slide)*tenth, bend)
		case i == 0 || s.tied:
			c.to(s.from-c.lead(s), v)
		default:
			c.to(max(spans[i-1].from, s.from-c.lead(s)), v)
		}
	}
	if low <= high {
		c.Beyond = fmt.Sprintf("notes from %d to %d are beyond %g to %g V and kept there", int(math.Floor(low)), int(math.Ceil(high)), lowest, highest)
	}
	c.stop(end)
}

// lead is how long before the beginning of a span what goes with its gate changes.
func (c *Channel) lead(s span) int64 {
	if s.tied {
		return 0
	}
	return int64(c.Lead) * tenth
}

// velocities has a channel carry the velocities of a voice.
func (c *Channel) velocities(spans []span, end int64) {
	for i, s := range spans {
		at := s.from - c.lead(s)
		if i > 0 {
			at = max(at, spans[i-1].from)
		}
		c.to(at, volts(c.Highest)*float64(s.velocity)/127)
	}
	c.stop(end)
}

// gates has a channel be on while a voice sounds, with a gap before each note that is not tied.
func (c *Channel) gates(spans []span, end int64) {
	gap := int64(c.Gap) * tenth
	for i, s := range spans {
		c.to(s.from, level(c.VoltageChannel, true, s.velocity))
		off := min(s.to, end)
		if i+1 < len(spans) {
			next := spans[i+1]
			if next.tied && next.from == s.to {
				continue
			}
			half := s.from + (s.to-s.from+1)/2
			off = max(min(off, next.from-gap), half)
		}
		c.to(off, level(c.VoltageChannel, false, s.velocity))
	}
}

// apart is how long a trigger is off at least before the next.
const apart = 10 * tenth

// pulses has a channel be on at moments, in order, each time for a length, or as long as leaves the least time off before the next. One
// that would leave no time to be on goes on in the one before.
func (c *Channel) pulses(moments []pulse, end int64) {
	length := int64(c.Length) * tenth
	for i := 0; i < len(moments); i++ {
		at := moments[i]
		for i+1 < len(moments) && moments[i+1].at-at.at <= apart {
			i++
		}
		off := at.at + length
		if i+1 < len(moments) {
			off = min(off, moments[i+1].at-apart)
		}
		if at.at >= end {
			break
		}
		c.to(at.at, level(c.VoltageChannel, true, at.velocity))
		c.to(min(off, end), level(c.VoltageChannel, false, 0))
	}
}

// pulse is when a trigger or a pulse of a clock begins, and how loud it is.
type pulse struct {
	at       int64
	velocity int
}

// mods has a channel carry the values of a mod lane.
func (c *Channel) mods(turns []turn, end int64) {
	lowest, highest := 0.0, volts(c.Highest)
	if c.Bipolar {
		lowest = volts(c.Lowest)
	}
	before := c.Line[0].From
	for _, t := range turns {
		v := lowest + (highest-lowest)*t.share
		if c.Smooth {
			c.Line.to(t.at, v, t.takes, 0)
		} else {
			c.to(max(before, t.at-int64(c.Lead)*tenth), v)
		}
		before = t.at
	}
	c.stop(end)
}
