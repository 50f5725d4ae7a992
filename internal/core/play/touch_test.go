package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// A spread touches all written values, those of a range, or those outside: by hand, of a pedal on the root and three notes above it, to all of
// which a seventh is added where it may be. What was really added is told of the touched ones only.
func TestWhichValuesASpreadTouches(t *testing.T) {
	written := []int{0, 2, 4, 0}
	for name, c := range map[string]struct {
		touches  score.Touch
		from, to int
		want     []uint8
	}{
		"all":                 {score.TouchAll, 0, 0, []uint8{72, 76, 79, 72}},
		"all but the pedal":   {score.TouchOutside, 0, 0, []uint8{60, 76, 79, 60}},
		"only the pedal":      {score.TouchWithin, 0, 0, []uint8{72, 64, 67, 72}},
		"from the third up":   {score.TouchWithin, 2, 30, []uint8{60, 76, 79, 60}},
		"all but the highest": {score.TouchOutside, 3, 30, []uint8{72, 76, 67, 72}},
		"none, as none is so": {score.TouchWithin, 9, 20, []uint8{60, 64, 67, 60}},
		"all, as none is so":  {score.TouchOutside, 9, 20, []uint8{72, 76, 79, 72}},
	} {
		p := testkit.Plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
			for step := range written {
				part.Lanes.Gate.Steps[step] = score.On
			}
			testkit.SetLane(&part.Lanes.Pitch, score.Pitch, func(l *score.Lane) {
				copy(l.Steps, written)
				l.Spread = &score.Spread{Chance: 100, Depth: 100, Lowest: 7, Highest: 7, Grain: 1, Touches: c.touches, From: c.from, To: c.to}
			})
		})
		require.NoError(t, p.Validate())
		var keys []uint8
		touched := 0
		for i, n := range play.Render(p, 0, 4*sixteenth, nil) {
			if keys = append(keys, n.Key); p.Tracks[0].Parts()[0].Lanes.Pitch.Spread.Touched(written[i]) {
				touched++
			}
		}
		require.Equal(t, c.want, keys, name)
		_, drawn := play.Draws(p, p.Tracks[0].ID, p.Tracks[0].Parts()[0].ID, score.Pitch, 0, 0, 4*sixteenth)
		require.Len(t, drawn, touched, name)
		for _, added := range drawn {
			require.Equal(t, 7, added)
		}
	}
	p := testkit.Buoy()
	wrong := &score.Spread{Grain: 1, Touches: score.TouchWithin, From: 3, To: 2}
	_, _, err := score.Apply(p, score.SetLane{LaneAddress: score.LaneAddress{PartAddress: score.PartAddress{Track: p.Tracks[0].ID}, Lane: score.Pitch}, Spread: wrong})
	require.ErrorContains(t, err, "spread.to is 2; it must be 3 to 200")
}
