package cv

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"jettyfog/internal/core/score"
)

// VoltageReading is what a voltage became that was asked for: by a meter, or by the frequency of an oscillator that hears it.
type VoltageReading struct {
	// Asked is the voltage that was sent uncorrected, in tenths of a millivolt.
	Asked int `json:"asked" jsonschema:"minimum=-200000,maximum=200000"`
	// Read is the voltage that a meter read, in tenths of a millivolt.
	Read int `json:"read,omitempty" jsonschema:"minimum=-250000,maximum=250000"`
	// Hertz is the frequency of the oscillator in thousandths of a hertz, in place of Read: an octave is a volt, counted from the reading
	// whose Asked is nearest to 0.
	Hertz int `json:"hertz,omitempty" jsonschema:"minimum=0,maximum=20000000"`
}

// Corrected is what has to be sent for a voltage that is wanted.
type Corrected struct {
	Wanted float64 `json:"wanted"`
	Sent   float64 `json:"sent"`
}

// Calibration corrects what a channel of an interface sends: in lines between voltages that were read, and beyond them as between the two
// that are nearest. Without any, what is wanted is sent. It is ordered by what is wanted.
type Calibration []Corrected

// Calibrated is what was read of a channel of an interface.
type Calibrated struct {
	// Interface is its name on this machine.
	Interface string           `json:"interface"`
	Channel   int              `json:"channel"`
	Readings  []VoltageReading `json:"readings"`
	// Calibration is what comes of them.
	Calibration Calibration `json:"calibration"`
}

// MostReadings is how many a calibration has at most.
const MostReadings = 24

// Calibrate returns the calibration of readings; of none it is empty. The error says which of them cannot be.
func Calibrate(readings []VoltageReading) (Calibration, error) {
	if len(readings) == 0 {
		return nil, nil
	}
	if len(readings) < 2 || len(readings) > MostReadings {
		return nil, fmt.Errorf("a calibration is of 2 to %d readings, not of %d", MostReadings, len(readings))
	}
	const unit = 10_000
	origin := readings[0]
	for _, r := range readings {
		if max(r.Asked, -r.Asked) < max(origin.Asked, -origin.Asked) {
			origin = r
		}
	}
	var c Calibration
	for _, r := range readings {
		if (r.Hertz > 0) != (origin.Hertz > 0) {
			return nil, fmt.Errorf("readings are voltages, or frequencies, not some of each")
		}
		wanted := float64(r.Read) / unit
		if r.Hertz > 0 {
			wanted = float64(origin.Asked)/unit + math.Log2(float64(r.Hertz)/float64(origin.Hertz))
		}
		c = append(c, Corrected{wanted, float64(r.Asked) / unit})
	}
	slices.SortFunc(c, func(a, b Corrected) int { return cmp.Compare(a.Sent, b.Sent) })
	for i := 1; i < len(c); i++ {
		a, b := c[i-1], c[i]
		if b.Sent-a.Sent < 0.01 {
			return nil, fmt.Errorf("%.4g V was read twice: read voltages that are 10 mV apart at least", b.Sent)
		}
		if slope := (b.Wanted - a.Wanted) / (b.Sent - a.Sent); slope < 0.5 || slope > 2 {
			return nil, fmt.Errorf("from %.4g to %.4g V it read %.4g to %.4g V, which no interface gives: read these again", a.Sent, b.Sent, a.Wanted, b.Wanted)
		}
	}
	return c, nil
}

// Sent returns what has to be sent for a voltage.
func (c Calibration) Sent(volts float64) float64 {
	if len(c) < 2 {
		return volts
	}
	to := 1
	for to < len(c)-1 && c[to].Wanted < volts {
		to++
	}
	low, high := c[to-1], c[to]
	return low.Sent + (volts-low.Wanted)*(high.Sent-low.Sent)/(high.Wanted-low.Wanted)
}

// Check refuses a calibration by which a channel would need more than its interface gives.
func (c Calibration) Check(channel score.VoltageChannel, fullScale int) error {
	for _, wanted := range []float64{volts(channel.Lowest), volts(channel.Highest), volts(channel.Height)} {
		if sent := c.Sent(wanted); math.Abs(sent) > volts(fullScale) {
			return fmt.Errorf("for %g V channel %d would need %.3f V, and the interface gives %g V: lower what the channel reaches, or read again",
				wanted, channel.Channel, sent, volts(fullScale))
		}
	}
	return nil
}

// Correct has the line of a channel be what has to be sent for it; where a calibration has corners, a voltage on its way has one too.
func (c Calibration) Correct(l Line) Line {
	if len(c) < 2 {
		return l
	}
	var corrected Line
	for _, s := range l {
		for _, piece := range c.split(s) {
			piece.Start, piece.End = c.Sent(piece.Start), c.Sent(piece.End)
			corrected = append(corrected, piece)
		}
	}
	return corrected
}

// split cuts a segment where its voltage passes the corners of a calibration, to the nanosecond.
func (c Calibration) split(s Segment) (pieces []Segment) {
	corners := slices.Clone(c[1 : len(c)-1])
	if s.Start > s.End {
		slices.Reverse(corners)
	}
	for _, corner := range corners {
		share := (corner.Wanted - s.Start) / (s.End - s.Start)
		if s.Start == s.End || share <= 0 || share >= 1 {
			continue
		}
		x := share
		if s.Bend > 0 {
			x = -math.Log1p(share*math.Expm1(-s.Bend)) / s.Bend
		}
		at := s.From + int64(x*float64(s.To-s.From))
		if at <= s.From || at >= s.To {
			continue
		}
		pieces = append(pieces, s.until(at))
		s = s.since(at)
	}
	return append(pieces, s)
}
