package play

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// The next step that a part sees ahead, by which ties and slides last, is the one that comes, when it comes: over realignments and what is held.
func TestTheNextStepIsTheOneSeenAhead(t *testing.T) {
	type coming struct {
		tick score.Tick
		step int
		n    int64
	}
	seen := 0
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		for i := range p.Tracks {
			p.Tracks[i].Realign, p.Tracks[i].Hold = rapid.IntRange(0, 3).Draw(t, "realign"), rapid.IntRange(0, 3).Draw(t, "hold")
		}
		f, ahead := NewPerformer(p), map[*walker]coming{}
		f.each(func(w *walker) {
			if !w.ownClock {
				return
			}
			w.watchLanes(func(lane score.LaneName, move Move) {
				if lane != score.Gate {
					return
				}
				if want, known := ahead[w]; known {
					require.Equal(t, want, coming{move.Tick, move.Step, w.gate.DrawIndex}, "track %d", w.track.ID)
					seen++
				}
				duration, _ := w.duration(w.gate.DrawIndex)
				look := w.look(duration)
				w.lookOn(&look)
				ahead[w] = coming{look.aligned + w.span(look.begin), look.gate.Step(), look.gate.DrawIndex}
			})
		})
		f.Advance(48*score.TicksPerQuarter, nil)
	})
	require.Greater(t, seen, 100)
}
