package score_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// Which tracks write the same thing at one place, by hand: three tracks at one output, of which two share a channel.
func TestClashes(t *testing.T) {
	p := testkit.Demo()
	p.Outputs = *twoOutputs()
	to := func(track, output, channel int, mods ...score.Mod) {
		route := score.WholeRoute(output)
		route.Channel = channel
		p.Tracks[track].Routes = &[]score.Route{route, score.WholeRoute(score.BuiltIn)}
		p.Tracks[track].Patterns[0].Parts[0].Mods = mods
	}
	cutoff := score.Mod{Target: score.ControlTarget, Number: 42}
	wide := score.Mod{Target: score.Control14Target, Number: 10} // and 42
	bend := score.Mod{Target: score.BendTarget}
	to(0, 1, 3, cutoff, bend)
	to(1, 1, 3, wide)
	to(2, 1, 4, cutoff, bend)
	require.NoError(t, p.Validate())
	require.Equal(t, []score.Clash{{Output: 1, Channel: 3, What: "CC 42", Tracks: []int{1, 2}}}, p.Clashes())

	to(2, 1, 3, bend)
	require.Equal(t, []score.Clash{
		{Output: 1, Channel: 3, What: "CC 42", Tracks: []int{1, 2}}, {Output: 1, Channel: 3, What: "pitch bend", Tracks: []int{1, 3}},
	}, p.Clashes())
	to(1, 2, 3, wide, bend)
	require.Equal(t, []score.Clash{{Output: 1, Channel: 3, What: "pitch bend", Tracks: []int{1, 3}}}, p.Clashes(), "another output is another place")

	// A track that bends its notes takes channels from its own up, whatever its route says.
	p.Tracks[0].Tuned, p.Tracks[0].Channel = &score.Tuned{By: score.BendTuned, Channels: 3, Range: 2}, 4
	to(0, 1, 9)
	to(1, 1, 0)
	p.Tracks[1].Channel = 2
	to(2, 1, 6, bend)
	require.Equal(t, []score.Clash{{Output: 1, Channel: 6, What: "pitch bend", Tracks: []int{1, 3}}}, p.Clashes())

	p.Tracks[0].Tuned = nil
	p.Tracks[0].Program, p.Tracks[1].Program = 1, 9
	to(0, 2, 1)
	to(1, 2, 1)
	require.Equal(t, []score.Clash{{Output: 2, Channel: 1, What: "program", Tracks: []int{1, 2}}}, p.Clashes())
	p.Tracks[1].Routes = nil
	require.Empty(t, p.Clashes(), "the built-in sound knows none of these")
}
