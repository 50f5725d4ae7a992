package score

// ClockOut has an output send MIDI clock, 24 a quarter note, with start, stop, continue and song position.
type ClockOut struct {
	// Offset is how much later than the beats the clock is sent, in milliseconds, whatever the output's own offset is; below 0 earlier.
	Offset int `json:"offset,omitempty" jsonschema:"minimum=-100,maximum=250"`
	// WhileStopped goes on with the clock while nothing plays, at the tempo of the project.
	WhileStopped bool `json:"whileStopped,omitempty"`
	// Starts has playing from within the song be told as a start, for a machine that knows no positions; else as a position and continue.
	Starts bool `json:"starts,omitempty"`
	// Follows has a jump of the song be told, as stop, position and continue; else the machine runs on.
	Follows bool `json:"follows,omitempty"`
}
