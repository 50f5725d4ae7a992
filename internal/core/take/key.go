package take

import (
	"slices"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// KeyOf returns a key whose scale is just the chosen notes of a take, on the root of another key if that is among
// them, else on the lowest. A scale that has a name gets it. The error is a *score.FieldError.
func KeyOf(t *Take, c Choice, root int) (theory.Key, error) {
	notes := t.Notes()
	chosen, err := c.of(notes)
	if err != nil {
		return theory.Key{}, err
	}
	var classes [theory.Octave]bool
	lowest := theory.HighestNote + 1
	for i, n := range notes {
		if chosen[i] {
			classes[n.Key%theory.Octave] = true
			lowest = min(lowest, int(n.Key))
		}
	}
	if lowest > theory.HighestNote {
		return theory.Key{}, &score.FieldError{Field: "the number of notes", Got: 0, Allowed: "1 at least, so that there is a scale"}
	}
	if root >= theory.Octave || !classes[root] {
		root = lowest % theory.Octave
	}
	key := theory.Key{Root: root, Scale: theory.Custom}
	for above := range theory.Octave {
		if classes[(root+above)%theory.Octave] {
			key.Notes = append(key.Notes, above)
		}
	}
	for _, name := range theory.ScaleNames() {
		if named, _ := theory.ScaleByName(name); slices.Equal(named.Semitones, key.Notes) {
			return theory.Key{Root: root, Scale: name}, nil
		}
	}
	return key, nil
}
