package studio

import (
	"context"
	"errors"
	"fmt"
	"sync"
	"sync/atomic"

	"jettyfog/internal/core/score"
)

// Document is what is stored of the open project.
type Document struct {
	// ID is that of the project in its folder, from 1.
	ID       int64
	Project  *score.Project
	Revision int64
	Position int
}

// Change is an edit in the history, and the edit that undoes it.
type Change struct {
	Edit, Inverse score.Edit
	// Text says what it changes; it is empty in a change of before, of which only the label is known.
	Text string
	// ByPlace says that the edits are of before and name patterns and parts by their places; see score.FromPlaces.
	ByPlace bool
}

// words says what the change does, to follow "Undo " or "Redo ".
func (c Change) words() string {
	if c.Text != "" {
		return c.Text
	}
	return c.Edit.Label()
}

// Store keeps the document and its history. Each call is one transaction, which the context breaks off only before
// it has begun.
type Store interface {
	// SaveEdit stores the document after a new edit, which stands at the document's position, and
	// forgets all changes at later positions.
	SaveEdit(context.Context, Document, Change) error
	// SaveMove stores the document after undo or redo.
	SaveMove(context.Context, Document) error
	// Revision returns that of the document that is stored.
	Revision(context.Context) (int64, error)
	// Change returns the change at a position, counted from 1; found is false if there is none.
	Change(ctx context.Context, document int64, position int) (change Change, found bool, err error)
	// Changes returns up to count changes before a position, the latest first; before 0 means from the latest.
	Changes(ctx context.Context, document int64, before, count int) ([]PlacedChange, error)
	shelves
}

// PlacedChange is a change and its position in the history.
type PlacedChange struct {
	Position int
	Change
}

// Snapshot is the open project as everybody sees it. It is never changed.
type Snapshot struct {
	// Document is the id of the project.
	Document int64          `json:"document"`
	Project  *score.Project `json:"project"`
	Revision int64          `json:"revision"`
	// Undo and Redo name the edits that would be undone and redone; empty if there is none.
	Undo string `json:"undo"`
	Redo string `json:"redo"`
	// Way is the edit that has led here from the revision before, or undoes or does again what did; nil if nothing did or
	// several. New says that it was made anew.
	Way score.Edit `json:"-"`
	New bool       `json:"-"`
	// Opened says that another project was open before, with what live changes this one was left, and when it is to come in.
	Opened *Opened `json:"-"`
	// Changes lead here from the project at the revision From; without any before, From is 0.
	From    int64              `json:"-"`
	Changes []score.Difference `json:"-"`
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
	store   Store
	current atomic.Pointer[current] // is read without waiting for a change that is being stored

	changing  sync.Mutex // is held from the first look at the document until everybody was told
	listeners []func(Snapshot)
	run       run
}

// run is the last edit, on which another of the same name may go on.
type run struct {
	name     string
	position int
	before   *score.Project
	change   Change
}

// current is what is open at a moment.
type current struct {
	document Document
	state    Snapshot
}

// New opens a studio on a stored document.
func New(ctx context.Context, store Store, document Document) (*Studio, error) {
	s := &Studio{store: store}
	next, err := s.describe(ctx, document)
	if err != nil {
		return nil, err
	}
	s.current.Store(next)
	return s, nil
}

// State returns the present state.
func (s *Studio) State() Snapshot { return s.current.Load().state }

// Listen has the function called after every change, in the order of the changes, and once at once.
// It must return quickly and must not call the studio.
func (s *Studio) Listen(listener func(Snapshot)) {
	s.changing.Lock()
	defer s.changing.Unlock()
	s.listeners = append(s.listeners, listener)
	listener(s.State())
}

// Edit makes an edit. The error is a *StaleError, one of score.Apply or score.CheckDensity, or the store's.
func (s *Studio) Edit(ctx context.Context, revision int64, edit score.Edit) (Snapshot, error) {
	return s.EditInRun(ctx, revision, edit, "")
}

// EditInRun makes an edit as Edit does. If it gives anew what the edit before gave, and both are of a run of one name
// that is not empty, it takes that one's place in the history.
func (s *Studio) EditInRun(ctx context.Context, revision int64, edit score.Edit, name string) (Snapshot, error) {
	s.changing.Lock()
	defer s.changing.Unlock()
	if err := s.check(revision); err != nil {
		return Snapshot{}, err
	}
	before := s.current.Load().document
	project, inverse, err := score.Apply(before.Project, edit)
	if err != nil {
		return Snapshot{}, err
	}
	if err := score.CheckDensity(before.Project, project); err != nil {
		return Snapshot{}, err
	}
	next := run{name: name, position: before.Position + 1, before: before.Project, change: Change{Edit: edit, Inverse: inverse}}
	if last := s.run; name != "" && last.name == name && last.position == before.Position && score.Continues(last.change.Edit, edit) {
		next.position, next.before, next.change.Inverse = last.position, last.before, last.change.Inverse
	}
	next.change.Text = score.Describe(next.before, project, edit)
	document := Document{ID: before.ID, Project: project, Revision: revision + 1, Position: next.position}
	made := &current{document, Snapshot{Document: document.ID, Project: project, Revision: document.Revision, Undo: next.change.Text, Way: edit, New: true}}
	state, err := s.adopt(ctx, made, s.store.SaveEdit(ctx, document, next.change))
	if err == nil {
		s.run = next
	}
	return state, err
}

// Undo takes the last edit in force back.
func (s *Studio) Undo(ctx context.Context, revision int64) (Snapshot, error) {
	s.changing.Lock()
	defer s.changing.Unlock()
	return s.move(ctx, revision, true)
}

// Redo puts the edit that was undone last in force again.
func (s *Studio) Redo(ctx context.Context, revision int64) (Snapshot, error) {
	s.changing.Lock()
	defer s.changing.Unlock()
	return s.move(ctx, revision, false)
}

func (s *Studio) move(ctx context.Context, revision int64, undo bool) (Snapshot, error) {
	if err := s.check(revision); err != nil {
		return Snapshot{}, err
	}
	next, way, err := s.step(ctx, s.current.Load().document, undo)
	if err != nil {
		return Snapshot{}, err
	}
	next.Revision++
	return s.keep(ctx, next, way)
}

func (s *Studio) check(revision int64) error {
	if now := s.current.Load().document.Revision; revision != now {
		return &StaleError{Named: revision, Current: now}
	}
	return nil
}

// adopt makes what was stored what is open, and tells everybody; nothing of that depends on who asked for it. Where
// storing has failed it looks whether it is stored all the same, as after a commit that was not answered.
func (s *Studio) adopt(ctx context.Context, next *current, failed error) (Snapshot, error) {
	if failed != nil {
		stored, err := s.store.Revision(context.WithoutCancel(ctx))
		if err != nil || stored != next.document.Revision {
			return Snapshot{}, fmt.Errorf("the change was not stored, and the project is as it was: %w", failed)
		}
	}
	if before := s.State(); next.state.Opened == nil { // another project leads nowhere
		next.state.From, next.state.Changes = before.Revision, score.Differences(before.Project, next.state.Project)
	}
	s.current.Store(next)
	for _, listener := range s.listeners {
		listener(next.state)
	}
	return next.state, nil
}

// describe returns a document with the names of what would be undone and redone.
func (s *Studio) describe(ctx context.Context, document Document) (*current, error) {
	undo, err := s.label(ctx, document.ID, document.Position)
	if err != nil {
		return nil, err
	}
	redo, err := s.label(ctx, document.ID, document.Position+1)
	if err != nil {
		return nil, err
	}
	return &current{document, Snapshot{Document: document.ID, Project: document.Project, Revision: document.Revision, Undo: undo, Redo: redo}}, nil
}

func (s *Studio) label(ctx context.Context, document int64, position int) (string, error) {
	change, found, err := s.store.Change(ctx, document, position)
	if err != nil {
		return "", fmt.Errorf("read the history: %w", err)
	}
	if !found {
		return "", nil
	}
	return change.words(), nil
}
