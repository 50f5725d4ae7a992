// Package memory is a store that keeps everything in memory and can be made to fail. It stands in for the
// disk in tests of what is around the store.
package memory

import (
	"context"
	"errors"
	"fmt"
	"sync"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/studio"
)

// ErrFull is what every call returns while the store fails.
var ErrFull = errors.New("the disk is full")

// Store keeps a document with its history, and takes. All methods may be called concurrently.
type Store struct {
	mu       sync.Mutex
	failing  bool
	document studio.Document
	changes  []studio.Change
	takes    []stored
}

type stored struct {
	take     take.Take
	revision int64
	finished bool
	origins  []take.Origin
	present  take.Summary // of a take that was changed
	edits    []take.Edit
}

// New returns a store whose document is the project at revision 1.
func New(project *score.Project) *Store {
	return &Store{document: studio.Document{Project: project, Revision: 1}}
}

// Fail makes all calls that change something fail, or succeed again.
func (s *Store) Fail(failing bool) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.failing = failing
}

// Document returns the stored document.
func (s *Store) Document() studio.Document {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.document
}

// SaveEdit implements studio.Store.
func (s *Store) SaveEdit(_ context.Context, d studio.Document, c studio.Change) error {
	return s.change(func() error {
		s.document, s.changes = d, append(s.changes[:d.Position-1], c)
		return nil
	})
}

// SaveMove implements studio.Store.
func (s *Store) SaveMove(_ context.Context, d studio.Document) error {
	return s.change(func() error {
		s.document = d
		return nil
	})
}

// Change implements studio.Store.
func (s *Store) Change(_ context.Context, position int) (studio.Change, bool, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if position < 1 || position > len(s.changes) {
		return studio.Change{}, false, nil
	}
	return s.changes[position-1], true, nil
}

// Changes implements studio.Store.
func (s *Store) Changes(_ context.Context, before, count int) ([]studio.PlacedChange, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	var placed []studio.PlacedChange
	last := len(s.changes)
	if before > 0 {
		last = min(last, before-1)
	}
	for position := last; position > max(0, last-count); position-- {
		placed = append(placed, studio.PlacedChange{Position: position, Change: s.changes[position-1]})
	}
	return placed, nil
}

// CreateTake implements live.TakeStore.
func (s *Store) CreateTake(_ context.Context, t *take.Take, revision int64) (id int64, err error) {
	err = s.change(func() error {
		s.takes = append(s.takes, stored{take: *t, revision: revision})
		id = int64(len(s.takes))
		s.takes[id-1].take.Name = fmt.Sprintf("Take %d", id)
		return nil
	})
	return id, err
}

// AppendTake implements live.TakeStore.
func (s *Store) AppendTake(_ context.Context, id int64, seq int, messages []play.Message, line take.Timeline) error {
	return s.change(func() error {
		t := &s.takes[id-1].take
		t.Messages, t.Tempo, t.Markers = append(t.Messages[:seq], messages...), line.Tempo, line.Markers
		return nil
	})
}

// FinishTake implements live.TakeStore.
func (s *Store) FinishTake(_ context.Context, id int64, end score.Tick) error {
	return s.change(func() error {
		s.takes[id-1].take.Finish(end)
		s.takes[id-1].finished = true
		return nil
	})
}

// AddOrigin implements live.TakeStore.
func (s *Store) AddOrigin(_ context.Context, id int64, origin take.Origin) error {
	return s.change(func() error {
		s.takes[id-1].origins = append(s.takes[id-1].origins, origin)
		return nil
	})
}

// AddTake implements shelf.Store.
func (s *Store) AddTake(_ context.Context, t *take.Take, revision int64) (id int64, err error) {
	err = s.change(func() error {
		s.takes = append(s.takes, stored{take: *t, revision: revision, finished: true})
		id = int64(len(s.takes))
		return nil
	})
	return id, err
}

// LastBars implements server.WakeStore for a store to which the wake is written.
func (s *Store) LastBars(ctx context.Context, id int64, end score.Tick, bars int) (take.Stretch, error) {
	whole, id, err := s.stretch(id)
	if err != nil {
		return take.Stretch{}, err
	}
	if end == 0 {
		end = whole.End
	}
	from, to := take.LastBars(end, whole.Meter.Bar(), bars)
	return s.Piece(ctx, id, from, to)
}

// Piece implements server.WakeStore for a store to which the wake is written.
func (s *Store) Piece(_ context.Context, id int64, from, to score.Tick) (take.Stretch, error) {
	whole, id, err := s.stretch(id)
	if err != nil {
		return take.Stretch{}, err
	}
	return take.Stretch{ID: id, From: from, To: to, Revision: s.takes[id-1].revision, Take: take.Cut(whole, from, to)}, nil
}

// stretch returns a stretch, or with 0 the last.
func (s *Store) stretch(id int64) (*take.Take, int64, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if id == 0 {
		id = int64(len(s.takes))
	}
	if id < 1 || id > int64(len(s.takes)) {
		return nil, 0, take.ErrUnknown
	}
	whole := s.takes[id-1].take
	for _, m := range whole.Messages {
		whole.End = max(whole.End, m.Tick)
	}
	return &whole, id, nil
}

// Recording implements shelf.Store.
func (s *Store) Recording(_ context.Context, id int64) (*take.Take, take.Summary, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if id < 1 || id > int64(len(s.takes)) || !s.takes[id-1].finished {
		return nil, take.Summary{}, take.ErrUnknown
	}
	return &s.takes[id-1].take, s.summary(id), nil
}

// summary returns what the list of takes says of a take.
func (s *Store) summary(id int64) take.Summary {
	t := &s.takes[id-1]
	if t.present.ID != 0 {
		return t.present
	}
	summary := take.SummaryOf(&t.take)
	summary.ID, summary.Revision = id, t.revision
	return summary
}

// Takes implements shelf.Store.
func (s *Store) Takes(context.Context) ([]take.Summary, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	summaries := []take.Summary{}
	for i := len(s.takes) - 1; i >= 0; i-- {
		if s.takes[i].finished {
			summaries = append(summaries, s.summary(int64(i+1)))
		}
	}
	return summaries, nil
}

// TakeEdits implements shelf.Store.
func (s *Store) TakeEdits(_ context.Context, id int64) ([]take.Edit, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	return append([]take.Edit{}, s.takes[id-1].edits...), nil
}

// SaveTake implements shelf.Store.
func (s *Store) SaveTake(_ context.Context, summary take.Summary, edit take.Edit) error {
	return s.change(func() error {
		t := &s.takes[summary.ID-1]
		t.present = summary
		if edit != nil {
			t.edits = append(t.edits[:summary.Position-1:summary.Position-1], edit)
		}
		return nil
	})
}

// Origin implements shelf.Store.
func (s *Store) Origin(_ context.Context, id int64) (*score.Project, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if id < 1 || id > int64(len(s.takes)) || s.takes[id-1].take.Project == nil {
		return nil, take.ErrUnknown
	}
	return s.takes[id-1].take.Project, nil
}

func (s *Store) change(do func() error) error {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.failing {
		return ErrFull
	}
	return do()
}
