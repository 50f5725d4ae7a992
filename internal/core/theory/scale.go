package theory

// Scale is a set of notes that repeats every octave.
type Scale struct {
	// Name is the accepted name, in lower case.
	Name string
	// Semitones are the notes' distances above the root, ascending from 0, each below 12.
	Semitones []int
	// Tonality says whether the scale has a key signature in the major and minor system.
	Tonality Tonality
}

// Tonality is a scale's place in the major and minor system.
type Tonality uint8

// A scale is Modal, the zero value, where no major or minor key signature is in use for it.
const (
	Modal Tonality = iota
	Major
	Minor
)

// Octave is the period of every scale, in semitones.
const Octave = 12

// scales is in the order in which a user meets them. Contents: common practice.
var scales = []Scale{
	{Name: "major", Semitones: []int{0, 2, 4, 5, 7, 9, 11}, Tonality: Major},
	{Name: "minor", Semitones: []int{0, 2, 3, 5, 7, 8, 10}, Tonality: Minor},
	{Name: "dorian", Semitones: []int{0, 2, 3, 5, 7, 9, 10}},
	{Name: "phrygian", Semitones: []int{0, 1, 3, 5, 7, 8, 10}},
	{Name: "lydian", Semitones: []int{0, 2, 4, 6, 7, 9, 11}},
	{Name: "mixolydian", Semitones: []int{0, 2, 4, 5, 7, 9, 10}},
	{Name: "locrian", Semitones: []int{0, 1, 3, 5, 6, 8, 10}},
	{Name: "harmonic minor", Semitones: []int{0, 2, 3, 5, 7, 8, 11}, Tonality: Minor},
	{Name: "melodic minor", Semitones: []int{0, 2, 3, 5, 7, 9, 11}, Tonality: Minor},
	{Name: "major pentatonic", Semitones: []int{0, 2, 4, 7, 9}},
	{Name: "minor pentatonic", Semitones: []int{0, 3, 5, 7, 10}},
	{Name: "blues", Semitones: []int{0, 3, 5, 6, 7, 10}},
	{Name: "whole tone", Semitones: []int{0, 2, 4, 6, 8, 10}},
	{Name: "chromatic", Semitones: []int{0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11}},
}

// ScaleNames lists the names of all scales in the order in which to offer them.
func ScaleNames() []string {
	names := make([]string, len(scales))
	for i, s := range scales {
		names[i] = s.Name
	}
	return names
}

// ScaleByName finds a scale; ok is false if there is none of that name. The caller must not change
// the slices in it.
func ScaleByName(name string) (s Scale, ok bool) {
	for _, s := range scales {
		if s.Name == name {
			return s, true
		}
	}
	return Scale{}, false
}
