package score_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

func twoOutputs() *[]score.Output {
	return &[]score.Output{{ID: 1, Name: "Synth", Kind: score.BrowserPort}, {ID: 2, Name: "Rack", Kind: score.BrowserPort, Offset: -100}}
}

// Which outputs and routes are refused, and what is said.
func TestWhichRoutesAreRefused(t *testing.T) {
	p := apply(t, testkit.Buoy(), score.SetProject{Outputs: twoOutputs()})
	track := p.Tracks[0].ID
	whole := score.WholeRoute(1)
	change := func(change func(*score.Route)) score.Edit {
		route := whole
		change(&route)
		return score.SetTrack{Track: track, Routes: &[]score.Route{route}}
	}
	outputs := func(change func([]score.Output)) score.Edit {
		list := *twoOutputs()
		change(list)
		return score.SetProject{Outputs: &list}
	}
	for want, edit := range map[string]score.Edit{
		"tracks[0].routes[0].output is 3; it must be an output of the project: “Bell buoy” goes there, so take its route away first": change(func(r *score.Route) { r.Output = 3 }),
		"tracks[0].routes[0].channel is 17; it must be 0 to 16":                                                                      change(func(r *score.Route) { r.Channel = 17 }),
		"tracks[0].routes[0].octave is -5; it must be -4 to 4":                                                                       change(func(r *score.Route) { r.Octave = -5 }),
		"tracks[0].routes[0].highest is 59; it must be 60 to 127":                                                                    change(func(r *score.Route) { r.Lowest, r.Highest = 60, 59 }),
		"tracks[0].routes[0].loudest is 9; it must be 10 to 127":                                                                     change(func(r *score.Route) { r.Softest, r.Loudest = 10, 9 }),
		"tracks[0].routes[0].softest is 0; it must be 1 to 127":                                                                      change(func(r *score.Route) { r.Softest = 0 }),
		"outputs[1].id is 1; it must be different from every other output's":                                                         outputs(func(o []score.Output) { o[1].ID = 1 }),
		"outputs[1].name is Synth; it must be different from every other output's":                                                   outputs(func(o []score.Output) { o[1].Name = "Synth" }),
		"outputs[0].offset is 251; it must be -100 to 250":                                                                           outputs(func(o []score.Output) { o[0].Offset = 251 }),
		"outputs[0].id is 0; it must be 1 to 255":                                                                                    outputs(func(o []score.Output) { o[0].ID = 0 }),
	} {
		_, _, err := score.Apply(p, edit)
		require.EqualError(t, err, want)
	}
	used := apply(t, p, score.SetTrack{Track: track, Routes: &[]score.Route{whole}})
	_, _, err := score.Apply(used, score.SetProject{Outputs: &[]score.Output{}})
	require.ErrorContains(t, err, "take its route away first")
}

// A track without a word of routes, one that goes nowhere and one that goes to the built-in sound again: three states of a file, of
// which the first and the last are the same.
func TestATrackThatGoesNowhere(t *testing.T) {
	p := testkit.Buoy()
	track := p.Tracks[0].ID
	silent := apply(t, p, score.SetTrack{Track: track, Routes: &[]score.Route{}})
	require.Empty(t, silent.Tracks[0].RouteList())
	data, err := json.Marshal(silent.Tracks[0])
	require.NoError(t, err)
	require.Contains(t, string(data), `"routes":[]`)
	file, err := score.Encode(silent)
	require.NoError(t, err)
	read, err := score.Decode(file)
	require.NoError(t, err)
	require.Equal(t, silent, read)
	again := apply(t, silent, score.SetTrack{Track: track, Routes: &[]score.Route{score.WholeRoute(score.BuiltIn)}})
	require.Equal(t, p, again)
}

// A track of another project goes to the outputs that this one has, else to the built-in sound.
func TestATrackOfElsewhereGoesWhereItCan(t *testing.T) {
	from := apply(t, testkit.Buoy(), score.SetProject{Outputs: twoOutputs()})
	from = apply(t, from, score.SetTrack{Track: 1, Routes: &[]score.Route{score.WholeRoute(2), score.WholeRoute(1)}})
	track := from.Tracks[0]
	track.ID = 9
	bare := apply(t, testkit.Buoy(), score.InsertTrack{At: 0, Track: track})
	require.Nil(t, bare.Tracks[0].Routes)
	one := apply(t, testkit.Buoy(), score.SetProject{Outputs: &[]score.Output{{ID: 2, Name: "Other", Kind: score.BrowserPort}}})
	one = apply(t, one, score.InsertTrack{At: 0, Track: track})
	require.Equal(t, []score.Route{score.WholeRoute(2)}, one.Tracks[0].RouteList())
}
