package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

// Invariant 5: with probability 100 everywhere and no spread the notes follow from arithmetic alone.
// The arithmetic is written out here once more, in another way than the walker does it: each lane's
// values are listed over time by counters, and then the notes are read off.
func TestClosedForm(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		makePlain(t, p)
		require.Equal(t, readOff(p, stretch), play.Render(p, 0, stretch, nil))
	})
}

// makePlain leaves one melodic track whose lanes walk forward or backward by the clock.
func makePlain(t *rapid.T, p *score.Project) {
	p.Tracks, p.Swing, p.Filling = p.Tracks[:1], score.Straight, false
	makeEqual(p)
	track := &p.Tracks[0]
	track.Kind, track.Voices, track.Overlap, track.Playing = score.Melodic, 0, 0, 0
	makeAudible(p)
	track.Patterns[0].Parts = track.Patterns[0].Parts[:1]
	track.Transpose, track.Speed, track.Swing = score.Transpose{}, score.Ratio{N: 1, M: 1}, 0
	track.Delay, track.Jitter, track.Shifts, track.Hold, track.Realign = 0, 0, nil, 0, 0
	part := &track.Patterns[0].Parts[0]
	part.Details, part.Held, part.LengthUnit, part.Durations = nil, score.Window{}, "", nil
	track.Source = score.Source{Kind: score.OwnClock}
	part.Lanes.Ratchet, part.Lanes.Nudge, part.Lanes.Chord, part.Lanes.Slide, part.Mods = nil, nil, nil, nil, nil
	part.Lanes.Swing = nil
	for _, spec := range score.LaneSpecs() {
		if !part.Lanes.Has(spec.Name) {
			continue
		}
		lane := part.Lanes.Lane(spec.Name)
		lane.Weights, lane.Evolve = nil, nil
		lane.Spread, lane.Amount, lane.Moves = nil, 100, score.ByClock
		lane.Order = rapid.SampledFrom([]score.Order{score.Forward, score.Backward}).Draw(t, "plain order")
		for i := range lane.Steps {
			if spec.Name == score.Probability {
				lane.Steps[i] = 100
			}
		}
	}
}

// makeAudible takes away all that silences tracks and parts.
func makeAudible(p *score.Project) {
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

// makeEqual takes away tunings, which tests of their own look at.
func makeEqual(p *score.Project) {
	if p.Key.Tuning != nil {
		p.Key = theory.Key{Root: p.Key.Root % theory.Octave, Scale: "dorian", Allowed: []int{0, 2, 5}}
	}
	for i := range p.Tracks {
		p.Tracks[i].Tuned = nil
	}
}

func readOff(p *score.Project, to score.Tick) []play.Note {
	track := &p.Tracks[0]
	lanes := &track.Parts()[0].Lanes
	const beyond = score.MaxSteps * 2 * 4 * score.TicksPerQuarter // room for the longest chain of ties
	value := map[score.LaneName]map[score.Tick]int{}
	for _, spec := range score.LaneSpecs() {
		value[spec.Name] = valuesAt(lanes, spec.Name, to+beyond)
	}
	spelling := p.Key.Spelling()
	rate := lanes.Gate.Rate.Ticks()
	var notes []play.Note
	for at, n := score.Tick(0), 0; at < to; at, n = at+rate, n+1 {
		if value[score.Gate][at] != score.On {
			continue
		}
		last := at
		for value[score.Gate][last+rate] == score.Tie && last-at < score.MaxSteps*rate {
			last += rate
		}
		length := score.Tick(value[score.Length][at])
		sounding := max(1, rate*length/100)
		if length > 100 {
			sounding = rate * (length - 99)
		}
		step := n % lanes.Gate.Length
		if lanes.Gate.Order == score.Backward {
			step = lanes.Gate.Length - 1 - step
		}
		note := spelling.Note(spelling.Allow(value[score.Pitch][at])) + theory.Octave*value[score.Octave][at] +
			value[score.Alteration][at]
		notes = append(notes, play.Note{
			Start: at, End: last + sounding, Track: uint32(track.ID), Step: uint8(lanes.Gate.First + step),
			Key:      uint8(track.Register.Fold(note)),
			Velocity: uint8(value[score.Velocity][at]),
		})
	}
	return notes
}

// valuesAt returns a lane's value at every moment at which the gate lane goes on.
func valuesAt(lanes *score.Lanes, name score.LaneName, to score.Tick) map[score.Tick]int {
	loop, steps := lanes.Loop(name), lanes.Lane(name).Steps
	values := map[score.Tick]int{}
	step, ends := 0, loop.Rate.Ticks()
	for at := score.Tick(0); at < to; at += lanes.Gate.Rate.Ticks() {
		for at >= ends {
			step = (step + 1) % loop.Length
			ends += loop.Rate.Ticks()
		}
		if loop.Order == score.Backward {
			values[at] = steps[loop.First+loop.Length-1-step]
		} else {
			values[at] = steps[loop.First+step]
		}
	}
	return values
}
