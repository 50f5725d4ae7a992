package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// Invariant 2: saved and restored at any tick, also several times, a project plays on as if nothing had happened, and
// what was saved stays what it was.
func TestSavingAndRestoringChangesNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		for i := range p.Tracks {
			if rapid.IntRange(0, 3).Draw(t, "loops") == 3 {
				p.Tracks[i].Loop = testkit.Loop(t)
			}
		}
		var moves, cutMoves []play.Move
		watch := func(moves *[]play.Move) play.Watch {
			return func(track, part int, lane score.LaneName, move play.Move) { *moves = append(*moves, move) }
		}
		whole := play.NewPerformerAt(p, 0, play.Past{Watch: watch(&moves)})
		cut := play.NewPerformerAt(p, 0, play.Past{Watch: watch(&cutMoves)})
		for at := score.Tick(0); at < stretch; {
			at = min(stretch, at+score.Tick(rapid.IntRange(1, 60_000).Draw(t, "slice")))
			if rapid.Bool().Draw(t, "comes in") {
				m := testkit.Input(t, at)
				whole.Hear(m)
				cut.Hear(m)
			}
			state := cut.Save()
			cut.Advance(at+stretch, nil) // which changes nothing of what was saved
			cutMoves = cutMoves[:len(moves)]
			cut = play.Resume(p, state, nil, watch(&cutMoves))
			require.Equal(t, whole.Advance(at, nil), cut.Advance(at, nil))
			require.Equal(t, whole.Changes(nil), cut.Changes(nil))
			require.Equal(t, whole.Standing(nil), cut.Standing(nil))
			require.Equal(t, append([]play.Move{}, moves...), append([]play.Move{}, cutMoves...))
		}
	})
}
