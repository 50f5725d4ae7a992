package testkit

import (
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
)

// outputs draws a project's outputs.
func outputs(t *rapid.T) []score.Output {
	all := []score.Output{
		{ID: 3, Name: "Synth by the window", Kind: score.BrowserPort},
		{ID: 1, Name: "Rack", Kind: score.BrowserPort, Offset: rapid.SampledFrom([]int{0, -100, 250}).Draw(t, "offset")},
	}
	count := rapid.IntRange(0, len(all)).Draw(t, "outputs")
	if count == 0 {
		return nil
	}
	return all[:count]
}

// routes draws routes to some outputs of a project and to the built-in sound, none among them; nil is the built-in sound
// alone.
func routes(t *rapid.T, outputs []score.Output) *[]score.Route {
	if rapid.Bool().Draw(t, "only the built-in sound") {
		return nil
	}
	ids := []int{score.BuiltIn}
	for _, output := range outputs {
		ids = append(ids, output.ID)
	}
	list := []score.Route{}
	for range rapid.SampledFrom([]int{1, 1, 2, 3, 0}).Draw(t, "routes") {
		route := score.WholeRoute(rapid.SampledFrom(ids).Draw(t, "output"))
		route.Octave = rapid.SampledFrom([]int{0, 0, 1, -4}).Draw(t, "octave of a route")
		if rapid.Bool().Draw(t, "another channel") {
			route.Channel = rapid.IntRange(1, 16).Draw(t, "channel of a route")
		}
		if seldom(t, "a range of keys") {
			route.Lowest, route.Highest = 48, 71
		}
		if seldom(t, "a range of velocities") {
			route.Softest, route.Loudest = 60, 100
		}
		if route.Output == score.BuiltIn && seldom(t, "a patch") {
			route.Patch = "pad"
		}
		list = append(list, route)
	}
	if len(list) == 1 && list[0] == score.WholeRoute(score.BuiltIn) {
		return nil
	}
	return &list
}
