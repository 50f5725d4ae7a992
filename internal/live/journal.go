package live

import (
	"context"
	"errors"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
)

// goOnAfter is how often in a row a recording is refused before it is tried to go on as a new one.
const goOnAfter = 8

// unfinished is a recording that could not be written on, and is still to be finished where it was left.
type unfinished struct {
	id  int64
	end score.Tick
}

// flush stores everything that is not yet stored.
func (r *Recorder) flush(ctx context.Context) error {
	for {
		first, c := r.next()
		if first == nil {
			return r.finishBehind(ctx)
		}
		err := r.append(ctx, c)
		finished, isCurrent := r.note(first, c, err)
		if finished && err != nil {
			r.reports.Lost(err)
			err = nil
		}
		r.reports.Problem(err)
		switch {
		case finished:
			r.reports.Finished()
		case err != nil && r.goOn(ctx, first, err):
			r.reports.WentOn(err)
		case err != nil:
			return err
		case isCurrent:
			return r.finishBehind(ctx)
		}
	}
}

// note notes what the copy of a recording has brought to disk.
func (r *Recorder) note(first, c *recording, err error) (finished, isCurrent bool) {
	r.mu.Lock()
	defer r.mu.Unlock()
	first.written(c)
	first.grown = first.grown || err != nil
	if first.refused++; err == nil {
		first.refused = 0
	}
	// A take that is over and gone from the store, with all that it had, cannot be finished.
	finished = c.ended && (err == nil || errors.Is(err, take.ErrUnknown) && len(first.messages) == 0)
	if finished {
		r.queue = r.queue[1:]
	}
	return finished, first == r.now
}

func (r *Recorder) create(ctx context.Context, c *recording) error {
	id, err := r.store.CreateTake(ctx, c.header(), c.origin.Revision)
	if err != nil {
		return err // whatever the id says
	}
	c.id, c.grown = id, false
	return nil
}

// append stores what a copy of a recording holds and notes in the copy how far it got.
func (r *Recorder) append(ctx context.Context, c *recording) error {
	if c.id == 0 {
		if err := r.create(ctx, c); err != nil {
			return err
		}
	}
	if err := r.appendLog(ctx, c); err != nil { // before what follows from it
		return err
	}
	if pending := c.messages[c.done:]; len(pending) > 0 || c.grown {
		var grown *take.Heading
		if c.grown {
			grown = &c.heading
		}
		piece := take.Piece{First: c.stored, Messages: pending, Standing: c.standing.Standing(0)}
		if err := r.store.AppendTake(ctx, c.id, piece, grown); err != nil {
			return err
		}
		c.stored, c.done = c.stored+len(pending), len(c.messages)
	}
	for _, origin := range c.origins {
		if err := r.store.AddOrigin(ctx, c.id, origin); err != nil {
			return err
		}
		c.placed++
	}
	if c.ended {
		return r.store.FinishTake(ctx, c.id, c.end)
	}
	return nil
}

// appendLog stores what has come to the log of a copy of a recording, and at its end until when it is known.
func (r *Recorder) appendLog(ctx context.Context, c *recording) error {
	if c.log.Project == nil {
		if c.logged == notLogged {
			return nil
		}
		err := r.store.AppendLog(ctx, c.id, take.Logged{}, 0)
		if err == nil {
			c.logged = notLogged
		}
		return err
	}
	if c.logged == len(c.log.Entries) && !c.ended {
		return nil
	}
	logged := take.Logged{Log: &c.log, From: c.start, Recorded: c.first, To: c.start + c.end}
	err := r.store.AppendLog(ctx, c.id, logged, max(0, c.logged))
	if err == nil {
		c.logged = len(c.log.Entries)
	}
	return err
}

// goOn lets a recording go on as a new one where it cannot be written on: where it is gone from the store, or is
// refused again and again while a new one is taken. It reports whether it does.
func (r *Recorder) goOn(ctx context.Context, first *recording, why error) bool {
	gone := errors.Is(why, take.ErrUnknown)
	if first.id == 0 || !gone && first.refused < goOnAfter {
		return false
	}
	_, c := r.next()
	by := c.bound()
	c.goOn(by)
	err := r.create(ctx, c)
	r.mu.Lock()
	defer r.mu.Unlock()
	if err != nil { // it is not the recording that is refused
		first.grown = true
		return false
	}
	r.behind = append(r.behind, unfinished{first.id, first.end})
	first.goOn(by)
	first.id = c.id
	return true
}

// finishBehind finishes recordings that could not be written on. What is gone is passed over.
func (r *Recorder) finishBehind(ctx context.Context) error {
	for len(r.behind) > 0 {
		b := r.behind[0]
		if err := r.store.FinishTake(ctx, b.id, b.end); err != nil && !errors.Is(err, take.ErrUnknown) {
			r.reports.Problem(err)
			return err
		}
		r.behind = r.behind[1:]
		r.reports.Problem(nil)
		r.reports.Finished()
	}
	return nil
}
