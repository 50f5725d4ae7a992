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

// scales is in the order in which to offer them. Contents: common practice, checked in the tests against
// a reference library wherever that has the scale too.
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
	{Name: "harmonic major", Semitones: []int{0, 2, 4, 5, 7, 8, 11}},
	{Name: "phrygian dominant", Semitones: []int{0, 1, 4, 5, 7, 8, 10}},
	{Name: "lydian dominant", Semitones: []int{0, 2, 4, 6, 7, 9, 10}},
	{Name: "lydian augmented", Semitones: []int{0, 2, 4, 6, 8, 9, 11}},
	{Name: "locrian #2", Semitones: []int{0, 2, 3, 5, 6, 8, 10}},
	{Name: "altered", Semitones: []int{0, 1, 3, 4, 6, 8, 10}},
	{Name: "dorian b2", Semitones: []int{0, 1, 3, 5, 7, 9, 10}},
	{Name: "major pentatonic", Semitones: []int{0, 2, 4, 7, 9}},
	{Name: "minor pentatonic", Semitones: []int{0, 3, 5, 7, 10}},
	{Name: "egyptian", Semitones: []int{0, 2, 5, 7, 10}},
	{Name: "blues", Semitones: []int{0, 3, 5, 6, 7, 10}},
	{Name: "major blues", Semitones: []int{0, 2, 3, 4, 7, 9}},
	{Name: "whole tone", Semitones: []int{0, 2, 4, 6, 8, 10}},
	{Name: "diminished", Semitones: []int{0, 2, 3, 5, 6, 8, 9, 11}},
	{Name: "half-whole diminished", Semitones: []int{0, 1, 3, 4, 6, 7, 9, 10}},
	{Name: "augmented", Semitones: []int{0, 3, 4, 7, 8, 11}},
	{Name: "tritone scale", Semitones: []int{0, 1, 4, 6, 7, 10}},
	{Name: "double harmonic major", Semitones: []int{0, 1, 4, 5, 7, 8, 11}},
	{Name: "hungarian minor", Semitones: []int{0, 2, 3, 6, 7, 8, 11}},
	{Name: "hungarian major", Semitones: []int{0, 3, 4, 6, 7, 9, 10}},
	{Name: "ukrainian dorian", Semitones: []int{0, 2, 3, 6, 7, 9, 10}},
	{Name: "neapolitan", Semitones: []int{0, 1, 3, 5, 7, 8, 11}},
	{Name: "neapolitan major", Semitones: []int{0, 1, 3, 5, 7, 9, 11}},
	{Name: "persian", Semitones: []int{0, 1, 4, 5, 6, 8, 11}},
	{Name: "enigmatic", Semitones: []int{0, 1, 4, 6, 8, 10, 11}},
	{Name: "oriental", Semitones: []int{0, 1, 4, 5, 6, 9, 10}},
	{Name: "flamenco", Semitones: []int{0, 1, 3, 4, 6, 7, 10}},
	{Name: "bebop", Semitones: []int{0, 2, 4, 5, 7, 9, 10, 11}},
	{Name: "bebop major", Semitones: []int{0, 2, 4, 5, 7, 8, 9, 11}},
	{Name: "hirajoshi", Semitones: []int{0, 2, 3, 7, 8}},
	{Name: "iwato", Semitones: []int{0, 1, 5, 6, 10}},
	{Name: "in-sen", Semitones: []int{0, 1, 5, 7, 10}},
	{Name: "kumoijoshi", Semitones: []int{0, 1, 5, 7, 8}},
	{Name: "pelog", Semitones: []int{0, 1, 3, 7, 8}},
	{Name: "chinese", Semitones: []int{0, 4, 6, 7, 11}},
	{Name: "prometheus", Semitones: []int{0, 2, 4, 6, 9, 10}},
	{Name: Chromatic, Semitones: []int{0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11}},
}

// Chromatic is the name of the scale of all notes.
const Chromatic = "chromatic"

// Custom as the name of a scale says that the key lists its notes itself.
const Custom = "custom"

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
