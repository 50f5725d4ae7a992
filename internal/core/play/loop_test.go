package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/period"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// A loop plays in place of the pattern from any moment on, also before the one at which it began, and the pattern
// goes on as if it had never been away.
func TestALoopPlaysInPlaceOfThePattern(t *testing.T) {
	p := testkit.Plain(func(*score.Project, *score.Track, *score.Part) {})
	p.Tracks[0].Loop = &score.Loop{Start: 1500, Length: 2000, Notes: []score.LoopNote{
		{Start: 0, Length: 4, Key: 50, Velocity: 80}, {Start: 1900, Length: 2000, Key: 60, Velocity: 90},
	}}
	require.NoError(t, p.Validate())
	var starts []score.Tick
	for _, n := range play.Render(p, 0, 6000, nil) {
		require.Equal(t, map[uint8]score.Tick{50: 4, 60: 2000}[n.Key], n.End-n.Start)
		starts = append(starts, n.Start)
	}
	require.Equal(t, []score.Tick{1400, 1500, 3400, 3500, 5400, 5500}, starts)
	period, err := period.Repeats(p, &p.Tracks[0])
	require.NoError(t, err)
	require.Equal(t, score.Tick(2000), period)

	p.Tracks[0].Mute = true
	require.Empty(t, play.Render(p, 0, 6000, nil))
}

// A project with loops plays the same however time is cut up, and from any moment on what it plays when it is
// played from the beginning.
func TestLoopsPlayTheSameFromAnyMomentOn(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		for i := range p.Tracks {
			p.Tracks[i].Loop = testkit.Loop(t)
		}
		require.NoError(t, p.Validate())
		to := 2 * p.Meter.Bar()
		from := score.Tick(rapid.IntRange(0, int(to)).Draw(t, "from"))
		whole := play.Render(p, 0, to, nil)
		performer := play.NewPerformer(p)
		cut := performer.Advance(to, performer.Advance(from, nil))
		require.Equal(t, whole, cut)
		var late []play.Note
		for _, n := range whole {
			if n.Start >= from {
				late = append(late, n)
			}
		}
		require.Equal(t, late, play.Render(p, from, to, nil))
	})
}

// Playing that begins where a note of a loop starts plays that note, and one that begins a tick later does not.
func TestALoopIsEnteredAtTheStartOfItsNote(t *testing.T) {
	p := testkit.Plain(func(*score.Project, *score.Track, *score.Part) {})
	p.Tracks[0].Loop = &score.Loop{Start: 0, Length: 2000, Notes: []score.LoopNote{{Start: 500, Length: 4, Key: 50, Velocity: 80}}}
	require.Equal(t, score.Tick(2500), play.Render(p, 2500, 4600, nil)[0].Start)
	require.Equal(t, score.Tick(4500), play.Render(p, 2501, 4600, nil)[0].Start)
}
