package memory

import (
	"context"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/studio"
)

// document is a project with all that is its own.
type document struct {
	studio.Document
	changes []studio.Change
	stage   stage.Stage
	deleted bool
	held    bool
}

// Opened returns the document that is open.
func (s *Store) Opened() studio.Document {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.kept[s.open].Document
}

// Document implements studio.Store.
func (s *Store) Document(_ context.Context, id int64) (studio.Document, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if found := s.kept[id]; found != nil && !found.deleted {
		return found.Document, nil
	}
	return studio.Document{}, studio.ErrNoProject
}

// Stage implements studio.Store.
func (s *Store) Stage(_ context.Context, id int64) (stage.Stage, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.kept[id].stage, nil
}

// SaveStage implements live.StageStore.
func (s *Store) SaveStage(ctx context.Context, id int64, live stage.Stage) error {
	return s.change(ctx, "SaveStage", func() error {
		s.kept[id].stage = live
		return nil
	})
}

// SaveEdit implements studio.Store.
func (s *Store) SaveEdit(ctx context.Context, d studio.Document, c studio.Change) error {
	return s.change(ctx, "SaveEdit", func() error {
		kept := s.kept[d.ID]
		kept.Document, kept.changes = d, append(kept.changes[:d.Position-1:d.Position-1], c)
		return nil
	})
}

// SaveMove implements studio.Store.
func (s *Store) SaveMove(ctx context.Context, d studio.Document) error {
	return s.change(ctx, "SaveMove", func() error {
		s.kept[d.ID].Document = d
		return nil
	})
}

// SaveOpening implements studio.Store.
func (s *Store) SaveOpening(ctx context.Context, d studio.Document) error {
	return s.change(ctx, "SaveOpening", func() error {
		s.kept[d.ID].Document, s.open = d, d.ID
		return nil
	})
}

// Projects implements studio.Store.
func (s *Store) Projects(context.Context) (listed []studio.Listed, err error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	for id := int64(len(s.kept)); id > 0; id-- {
		kept := s.kept[id]
		listed = append(listed, studio.Listed{ID: id, Name: kept.Project.Name, Revision: kept.Revision, Deleted: kept.deleted})
	}
	return listed, nil
}

// AddProject implements studio.Store.
func (s *Store) AddProject(ctx context.Context, project *score.Project, held bool) (id int64, err error) {
	err = s.change(ctx, "AddProject", func() error {
		id = int64(len(s.kept) + 1)
		s.kept[id] = &document{Document: studio.Document{ID: id, Project: project, Revision: 1}, held: held}
		return nil
	})
	return id, err
}

// Held implements studio.Store.
func (s *Store) Held(_ context.Context, id int64) (bool, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.kept[id] != nil && s.kept[id].held, nil
}

// SetDeleted implements studio.Store.
func (s *Store) SetDeleted(ctx context.Context, id int64, deleted bool) error {
	return s.change(ctx, "SetDeleted", func() error {
		if s.kept[id] == nil {
			return studio.ErrNoProject
		}
		s.kept[id].deleted = deleted
		return nil
	})
}

// Revision implements studio.Store.
func (s *Store) Revision(context.Context) (int64, error) { return s.Opened().Revision, nil }

// Change implements studio.Store.
func (s *Store) Change(_ context.Context, id int64, position int) (studio.Change, bool, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	changes := s.kept[id].changes
	if position < 1 || position > len(changes) {
		return studio.Change{}, false, nil
	}
	return changes[position-1], true, nil
}

// Changes implements studio.Store.
func (s *Store) Changes(_ context.Context, id int64, before, count int) ([]studio.PlacedChange, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	var placed []studio.PlacedChange
	changes := s.kept[id].changes
	last := len(changes)
	if before > 0 {
		last = min(last, before-1)
	}
	for position := last; position > max(0, last-count); position-- {
		placed = append(placed, studio.PlacedChange{Position: position, Change: changes[position-1]})
	}
	return placed, nil
}
