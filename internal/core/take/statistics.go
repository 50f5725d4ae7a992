package take

import (
	"math"
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// Statistics are numbers by which takes are compared.
type Statistics struct {
	Notes int `json:"notes"`
	// Velocity is the mean of all velocities, Deviation their standard deviation (of the whole population).
	Velocity  float64 `json:"velocity"`
	Deviation float64 `json:"deviation"`
	// Length is how many bars the take has; the last can be cut short.
	Length int `json:"length"`
	// Bars are those in which notes start, ascending.
	Bars []BarStatistics `json:"bars"`
	// Keys counts the notes of each key that is played, ascending.
	Keys []Tally `json:"keys"`
	// Intervals counts how many semitones each track goes from the highest note of a moment to that of the
	// next moment, ascending.
	Intervals []Tally `json:"intervals"`
}

// BarStatistics are those of one bar.
type BarStatistics struct {
	// Bar is its number, from 1.
	Bar int `json:"bar"`
	// Notes is how many notes start in it, 1 or more.
	Notes int `json:"notes"`
	// Velocity is their mean velocity.
	Velocity float64 `json:"velocity"`
}

// Tally is how often a value comes.
type Tally struct {
	Value int `json:"value"`
	Count int `json:"count"`
}

// StatisticsOf returns the statistics of some tracks of a take, or of all if none are named.
func StatisticsOf(t *Take, tracks ...uint32) Statistics {
	bars := t.Bars()
	s := Statistics{Length: int(bars.At(t.End-1) + 1), Bars: []BarStatistics{}}
	keys, intervals := map[int]int{}, map[int]int{}
	highest := map[uint32]midi.Note{} // of the latest moment of each track
	from := map[uint32]midi.Note{}    // of the moment before
	choice := Choice{Tracks: tracks}
	var sum, squares float64
	leap := func(track uint32) {
		if before, any := from[track]; any {
			intervals[int(highest[track].Key)-int(before.Key)]++
		}
	}
	for _, n := range t.Notes() {
		if !choice.includes(n.Track, n.Start) {
			continue
		}
		velocity := float64(n.Velocity)
		s.Notes++
		sum, squares = sum+velocity, squares+velocity*velocity
		keys[int(n.Key)]++
		number := int(bars.At(n.Start)) + 1
		if last := len(s.Bars) - 1; last < 0 || s.Bars[last].Bar != number {
			s.Bars = append(s.Bars, BarStatistics{Bar: number})
		}
		in := &s.Bars[len(s.Bars)-1]
		in.Notes++
		in.Velocity += velocity
		latest, any := highest[n.Track]
		switch {
		case !any:
			highest[n.Track] = n
		case latest.Start == n.Start:
			if n.Key > latest.Key {
				highest[n.Track] = n
			}
		default:
			leap(n.Track)
			from[n.Track], highest[n.Track] = latest, n
		}
	}
	for track := range highest {
		leap(track)
	}
	for i := range s.Bars {
		s.Bars[i].Velocity /= float64(s.Bars[i].Notes)
	}
	if s.Notes > 0 {
		s.Velocity = sum / float64(s.Notes)
		s.Deviation = math.Sqrt(max(0, squares/float64(s.Notes)-s.Velocity*s.Velocity))
	}
	s.Keys, s.Intervals = tallies(keys), tallies(intervals)
	return s
}

func tallies(counts map[int]int) []Tally {
	list := make([]Tally, 0, len(counts))
	for value, count := range counts {
		list = append(list, Tally{value, count})
	}
	slices.SortFunc(list, func(a, b Tally) int { return a.Value - b.Value })
	return list
}

// Comparison tells what two takes have in common. Notes are named by their places among Take.Notes.
type Comparison struct {
	// Same is how many notes both have.
	Same int `json:"same"`
	// Changed are the notes of the first take that the second has with another velocity or length.
	Changed []int `json:"changed"`
	// Gone are the notes of the first that the second lacks, Added those of the second that the first lacks.
	Gone  []int `json:"gone"`
	Added []int `json:"added"`
}

// Tolerance is how far apart two moments can be that count as the same when takes are compared: a tick of the
// usual MIDI file, so that a file that comes back is the take that it was made of.
const Tolerance = score.TicksPerQuarter / 960

// Compare pairs each note of a take with one of another that has its key and its start: with its double if there is
// one, since several can start together, else with the first.
func Compare(a, b *Take) Comparison {
	c := Comparison{Changed: []int{}, Gone: []int{}, Added: []int{}}
	ours, theirs := a.Notes(), b.Notes()
	waiting := [theory.HighestNote + 1][]int{} // those of b by key, in order
	for place, n := range theirs {
		waiting[n.Key] = append(waiting[n.Key], place)
	}
	for place, n := range ours {
		list := waiting[n.Key]
		for len(list) > 0 && theirs[list[0]].Start < n.Start-Tolerance {
			c.Added, list = append(c.Added, list[0]), list[1:]
		}
		paired, likeness := -1, 0
		for i, other := range list {
			if theirs[other].Start > n.Start+Tolerance {
				break
			}
			if l := likenessOf(n, theirs[other]); l > likeness {
				paired, likeness = i, l
			}
		}
		switch {
		case paired < 0:
			c.Gone = append(c.Gone, place)
		case likeness == startsAlike:
			c.Changed = append(c.Changed, place)
		default:
			c.Same++
		}
		if paired >= 0 {
			list = slices.Delete(list, paired, paired+1)
		}
		waiting[n.Key] = list
	}
	for _, list := range waiting {
		c.Added = append(c.Added, list...)
	}
	slices.Sort(c.Added)
	return c
}

// How alike two notes are that start together on one key.
const (
	startsAlike   = 1 + iota
	soundsAlike   // within the tolerance, with the same velocity
	exactlyDouble // to the tick
)

func likenessOf(a, b midi.Note) int {
	longer := (b.End - b.Start) - (a.End - a.Start)
	switch {
	case a.Velocity != b.Velocity || max(longer, -longer) > 2*Tolerance:
		return startsAlike
	case longer != 0 || a.Start != b.Start:
		return soundsAlike
	default:
		return exactlyDouble
	}
}
