package score

import "slices"

// ChordType is a stack of notes above a root: of degrees, so that the chord is always in the scale, or of
// semitones, so that it has its quality wherever it stands.
type ChordType struct {
	Name      string `json:"name"`
	Degrees   []int  `json:"degrees,omitempty"`
	Semitones []int  `json:"semitones,omitempty"`
}

// chords is indexed by the values of the chord lane, so its order never changes. Names: common practice,
// those of degrees for scales of seven notes.
var chords = []ChordType{
	{Name: "none", Degrees: []int{0}},
	{Name: "fifth", Degrees: []int{0, 4}},
	{Name: "triad", Degrees: []int{0, 2, 4}},
	{Name: "seventh", Degrees: []int{0, 2, 4, 6}},
	{Name: "ninth", Degrees: []int{0, 2, 4, 6, 8}},
	{Name: "sixth", Degrees: []int{0, 2, 4, 5}},
	{Name: "added ninth", Degrees: []int{0, 2, 4, 8}},
	{Name: "suspended second", Degrees: []int{0, 1, 4}},
	{Name: "suspended fourth", Degrees: []int{0, 3, 4}},
	{Name: "fourths", Degrees: []int{0, 3, 6}},
	{Name: "third", Degrees: []int{0, 2}},
	{Name: "5", Semitones: []int{0, 7}},
	{Name: "major", Semitones: []int{0, 4, 7}},
	{Name: "minor", Semitones: []int{0, 3, 7}},
	{Name: "diminished", Semitones: []int{0, 3, 6}},
	{Name: "augmented", Semitones: []int{0, 4, 8}},
	{Name: "sus2", Semitones: []int{0, 2, 7}},
	{Name: "sus4", Semitones: []int{0, 5, 7}},
	{Name: "6", Semitones: []int{0, 4, 7, 9}},
	{Name: "m6", Semitones: []int{0, 3, 7, 9}},
	{Name: "7", Semitones: []int{0, 4, 7, 10}},
	{Name: "maj7", Semitones: []int{0, 4, 7, 11}},
	{Name: "m7", Semitones: []int{0, 3, 7, 10}},
	{Name: "m/maj7", Semitones: []int{0, 3, 7, 11}},
	{Name: "m7b5", Semitones: []int{0, 3, 6, 10}},
	{Name: "dim7", Semitones: []int{0, 3, 6, 9}},
	{Name: "7#5", Semitones: []int{0, 4, 8, 10}},
	{Name: "7sus4", Semitones: []int{0, 5, 7, 10}},
	{Name: "9", Semitones: []int{0, 4, 7, 10, 14}},
	{Name: "maj9", Semitones: []int{0, 4, 7, 11, 14}},
	{Name: "m9", Semitones: []int{0, 3, 7, 10, 14}},
}

func chordNames() (names []string) {
	for _, chord := range chords {
		names = append(names, chord.Name)
	}
	return names
}

// Chords lists the types of chords by the values of the chord lane.
func Chords() []ChordType {
	list := make([]ChordType, len(chords))
	for i, chord := range chords {
		list[i] = ChordType{chord.Name, slices.Clone(chord.Degrees), slices.Clone(chord.Semitones)}
	}
	return list
}

// Voicing is how the notes of all chords of a part lie and follow each other.
type Voicing struct {
	// Inversion puts so many of the lowest notes an octave up, 0 to 4.
	Inversion int `json:"inversion" jsonschema:"minimum=0,maximum=4"`
	// Open puts every second note an octave up.
	Open bool `json:"open"`
	// Strum is the time from the first note to the last, in percent of the step: upwards above 0,
	// downwards below.
	Strum int `json:"strum" jsonschema:"minimum=-100,maximum=100"`
}

// Interval is how far a note of a chord lies above the chord's root: so many degrees, then so many
// semitones. Note is which note of a step it is, from 0.
type Interval struct{ Degrees, Semitones, Note int }

// Voice appends to dst the notes of a chord in a voicing, in the order in which they are struck, where an
// octave has so many degrees and so many semitones.
func (v Voicing) Voice(chord, degrees, semitones int, dst []Interval) []Interval {
	first := len(dst)
	up := Interval{Degrees: degrees}
	for _, degree := range chords[chord].Degrees {
		dst = append(dst, Interval{Degrees: degree})
	}
	for _, semitone := range chords[chord].Semitones {
		up = Interval{Semitones: semitones}
		dst = append(dst, Interval{Semitones: semitone})
	}
	v.Lay(dst[first:], up)
	return dst
}

// Lay puts notes, ascending, as the voicing has them, in the order in which they are struck; up is an octave.
func (v Voicing) Lay(notes []Interval, up Interval) {
	for range min(v.Inversion, len(notes)-1) {
		lowest := notes[0]
		copy(notes, notes[1:])
		notes[len(notes)-1] = lowest.plus(up)
	}
	if v.Open {
		for i := 1; i < len(notes); i += 2 {
			notes[i] = notes[i].plus(up)
		}
	}
	if v.Strum < 0 {
		slices.Reverse(notes)
	}
}

func (i Interval) plus(other Interval) Interval {
	return Interval{i.Degrees + other.Degrees, i.Semitones + other.Semitones, i.Note}
}
