// Package theory holds pitches, scales and keys.
//
// A pitch is written as a degree of a key and sounds as a MIDI note number. Degree 0 is the root in
// the octave of middle C, degree 1 the next note of the scale, degree -1 the note below the root. So
// a change of scale spells the music anew and loses nothing.
//
//	dorian, _ := theory.ScaleByName("dorian")
//	key := theory.Key{Root: 2, Scale: "dorian"}
//	key.Note(4) // 69: A4, the fifth degree of D dorian
//
// Note numbers are those of MIDI 1.0: 60 is middle C, which Jettyfog calls C4; 69 is A4 = 440 Hz.
package theory
