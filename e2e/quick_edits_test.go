package e2e

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

// Fields of one thing that are written faster than the server answers all count: none is written over by what the page had before.
func TestFieldsThatFollowEachOtherAllCount(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800, slowEdits)
	p.point("gate", 0, 0.5)
	p.Mouse.MustClick("left")
	p.sheet("step")
	p.press("own ratchet")
	p.MustElement("input[aria-label='hit lengths']")
	p.enter("hit lengths", "3 2 1")
	p.enter("Walk of the step", "2")
	p.enter("hits drawn", "0 0 4 1")
	p.enter("stretch", "3")
	p.choice("Add a term", "passes from … on")
	p.choice("Add a term", "fewer notes of a track")
	p.sheet("track")
	p.enter("lowest note", "40")
	p.enter("highest note", "90")
	p.enter("degrees up", "3")
	p.enter("semitones up", "-1")
	p.enter("Speed, this many", "3")
	p.enter("Speed, in the time of so many", "2")
	p.sheet("part")
	p.enter("ramp", "-20")
	p.enter("odds", "70")
	a.waitFor(func(p *score.Project) bool { return p.Tracks[0].Parts()[0].Ratchet.Odds == 70 })
	track, part := a.project().Tracks[0], a.part(0)
	own := part.Details[0].Ratchet
	require.Equal(t, 3, part.Details[0].Stretch)
	terms, _, _ := part.Details[0].Condition.Terms()
	require.Len(t, terms, 2)
	require.Equal(t, []int{3, 2, 1}, own.Shares)
	require.Equal(t, 2, own.Walk)
	require.Equal(t, []int{0, 0, 4, 1}, own.Counts)
	require.Equal(t, 40, track.Register.Lowest)
	require.Equal(t, 90, track.Register.Highest)
	require.Equal(t, score.Transpose{Degrees: 3, Semitones: -1}, track.Transpose)
	require.Equal(t, score.Ratio{N: 3, M: 2}, track.Speed)
	require.Equal(t, -20, part.Ratchet.Ramp)
}
