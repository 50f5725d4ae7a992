package score

import "slices"

// ChordType is a stack of degrees above a root, so that a chord is always in the scale. Names: common
// practice for scales of seven notes.
type ChordType struct {
	Name    string `json:"name"`
	Degrees []int  `json:"degrees"`
}

// chords is indexed by the values of the chord lane, so its order never changes.
var chords = []ChordType{
	{"none", []int{0}},
	{"fifth", []int{0, 4}},
	{"triad", []int{0, 2, 4}},
	{"seventh", []int{0, 2, 4, 6}},
	{"ninth", []int{0, 2, 4, 6, 8}},
	{"sixth", []int{0, 2, 4, 5}},
	{"added ninth", []int{0, 2, 4, 8}},
	{"suspended second", []int{0, 1, 4}},
	{"suspended fourth", []int{0, 3, 4}},
	{"fourths", []int{0, 3, 6}},
	{"third", []int{0, 2}},
}

// Chords lists the types of chords by the values of the chord lane.
func Chords() []ChordType {
	list := make([]ChordType, len(chords))
	for i, chord := range chords {
		list[i] = ChordType{Name: chord.Name, Degrees: slices.Clone(chord.Degrees)}
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

// Voice returns the degrees of a chord in a voicing, in the order in which they are struck, in a scale
// of so many notes.
func (v Voicing) Voice(chord, notes int) []int {
	degrees := slices.Clone(chords[chord].Degrees)
	for range min(v.Inversion, len(degrees)-1) {
		degrees = append(degrees[1:], degrees[0]+notes)
	}
	if v.Open {
		for i := 1; i < len(degrees); i += 2 {
			degrees[i] += notes
		}
	}
	if v.Strum < 0 {
		slices.Reverse(degrees)
	}
	return degrees
}
