package testkit

import (
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
)

// source draws a clock; a track only follows one of a lower id, so there is no loop.
func source(t *rapid.T, id int, ids []int) score.Source {
	drawn := score.Source{
		Kind: score.OwnClock, Odds: rapid.SampledFrom([]int{100, 50}).Draw(t, "odds"),
		Delay: score.Tick(rapid.SampledFrom([]int{0, 0, 5040, 777}).Draw(t, "source delay")),
	}
	drawn.Kind = rapid.SampledFrom([]score.SourceKind{
		score.OwnClock, score.OwnClock, score.NoteStarts, score.NoteEnds, score.FieldRules, score.InputNotes, score.InputControl, score.CurveClock,
	}).Draw(t, "source")
	if drawn.FollowsTrack() {
		drawn.Track = rapid.SampledFrom(ids).Draw(t, "source track")
		if drawn.Track >= id {
			drawn.Kind, drawn.Track = score.OwnClock, 0
		}
	}
	drawn.Channel, drawn.Level = rapid.IntRange(0, 2).Draw(t, "source channel"), rapid.IntRange(1, 127).Draw(t, "level")
	drawn.Modulator, drawn.Crossing = rapid.SampledFrom([]int{10, 20, 99}).Draw(t, "clock's modulator"), rapid.SampledFrom([]int{0, -60, 100}).Draw(t, "crossing")
	drawn.Lowest, drawn.Highest, drawn.Controller = 20, rapid.IntRange(20, 127).Draw(t, "highest"), 4
	return drawn
}
