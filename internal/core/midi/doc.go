// Package midi holds channel messages: what they are, in which order those of one tick go out, how they are bytes
// (MIDI 1.0 Detailed Specification; MIDI Tuning Standard, MMA CA-020), and the two accounts that everything which sends,
// records or edits messages keeps: which notes sound, and what instruments were told and remember.
package midi
