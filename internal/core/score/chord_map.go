package score

import (
	"cmp"
	"fmt"
	"slices"

	"jettyfog/internal/core/theory"
)

// Bounds of chord maps.
const (
	MaxChordMaps  = 16
	MaxChordSlots = 24
	MaxChordNotes = 8
	// UsualBeats is how many quarter notes a chord lasts that says nothing else, where a map runs in time.
	UsualBeats = 4
)

// ChordMap is chords that can be called.
type ChordMap struct {
	ID   int    `json:"id" jsonschema:"minimum=1,maximum=255"`
	Name string `json:"name" jsonschema:"minLength=1,maxLength=60"`
	// Chords are its slots; an empty one is silent.
	Chords []MapChord `json:"chords" jsonschema:"maxItems=24"`
	// Led has each chord move as little as it can from the one before it.
	Led bool `json:"led,omitempty"`
	// Strum is how chords of the map are spread that are struck all at once, as Voicing has it; 0 is as the part has it.
	Strum int `json:"strum,omitempty" jsonschema:"minimum=-100,maximum=100"`
}

// MapChord is a chord of a map.
type MapChord struct {
	Keys []int `json:"keys" jsonschema:"maxItems=8"`
	// Inversion puts so many of the lowest notes an octave up, and Open every second note.
	Inversion int  `json:"inversion,omitempty" jsonschema:"minimum=0,maximum=4"`
	Open      bool `json:"open,omitempty"`
	// Beats is how many quarter notes the chord lasts where the map runs in time; 0 is UsualBeats.
	Beats int `json:"beats,omitempty" jsonschema:"minimum=0,maximum=64"`
}

// Lasts returns how long the chord lasts where the map runs in time.
func (c *MapChord) Lasts() Tick {
	if c.Beats == 0 {
		return UsualBeats * TicksPerQuarter
	}
	return Tick(c.Beats) * TicksPerQuarter
}

// At returns the place of the chord that there is at a tick of the song where the map runs in time, over and over; 0 without chords.
func (m *ChordMap) At(tick Tick) int {
	var all Tick
	for i := range m.Chords {
		all += m.Chords[i].Lasts()
	}
	if all == 0 {
		return 0
	}
	tick %= all
	for i := range m.Chords {
		if tick -= m.Chords[i].Lasts(); tick < 0 {
			return i
		}
	}
	return 0
}

// ChordMap returns the map of the id, or nil.
func (p *Project) ChordMap(id int) *ChordMap {
	for i := range p.ChordMaps {
		if p.ChordMaps[i].ID == id {
			return &p.ChordMaps[i]
		}
	}
	return nil
}

// Voiced returns the keys of a chord of the map, by its place, as they lie: inverted and opened, ascending.
func (c *MapChord) Voiced() []int {
	intervals := make([]Interval, len(c.Keys))
	for i, key := range c.Keys {
		intervals[i] = Interval{Semitones: key}
	}
	slices.SortFunc(intervals, func(a, b Interval) int { return cmp.Compare(a.Semitones, b.Semitones) })
	Voicing{Inversion: c.Inversion, Open: c.Open}.Lay(intervals, Interval{Semitones: theory.Octave})
	var keys []int
	for _, interval := range intervals {
		keys = append(keys, max(theory.LowestNote, min(theory.HighestNote, interval.Semitones)))
	}
	slices.Sort(keys)
	return slices.Compact(keys)
}

// ChordOn returns the keys of a type of chords, by its place among Chords, on a degree of a key, ascending; those that no MIDI note has are left out.
func ChordOn(key theory.Key, degree, kind int) []int {
	spelling, keys := key.Spelling(), []int{}
	for _, interval := range (Voicing{}).Voice(kind, spelling.Notes(), spelling.Period(), nil) {
		note := spelling.Note(degree+interval.Degrees) + interval.Semitones
		if note >= theory.LowestNote && note <= theory.HighestNote {
			keys = append(keys, note)
		}
	}
	slices.Sort(keys)
	return slices.Compact(keys)
}

func cloneChordMaps(maps []ChordMap) []ChordMap {
	clone := slices.Clone(maps)
	for i := range clone {
		clone[i].Chords = slices.Clone(clone[i].Chords)
		for k := range clone[i].Chords {
			clone[i].Chords[k].Keys = slices.Clone(clone[i].Chords[k].Keys)
		}
	}
	return clone
}

func (p *Project) validateChordMaps() error {
	for i := range p.ChordMaps {
		m, at := &p.ChordMaps[i], fmt.Sprintf("chordMaps[%d]", i)
		for _, other := range p.ChordMaps[:i] {
			switch {
			case other.ID == m.ID:
				return &FieldError{at + ".id", m.ID, "different from every other map's"}
			case other.Name == m.Name:
				return &FieldError{at + ".name", m.Name, "different from every other map's"}
			}
		}
		if err := CheckName(at+".name", m.Name); err != nil {
			return err
		}
		for k := range m.Chords {
			for n, key := range m.Chords[k].Keys {
				if err := checkRange(fmt.Sprintf("%s.chords[%d].keys[%d]", at, k, n), key, theory.LowestNote, theory.HighestNote); err != nil {
					return err
				}
			}
		}
	}
	return nil
}
