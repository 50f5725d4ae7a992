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
func (s *Store) AppendTake(_ context.Context, id int64, seq int, messages []play.Message, tempo play.TempoMap) error {
	return s.change(func() error {
		t := &s.takes[id-1].take
		t.Messages, t.Tempo = append(t.Messages[:seq], messages...), tempo
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

// AddTake implements server.TakeStore.
func (s *Store) AddTake(_ context.Context, t *take.Take, revision int64) (id int64, err error) {
	err = s.change(func() error {
		s.takes = append(s.takes, stored{take: *t, revision: revision, finished: true})
		id = int64(len(s.takes))
		return nil
	})
	return id, err
}

// Last implements server.WakeStore for a store to which the wake is written.
func (s *Store) Last(_ context.Context, bars int) (last *take.Take, bar int, revision int64, err error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if len(s.takes) == 0 {
		return nil, 0, 0, take.ErrUnknown
	}
	stretch := s.takes[len(s.takes)-1]
	whole := stretch.take
	for _, m := range whole.Messages {
		whole.End = max(whole.End, m.Tick)
	}
	from, to := take.LastBars(whole.End, whole.Meter.Bar(), bars)
	return take.Cut(&whole, from, to), int(from / whole.Meter.Bar()), stretch.revision, nil
}

// Take implements server.TakeStore.
func (s *Store) Take(_ context.Context, id int64) (*take.Take, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if id < 1 || id > int64(len(s.takes)) || !s.takes[id-1].finished {
		return nil, take.ErrUnknown
	}
	return &s.takes[id-1].take, nil
}

// Takes implements server.TakeStore.
func (s *Store) Takes(context.Context) ([]take.Summary, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	summaries := []take.Summary{}
	for i := len(s.takes) - 1; i >= 0; i-- {
		if t := &s.takes[i]; t.finished {
			summaries = append(summaries, take.Summary{
				ID: int64(i + 1), Name: t.take.Name, Luck: t.take.Luck, Revision: t.revision, Notes: t.take.Count(),
			})
		}
	}
	return summaries, nil
}

func (s *Store) change(do func() error) error {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.failing {
		return ErrFull
	}
	return do()
}
