package live

import (
	"context"
	"slices"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/store"
	"jettyfog/internal/studio"
)

// stopwatch is a wake that notes how long after its time each message is on disk.
type stopwatch struct {
	*store.Wake
	transport *Transport
	lags      []float64 // in milliseconds
}

func (s *stopwatch) AppendTake(ctx context.Context, id int64, piece take.Piece, grown *take.Heading) error {
	err := s.Wake.AppendTake(ctx, id, piece, grown)
	now := s.transport.Now()
	for _, m := range piece.Messages {
		s.lags = append(s.lags, float64(now-s.due(m))/1e6)
	}
	return err
}

func (s *stopwatch) due(m midi.Message) int64 {
	s.transport.mu.Lock()
	defer s.transport.mu.Unlock()
	return s.transport.timeOf(m.Tick)
}

// BenchmarkWakeLag plays the demo in real time for five seconds a round, while a hundred edits and five imports a
// second are stored in the same database, and reports how long after its time a message is on disk. The journal is
// written every 250 ms, so half of that is the least that the median can be.
func BenchmarkWakeLag(b *testing.B) {
	kept, err := store.Open(b.TempDir())
	require.NoError(b, err)
	defer func() { require.NoError(b, kept.Close()) }()
	document, err := kept.OpenDocument(b.Context(), testkit.Demo())
	require.NoError(b, err)
	imported := take.Render(testkit.Demo(), 64)
	watch := &stopwatch{Wake: kept.Wake()}
	edits, imports := 0, 0
	for b.Loop() {
		ctx, stop := context.WithTimeout(b.Context(), 5*time.Second)
		wake := NewRecorder(watch, Reports{})
		watch.transport = New(testkit.Demo(), Options{}, NewRecorder(kept, Reports{}), wake)
		var running sync.WaitGroup
		running.Go(func() { wake.Run(ctx) })
		running.Go(func() { watch.transport.Run(ctx) })
		running.Go(func() {
			every(ctx, 10*time.Millisecond, func() {
				document = studio.Document{ID: 1, Project: document.Project, Revision: document.Revision + 1}
				require.NoError(b, kept.SaveMove(context.WithoutCancel(ctx), document))
				edits++
			})
		})
		running.Go(func() {
			every(ctx, 200*time.Millisecond, func() {
				_, err := kept.AddTakes(context.WithoutCancel(ctx), []*take.Take{imported}, 1)
				require.NoError(b, err)
				imports++
			})
		})
		watch.transport.Play()
		running.Wait()
		stop()
	}
	slices.Sort(watch.lags)
	b.ReportMetric(watch.lags[len(watch.lags)/2], "p50-ms")
	b.ReportMetric(watch.lags[len(watch.lags)*99/100], "p99-ms")
	b.ReportMetric(watch.lags[len(watch.lags)-1], "max-ms")
	b.ReportMetric(float64(edits)/5/float64(b.N), "edits/s")
	b.ReportMetric(float64(imports)/5/float64(b.N), "imports/s")
}

// every does something again and again until the context ends.
func every(ctx context.Context, d time.Duration, do func()) {
	ticker := time.NewTicker(d)
	defer ticker.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case <-ticker.C:
			do()
		}
	}
}
