package live

import (
	"context"
	"slices"
	"sync"
	"time"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
)

// TakeStore keeps takes. Its methods may block; a call that failed may be made again. What it returns with an error
// does not count.
type TakeStore interface {
	CreateTake(ctx context.Context, t *take.Take, revision int64) (id int64, err error)
	// AppendTake stores a piece of a take, and with a heading that it has become. The error wraps take.ErrUnknown if
	// the take is not there.
	AppendTake(ctx context.Context, id int64, piece take.Piece, grown *take.Heading) error
	FinishTake(ctx context.Context, id int64, end score.Tick) error
	// AppendLog stores what a take is a function of, whose first entries are stored already: with none also where the log
	// begins. One without a log has what was stored forgotten. The error wraps take.ErrUnknown if the take is not there.
	AppendLog(ctx context.Context, id int64, logged take.Logged, first int) error
	// AddOrigin says which project plays from a tick of the take on, after the one with which it began.
	AddOrigin(ctx context.Context, id int64, origin take.Origin) error
}

// Reports are what a recorder tells. The functions must return quickly and must not call the recorder; those that
// are nil are told nothing.
type Reports struct {
	// Finished says that a take has been finished.
	Finished func()
	// Problem says why the store refuses what is recorded, at each try, and with nil that it does not.
	Problem func(error)
	// WentOn says that a recording could not be written on, and why; it goes on as a new one.
	WentOn func(why error)
	// Lost says that a recording that was just over is gone from the store with all that it had.
	Lost func(why error)
}

// flushEvery is how often what was heard goes to disk, so a crash loses no more than that.
const flushEvery = 250 * time.Millisecond

// staleFor is for how many flushes a take on disk can lack tempos that were followed: five seconds.
const staleFor = 20

// Recorder writes takes to a store from a goroutine of its own, so that a slow disk never delays the
// music. What the disk refuses is kept and tried again.
type Recorder struct {
	store   TakeStore
	reports Reports
	asked   chan chan error // wants everything written at once

	mu    sync.Mutex
	now   *recording   // what is being recorded, or nil
	queue []*recording // recordings that are not wholly stored, oldest first

	behind []unfinished // is used while something is written
}

// NewRecorder returns a recorder. It writes while it runs.
func NewRecorder(store TakeStore, reports Reports) *Recorder {
	for _, f := range []*func(error){&reports.Problem, &reports.WentOn, &reports.Lost} {
		if *f == nil {
			*f = func(error) {}
		}
	}
	if reports.Finished == nil {
		reports.Finished = func() {}
	}
	return &Recorder{store: store, reports: reports, asked: make(chan chan error)}
}

// Run writes until the context ends, then writes what is left. No write is broken off by the context.
func (r *Recorder) Run(ctx context.Context) {
	ticker := time.NewTicker(flushEvery)
	defer ticker.Stop()
	for {
		select {
		case <-ctx.Done():
			_ = r.flush(context.WithoutCancel(ctx)) // Left says what was refused
			return
		case <-ticker.C:
			_ = r.flush(context.WithoutCancel(ctx)) // what is refused was told
		case answer := <-r.asked:
			r.change(func(now *recording) { now.stale *= staleFor }) // with all its tempos
			answer <- r.flush(context.WithoutCancel(ctx))
		}
	}
}

// Flush has everything stored that is not stored yet. The error is why it could not be, and it is tried again; or
// that of a context that has ended before, which breaks nothing off.
func (r *Recorder) Flush(ctx context.Context) error {
	answer := make(chan error, 1)
	select {
	case r.asked <- answer:
	case <-ctx.Done():
		return ctx.Err()
	}
	select {
	case err := <-answer:
		return err
	case <-ctx.Done():
		return ctx.Err()
	}
}

// Left returns how many notes are not on disk.
func (r *Recorder) Left() (notes int) {
	r.mu.Lock()
	defer r.mu.Unlock()
	for _, recording := range r.queue {
		for _, m := range recording.messages {
			if m.Kind == midi.NoteOn {
				notes++
			}
		}
	}
	return notes
}

func (r *Recorder) recording() bool {
	r.mu.Lock()
	defer r.mu.Unlock()
	return r.now != nil
}

// begin starts a take whose tick 0 is the transport's tick start, and of which something is recorded from another on. The
// tempos and the bars are those of the transport's run time.
func (r *Recorder) begin(project *score.Project, revision int64, start, first score.Tick, tempo play.TempoMap, bars score.Bars) {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.now = newRecording(project, revision, start, first, tempo, bars)
	r.queue = append(r.queue, r.now)
}

// change has the recording that is going on changed, if there is one.
func (r *Recorder) change(how func(*recording)) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.now != nil {
		how(r.now)
	}
}

// add records messages with ticks of the transport.
func (r *Recorder) add(messages []midi.Message) {
	r.change(func(now *recording) {
		for _, m := range messages {
			now.add(m)
		}
	})
}

// end finishes the take at a tick of the transport.
func (r *Recorder) end(at score.Tick) {
	r.change(func(now *recording) {
		now.finish(at)
		r.now = nil
	})
}

// follow says what is played follows from: the log of the transport's run time, which only grows, or has no project if it is
// not known any more.
func (r *Recorder) follow(l log.Log) { r.change(func(now *recording) { now.log = l }) }

// next returns the first recording that is to be written, and a copy of it; nil if there is none.
func (r *Recorder) next() (first, c *recording) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if len(r.queue) == 0 {
		return nil, nil
	}
	first = r.queue[0]
	if first.stale > 0 {
		if first.stale++; first.stale > staleFor || first.ended || first.grown {
			first.grown, first.stale = true, 0
		}
	}
	copied := *first
	copied.messages, copied.origins = slices.Clone(first.messages), slices.Clone(first.origins)
	copied.tracks.eras = slices.Clone(first.tracks.eras)
	first.grown = false
	return first, &copied
}
