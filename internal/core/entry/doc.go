// Package entry turns notes that a person plays into steps, and keys into degrees and chords of a key.
//
//	speller := entry.NewSpeller(project.Key, track.Transpose)
//	degree, alteration, exact := speller.Spell(61)
//	edit, err := entry.Step(project, entry.Place{At: address, Step: 4}, []entry.Struck{{Key: 61, Velocity: 90}})
//
// A melodic part gets one note or one chord for a step; the parts of a kit get theirs by their keys. Lanes that run
// loops of their own are written where they stand, as far as that is known.
package entry
