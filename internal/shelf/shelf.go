package shelf

import (
	"context"
	"errors"
	"fmt"
	"sync"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
)

// Store keeps recordings and edits. Each call is one transaction, which the context breaks off only before it has
// begun.
type Store interface {
	// Takes lists the finished takes, the latest first.
	Takes(context.Context) ([]take.Summary, error)
	// Recording returns a finished take as it was recorded, what the list says of it, and all its edits, those that
	// are undone too. The error wraps take.ErrUnknown if there is none.
	Recording(ctx context.Context, id int64) (*take.Take, take.Summary, []take.Edit, error)
	// AddTakes stores finished takes, all or none, and returns their ids.
	AddTakes(ctx context.Context, takes []*take.Take, revision int64) (ids []int64, err error)
	// SaveTake stores what the list says of a take. An edit, if it is not nil, comes to the summary's position,
	// and those behind it are forgotten.
	SaveTake(ctx context.Context, s take.Summary, edit take.Edit) error
	// Log returns what a take is a function of. The error is take.ErrNoLog if that is not known.
	Log(ctx context.Context, id int64) (take.Logged, error)
	// AppendLog stores what a take is a function of, whose first entries are stored already.
	AppendLog(ctx context.Context, id int64, logged take.Logged, first int) error
	// Origin returns the project that made a take, as it was when the take began. The error wraps
	// take.ErrUnknown if no project did.
	Origin(ctx context.Context, id int64) (*score.Project, error)
}

// StaleError refuses a change that was meant for an older version of a take.
type StaleError struct {
	Named, Current int
}

func (e *StaleError) Error() string {
	return fmt.Sprintf("the take has changed: it is at version %d, not %d", e.Current, e.Named)
}

// ErrNothingToUndo and ErrNothingToRedo are returned at the ends of a take's history.
var (
	ErrNothingToUndo = errors.New("there is nothing to undo in this take")
	ErrNothingToRedo = errors.New("there is nothing to redo in this take")
)

// Shelf gives out takes and changes them. All methods may be called concurrently.
type Shelf struct {
	store    Store
	changing sync.Mutex // is held while a take is changed; reading waits for nobody
	run      run

	mu      sync.Mutex
	last    *kept // the take that was asked for last, since a page asks for one often
	changes int   // how many there were, so that what was read before one is not taken for what is
}

// kept is a take with its edits made, and what the list says of it.
type kept struct {
	take    *take.Take
	summary take.Summary
}

// New returns a shelf over a store.
func New(store Store) *Shelf { return &Shelf{store: store} }

// Takes lists the takes, deleted ones too, the latest first.
func (s *Shelf) Takes(ctx context.Context) ([]take.Summary, error) { return s.store.Takes(ctx) }

// Add keeps finished takes, all or none, and returns their ids. Where another take has the name of one, it gets a
// number.
func (s *Shelf) Add(ctx context.Context, revision int64, takes ...*take.Take) (ids []int64, err error) {
	s.changing.Lock()
	defer s.changing.Unlock()
	others, err := s.store.Takes(ctx)
	if err != nil {
		return nil, err
	}
	names := map[string]bool{}
	for _, other := range others {
		names[other.Name] = true
	}
	named := make([]*take.Take, len(takes))
	for i, t := range takes {
		one := *t
		for number := 2; names[one.Name]; number++ {
			mark := fmt.Sprintf(" (%d)", number)
			room := []rune(t.Name)[:min(len([]rune(t.Name)), score.MaxNameRunes-len(mark))]
			one.Name = string(room) + mark
		}
		names[one.Name], named[i] = true, &one
	}
	return s.store.AddTakes(ctx, named, revision)
}

// AddPlayed keeps a take of what its log plays, and the log with it, and returns its id; see Add.
func (s *Shelf) AddPlayed(ctx context.Context, revision int64, t *take.Take, logged take.Logged) (id int64, err error) {
	ids, err := s.Add(ctx, revision, t)
	if err != nil {
		return 0, err
	}
	return ids[0], s.store.AppendLog(ctx, ids[0], logged, 0)
}

// Log returns what a take is a function of. The error is take.ErrNoLog if that is not known.
func (s *Shelf) Log(ctx context.Context, id int64) (take.Logged, error) { return s.store.Log(ctx, id) }

// Origin returns the project that made a take, as it was when the take began.
func (s *Shelf) Origin(ctx context.Context, id int64) (*score.Project, error) {
	return s.store.Origin(ctx, id)
}

// Take returns a take with its edits made, and what the list says of it. The error wraps take.ErrUnknown if
// there is none. The take must not be changed.
func (s *Shelf) Take(ctx context.Context, id int64) (*take.Take, take.Summary, error) {
	s.mu.Lock()
	last, changes := s.last, s.changes
	s.mu.Unlock()
	if last != nil && last.summary.ID == id {
		return last.take, last.summary, nil
	}
	recording, summary, edits, err := s.store.Recording(ctx, id)
	if err != nil {
		return nil, summary, err
	}
	made, err := replay(recording, edits[:summary.Position])
	if err != nil {
		return nil, summary, err
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.changes == changes {
		s.last = &kept{made, summary}
	}
	return made, summary, nil
}

func replay(recording *take.Take, edits []take.Edit) (*take.Take, error) {
	for i, edit := range edits {
		next, err := take.Apply(recording, edit)
		if err != nil {
			return nil, fmt.Errorf("make edit %d of the take again: %w", i+1, err)
		}
		recording = next
	}
	return recording, nil
}

// Edit makes an edit of a take. The error is a *StaleError, one of take.Apply, or the store's.
func (s *Shelf) Edit(ctx context.Context, id int64, version int, edit take.Edit) (take.Summary, error) {
	return s.EditInRun(ctx, id, version, edit, "")
}

// EditInRun makes an edit as Edit does. If it goes on from the edit before, and both are of a run of one name that is
// not empty, it becomes one with that in the history.
func (s *Shelf) EditInRun(ctx context.Context, id int64, version int, edit take.Edit, name string) (take.Summary, error) {
	s.changing.Lock()
	defer s.changing.Unlock()
	before, summary, err := s.takeAt(ctx, id, version)
	if err != nil {
		return summary, err
	}
	after, err := take.Apply(before, edit)
	if err != nil {
		return summary, err
	}
	made := run{name: name, id: id, position: summary.Position + 1, edit: edit}
	if last := s.run; name != "" && last.name == name && last.id == id && last.position == summary.Position {
		if both, goesOn := take.Continue(last.edit, edit); goesOn {
			made.position, made.edit = last.position, both
		}
	}
	next := describe(after, summary)
	next.Position, next.Undo, next.Redo = made.position, made.edit.Label(), ""
	kept, err := s.keep(ctx, after, next, made.edit)
	if err == nil {
		s.run = made
	}
	return kept, err
}

// run is the last edit of a take, on which another of the same name may go on.
type run struct {
	name     string
	id       int64
	position int
	edit     take.Edit
}

// Undo takes the last edit of a take that is in force back.
func (s *Shelf) Undo(ctx context.Context, id int64, version int) (take.Summary, error) {
	return s.move(ctx, id, version, -1, ErrNothingToUndo)
}

// Redo puts the edit of a take that was undone last in force again.
func (s *Shelf) Redo(ctx context.Context, id int64, version int) (take.Summary, error) {
	return s.move(ctx, id, version, 1, ErrNothingToRedo)
}

func (s *Shelf) move(ctx context.Context, id int64, version, by int, atTheEnd error) (take.Summary, error) {
	s.changing.Lock()
	defer s.changing.Unlock()
	_, summary, err := s.takeAt(ctx, id, version)
	if err != nil {
		return summary, err
	}
	recording, _, edits, err := s.store.Recording(ctx, id)
	if err != nil {
		return summary, err
	}
	position := summary.Position + by
	if position < 0 || position > len(edits) {
		return summary, atTheEnd
	}
	after, err := replay(recording, edits[:position])
	if err != nil {
		return summary, err
	}
	next := describe(after, summary)
	next.Position, next.Undo, next.Redo = position, "", ""
	if position > 0 {
		next.Undo = edits[position-1].Label()
	}
	if position < len(edits) {
		next.Redo = edits[position].Label()
	}
	return s.keep(ctx, after, next, nil)
}

// SetDeleted puts a take out of the way, or brings it back.
func (s *Shelf) SetDeleted(ctx context.Context, id int64, version int, deleted bool) (take.Summary, error) {
	s.changing.Lock()
	defer s.changing.Unlock()
	same, summary, err := s.takeAt(ctx, id, version)
	if err != nil {
		return summary, err
	}
	summary.Deleted = deleted
	return s.keep(ctx, same, summary, nil)
}

// takeAt returns a take, if it is at a version.
func (s *Shelf) takeAt(ctx context.Context, id int64, version int) (*take.Take, take.Summary, error) {
	found, summary, err := s.Take(ctx, id)
	if err == nil && summary.Version != version {
		err = &StaleError{Named: version, Current: summary.Version}
	}
	return found, summary, err
}

// describe returns the summary of a take as it has become, with what stays of the one before.
func describe(t *take.Take, before take.Summary) take.Summary {
	next := take.SummaryOf(t)
	next.ID, next.Created, next.Luck, next.Revision = before.ID, before.Created, before.Luck, before.Revision
	next.Version, next.Deleted = before.Version, before.Deleted
	return next
}

// keep stores a take as it has become; nothing after that depends on who asked for it. Where storing has failed it
// looks whether it is stored all the same, as after a commit that was not answered.
func (s *Shelf) keep(ctx context.Context, t *take.Take, next take.Summary, edit take.Edit) (take.Summary, error) {
	next.Version++
	if failed := s.store.SaveTake(ctx, next, edit); failed != nil {
		_, stored, _, err := s.store.Recording(context.WithoutCancel(ctx), next.ID)
		if err != nil || stored.Version != next.Version {
			return next, fmt.Errorf("the change was not stored, and the take is as it was: %w", failed)
		}
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	s.last, s.changes = &kept{t, next}, s.changes+1
	return next, nil
}
