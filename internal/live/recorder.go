package live

import (
	"context"
	"slices"
	"sync"
	"time"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
)

// TakeStore keeps takes. Its methods may block; a call that failed may be made again.
type TakeStore interface {
	CreateTake(ctx context.Context, t *take.Take, revision int64) (id int64, err error)
	AppendTake(ctx context.Context, id int64, seq int, messages []play.Message, line take.Timeline) error
	FinishTake(ctx context.Context, id int64, end score.Tick) error
	// AddOrigin says which project plays from a tick of the take on, after the one with which it began.
	AddOrigin(ctx context.Context, id int64, origin take.Origin) error
}

// flushEvery is how often what was heard goes to disk, so a crash loses no more than that.
const flushEvery = 250 * time.Millisecond

// Recorder writes takes to a store from a goroutine of its own, so that a slow disk never delays the
// music. What the disk refuses is kept and tried again.
type Recorder struct {
	store   TakeStore
	changed func(problem error)

	mu    sync.Mutex
	now   *recording   // what is being recorded, or nil
	queue []*recording // recordings that are not wholly stored, oldest first

	writing sync.Mutex // is held while something is written
}

// recording is a take on its way to disk. Ticks are the take's own.
type recording struct {
	header   *take.Take
	revision int64
	start    score.Tick // in ticks of the transport

	id       int64          // 0 until it is created
	messages []play.Message // those that are not on disk yet
	stored   int            // how many messages are on disk
	origins  []take.Origin  // those that are not on disk yet, but for the first
	project  *score.Project // the state that plays now
	line     take.Timeline
	reline   bool // the timeline on disk is not up to date
	ended    bool
	end      score.Tick
}

// NewRecorder returns a recorder. It calls changed after a take has been finished, with nil, and when
// the store has refused something, with the reason.
func NewRecorder(store TakeStore, changed func(problem error)) *Recorder {
	return &Recorder{store: store, changed: changed}
}

// Run writes until the context ends, then writes what is left.
func (r *Recorder) Run(ctx context.Context) {
	ticker := time.NewTicker(flushEvery)
	defer ticker.Stop()
	for {
		select {
		case <-ctx.Done():
			_ = r.Flush(context.WithoutCancel(ctx)) // what fails was told
			return
		case <-ticker.C:
			_ = r.Flush(ctx)
		}
	}
}

func (r *Recorder) recording() bool {
	r.mu.Lock()
	defer r.mu.Unlock()
	return r.now != nil
}

// begin starts a take whose tick 0 is the transport's tick start.
func (r *Recorder) begin(project *score.Project, revision int64, start score.Tick, tempo play.TempoMap) {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.now = &recording{header: take.Of(project, ""), revision: revision, start: start, project: project}
	r.now.follow(tempo)
	r.queue = append(r.queue, r.now)
}

// add records messages with ticks of the transport.
func (r *Recorder) add(messages []play.Message) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.now == nil {
		return
	}
	for _, m := range messages {
		m.Tick -= r.now.start
		r.now.messages = append(r.now.messages, m)
	}
}

func (r *Recorder) setTempo(tempo play.TempoMap) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.now != nil {
		r.now.follow(tempo)
	}
}

// setProject notes that another state of the project plays from a tick of the transport on.
func (r *Recorder) setProject(project *score.Project, revision int64, from score.Tick) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.now != nil {
		at := max(0, from-r.now.start)
		r.now.origins = append(r.now.origins, take.Origin{Tick: at, Revision: revision, Project: project})
		r.now.line.Markers = take.MarkChanges(r.now.line.Markers, r.now.project, project, at)
		r.now.project, r.now.reline = project, true
	}
}

// end finishes the take at a tick of the transport.
func (r *Recorder) end(at score.Tick) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.now == nil {
		return
	}
	r.now.ended, r.now.end = true, max(0, at-r.now.start)
	r.now = nil
}

// follow takes over the part of the transport's tempo map that concerns the take.
func (r *recording) follow(tempo play.TempoMap) {
	var own play.TempoMap
	for _, change := range tempo {
		change.Tick = max(0, change.Tick-r.start)
		if last := len(own) - 1; last >= 0 && own[last].Tick == change.Tick {
			own[last] = change
			continue
		}
		own = append(own, change)
	}
	r.line.Tempo, r.reline = own, true
	r.header.Tempo = own
}

// Flush stores everything that is not yet stored. The error is why it could not be; it is tried again later.
func (r *Recorder) Flush(ctx context.Context) error {
	r.writing.Lock()
	defer r.writing.Unlock()
	for {
		r.mu.Lock()
		if len(r.queue) == 0 {
			r.mu.Unlock()
			return nil
		}
		first := r.queue[0]
		copied := *first
		copied.messages, copied.origins = slices.Clone(first.messages), slices.Clone(first.origins)
		header := *first.header
		copied.header = &header
		first.reline = false
		written := len(copied.origins)
		r.mu.Unlock()

		err := r.write(ctx, &copied)

		r.mu.Lock()
		first.messages = slices.Delete(first.messages, 0, copied.stored-first.stored)
		first.origins = slices.Delete(first.origins, 0, written-len(copied.origins))
		first.id, first.stored = copied.id, copied.stored
		if err != nil {
			first.reline = true
		}
		finished := err == nil && copied.ended
		if finished {
			r.queue = r.queue[1:]
		}
		r.mu.Unlock()

		if err != nil || finished {
			r.changed(err)
		}
		if !finished {
			return err
		}
	}
}

// write stores what a copy of a recording holds and notes in the copy how far it got.
func (r *Recorder) write(ctx context.Context, c *recording) (err error) {
	if c.id == 0 {
		if c.id, err = r.store.CreateTake(ctx, c.header, c.revision); err != nil {
			return err
		}
	}
	if len(c.messages) > 0 || c.reline {
		if err := r.store.AppendTake(ctx, c.id, c.stored, c.messages, c.line); err != nil {
			return err
		}
		c.stored += len(c.messages)
	}
	for len(c.origins) > 0 {
		if err := r.store.AddOrigin(ctx, c.id, c.origins[0]); err != nil {
			return err
		}
		c.origins = c.origins[1:]
	}
	if c.ended {
		return r.store.FinishTake(ctx, c.id, c.end)
	}
	return nil
}
