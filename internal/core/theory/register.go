package theory

// Register is the range of notes that an instrument is to play.
type Register struct {
	// Lowest and Highest are MIDI note numbers, both within the register. Highest is at least 11
	// above Lowest, so that every pitch class has a place.
	Lowest  int `json:"lowest" jsonschema:"minimum=0,maximum=116"`
	Highest int `json:"highest" jsonschema:"minimum=11,maximum=127"`
}

// Fold moves a note into the register by whole octaves, as few as possible.
func (r Register) Fold(note int) int {
	if note < r.Lowest {
		note += (r.Lowest - note + Octave - 1) / Octave * Octave
	}
	if note > r.Highest {
		note -= (note - r.Highest + Octave - 1) / Octave * Octave
	}
	return note
}
