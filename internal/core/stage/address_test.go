package stage_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/testkit"
)

func TestAddressesOfControls(t *testing.T) {
	for address, c := range map[string]stage.Control{
		"/macro/3":                            {Name: "macro", ID: 3},
		"/fill-level":                         {Name: "fill level"},
		"/tempo":                              {Name: "tempo"},
		"/tempo/12":                           {Name: "tempo", Bar: 12},
		"/track/2/mute":                       {Name: "mute", Track: 2},
		"/track/2/pattern/1/part/3/fill":      {},
		"/track/2/pattern/1/part/3/part-fill": {Name: "part fill", Track: 2, Pattern: 1, Part: 3},
		"/track/2/pattern/1/part/3/lane/velocity/amount": {Name: "amount", Track: 2, Pattern: 1, Part: 3, Lane: score.Velocity},
		"": {}, "/": {}, "macro/3": {}, "/macro/x": {}, "/macro/0": {}, "/macro/-3": {}, "/macro/03": {}, "/track/0/mute": {}, "/track/2": {}, "/track/2/mute/1/2": {}, "/TRACK/2/mute": {},
	} {
		got, err := stage.ControlAt(address)
		require.Equal(t, c, got, address)
		require.Equal(t, c == stage.Control{}, err != nil, address)
	}
}

// Each control has one address, which leads back to it.
func TestEachControlHasItsAddress(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := testkit.Change(t, testkit.Project(t)).Control
		back, err := stage.ControlAt(c.Address())
		require.NoError(t, err)
		require.Equal(t, c, back)
	})
	seen := map[string]bool{}
	for _, spec := range stage.Specs() {
		require.False(t, seen[spec.Form()], spec.Form())
		seen[spec.Form()] = true
	}
}
