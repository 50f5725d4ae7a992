package testkit

import (
	"fmt"
	"strings"

	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
)

// Detail draws what is special of a gate step, in a project of tracks with the given ids.
func Detail(t *rapid.T, ids []int) score.StepDetail {
	stretch := rapid.SampledFrom([]int{0, 0, 2, 8, score.MaxStretch}).Draw(t, "stretch")
	lengths := ""
	if stretch > 0 && rapid.Bool().Draw(t, "drawn lengths") {
		lengths = rapid.SampledFrom([]string{"1", "01"}).Draw(t, "first lengths")
		for len(lengths) < stretch {
			lengths += rapid.SampledFrom([]string{"0", "1", "2"}).Draw(t, "length of a step")
		}
	}
	return score.StepDetail{
		Skip:      rapid.IntRange(0, 4).Draw(t, "skip") == 0,
		Stretch:   stretch,
		Lengths:   lengths,
		Condition: Condition(t, ids),
		Ratchet:   stepRatchet(t),
	}
}

// stepRatchet draws the ratchet of a step, mostly none.
func stepRatchet(t *rapid.T) *score.StepRatchet {
	if !seldom(t, "a ratchet of its own") {
		return nil
	}
	list := func(name string, longest int, values ...int) []int {
		if rapid.Bool().Draw(t, "no "+name) {
			return nil // as a file has it
		}
		return rapid.SliceOfN(rapid.SampledFrom(values), 1, longest).Draw(t, name)
	}
	return &score.StepRatchet{
		RatchetShape: shape(t),
		Shares:       list("shares", score.MaxHits, 1, 1, 3, score.MaxHitShare), HitOdds: list("odds of hits", score.MaxHits-1, 0, 60, 100),
		Walk: rapid.SampledFrom([]int{0, 0, 1, -score.MaxHitWalk}).Draw(t, "walk"), Counts: list("counts", score.MaxHits, 0, 0, 1, 100),
	}
}

// Condition draws a sentence, in a project of tracks with the given ids.
func Condition(t *rapid.T, ids []int) score.Condition {
	about := fmt.Sprintf("track %d ", rapid.SampledFrom(ids).Draw(t, "about"))
	terms := []string{
		"pass 1 to 1", "pass from 2", "pass 2 of 3", "pass 1 to 2 of 4", "pass 2 to 5", "filling", "sounded", "section 2 on", "scene 1 on",
		about + "sounded", about + "under 4 notes", about + "over 2 notes",
	}
	var drawn []string
	for range rapid.SampledFrom([]int{0, 1, 1, 2, score.MaxTerms}).Draw(t, "terms") {
		not := rapid.SampledFrom([]string{"", "", "not "}).Draw(t, "not")
		drawn = append(drawn, not+rapid.SampledFrom(terms).Draw(t, "term"))
	}
	return score.Condition(strings.Join(drawn, rapid.SampledFrom([]string{" and ", " or "}).Draw(t, "joint")))
}
