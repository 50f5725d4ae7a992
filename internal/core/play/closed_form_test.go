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
		testkit.MakePlain(t, p)
		require.Equal(t, readOff(p, stretch), play.Render(p, 0, stretch, nil))
	})
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
