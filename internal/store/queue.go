package store

import (
	"context"
	"slices"
	"sync"
)

// turn says who writes before whom.
type turn int

// The turns, in their order.
const (
	journalTurn turn = iota // what was heard
	plainTurn               // all else
	turns
)

// queue lets one write at a time, those of the journal first, and else in the order in which they came.
type queue struct {
	mu      sync.Mutex
	busy    bool
	waiting [turns][]chan struct{}
}

// enter waits for the caller's turn. The error is that of a context that ended before; then it is nobody's turn.
func (q *queue) enter(ctx context.Context, t turn) error {
	if err := ctx.Err(); err != nil {
		return err
	}
	q.mu.Lock()
	if !q.busy {
		q.busy = true
		q.mu.Unlock()
		return nil
	}
	mine := make(chan struct{})
	q.waiting[t] = append(q.waiting[t], mine)
	q.mu.Unlock()

	select {
	case <-mine:
		return nil
	case <-ctx.Done():
	}
	q.mu.Lock()
	at := slices.Index(q.waiting[t], mine)
	if at >= 0 {
		q.waiting[t] = slices.Delete(q.waiting[t], at, at+1)
	}
	q.mu.Unlock()
	if at < 0 { // the turn came at the same moment; it goes to the next
		q.leave()
	}
	return ctx.Err()
}

// leave ends a turn.
func (q *queue) leave() {
	q.mu.Lock()
	defer q.mu.Unlock()
	for t := range q.waiting {
		if list := q.waiting[t]; len(list) > 0 {
			q.waiting[t] = list[1:]
			close(list[0])
			return
		}
	}
	q.busy = false
}
