package server

import (
	"sync"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// pictureBars is how many bars the picture of a project shows, and maxPictures how many pictures are remembered.
const (
	pictureBars = 4
	maxPictures = 256
)

// pictures remembers what the first bars of projects play, each at a revision, since that takes time to find.
type pictures struct {
	mu    sync.Mutex
	known map[pictured]picture
}

type pictured struct{ id, revision int64 }

type picture struct {
	notes []OutlineNote
	ends  score.Tick
}

func newPictures() *pictures { return &pictures{known: map[pictured]picture{}} }

// of returns what the first bars of a project play; nothing where it cannot be read.
func (p *pictures) of(id, revision int64, read func() (*score.Project, error)) ([]OutlineNote, score.Tick) {
	p.mu.Lock()
	defer p.mu.Unlock()
	key := pictured{id, revision}
	if known, ok := p.known[key]; ok {
		return known.notes, known.ends
	}
	project, err := read()
	if err != nil {
		return []OutlineNote{}, 0
	}
	ends := project.Bars().Start(pictureBars)
	drawn := newOutline(0, ends)
	for _, n := range play.Render(project, 0, ends, nil) {
		drawn.add(n.Start, n.End, int(n.Key))
	}
	if len(p.known) == maxPictures {
		clear(p.known)
	}
	p.known[key] = picture{drawn.notes, ends}
	return drawn.notes, ends
}
