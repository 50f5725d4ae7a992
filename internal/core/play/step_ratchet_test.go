package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// ratcheted returns a plain project whose first step, of four 16ths, has three hits by the lane and a ratchet of its own.
func ratcheted(own score.StepRatchet) *score.Project {
	return testkit.Plain(func(_ *score.Project, _ *score.Track, part *score.Part) {
		testkit.SetLane(&part.Lanes.Ratchet, score.Ratchet, func(l *score.Lane) { l.Steps[0] = 3 })
		part.Details = map[int]score.StepDetail{0: {Ratchet: &own}}
	})
}

// The closed forms of a step's own ratchet, by hand: where hits start in percent of a 16th, and on which keys.
func TestTheRatchetOfAStep(t *testing.T) {
	plain := score.RatchetShape{Spacing: score.Even, Odds: 100}
	c3, d3, e3, g3, b2 := uint8(60), uint8(62), uint8(64), uint8(67), uint8(59)
	for name, c := range map[string]struct {
		own    score.StepRatchet
		starts []score.Tick
		keys   []uint8
	}{
		"as the part":             {score.StepRatchet{RatchetShape: plain}, []score.Tick{0, 33, 66}, []uint8{c3, c3, c3}},
		"speeding up":             {score.StepRatchet{RatchetShape: score.RatchetShape{Spacing: score.Gathering, Odds: 100}}, []score.Tick{0, 55, 88}, []uint8{c3, c3, c3}},
		"drawn, 3 2 1":            {score.StepRatchet{RatchetShape: plain, Shares: []int{3, 2, 1}}, []score.Tick{0, 50, 83}, []uint8{c3, c3, c3}},
		"drawn, beginning anew":   {score.StepRatchet{RatchetShape: plain, Shares: []int{1, 3}}, []score.Tick{0, 20, 80}, []uint8{c3, c3, c3}},
		"two degrees up a hit":    {score.StepRatchet{RatchetShape: plain, Walk: 2}, []score.Tick{0, 33, 66}, []uint8{c3, e3, g3}},
		"a degree down a hit":     {score.StepRatchet{RatchetShape: plain, Walk: -1}, []score.Tick{0, 33, 66}, []uint8{c3, b2, b2 - 2}},
		"the second never":        {score.StepRatchet{RatchetShape: plain, HitOdds: []int{0, 100}, Walk: 1}, []score.Tick{0, 66}, []uint8{c3, e3}},
		"odds beginning anew":     {score.StepRatchet{RatchetShape: plain, HitOdds: []int{0}}, []score.Tick{0}, []uint8{c3}},
		"always two":              {score.StepRatchet{RatchetShape: plain, Counts: []int{0, 5}, Walk: 1}, []score.Tick{0, 50}, []uint8{c3, d3}},
		"weights of nothing":      {score.StepRatchet{RatchetShape: plain, Counts: []int{0, 0}}, []score.Tick{0, 33, 66}, []uint8{c3, c3, c3}},
		"odds of the whole shape": {score.StepRatchet{RatchetShape: score.RatchetShape{Spacing: score.Even}}, []score.Tick{0}, []uint8{c3}},
	} {
		var starts []score.Tick
		var keys []uint8
		for _, n := range play.Render(ratcheted(c.own), 0, 4*sixteenth, nil) {
			starts, keys = append(starts, n.Start*100/sixteenth), append(keys, n.Key)
		}
		require.Equal(t, c.starts, starts, name)
		require.Equal(t, c.keys, keys, name)
	}
	soft := ratcheted(score.StepRatchet{RatchetShape: score.RatchetShape{Spacing: score.Even, Odds: 100, Ramp: -50}})
	notes := play.Render(soft, 0, sixteenth, nil)
	require.Equal(t, notes[0].Velocity/2, notes[2].Velocity)
}

// Over 4,000 loops a step's own weights draw one, three and four hits as often as they say, and two never: chi-square, alpha 0.001; the
// forecast has as many hits as sound.
func TestTheNumberOfHitsIsDrawn(t *testing.T) {
	const loops = 4000
	p := ratcheted(score.StepRatchet{RatchetShape: score.RatchetShape{Spacing: score.Even, Odds: 100}, Counts: []int{50, 0, 30, 20}})
	var counts [128]float64
	perLoop := make([]int, loops)
	for _, n := range play.Render(p, 0, loops*4*sixteenth, nil) {
		perLoop[n.Start/(4*sixteenth)]++
	}
	for _, hits := range perLoop {
		counts[hits]++
	}
	require.Zero(t, counts[2])
	requireShares(t, counts, loops, map[int]float64{1: 0.5, 3: 0.3, 4: 0.2})
	for _, f := range play.Look(p, p.Tracks[0].ID, 0, 400*sixteenth)[0].Forecasts {
		require.Len(t, f.Heard(), perLoop[f.Tick/(4*sixteenth)])
	}
}

// A step whose own ratchet is the part's plays as if it had none, whatever else the project has.
func TestAnOwnRatchetLikeThePartsChangesNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		own := p.Clone()
		for i := range own.Tracks {
			for j := range own.Tracks[i].Patterns {
				for k := range own.Tracks[i].Patterns[j].Parts {
					part, before := &own.Tracks[i].Patterns[j].Parts[k], &p.Tracks[i].Patterns[j].Parts[k]
					if part.Details == nil {
						part.Details = map[int]score.StepDetail{}
					}
					for step := range score.MaxSteps {
						detail := part.Details[step]
						if detail.Ratchet == nil {
							detail.Ratchet = &score.StepRatchet{RatchetShape: before.Ratchet}
							part.Details[step] = detail
						}
					}
				}
			}
		}
		require.Equal(t, play.Render(p, 0, 8*score.TicksPerQuarter, nil), play.Render(own, 0, 8*score.TicksPerQuarter, nil))
	})
}
