package play

import "jettyfog/internal/core/score"

// Note is one sounding note.
type Note struct {
	// Start is when it is struck, End when it is released; End is after Start.
	Start, End score.Tick
	// Track is the id of the track that plays it.
	Track uint32
	// Part is its part in the track, from 0.
	Part uint8
	// Step is the gate step that struck it, from 0.
	Step uint8
	// Channel counts from 0, as in a MIDI message.
	Channel uint8
	// Key is the MIDI note number.
	Key uint8
	// Velocity is 1 to 127.
	Velocity uint8
	// Mono lets the note end all notes of its track that sound when it starts.
	Mono bool
}

// Render appends to dst the notes that start in [from, to), as a Performer plays them. It takes time
// for all that comes before from as well, because lanes that move by hits stand where those brought them.
func Render(p *score.Project, from, to score.Tick, dst []Note) []Note {
	f := NewPerformer(p)
	f.scratch = f.Advance(from, f.scratch[:0])[:0]
	return f.Advance(to, dst)
}
