package take

import (
	"jettyfog/internal/core/entry"
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
	var keys []int
	for i, n := range notes {
		if chosen[i] {
			keys = append(keys, int(n.Key))
		}
	}
	if len(keys) == 0 {
		return theory.Key{}, &score.FieldError{Field: "the number of notes", Got: 0, Allowed: "1 at least, so that there is a scale"}
	}
	return entry.KeyOf(keys, root), nil
}
