package follow

import (
	"math"

	"jettyfog/internal/core/score"
)

// Line says where another machine is: at a position at a time, and so many ticks further with each nanosecond.
type Line struct {
	At             int64
	Position, Rate float64
}

// PositionAt returns the position at a time, and TimeOf the time of a position.
func (l Line) PositionAt(at int64) float64     { return l.Position + float64(at-l.At)*l.Rate }
func (l Line) TimeOf(position float64) float64 { return float64(l.At) + (position-l.Position)/l.Rate }

// nanosPerMinute times thousandths, as a Tempo counts.
const thousandthNanosPerMinute = 60e12

// Tempo returns that of the line, within the tempos that there are.
func (l Line) Tempo() score.Tempo { return tempoOf(l.Rate) }

func tempoOf(rate float64) score.Tempo {
	tempo := math.Round(rate * thousandthNanosPerMinute / float64(score.TicksPerQuarter))
	return score.Tempo(math.Max(float64(score.MinTempo), math.Min(float64(score.MaxTempo), tempo)))
}

func rateOf(tempo score.Tempo) float64 {
	return float64(tempo) * float64(score.TicksPerQuarter) / thousandthNanosPerMinute
}

// Sixteenth is how many ticks lie between two looks at the line.
const Sixteenth = score.TicksPerQuarter / 4

const (
	// small is how far off the line playing may be a quarter note later, in nanoseconds, to come there calmly, over that quarter note; from
	// further it does within a sixteenth. Below tolerance the tempo stays.
	small, tolerance = 500_000, 50_000
	// faster is by how many times a tempo is faster or slower than the line's at most.
	faster = 2
)

// Steer returns the tempo that playing is to have from a position and a time on, where it has a tempo now, so that it comes to a line. It is
// asked at each sixteenth; what is small waits for a beat, so that a tempo that is steady changes once a beat at most. A tempo is between half
// and double the line's, so no tick goes back. Changes is false where the tempo that playing has is to stay.
func Steer(line Line, position float64, at int64, now score.Tempo, onBeat bool) (next score.Tempo, changes bool) {
	behind := line.PositionAt(at) - position
	off := math.Abs(behind+float64(score.TicksPerQuarter)*(1-rateOf(now)/line.Rate)) / line.Rate
	if off < tolerance || off < small && !onBeat {
		return now, false
	}
	within := float64(score.TicksPerQuarter)
	if off >= small {
		within = float64(Sixteenth)
	}
	next = tempoOf(line.Rate * math.Max(1.0/faster, math.Min(faster, 1+behind/within)))
	return next, next != now
}
