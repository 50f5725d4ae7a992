package studio

import (
	"context"
	"errors"
	"fmt"
	"sync"

	"jettyfog/internal/core/score"
)

// Document is what is stored of the open project.
type Document struct {
	Project  *score.Project
	Revision int64
	Position int
}

// Change is an edit in the history, and the edit that undoes it.
type Change struct {
	Edit, Inverse score.Edit
}

// Store keeps the document and its history. Each call is one transaction.
type Store interface {
	// SaveEdit stores the document after a new edit, which stands at the document's position, and
	// forgets all changes at later positions.
	SaveEdit(context.Context, Document, Change) error
	// SaveMove stores the document after undo or redo.
	SaveMove(context.Context, Document) error
	// Change returns the change at a position, counted from 1; found is false if there is none.
	Change(ctx context.Context, position int) (change Change, found bool, err error)
	// Changes returns up to count changes before a position, the latest first; before 0 means from the latest.
	Changes(ctx context.Context, before, count int) ([]PlacedChange, error)
}

// PlacedChange is a change and its position in the history.
type PlacedChange struct {
	Position int
	Change
}

// Snapshot is the open project as everybody sees it. It is never changed.
type Snapshot struct {
	Project  *score.Project `json:"project"`
	Revision int64          `json:"revision"`
	// Undo and Redo name the edits that would be undone and redone; empty if there is none.
	Undo string `json:"undo"`
	Redo string `json:"redo"`
}

// StaleError refuses a change that was meant for an older revision.
type StaleError struct {
	Named, Current int64
}

func (e *StaleError) Error() string {
	return fmt.Sprintf("the project has changed: it is at revision %d, not %d", e.Current, e.Named)
}

// ErrNothingToUndo and ErrNothingToRedo are returned at the ends of the history.
var (
	ErrNothingToUndo = errors.New("there is nothing to undo")
	ErrNothingToRedo = errors.New("there is nothing to redo")
)

// Studio holds the open project. All methods may be called concurrently.
type Studio struct {
	store Store

	mu        sync.Mutex
	document  Document
	state     Snapshot
	listeners []func(Snapshot)
}

// New opens a studio on a stored document.
func New(ctx context.Context, store Store, document Document) (*Studio, error) {
	s := &Studio{store: store}
	if err := s.adopt(ctx, document); err != nil {
		return nil, err
	}
	return s, nil
}

// State returns the present state.
func (s *Studio) State() Snapshot {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.state
}

// Listen has the function called after every change, in the order of the changes, and once at once.
// It must return quickly and must not call the studio.
func (s *Studio) Listen(listener func(Snapshot)) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.listeners = append(s.listeners, listener)
	listener(s.state)
}

// Edit makes an edit. The error is a *StaleError, an error of score.Apply, or the store's.
func (s *Studio) Edit(ctx context.Context, revision int64, edit score.Edit) (Snapshot, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if err := s.check(revision); err != nil {
		return Snapshot{}, err
	}
	project, inverse, err := score.Apply(s.document.Project, edit)
	if err != nil {
		return Snapshot{}, err
	}
	next := Document{Project: project, Revision: revision + 1, Position: s.document.Position + 1}
	if err := s.store.SaveEdit(ctx, next, Change{Edit: edit, Inverse: inverse}); err != nil {
		return Snapshot{}, fmt.Errorf("store the edit: %w", err)
	}
	return s.adoptAndTell(ctx, next)
}

// Undo takes the last edit in force back.
func (s *Studio) Undo(ctx context.Context, revision int64) (Snapshot, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.move(ctx, revision, true)
}

// Redo puts the edit that was undone last in force again.
func (s *Studio) Redo(ctx context.Context, revision int64) (Snapshot, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.move(ctx, revision, false)
}

func (s *Studio) move(ctx context.Context, revision int64, undo bool) (Snapshot, error) {
	if err := s.check(revision); err != nil {
		return Snapshot{}, err
	}
	next, err := s.step(ctx, s.document, undo)
	if err != nil {
		return Snapshot{}, err
	}
	next.Revision++
	return s.keep(ctx, next)
}

func (s *Studio) check(revision int64) error {
	if revision != s.document.Revision {
		return &StaleError{Named: revision, Current: s.document.Revision}
	}
	return nil
}

func (s *Studio) adoptAndTell(ctx context.Context, document Document) (Snapshot, error) {
	if err := s.adopt(ctx, document); err != nil {
		return Snapshot{}, err
	}
	for _, listener := range s.listeners {
		listener(s.state)
	}
	return s.state, nil
}

func (s *Studio) adopt(ctx context.Context, document Document) error {
	undo, err := s.label(ctx, document.Position)
	if err != nil {
		return err
	}
	redo, err := s.label(ctx, document.Position+1)
	if err != nil {
		return err
	}
	s.document = document
	s.state = Snapshot{Project: document.Project, Revision: document.Revision, Undo: undo, Redo: redo}
	return nil
}

func (s *Studio) label(ctx context.Context, position int) (string, error) {
	change, found, err := s.store.Change(ctx, position)
	if err != nil {
		return "", fmt.Errorf("read the history: %w", err)
	}
	if !found {
		return "", nil
	}
	return change.Edit.Label(), nil
}
