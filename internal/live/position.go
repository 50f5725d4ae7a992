package live

import (
	"context"
	"time"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
)

// Position returns of which project something plays, or played last, and where.
func (t *Transport) Position() (document int64, position log.Position) {
	t.mu.Lock()
	defer t.mu.Unlock()
	if !t.playing {
		return t.document, log.Position{Song: t.stopped, Plan: t.stoppedPlan, Playing: t.interrupted}
	}
	run := max(0, t.tickAt(t.Now()))
	return t.document, log.Position{Song: t.bars().Floor(t.player.Pieces().Song(run)), Plan: t.player.Plan(), Playing: true}
}

// Song returns the tick of the song that plays at a tick of run time, since playing began last.
func (t *Transport) Song(run score.Tick) score.Tick {
	t.mu.Lock()
	defer t.mu.Unlock()
	if t.player == nil {
		return run
	}
	return t.player.Pieces().Song(run)
}

// Stretch returns the ticks of the song of something that lasts for a time from a moment of the transport's clock on; ok is
// false if nothing was playing then.
func (t *Transport) Stretch(at, lasts int64) (start, length score.Tick, ok bool) {
	t.mu.Lock()
	defer t.mu.Unlock()
	if !t.playing || at < t.started-int64(t.ahead()) || at > t.Now() {
		return 0, 0, false
	}
	start = t.tickAt(at)
	return t.player.Pieces().Song(start), max(1, t.tickAt(at+lasts)-start), true
}

// SetPosition says where playing was before the program began. GoOn goes on from there.
func (t *Transport) SetPosition(position log.Position) {
	t.mu.Lock()
	defer t.mu.Unlock()
	if t.playing || position.Song < 0 || position.Song > score.LastTick || !position.Plan.Valid() {
		return
	}
	t.stopped, t.stoppedPlan, t.interrupted = position.Song, position.Plan, position.Playing
	t.notify()
}

// PositionStore keeps where playing is. The call may block.
type PositionStore interface {
	SavePosition(ctx context.Context, document int64, position log.Position) error
}

// KeepPosition stores where playing is, with each bar, until the context ends, and then where it stopped. What the disk refuses is
// tried again with the next one, and told with each try.
func KeepPosition(ctx context.Context, t *Transport, store PositionStore, problem func(error)) {
	ticker := time.NewTicker(flushEvery)
	defer ticker.Stop()
	var savedOf int64
	var saved log.Position
	for ended := false; !ended; {
		select {
		case <-ctx.Done():
			ended = true
		case <-ticker.C:
		}
		document, position := t.Position()
		if document == savedOf && position.Equal(saved) || document == 0 {
			continue
		}
		err := store.SavePosition(context.WithoutCancel(ctx), document, position)
		if problem(err); err == nil {
			savedOf, saved = document, position
		}
	}
}
