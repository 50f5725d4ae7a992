package live

import (
	"context"
	"sync"
	"time"

	"jettyfog/internal/core/stage"
)

// StageStore keeps the live changes. The call may block, and may be made again if it failed.
type StageStore interface {
	SaveStage(ctx context.Context, document int64, s stage.Stage) error
}

// StageKeeper writes the live changes to a store from a goroutine of its own, so that a slow disk delays nothing that is
// done. Only the latest of a document count; what the disk refuses is tried again.
type StageKeeper struct {
	store   StageStore
	problem func(error)

	mu    sync.Mutex
	now   map[int64]stage.Stage // by document
	saved map[int64]stage.Stage
}

// NewStageKeeper returns a keeper of live changes. It writes while it runs, and tells why the store refuses them, at each try,
// and with nil that it does not.
func NewStageKeeper(store StageStore, problem func(error)) *StageKeeper {
	return &StageKeeper{store: store, problem: problem, now: map[int64]stage.Stage{}, saved: map[int64]stage.Stage{}}
}

// Keep has live changes of a document written; it does not wait. The first ones of a document are those that are stored.
func (k *StageKeeper) Keep(document int64, s stage.Stage) {
	k.mu.Lock()
	defer k.mu.Unlock()
	if _, known := k.saved[document]; !known {
		k.saved[document] = s
	}
	k.now[document] = s
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

// save writes the live changes that are others than those that are stored.
func (k *StageKeeper) save(ctx context.Context) {
	k.mu.Lock()
	changed := map[int64]stage.Stage{}
	for document, now := range k.now {
		if !now.Equal(k.saved[document]) {
			changed[document] = now
		}
	}
	k.mu.Unlock()
	for document, now := range changed {
		err := k.store.SaveStage(ctx, document, now)
		if k.problem(err); err != nil {
			return
		}
		k.mu.Lock()
		k.saved[document] = now
		k.mu.Unlock()
	}
}
