package cv_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/cv"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// Curves that a track sends come behind its mod lanes, in the order of the modulators.
func TestCurvesAreBehindTheModLanes(t *testing.T) {
	p := testkit.Buoy()
	send := func(track, number int) score.ModulatorSend {
		return score.ModulatorSend{Track: track, Mod: score.Mod{Target: score.ControlTarget, Number: number, Most: 127}}
	}
	p.Modulators = []score.Modulator{
		{ID: 2, Name: "Swell", Shape: score.SineShape, Amount: 100, Times: 1, Value: "1/1", Sends: []score.ModulatorSend{send(9, 20), send(1, 21)}},
		{ID: 1, Name: "Ebb", Shape: score.RampShape, Amount: 100, Times: 1, Value: "1/1", Sends: []score.ModulatorSend{send(1, 22)}},
	}
	require.NoError(t, p.Validate())
	given := map[int]float64{}
	for number, value := range map[uint8]uint16{20: 127, 21: 127, 22: 0} {
		cv.ModShares(p, &p.Tracks[0], midi.Message{Kind: midi.ControlChange, Key: number, Value: value}, func(lane int, share float64) { given[lane] = share })
	}
	require.Equal(t, map[int]float64{9: 1, 10: 0}, given)
}
