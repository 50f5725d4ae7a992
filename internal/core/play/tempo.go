package play

import (
	"math/bits"
	"sort"

	"jettyfog/internal/core/score"
)

// TempoMap is a list of tempo changes, ascending; the first is at tick 0.
type TempoMap []score.TempoChange

// TempoMapOf returns the tempos of a project.
func TempoMapOf(p *score.Project) TempoMap {
	return append(TempoMap{{Tick: 0, Tempo: p.Tempo}}, p.TempoChanges...)
}

func (m TempoMap) fastest() score.Tempo {
	fastest := m[0].Tempo
	for _, change := range m {
		fastest = max(fastest, change.Tempo)
	}
	return fastest
}

// At returns the tempo that holds at a tick.
func (m TempoMap) At(t score.Tick) score.Tempo {
	tempo := m[0].Tempo
	for _, change := range m {
		if change.Tick > t {
			break
		}
		tempo = change.Tempo
	}
	return tempo
}

// Until returns the changes before a tick.
func (m TempoMap) Until(t score.Tick) TempoMap {
	until := m[:0:0]
	for i, change := range m {
		if i == 0 || change.Tick < t {
			until = append(until, change)
		}
	}
	return until
}

// From returns the tempo at a tick as if it began there, and what follows. The ticks stay.
func (m TempoMap) From(t score.Tick) TempoMap {
	from := TempoMap{{Tick: t, Tempo: m.At(t)}}
	for _, change := range m {
		if change.Tick > t {
			from = append(from, change)
		}
	}
	return from
}

// nanosPerMinuteOfThousandths is a minute in nanoseconds, times 1000 because a Tempo counts
// thousandths of a beat a minute.
const nanosPerMinuteOfThousandths = 60_000_000_000 * 1000

// Nanos returns how many nanoseconds after tick 0 a tick comes. The 128-bit product is rounded down
// once a tempo, so the result is less than one nanosecond a tempo change off.
func (m TempoMap) Nanos(t score.Tick) int64 {
	var sum int64
	for i, change := range m {
		end := t
		if i+1 < len(m) && m[i+1].Tick < t {
			end = m[i+1].Tick
		}
		if end <= change.Tick {
			break
		}
		sum += nanos(change.Tempo, end-change.Tick)
	}
	return sum
}

// TickAt returns the last tick that is not after the given number of nanoseconds from tick 0.
func (m TempoMap) TickAt(moment int64) score.Tick {
	var passed int64
	for i, change := range m {
		if i+1 < len(m) {
			next := passed + nanos(change.Tempo, m[i+1].Tick-change.Tick)
			if next <= moment {
				passed = next
				continue
			}
		}
		return change.Tick + ticks(change.Tempo, moment-passed)
	}
	return 0
}

// nanos returns floor(ticks · 60 s / (tempo · ticks per quarter)).
func nanos(tempo score.Tempo, t score.Tick) int64 {
	high, low := bits.Mul64(uint64(t), nanosPerMinuteOfThousandths)
	quotient, _ := bits.Div64(high, low, uint64(tempo)*uint64(score.TicksPerQuarter))
	return int64(quotient)
}

// ticks returns the largest number of ticks that last no longer than the given time.
func ticks(tempo score.Tempo, duration int64) score.Tick {
	if duration <= 0 {
		return 0
	}
	// The inequality floor(t·a/b) <= d holds for t·a < (d+1)·b, so the largest t is ((d+1)·b - 1)/a.
	high, low := bits.Mul64(uint64(duration)+1, uint64(tempo)*uint64(score.TicksPerQuarter))
	low, borrow := bits.Sub64(low, 1, 0)
	quotient, _ := bits.Div64(high-borrow, low, nanosPerMinuteOfThousandths)
	return score.Tick(quotient)
}

// Timing is a tempo map in which times are looked up without going through all of it, as one that follows another machine has thousands
// of tempos. The zero value must not be used; make one with Changed.
type Timing struct {
	tempo TempoMap
	sums  []int64 // the time of each change, in nanoseconds from tick 0
}

// Changed returns the timing of a map, which is quick for one that has the changes of this one's before.
func (t Timing) Changed(m TempoMap) Timing {
	same := 0
	for same < len(t.tempo) && same < len(m) && t.tempo[same] == m[same] {
		same++
	}
	sums := t.sums[:same:same]
	for i := same; i < len(m); i++ {
		var sum int64
		if i > 0 {
			sum = sums[i-1] + nanos(m[i-1].Tempo, m[i].Tick-m[i-1].Tick)
		}
		sums = append(sums, sum)
	}
	return Timing{m, sums}
}

// Nanos and TickAt are those of the map.
func (t Timing) Nanos(tick score.Tick) int64 {
	i := max(0, t.at(func(i int) bool { return t.tempo[i].Tick >= tick }))
	return t.sums[i] + nanos(t.tempo[i].Tempo, max(0, tick-t.tempo[i].Tick))
}

func (t Timing) TickAt(moment int64) score.Tick {
	i := max(0, t.at(func(i int) bool { return t.sums[i] > moment }))
	return t.tempo[i].Tick + ticks(t.tempo[i].Tempo, moment-t.sums[i])
}

// Segment returns which of the tempos holds at a tick, and that tempo.
func (t Timing) Segment(tick score.Tick) (index int, holds score.TempoChange) {
	index = max(0, t.at(func(i int) bool { return t.tempo[i].Tick > tick }))
	return index, t.tempo[index]
}

// at returns the index before the first that is beyond.
func (t Timing) at(beyond func(i int) bool) int { return sort.Search(len(t.tempo), beyond) - 1 }
