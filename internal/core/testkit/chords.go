package testkit

import (
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// chords draws chord maps, and where melodic tracks have their pitches from; a track only has those of one of a lower id, so there is no circle.
func chords(t *rapid.T, p *score.Project) {
	if seldom(t, "chord maps") {
		strum := rapid.SampledFrom([]int{0, 0, 50, -100}).Draw(t, "strum of the map")
		p.ChordMaps = []score.ChordMap{{ID: 3, Name: "Map", Led: rapid.Bool().Draw(t, "led"), Strum: strum, Chords: []score.MapChord{
			{Keys: []int{60, 64, 67}, Beats: 1}, {Keys: []int{67, 62, 59, 53}, Inversion: 2, Beats: 3}, {Keys: []int{}}, {Keys: []int{127, 0}, Open: true},
		}}}
	}
	for i := range p.Tracks {
		track := &p.Tracks[i]
		if rapid.IntRange(0, 9).Draw(t, "only held") == 0 {
			track.Pitches = &score.PitchSource{Kind: score.KeyPitches, OnlyHeld: true, Highest: 127, Latched: rapid.Bool().Draw(t, "latched"), Restart: rapid.Bool().Draw(t, "restart")}
		}
		if track.Kind != score.Melodic || rapid.IntRange(0, 3).Draw(t, "pitches from a chord") < 3 {
			continue
		}
		track.Pitches = &score.PitchSource{
			Kind:  rapid.SampledFrom([]score.PitchKind{score.HeldPitches, score.TrackPitches, score.TrackPitches, score.MapPitches}).Draw(t, "pitches"),
			Track: max(1, track.ID-rapid.IntRange(1, 2).Draw(t, "pitches of")), Map: rapid.SampledFrom([]int{3, 9}).Draw(t, "map"),
			ByNote: rapid.Bool().Draw(t, "by note"), InTime: rapid.Bool().Draw(t, "in time"), OnlyHeld: seldom(t, "plays only while held"), Highest: 127, Channel: rapid.IntRange(0, 2).Draw(t, "keys' channel"),
			Latched: rapid.Bool().Draw(t, "latched"), Restart: rapid.Bool().Draw(t, "restart"),
			Order: rapid.SampledFrom([]score.ChordOrder{
				score.ByLane, score.Up, score.Down, score.UpDown, score.UpDownTwice, score.AsPlayed, score.Outward, score.Inward, score.RandomNote, score.AllAtOnce,
			}).Draw(t, "chord order"),
			Octaves: rapid.IntRange(0, 3).Draw(t, "octaves"),
			Rules: rapid.SampledFrom([][]score.RoleRule{
				nil, {{Role: theory.FifthRole, Semitones: 2, Odds: 50}, {Role: theory.RootRole, Semitones: -12, Odds: 30}},
			}).Draw(t, "rules"),
		}
		track.Pitches.InTime = track.Pitches.InTime && !track.Pitches.ByNote
		if p.Validate() != nil {
			track.Pitches = nil
		}
	}
}
