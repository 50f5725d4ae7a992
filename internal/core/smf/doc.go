// Package smf writes and reads Standard MIDI Files, as the Standard MIDI Files 1.0 specification (MIDI
// Manufacturers Association, RP-001) lays them down.
//
//	f, err := smf.FromTake(t, smf.Options{Format: 1, Division: smf.DefaultDivision})
//	data, err := smf.Encode(f)
//
//	f, repairs, err := smf.Decode(data)
//
// A file is a header chunk and track chunks; a track is a list of events with delta times in ticks of
// which Division make a quarter note. Running status is used throughout.
package smf
