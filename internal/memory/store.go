// Package memory is a store that keeps everything in memory and can be made to fail. It stands in for the
// disk in tests of what is around the store.
package memory

import (
	"context"
	"errors"
	"fmt"
	"sync"

	"jettyfog/internal/core/cv"
	"jettyfog/internal/core/preset"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/studio"
)

// ErrFull is what a call that fails returns.
var ErrFull = errors.New("the disk is full")

// Fault is what goes wrong with a call.
type Fault int

// The faults.
const (
	None       Fault = iota
	Refused          // nothing is done
	Unanswered       // it is done, and the caller is told that it is not
	GivenUp          // nothing is done, because the caller was given up before his turn
	Vanished         // the take that is written to is gone, and with it what it had
)

// Store keeps a document with its history, and takes. All methods may be called concurrently.
type Store struct {
	mu       sync.Mutex
	fault    func(call string) Fault
	open     int64 // the id of the document that is
	kept     map[int64]*document
	takes    []stored
	bound    map[string]string
	inputs   map[string]string
	setups   map[string]score.Setup
	read     []cv.Calibrated
	presets  []preset.Preset
	setLists []studio.SetList
	shelf    *Store // in which what is kept of the wake goes
}

type stored struct {
	take     take.Take
	revision int64
	finished bool
	vanished bool
	origins  []take.Origin
	logged   take.Logged
	present  take.Summary // of a take that was changed
	edits    []take.Edit
}

// New returns a store whose document is the project at revision 1.
func New(project *score.Project) *Store {
	first := &document{Document: studio.Document{ID: 1, Project: project, Revision: 1}}
	return &Store{open: 1, kept: map[int64]*document{1: first}, bound: map[string]string{}, inputs: map[string]string{}, setups: map[string]score.Setup{}}
}

// KeepIn says in which other store that is kept what was written here.
func (s *Store) KeepIn(shelf *Store) { s.shelf = shelf }

// Fail makes all calls that change something fail, or succeed again.
func (s *Store) Fail(failing bool) {
	s.SetFault(func(string) Fault {
		if failing {
			return Refused
		}
		return None
	})
}

// SetFault has a function say of each call that changes something, by its name, what goes wrong with it.
func (s *Store) SetFault(fault func(call string) Fault) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.fault = fault
}

// CreateTake implements live.TakeStore. As a real store may, it returns an id with an error too.
func (s *Store) CreateTake(ctx context.Context, t *take.Take, revision int64) (id int64, err error) {
	err = s.change(ctx, "CreateTake", func() error {
		s.takes = append(s.takes, stored{take: *t, revision: revision})
		created := &s.takes[len(s.takes)-1].take
		created.Name = fmt.Sprintf("Take %d", len(s.takes))
		return nil
	})
	s.mu.Lock()
	defer s.mu.Unlock()
	if id = int64(len(s.takes)); err != nil {
		id++
	}
	return id, err
}

// AppendTake implements live.TakeStore.
func (s *Store) AppendTake(ctx context.Context, id int64, piece take.Piece, grown *take.Heading) error {
	return s.changeTake(ctx, "AppendTake", id, func(t *stored) error {
		if t.finished {
			return take.ErrUnknown
		}
		t.take.Messages = append(t.take.Messages[:piece.First:piece.First], piece.Messages...)
		if grown != nil {
			t.take.Meter, t.take.Meters = grown.Meter, grown.Meters
			t.take.Tempo, t.take.Markers, t.take.Tracks = grown.Tempo, grown.Markers, grown.Tracks
		}
		return nil
	})
}

// FinishTake implements live.TakeStore.
func (s *Store) FinishTake(ctx context.Context, id int64, end score.Tick) error {
	return s.changeTake(ctx, "FinishTake", id, func(t *stored) error {
		if !t.finished {
			t.take.Finish(end)
		}
		t.finished = true
		return nil
	})
}

// AddOrigin implements live.TakeStore.
func (s *Store) AddOrigin(ctx context.Context, id int64, origin take.Origin) error {
	return s.changeTake(ctx, "AddOrigin", id, func(t *stored) error {
		t.origins = append(t.origins, origin)
		return nil
	})
}

// AppendLog implements live.TakeStore.
func (s *Store) AppendLog(ctx context.Context, id int64, logged take.Logged, _ int) error {
	return s.changeTake(ctx, "AppendLog", id, func(t *stored) error {
		t.logged = logged
		return nil
	})
}

// Log implements shelf.Store.
func (s *Store) Log(_ context.Context, id int64) (take.Logged, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if t := s.find(id); t != nil && t.logged.Log != nil {
		return t.logged, nil
	}
	return take.Logged{}, take.ErrNoLog
}

// AddTakes implements shelf.Store.
func (s *Store) AddTakes(ctx context.Context, takes []*take.Take, revision int64) (ids []int64, err error) {
	err = s.change(ctx, "AddTakes", func() error {
		for _, t := range takes {
			s.takes = append(s.takes, stored{take: *t, revision: revision, finished: true})
			ids = append(ids, int64(len(s.takes)))
		}
		return nil
	})
	return ids, err
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
	from, to := take.LastBars(end, whole.Bars(), bars)
	return s.Piece(ctx, id, from, to)
}

// Piece implements server.WakeStore for a store to which the wake is written.
func (s *Store) Piece(_ context.Context, id int64, from, to score.Tick) (take.Stretch, error) {
	whole, id, err := s.stretch(id)
	if err != nil {
		return take.Stretch{}, err
	}
	return take.Stretch{ID: id, From: from, To: to, Bar: whole.Bars().At(from), Revision: s.takes[id-1].revision, Take: take.Cut(whole, from, to)}, nil
}

// CopyLog implements server.WakeStore for a store to which the wake is written.
func (s *Store) CopyLog(ctx context.Context, stretch, id int64, from, to score.Tick) error {
	logged, err := s.Log(ctx, stretch)
	if err != nil {
		return nil //nolint:nilerr // there is none to copy
	}
	logged.From, logged.Recorded, logged.To = logged.From+from, logged.From+from, logged.From+to
	return s.shelf.AppendLog(ctx, id, logged, 0)
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
func (s *Store) Recording(_ context.Context, id int64) (*take.Take, take.Summary, []take.Edit, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	t := s.find(id)
	if t == nil || !t.finished {
		return nil, take.Summary{}, nil, take.ErrUnknown
	}
	recording := t.take
	recording.NameTracks()
	return &recording, s.summary(id), append([]take.Edit{}, t.edits...), nil
}

// find returns a take, or nil.
func (s *Store) find(id int64) *stored {
	if id < 1 || id > int64(len(s.takes)) || s.takes[id-1].vanished {
		return nil
	}
	return &s.takes[id-1]
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
		if s.takes[i].finished && !s.takes[i].vanished {
			summaries = append(summaries, s.summary(int64(i+1)))
		}
	}
	return summaries, nil
}

// SaveTake implements shelf.Store.
func (s *Store) SaveTake(ctx context.Context, summary take.Summary, edit take.Edit) error {
	return s.changeTake(ctx, "SaveTake", summary.ID, func(t *stored) error {
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

func (s *Store) changeTake(ctx context.Context, call string, id int64, do func(*stored) error) error {
	return s.changeUnder(ctx, call, func(fault Fault) error {
		t := s.find(id)
		if t == nil {
			return take.ErrUnknown
		}
		if fault == Vanished {
			t.vanished = true
			return take.ErrUnknown
		}
		return do(t)
	})
}

func (s *Store) change(ctx context.Context, call string, do func() error) error {
	return s.changeUnder(ctx, call, func(Fault) error { return do() })
}

func (s *Store) changeUnder(ctx context.Context, call string, do func(Fault) error) error {
	if err := ctx.Err(); err != nil {
		return err
	}
	s.mu.Lock()
	decide := s.fault
	s.mu.Unlock()
	fault := None
	if decide != nil {
		fault = decide(call) // which may block
	}
	switch fault {
	case Refused:
		return ErrFull
	case GivenUp:
		return context.Canceled
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	if err := do(fault); err != nil || fault == None {
		return err
	}
	return ErrFull
}
