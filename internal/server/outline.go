package server

import "jettyfog/internal/core/score"

// OutlineNote is a note of an outline.
type OutlineNote struct {
	Start score.Tick `json:"start"`
	End   score.Tick `json:"end"`
	Key   int        `json:"key"`
}

// outlineGrid is into how many pieces a stretch is cut to be outlined: about as many as there are pixels.
const outlineGrid = 1024

// outline gathers notes of a stretch to be drawn small. Notes of a key that begin within one piece of its grid become
// one, so that a stretch of very many notes costs a page no more than it can show.
type outline struct {
	from, piece score.Tick
	notes       []OutlineNote
	places      map[outlinePlace]int
}

type outlinePlace struct {
	piece score.Tick
	key   int
}

func newOutline(from, to score.Tick) *outline {
	return &outline{from: from, piece: max(1, (to-from)/outlineGrid), notes: []OutlineNote{}, places: map[outlinePlace]int{}}
}

func (o *outline) add(start, end score.Tick, key int) {
	place := outlinePlace{(start - o.from) / o.piece, key}
	if at, drawn := o.places[place]; drawn {
		o.notes[at].End = max(o.notes[at].End, end)
		return
	}
	o.places[place] = len(o.notes)
	o.notes = append(o.notes, OutlineNote{Start: start, End: end, Key: key})
}
