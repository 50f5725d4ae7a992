package play_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// However far modulators push the ends of a register together, it is an octave wide at least, or as wide as the tuning has notes: each note is in it, and no
// other one than before but for whole periods.
func TestModulatedRegistersHaveRoom(t *testing.T) {
	quarterTones := &theory.Tuning{Name: "quarter tones"}
	for i := range 24 {
		quarterTones.Pitches = append(quarterTones.Pitches, fmt.Sprintf("%d.", 50*(i+1)))
	}
	for name, c := range map[string]struct {
		tuning *theory.Tuning
		period int
	}{"equal temperament": {nil, 12}, "24 notes": {quarterTones, 24}} {
		t.Run(name, func(t *testing.T) {
			p := sounding(t, score.Modulator{Shape: score.PulseShape, Moves: []score.ModulatorMove{{Control: ofTrack("lowest"), Depth: 1000}, {Control: ofTrack("highest"), Depth: -1000}}})
			p.Key.Tuning, p.Key.Scale = c.tuning, theory.Chromatic
			track := &p.Tracks[0]
			track.Register = theory.Register{Lowest: 50, Highest: 90}
			pitch := track.Parts()[0].Lanes.Pitch
			pitch.Linked, pitch.Spread, pitch.Weights = true, nil, nil
			for step := range pitch.Steps {
				pitch.Steps[step] = step%8*5 - 20
			}
			require.NoError(t, p.Validate())
			still := p.Clone()
			still.Modulators = nil
			pushed, free := play.Render(p, 0, 8*sixteenths, nil), play.Render(still, 0, 8*sixteenths, nil)
			require.Len(t, pushed, 8, "while the pulse is high")
			moved := 0
			for i := range pushed {
				require.GreaterOrEqual(t, int(pushed[i].Key), 90-c.period+1)
				require.LessOrEqual(t, int(pushed[i].Key), 90)
				require.Equal(t, int(free[i].Key)%c.period, int(pushed[i].Key)%c.period)
				moved += int(pushed[i].Key) - int(free[i].Key)
			}
			require.Positive(t, moved)
		})
	}
}
