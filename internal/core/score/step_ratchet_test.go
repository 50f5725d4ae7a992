package score_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// What a step's own ratchet must not be, and what is said; one that was refused leaves the step as it was, and undo takes one away.
func TestWhichRatchetsOfAStepAreRefused(t *testing.T) {
	p := testkit.Buoy()
	address := score.PartAddress{Track: p.Tracks[0].ID, Pattern: p.Tracks[0].Patterns[0].ID, Part: p.Tracks[0].Patterns[0].Parts[0].ID}
	edit := func(change func(*score.StepRatchet)) score.Edit {
		own := &score.StepRatchet{RatchetShape: score.RatchetShape{Spacing: score.Even, Odds: 100}}
		change(own)
		return score.SetDetail{PartAddress: address, Step: 3, Detail: score.StepDetail{Ratchet: own}}
	}
	many := make([]int, 17)
	for want, change := range map[string]func(*score.StepRatchet){
		"shares[1] is 0; it must be 1 to 100":    func(r *score.StepRatchet) { r.Shares = []int{1, 0} },
		"shares[0] is 101; it must be 1 to 100":  func(r *score.StepRatchet) { r.Shares = []int{101} },
		"shares is 17; it must be at most 16":    func(r *score.StepRatchet) { r.Shares = many },
		"hitOdds[0] is 101; it must be 0 to 100": func(r *score.StepRatchet) { r.HitOdds = []int{101} },
		"hitOdds is 16; it must be at most 15":   func(r *score.StepRatchet) { r.HitOdds = many[:16] },
		"counts[2] is -1; it must be 0 to 100":   func(r *score.StepRatchet) { r.Counts = []int{0, 1, -1} },
		"walk is 15; it must be -14 to 14":       func(r *score.StepRatchet) { r.Walk = 15 },
		"odds is -1; it must be 0 to 100":        func(r *score.StepRatchet) { r.Odds = -1 },
		"ramp is 101; it must be -100 to 100":    func(r *score.StepRatchet) { r.Ramp = 101 },
		`spacing is "wide"; it must be`:          func(r *score.StepRatchet) { r.Spacing = "wide" },
	} {
		_, _, err := score.Apply(p, edit(change))
		require.ErrorContains(t, err, "details.3.ratchet."+want)
	}
	set := edit(func(r *score.StepRatchet) { r.Counts, r.Shares = []int{0, 0, 9}, []int{3, 2, 1} })
	next, inverse, err := score.Apply(p, set)
	require.NoError(t, err)
	require.Equal(t, 3, next.Tracks[0].Patterns[0].Parts[0].Details[3].Ratchet.ShareOf(3))
	back, _, err := score.Apply(next, inverse)
	require.NoError(t, err)
	require.Equal(t, p, back)
}

// A project that would be too dense by a step's own weights is refused as by its lane.
func TestARatchetOfAStepCountsAsDense(t *testing.T) {
	p := testkit.Buoy()
	part := &p.Tracks[0].Patterns[0].Parts[0]
	part.Lanes.Gate.Rate, part.Lanes.Gate.Length, part.Lanes.Gate.First = "1/64", 1, 0
	part.Lanes.Gate.Steps[0] = score.On
	p.Tempo = 300_000
	p.Tracks[0].Speed = score.Ratio{N: 16, M: 1}
	few := p.Clone()
	few.Tracks[0].Patterns[0].Parts[0].Details = map[int]score.StepDetail{0: {Ratchet: &score.StepRatchet{RatchetShape: part.Ratchet, Counts: []int{1}}}}
	many := p.Clone()
	many.Tracks[0].Patterns[0].Parts[0].Details = map[int]score.StepDetail{0: {Ratchet: &score.StepRatchet{RatchetShape: part.Ratchet, Counts: []int{0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 1}}}}
	require.NoError(t, score.CheckDensity(p, few))
	require.Error(t, score.CheckDensity(p, many))
}
