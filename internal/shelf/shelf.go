package shelf

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"sync"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
)

// Store keeps recordings and edits. Each call is one transaction.
type Store interface {
	// Takes lists the finished takes, the latest first.
	Takes(context.Context) ([]take.Summary, error)
	// Recording returns a finished take as it was recorded, and what the list says of it. The error wraps
	// take.ErrUnknown if there is none.
	Recording(ctx context.Context, id int64) (*take.Take, take.Summary, error)
	// TakeEdits returns all edits of a take, those that are undone too.
	TakeEdits(ctx context.Context, id int64) ([]take.Edit, error)
	// AddTake stores a finished take, and returns its id.
	AddTake(ctx context.Context, t *take.Take, revision int64) (id int64, err error)
	// SaveTake stores what the list says of a take. An edit, if it is not nil, comes to the summary's position,
	// and those behind it are forgotten.
	SaveTake(ctx context.Context, s take.Summary, edit take.Edit) error
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
	store Store

	mu sync.Mutex
	// The take that was asked for last, since a page asks for one often.
	last    *take.Take
	lastIs  take.Summary
	hasLast bool
}

// New returns a shelf over a store.
func New(store Store) *Shelf { return &Shelf{store: store} }

// Takes lists the takes, deleted ones too, the latest first.
func (s *Shelf) Takes(ctx context.Context) ([]take.Summary, error) { return s.store.Takes(ctx) }

// Add keeps a finished take, and returns its id. Where another take has its name, it gets a number.
func (s *Shelf) Add(ctx context.Context, t *take.Take, revision int64) (id int64, err error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	others, err := s.store.Takes(ctx)
	if err != nil {
		return 0, err
	}
	named := *t
	for number := 2; slices.ContainsFunc(others, func(o take.Summary) bool { return o.Name == named.Name }); number++ {
		mark := fmt.Sprintf(" (%d)", number)
		room := []rune(t.Name)[:min(len([]rune(t.Name)), score.MaxNameRunes-len(mark))]
		named.Name = string(room) + mark
	}
	return s.store.AddTake(ctx, &named, revision)
}

// Origin returns the project that made a take, as it was when the take began.
func (s *Shelf) Origin(ctx context.Context, id int64) (*score.Project, error) {
	return s.store.Origin(ctx, id)
}

// Take returns a take with its edits made, and what the list says of it. The error wraps take.ErrUnknown if
// there is none. The take must not be changed.
func (s *Shelf) Take(ctx context.Context, id int64) (*take.Take, take.Summary, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.load(ctx, id)
}

func (s *Shelf) load(ctx context.Context, id int64) (*take.Take, take.Summary, error) {
	if s.hasLast && s.lastIs.ID == id {
		return s.last, s.lastIs, nil
	}
	recording, summary, err := s.store.Recording(ctx, id)
	if err != nil {
		return nil, summary, err
	}
	edits, err := s.store.TakeEdits(ctx, id)
	if err != nil {
		return nil, summary, err
	}
	made, err := replay(recording, edits[:summary.Position])
	if err != nil {
		return nil, summary, err
	}
	s.last, s.lastIs, s.hasLast = made, summary, true
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
	s.mu.Lock()
	defer s.mu.Unlock()
	before, summary, err := s.loadAt(ctx, id, version)
	if err != nil {
		return summary, err
	}
	after, err := take.Apply(before, edit)
	if err != nil {
		return summary, err
	}
	next := describe(after, summary)
	next.Position, next.Undo, next.Redo = summary.Position+1, edit.Label(), ""
	return s.keep(ctx, after, next, edit)
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
	s.mu.Lock()
	defer s.mu.Unlock()
	_, summary, err := s.loadAt(ctx, id, version)
	if err != nil {
		return summary, err
	}
	edits, err := s.store.TakeEdits(ctx, id)
	if err != nil {
		return summary, err
	}
	position := summary.Position + by
	if position < 0 || position > len(edits) {
		return summary, atTheEnd
	}
	recording, _, err := s.store.Recording(ctx, id)
	if err != nil {
		return summary, err
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
	s.mu.Lock()
	defer s.mu.Unlock()
	kept, summary, err := s.loadAt(ctx, id, version)
	if err != nil {
		return summary, err
	}
	summary.Deleted = deleted
	return s.keep(ctx, kept, summary, nil)
}

func (s *Shelf) loadAt(ctx context.Context, id int64, version int) (*take.Take, take.Summary, error) {
	kept, summary, err := s.load(ctx, id)
	if err == nil && summary.Version != version {
		err = &StaleError{Named: version, Current: summary.Version}
	}
	return kept, summary, err
}

// describe returns the summary of a take as it has become, with what stays of the one before.
func describe(t *take.Take, before take.Summary) take.Summary {
	next := take.SummaryOf(t)
	next.ID, next.Created, next.Luck, next.Revision = before.ID, before.Created, before.Luck, before.Revision
	next.Version, next.Deleted = before.Version, before.Deleted
	return next
}

func (s *Shelf) keep(ctx context.Context, t *take.Take, next take.Summary, edit take.Edit) (take.Summary, error) {
	next.Version++
	if err := s.store.SaveTake(ctx, next, edit); err != nil {
		return next, fmt.Errorf("store the take: %w", err)
	}
	s.last, s.lastIs, s.hasLast = t, next, true
	return next, nil
}
