package live

import (
	"context"
	"sync"
	"time"

	"jettyfog/internal/core/stage"
)

// StageStore keeps the live changes. The call may block, and may be made again if it failed.
type StageStore interface {
	SaveStage(ctx context.Context, s stage.Stage) error
}

// StageKeeper writes the live changes to a store from a goroutine of its own, so that a slow disk delays nothing that is
// done. Only the latest count; what the disk refuses is tried again.
type StageKeeper struct {
	store   StageStore
	problem func(error)

	mu    sync.Mutex
	now   stage.Stage
	saved stage.Stage
}

// NewStageKeeper returns a keeper of live changes that are stored as they are now. It writes while it runs, and tells why
// the store refuses them, at each try, and with nil that it does not.
func NewStageKeeper(store StageStore, stored stage.Stage, problem func(error)) *StageKeeper {
	return &StageKeeper{store: store, problem: problem, now: stored, saved: stored}
}

// Keep has live changes written; it does not wait.
func (k *StageKeeper) Keep(s stage.Stage) {
	k.mu.Lock()
	defer k.mu.Unlock()
	k.now = s
}

// Run writes until the context ends, then writes what is left. No write is broken off by the context.
func (k *StageKeeper) Run(ctx context.Context) {
	ticker := time.NewTicker(flushEvery)
	defer ticker.Stop()
	for {
		select {
		case <-ctx.Done():
			k.save(context.WithoutCancel(ctx))
			return
		case <-ticker.C:
			k.save(context.WithoutCancel(ctx))
		}
	}
}

// save writes the live changes if they are others than those that are stored.
func (k *StageKeeper) save(ctx context.Context) {
	k.mu.Lock()
	now, saved := k.now, k.saved
	k.mu.Unlock()
	if now.Equal(saved) {
		return
	}
	err := k.store.SaveStage(ctx, now)
	if k.problem(err); err != nil {
		return
	}
	k.mu.Lock()
	defer k.mu.Unlock()
	k.saved = now
}
