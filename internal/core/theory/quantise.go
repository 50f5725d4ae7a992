package theory

// Direction is where a note that is not in the scale goes.
type Direction uint8

// The directions.
const (
	Nearest Direction = iota // to the nearest note of the scale, of two equally near the lower
	Up
	Down
)

// Directions holds the directions by their names.
var Directions = map[string]Direction{"nearest": Nearest, "up": Up, "down": Down}

// Quantise returns the degree of the scale that a MIDI note number stands for, or goes to if it is
// foreign to the scale.
func (s Spelling) Quantise(note int, direction Direction) (degree int) {
	below := s.degreeAtOrBelow(note)
	at := s.Note(below)
	if at == note || direction == Down {
		return below
	}
	if direction == Up || s.Note(below+1)-note < note-at {
		return below + 1
	}
	return below
}

func (s Spelling) degreeAtOrBelow(note int) int {
	within := floorMod(note-s.base, s.period)
	degree := (note - s.base - within) / s.period * s.Notes()
	for s.Note(degree+1) <= note {
		degree++
	}
	return degree
}
