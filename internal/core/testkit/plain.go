package testkit

import (
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// MakePlain leaves one melodic track whose lanes walk forward or backward by the clock.
func MakePlain(t *rapid.T, p *score.Project) {
	p.Tracks, p.Swing, p.Filling, p.Modulators = p.Tracks[:1], score.Straight, false, nil
	MakeEqual(p)
	track := &p.Tracks[0]
	track.Kind, track.Voices, track.Overlap, track.Playing = score.Melodic, 0, 0, 0
	track.Routes, track.Pitches = nil, nil
	MakeAudible(p)
	track.Patterns[0].Parts = track.Patterns[0].Parts[:1]
	track.Transpose, track.Speed, track.Swing = score.Transpose{}, score.Ratio{N: 1, M: 1}, 0
	track.Delay, track.Jitter, track.Shifts, track.Hold, track.Realign = 0, 0, nil, 0, 0
	track.Probability = 0
	part := &track.Patterns[0].Parts[0]
	part.Field, part.Details, part.Held, part.LengthUnit, part.Durations = nil, nil, nil, "", nil
	track.Source = score.Source{Kind: score.OwnClock}
	part.Lanes.Ratchet, part.Lanes.Nudge, part.Lanes.Chord, part.Lanes.Slide, part.Mods = nil, nil, nil, nil, nil
	part.Lanes.Swing = nil
	for _, spec := range score.LaneSpecs() {
		if !part.Lanes.Has(spec.Name) {
			continue
		}
		lane := part.Lanes.Lane(spec.Name)
		lane.Weights, lane.Evolve, lane.Own = nil, nil, nil
		lane.Spread, lane.Amount, lane.Moves = nil, 100, score.ByClock
		lane.Order = rapid.SampledFrom([]score.Order{score.Forward, score.Backward}).Draw(t, "plain order")
		for i := range lane.Steps {
			if spec.Name == score.Probability {
				lane.Steps[i] = 100
			}
		}
	}
}

// MakeAudible takes away all that silences tracks and parts.
func MakeAudible(p *score.Project) {
	for i := range p.Tracks {
		track := &p.Tracks[i]
		track.Mute, track.Solo, track.OffAir = false, false, false
		for _, pattern := range track.Patterns {
			for j := range pattern.Parts {
				pattern.Parts[j].Mute = false
			}
		}
	}
}

// MakeEqual takes away tunings, which tests of their own look at.
func MakeEqual(p *score.Project) {
	if p.Key.Tuning != nil {
		p.Key = theory.Key{Root: p.Key.Root % theory.Octave, Scale: "dorian", Allowed: []int{0, 2, 5}}
	}
	for i := range p.Tracks {
		p.Tracks[i].Tuned = nil
	}
}

// Plain returns a project whose gate lane has four steps of a 16th, the first of them on.
func Plain(change func(*score.Project, *score.Track, *score.Part)) *score.Project {
	p := score.Blank()
	p.Key = theory.Key{Scale: "major"}
	part := &p.Tracks[0].Parts()[0]
	part.Lanes.Gate.Length = 4
	part.Lanes.Pitch.Length = 4
	change(p, &p.Tracks[0], part)
	return p
}

// SetLane changes a lane, which is made from the usual one if the part has none.
func SetLane(lane **score.Lane, name score.LaneName, change func(*score.Lane)) {
	if *lane == nil {
		fresh := Buoy().Tracks[0].Parts()[0].Lanes.Lane(name).Clone()
		*lane = fresh
	}
	change(*lane)
}

var recipes = []score.Recipe{{Name: "Gusts", Lane: score.Velocity, Lowest: 40, Highest: 110, Density: 70, Lean: -20}}
