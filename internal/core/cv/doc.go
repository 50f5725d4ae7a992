// Package cv turns what goes to an output of voltages into segments of voltage, and these into samples.
//
//	voltages, err := cv.Of(taken, output)
//	voltages.Lines[0].Samples(...)
//
// Notes become spans of voices: a track with one voice plays the note that was struck last, and returns to one that is still held; of
// several each note takes one. A span is a gate, a pitch, a velocity; see voices.go, notes.go. What a channel does is a line of
// segments on exact times, which the page and the files of samples have alike, so edges are equal to the sample. Floats are only here.
package cv
