package testkit

import (
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
)

// ModularID is the id of the output of voltages of a project that is drawn.
const ModularID = 2

// outputs draws a project's outputs.
func outputs(t *rapid.T) []score.Output {
	all := []score.Output{
		{ID: 3, Name: "Synth by the window", Kind: score.BrowserPort},
		{
			ID: 1, Name: "Rack", Kind: score.ServerDevice, Offset: rapid.SampledFrom([]int{0, -100, 250}).Draw(t, "offset"),
			Gap: rapid.SampledFrom([]int{0, 10}).Draw(t, "gap"), ControllerRate: rapid.SampledFrom([]int{0, 30}).Draw(t, "controller rate"),
		},
	}
	if rapid.Bool().Draw(t, "clock") {
		all[1].Clock = &score.ClockOut{
			Offset:       rapid.SampledFrom([]int{0, -100, 250}).Draw(t, "clock offset"),
			WhileStopped: rapid.Bool().Draw(t, "clock while stopped"), Starts: rapid.Bool().Draw(t, "clock starts"), Follows: rapid.Bool().Draw(t, "clock follows"),
		}
	}
	modular := score.Output{ID: ModularID, Name: "Modular", Kind: score.Voltages, Voltages: &score.VoltageSetup{FullScale: 10_000, LowestFree: rapid.Bool().Draw(t, "lowest free")}}
	for i, signal := range score.Signals() {
		channel := score.NewVoltageChannel(32-i, signal)
		channel.Track, channel.Lead = rapid.IntRange(0, 4).Draw(t, "track of a channel"), rapid.SampledFrom([]int{0, 10, 50}).Draw(t, "lead of a channel")
		modular.Voltages.Channels = append(modular.Voltages.Channels, channel)
	}
	all = append(all, modular)
	count := rapid.IntRange(0, len(all)).Draw(t, "outputs")
	if count == 0 {
		return nil
	}
	return all[:count]
}

// routes draws routes to some outputs of a project and to the built-in sound, none among them; nil is the built-in sound
// alone.
func routes(t *rapid.T, outputs []score.Output, kind score.Kind) *[]score.Route {
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
		if seldom(t, "several channels") {
			route.Voices = rapid.SampledFrom([]int{1, 2, 16}).Draw(t, "voices of a route")
		}
		if seldom(t, "a curve") {
			route.Curve = rapid.SampledFrom([]int{-100, 40, 100}).Draw(t, "curve")
		}
		if seldom(t, "a program of its own") {
			route.Program, route.Bank, route.Lead = 128, rapid.SampledFrom([]int{0, 1, 16384}).Draw(t, "bank of a route"), 2000
		}
		if kind != score.Melodic && seldom(t, "one part") {
			route.OnlyPart, route.Part = true, rapid.SampledFrom([]int{0, 1, 2, 4, 200}).Draw(t, "part of a route")
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
