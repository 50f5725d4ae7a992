package store

import (
	"context"
	"math/rand/v2"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// However many wait and give up at any moment, one at a time has the turn, and it is never lost.
func TestNoTurnIsLost(t *testing.T) {
	var q queue
	var working sync.WaitGroup
	inside := make(chan struct{}, 1)
	for worker := range 8 {
		random := rand.New(rand.NewPCG(7, uint64(worker)))
		working.Go(func() {
			for range 400 {
				ctx, cancel := context.WithTimeout(t.Context(), time.Duration(random.IntN(60))*time.Microsecond)
				if q.enter(ctx, turn(random.IntN(int(turns)))) == nil {
					select {
					case inside <- struct{}{}:
						<-inside
					default:
						t.Error("two at once")
					}
					q.leave()
				}
				cancel()
			}
		})
	}
	working.Wait()
	limited, cancel := context.WithTimeout(t.Context(), time.Minute)
	defer cancel()
	require.NoError(t, q.enter(limited, plainTurn))
	q.leave()
	require.False(t, q.busy)
}
