package studio

import (
	"context"
	"fmt"

	"jettyfog/internal/core/score"
)

// Entry is an edit in the history.
type Entry struct {
	// Position counts the edits from the first, 1.
	Position int    `json:"position"`
	Label    string `json:"label"`
	// Done says that the edit is in force; the others can be redone.
	Done bool `json:"done"`
}

// History returns up to count edits before a position, the latest first; before 0 means from the latest.
func (s *Studio) History(ctx context.Context, before, count int) ([]Entry, error) {
	placed, err := s.store.Changes(ctx, s.current.Load().document.ID, before, count)
	if err != nil {
		return nil, fmt.Errorf("read the history: %w", err)
	}
	inForce := s.current.Load().document.Position
	entries := make([]Entry, len(placed))
	for i, p := range placed {
		entries[i] = Entry{Position: p.Position, Label: p.words(), Done: p.Position <= inForce}
	}
	return entries, nil
}

// GoTo undoes or redoes edits until just those up to a position are in force; 0 undoes all. The error is a
// *StaleError, ErrNothingToUndo, ErrNothingToRedo or the store's.
func (s *Studio) GoTo(ctx context.Context, revision int64, position int) (Snapshot, error) {
	s.changing.Lock()
	defer s.changing.Unlock()
	if err := s.check(revision); err != nil {
		return Snapshot{}, err
	}
	if position < 0 {
		return Snapshot{}, ErrNothingToUndo
	}
	next := s.current.Load().document
	next.Revision++
	for next.Position != position {
		var err error
		if next, _, err = s.step(ctx, next, position < next.Position); err != nil {
			return Snapshot{}, err
		}
	}
	return s.keep(ctx, next, nil)
}

// step undoes or redoes one edit of a document.
func (s *Studio) step(ctx context.Context, document Document, undo bool) (Document, score.Edit, error) {
	position, atTheEnd := document.Position+1, ErrNothingToRedo
	if undo {
		position, atTheEnd = document.Position, ErrNothingToUndo
	}
	change, found, err := s.store.Change(ctx, document.ID, position)
	if err != nil {
		return document, nil, fmt.Errorf("read the history: %w", err)
	}
	if !found {
		return document, nil, atTheEnd
	}
	edit := change.Edit
	document.Position = position
	if undo {
		edit = change.Inverse
		document.Position--
	}
	if change.ByPlace {
		if edit, err = score.FromPlaces(document.Project, edit); err != nil {
			return document, nil, fmt.Errorf("read the change at position %d of the history: %w", position, err)
		}
	}
	if document.Project, _, err = score.Apply(document.Project, edit); err != nil {
		return document, nil, fmt.Errorf("apply the change at position %d of the history: %w", position, err)
	}
	return document, edit, nil
}

// keep stores a document at which the history has arrived by an edit or by several, and tells everybody.
func (s *Studio) keep(ctx context.Context, document Document, way score.Edit) (Snapshot, error) {
	next, err := s.describe(ctx, document)
	if err != nil {
		return Snapshot{}, err
	}
	next.state.Way = way
	return s.adopt(ctx, next, s.store.SaveMove(ctx, document))
}
