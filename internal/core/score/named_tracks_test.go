package score_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// What names a removed track waits for it to come back, and finds no new track in its place.
func TestANewTrackIsNoneThatSomethingNames(t *testing.T) {
	const removed = 2
	added := func(p *score.Project) int { return score.TrackOf(p, score.Melodic, "New", score.Pattern{}).ID }
	control := score.ControlAddress{Name: "degrees", Track: removed}
	rules := []score.MeetingRule{{Track: removed}}
	for what, name := range map[string]func(p *score.Project){
		"a scene": func(p *score.Project) { p.Scenes = []score.Scene{{Values: []score.SceneValue{{Control: control}}}} },
		"a macro": func(p *score.Project) { p.Macros = []score.Macro{{Moves: []score.MacroMove{{Control: control}}}} },
		"a modulator": func(p *score.Project) {
			p.Modulators = []score.Modulator{{Moves: []score.ModulatorMove{{Control: control}}}}
		},
		"a track that drives": func(p *score.Project) { p.Modulators = []score.Modulator{{Track: removed}} },
		"a track that sends": func(p *score.Project) {
			p.Modulators = []score.Modulator{{Sends: []score.ModulatorSend{{Track: removed}}}}
		},
		"a switch":              func(p *score.Project) { p.Switches = []score.Switch{{Control: control}} },
		"a fader":               func(p *score.Project) { p.Mappings = []score.Mapping{{Control: control}} },
		"notes that are passed": func(p *score.Project) { p.Inputs = []score.Input{{PassesTo: []score.Passage{{Track: removed}}}} },
		"keys that transpose": func(p *score.Project) {
			p.Inputs = []score.Input{{Transposes: &score.Transposing{Tracks: []int{removed}}}}
		},
		"a channel of voltages": func(p *score.Project) {
			p.Outputs = []score.Output{{Voltages: &score.VoltageSetup{Channels: []score.VoltageChannel{{Track: removed}}}}}
		},
		"a rule of a field":      func(p *score.Project) { p.Tracks[0].Parts()[0].Field = &score.Field{Rules: rules} },
		"a rule of a kept layer": func(p *score.Project) { p.FieldLayers = []score.FieldLayer{{Rules: rules}} },
		"the last id that it can": func(p *score.Project) {
			p.Switches = []score.Switch{{Control: score.ControlAddress{Track: removed}}, {Control: score.ControlAddress{Track: 1 << 40}}}
		},
	} {
		p := testkit.Buoy()
		name(p)
		require.Equal(t, removed+1, added(p), what)
	}
	require.Equal(t, removed, added(testkit.Buoy()), "nothing names it")
}
