package cv

import "math"

// Segment is a stretch of time over which a voltage goes from one value to another.
type Segment struct {
	// From and To are nanoseconds since bar 1; To is not part of it.
	From, To int64
	// Start and End are volts.
	Start, End float64
	// Bend is 0 for a straight line; above 0 it goes fast first: with x from 0 at From to 1 at To the voltage is
	// Start + (End - Start) · (1 - e^(-Bend·x)) / (1 - e^(-Bend)).
	Bend float64
}

// exponential is the bend of a slide that goes fast first: without its end it would come within 0.1 % of it.
var exponential = math.Log(1000)

// At returns the voltage at a moment, in nanoseconds, of the segment.
func (s Segment) At(moment float64) float64 {
	if s.Start == s.End {
		return s.End
	}
	x := (moment - float64(s.From)) / float64(s.To-s.From)
	if s.Bend > 0 {
		x = -math.Expm1(-s.Bend*x) / -math.Expm1(-s.Bend)
	}
	return s.Start + (s.End-s.Start)*x
}

// until returns the segment as far as a moment in it.
func (s Segment) until(moment int64) Segment {
	cut := s
	cut.To, cut.End = moment, s.At(float64(moment))
	if s.Bend > 0 {
		cut.Bend = s.Bend * float64(moment-s.From) / float64(s.To-s.From)
	}
	return cut
}

// since returns the segment from a moment in it on.
func (s Segment) since(moment int64) Segment {
	rest := s
	rest.From, rest.Start = moment, s.At(float64(moment))
	if s.Bend > 0 {
		rest.Bend = s.Bend * float64(s.To-moment) / float64(s.To-s.From)
	}
	return rest
}

// Moments before and after all others.
const (
	never   = math.MinInt64
	forever = math.MaxInt64
)

// Line is a voltage as time goes by: segments without gaps, from the beginning on for ever.
type Line []Segment

// Steady returns a line that stays at a voltage from a moment on.
func Steady(moment int64, volts float64) Line {
	return Line{{From: moment, To: forever, Start: volts, End: volts}}
}

// to has the line go to a voltage from a moment on, which is not before its beginning; what it would have done later is forgotten. It
// takes so long, along a bend.
func (l *Line) to(moment int64, volts float64, takes int64, bend float64) {
	line := *l
	moment = max(moment, line[0].From)
	last := len(line) - 1
	for line[last].From > moment {
		last--
	}
	begins := line[last].At(float64(moment))
	if line[last].From == moment {
		line, begins = line[:last], line[last].Start
	} else {
		line[last] = line[last].until(moment)
		line = line[:last+1]
	}
	if takes > 0 && begins != volts {
		line = append(line, Segment{moment, moment + takes, begins, volts, bend})
		moment += takes
	}
	if end := len(line) - 1; end >= 0 && line[end].Start == volts && line[end].End == volts {
		line[end].To = forever
	} else {
		line = append(line, Segment{From: moment, To: forever, Start: volts, End: volts})
	}
	*l = line
}

// forget leaves out what is over before a moment.
func (l *Line) forget(before int64) {
	over := 0
	for over < len(*l)-1 && (*l)[over].To <= before {
		over++
	}
	*l = append(Line{}, (*l)[over:]...)
}

// Samples writes samples of the line into dst, stride apart, as shares of full scale: the first is that of a moment, in nanoseconds, so
// many samples later, at a rate a second. The sample of an edge is the first that is not before it.
func (l Line) Samples(from int64, rate int, first int64, fullScale float64, dst []float32, stride int) {
	const second = 1_000_000_000
	at := 0
	begun := func(segment int, sample int64) bool { // without rounding
		return (l[segment].From-from)*int64(rate) <= sample*second
	}
	for i := 0; i*stride < len(dst); i++ {
		sample := first + int64(i)
		for at+1 < len(l) && begun(at+1, sample) {
			at++
		}
		moment := float64(from) + float64(sample)*second/float64(rate)
		dst[i*stride] = float32(l[at].At(moment) / fullScale)
	}
}
