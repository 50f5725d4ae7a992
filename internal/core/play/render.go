package play

import (
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// Note is one sounding note.
type Note struct {
	// Start is when it is struck, End when it is released; End is after Start.
	Start, End score.Tick
	// Track is the id of the track that plays it.
	Track uint32
	// Part is the id of its part, Pattern that of the pattern of which this is; both are 0 in a loop.
	Part, Pattern uint8
	// Traveller is the id of the one by which a cell of a field sounds; 0 elsewhere.
	Traveller uint8
	// Step is the gate step that struck it, from 0.
	Step uint8
	// Key is the MIDI note number.
	Key uint8
	// Velocity is 1 to 127.
	Velocity uint8
	// Beside says that it is struck together with the note before it, as one hit: it is of the same chord.
	Beside bool
	// Detune is how far above the pitch that Key has in equal temperament the note is to sound.
	Detune theory.Cents
}

// Render appends to dst the notes that start in [from, to), as a Performer plays them. Where a lane's
// place depends on more than the time, as that of one that moves by hits, it takes time for all that comes
// before as well.
func Render(p *score.Project, from, to score.Tick, dst []Note) []Note {
	return NewPerformerAt(p, from, Past{}).Advance(to, dst)
}
