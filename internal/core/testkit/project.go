package testkit

import (
	"fmt"

	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// Project draws a valid project with up to four tracks, which often share a channel.
func Project(t *rapid.T) *score.Project {
	p := &score.Project{
		Name:  "Drawn",
		Tempo: score.Tempo(rapid.IntRange(int(score.MinTempo), int(score.MaxTempo)).Draw(t, "tempo")),
		Meter: score.Meter{
			Beats: rapid.IntRange(1, 16).Draw(t, "beats"),
			Unit:  rapid.SampledFrom([]int{2, 4, 8, 16}).Draw(t, "unit"),
		},
		Key: Key(t),
		Luck: score.Luck{
			Number: luck(t),
			Former: rapid.SliceOfN(rapid.IntRange(0, score.MaxLuck), 0, 3).Draw(t, "former"),
		},
	}
	if p.Luck.Former == nil {
		p.Luck.Former = []int{}
	}
	for i := range rapid.IntRange(1, 4).Draw(t, "tracks") {
		p.Tracks = append(p.Tracks, track(t, i+1))
	}
	return p
}

// Key draws a key.
func Key(t *rapid.T) theory.Key {
	return theory.Key{
		Root:  rapid.IntRange(0, theory.Octave-1).Draw(t, "root"),
		Scale: rapid.SampledFrom(theory.ScaleNames()).Draw(t, "scale"),
	}
}

func luck(t *rapid.T) int { return rapid.IntRange(0, score.MaxLuck).Draw(t, "luck") }

func track(t *rapid.T, id int) score.Track {
	drawn := score.Track{
		ID:       id,
		Name:     fmt.Sprintf("Track %d", id),
		Channel:  rapid.IntRange(1, 2).Draw(t, "channel"),
		Mute:     rapid.IntRange(0, 5).Draw(t, "mute") == 0,
		Register: register(t),
	}
	for _, spec := range score.LaneSpecs() {
		*drawn.Lanes.Lane(spec.Name) = score.Lane{
			Linked: spec.Name != score.Gate && rapid.Bool().Draw(t, "linked"),
			Length: laneLength(t),
			Rate:   rapid.SampledFrom(score.NoteValues()).Draw(t, "rate"),
			Order:  rapid.SampledFrom(score.Orders()).Draw(t, "order"),
			Steps:  rapid.SliceOfN(rapid.IntRange(spec.Least, spec.Most), score.MaxSteps, score.MaxSteps).Draw(t, "steps"),
		}
	}
	return drawn
}

func register(t *rapid.T) theory.Register {
	lowest := rapid.IntRange(0, 116).Draw(t, "lowest")
	return theory.Register{Lowest: lowest, Highest: rapid.IntRange(lowest+11, 127).Draw(t, "highest")}
}

func laneLength(t *rapid.T) int { return rapid.IntRange(1, score.MaxSteps).Draw(t, "length") }
