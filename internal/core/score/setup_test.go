package score_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// By hand: an output of the same name takes the setup's settings and keeps its id, another one is added with a free id, tracks go by name,
// and one that the setup does not know stays as it is.
func TestASetupByHand(t *testing.T) {
	from := testkit.Buoy()
	from.Outputs = []score.Output{{ID: 1, Name: "Rack", Kind: score.ServerDevice, Gap: 3}, {ID: 2, Name: "Synth", Kind: score.BrowserPort}}
	low := score.WholeRoute(2)
	low.Octave = -1
	from.Tracks[0].Routes = &[]score.Route{score.WholeRoute(1), low, score.WholeRoute(score.BuiltIn)}
	into := testkit.Buoy()
	into.Outputs = []score.Output{{ID: 2, Name: "Rack", Kind: score.BrowserPort, Offset: 9}, {ID: 1, Name: "Mine", Kind: score.BrowserPort}}
	into = apply(t, into, score.AddTrack{At: 0, Kind: score.Melodic})
	loaded := apply(t, into, from.Setup().EditFor(into))
	require.Equal(t, []score.Output{
		{ID: 2, Name: "Rack", Kind: score.ServerDevice, Gap: 3}, {ID: 1, Name: "Mine", Kind: score.BrowserPort}, {ID: 3, Name: "Synth", Kind: score.BrowserPort},
	}, loaded.Outputs)
	low.Output = 3
	require.Equal(t, []score.Route{score.WholeRoute(2), low, score.WholeRoute(score.BuiltIn)}, loaded.Tracks[1].RouteList())
	require.Equal(t, into.Tracks[0], loaded.Tracks[0])

	many := testkit.Buoy()
	for id := range 16 {
		many.Outputs = append(many.Outputs, score.Output{ID: id + 1, Name: string(rune('A' + id)), Kind: score.BrowserPort})
	}
	_, _, err := score.Apply(many, from.Setup().EditFor(many))
	require.ErrorContains(t, err, "outputs")
}

// A setup that was kept and loaded where it comes from changes nothing; loaded into any other project it leaves a valid one, and undo
// brings back what was.
func TestASetupIsLoadedAnywhere(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		from, into := testkit.Project(t), testkit.Project(t)
		data, err := json.Marshal(from.Setup())
		require.NoError(t, err)
		var setup score.Setup
		require.NoError(t, json.Unmarshal(data, &setup))
		same, _, err := score.Apply(from, setup.EditFor(from))
		require.NoError(t, err)
		names := map[string]bool{}
		for i := range from.Tracks {
			if !names[from.Tracks[i].Name] {
				require.Equal(t, from.Tracks[i].RouteList(), same.Tracks[i].RouteList())
			}
			names[from.Tracks[i].Name] = true
		}
		loaded, inverse, err := score.Apply(into, setup.EditFor(into))
		require.NoError(t, err)
		require.NoError(t, loaded.Validate())
		back, _, err := score.Apply(loaded, inverse)
		require.NoError(t, err)
		for i := range into.Tracks {
			require.Equal(t, into.Tracks[i].RouteList(), back.Tracks[i].RouteList())
		}
		require.Equal(t, len(into.Outputs), len(back.Outputs))
	})
}
