package studio

import (
	"context"
	"errors"
	"fmt"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// Listed is a project of the folder.
type Listed struct {
	ID   int64  `json:"id"`
	Name string `json:"name"`
	// Changed is when it was changed last, in Unix seconds.
	Changed  int64 `json:"changed"`
	Revision int64 `json:"revision"`
	// Deleted says that it was deleted, and can be brought back.
	Deleted bool `json:"deleted,omitempty"`
}

// Opened is how a project was opened.
type Opened struct {
	Stage stage.Stage
	// AtOnce has it come in at once while another plays, not with the next bar.
	AtOnce bool
}

// shelves keep several projects.
type shelves interface {
	// Document returns a project. The error wraps ErrNoProject if it is not there, or deleted.
	Document(ctx context.Context, id int64) (Document, error)
	// Stage returns the live changes of a project.
	Stage(ctx context.Context, document int64) (stage.Stage, error)
	// SaveOpening stores a document, and that it is the one that is open.
	SaveOpening(context.Context, Document) error
	// Projects lists all of them, the one that was changed last first.
	Projects(context.Context) ([]Listed, error)
	// AddProject stores another project, without a history. One that is held may not use the devices of this machine yet.
	AddProject(ctx context.Context, project *score.Project, held bool) (id int64, err error)
	// Held reports whether a project may not use the devices of this machine yet.
	Held(ctx context.Context, id int64) (bool, error)
	// SetDeleted deletes a project, or brings it back. The error wraps ErrNoProject.
	SetDeleted(ctx context.Context, id int64, deleted bool) error
}

// Errors of projects.
var (
	ErrNoProject = errors.New("there is no such project in the folder; it may have been deleted")
	ErrIsOpen    = errors.New("the project that is open cannot be deleted; open another one first")
)

// Projects lists the projects of the folder, deleted ones too, the one that was changed last first.
func (s *Studio) Projects(ctx context.Context) ([]Listed, error) { return s.store.Projects(ctx) }

// Project returns a project of the folder. The error wraps ErrNoProject.
func (s *Studio) Project(ctx context.Context, id int64) (*score.Project, error) {
	if now := s.current.Load().document; now.ID == id {
		return now.Project, nil
	}
	document, err := s.store.Document(ctx, id)
	return document.Project, err
}

// Add puts a project into the folder, and returns its id; it does not open it. One that is held, as it comes from elsewhere, may not use
// the devices of this machine until somebody agrees.
func (s *Studio) Add(ctx context.Context, project *score.Project, held bool) (id int64, err error) {
	if err := project.Validate(); err != nil {
		return 0, err
	}
	if id, err = s.store.AddProject(ctx, project, held); err != nil {
		return 0, fmt.Errorf("the project was not stored, and the one that is open is as it was: %w", err)
	}
	return id, nil
}

// Copy puts a copy of a project into the folder, without its history and its takes, and returns its id.
func (s *Studio) Copy(ctx context.Context, id int64) (copied int64, err error) {
	project, err := s.Project(ctx, id)
	if err != nil {
		return 0, err
	}
	held, err := s.store.Held(ctx, id)
	if err != nil {
		return 0, err
	}
	named := *project
	named.Name = score.CopyName(project.Name)
	return s.Add(ctx, &named, held)
}

// Open opens a project of the folder in place of the one that is open, whose history goes on when it is opened again. The
// error is a *StaleError, wraps ErrNoProject or is the store's.
func (s *Studio) Open(ctx context.Context, revision, id int64, atOnce bool) (Snapshot, error) {
	s.changing.Lock()
	defer s.changing.Unlock()
	if err := s.check(revision); err != nil {
		return Snapshot{}, err
	}
	if s.current.Load().document.ID == id {
		return s.State(), nil
	}
	document, err := s.store.Document(ctx, id)
	if err != nil {
		return Snapshot{}, err
	}
	staged, err := s.store.Stage(ctx, id)
	if err != nil {
		return Snapshot{}, err
	}
	document.Revision = revision + 1
	next, err := s.describe(ctx, document)
	if err != nil {
		return Snapshot{}, err
	}
	next.state.Opened = &Opened{Stage: staged, AtOnce: atOnce}
	state, err := s.adopt(ctx, next, s.store.SaveOpening(ctx, document))
	if err == nil {
		s.run = run{}
	}
	return state, err
}

// Rename gives a project of the folder another name, as an edit of it. The errors are those of Edit, or wrap ErrNoProject.
func (s *Studio) Rename(ctx context.Context, id int64, name string) error {
	edit := score.SetProject{Name: &name}
	s.changing.Lock()
	if now := s.State(); now.Document == id {
		s.changing.Unlock()
		_, err := s.Edit(ctx, now.Revision, edit)
		return err
	}
	defer s.changing.Unlock()
	before, err := s.store.Document(ctx, id)
	if err != nil {
		return err
	}
	project, inverse, err := score.Apply(before.Project, edit)
	if err != nil {
		return err
	}
	change := Change{Edit: edit, Inverse: inverse, Text: score.Describe(before.Project, project, edit)}
	return s.store.SaveEdit(ctx, Document{ID: id, Project: project, Revision: before.Revision + 1, Position: before.Position + 1}, change)
}

// Delete takes a project out of the list; Restore brings it back. The error is ErrIsOpen, wraps ErrNoProject or is the store's.
func (s *Studio) Delete(ctx context.Context, id int64) error {
	s.changing.Lock()
	defer s.changing.Unlock()
	if s.State().Document == id {
		return ErrIsOpen
	}
	return s.store.SetDeleted(ctx, id, true)
}

// Restore brings back a project that was deleted. The error wraps ErrNoProject or is the store's.
func (s *Studio) Restore(ctx context.Context, id int64) error {
	return s.store.SetDeleted(ctx, id, false)
}
