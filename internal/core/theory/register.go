package theory

// Register is the range of notes that an instrument is to play.
type Register struct {
	// Lowest and Highest are MIDI note numbers, both within the register. Highest is so far above Lowest that
	// every note has a place: by 11 at least, and by as much as the period of the tuning asks for.
	Lowest  int `json:"lowest" jsonschema:"minimum=0,maximum=116"`
	Highest int `json:"highest" jsonschema:"minimum=11,maximum=127"`
}

// Fold moves a note into the register by whole octaves, as few as possible.
func (r Register) Fold(note int) int { return note + Octave*r.Folds(note, Octave) }

// Folds returns by how many periods of so many semitones or keys a note has to move to be in the register.
func (r Register) Folds(note, period int) int {
	switch {
	case note < r.Lowest:
		return (r.Lowest - note + period - 1) / period
	case note > r.Highest:
		return -((note - r.Highest + period - 1) / period)
	}
	return 0
}
