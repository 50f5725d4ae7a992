package take_test

import (
	"flag"
	"fmt"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
)

var update = flag.Bool("update", false, "write the goldens anew; that changes what listeners hear, so tell it in the changelog")

// What a listener hears of the demo, and of a project that uses nearly everything, is frozen here.
func TestGoldens(t *testing.T) {
	for _, c := range []struct {
		name    string
		project *score.Project
		bars    int
	}{{"demo", score.Demo(), 8}, {"everything", everything(), 3}} {
		t.Run(c.name, func(t *testing.T) {
			require.NoError(t, c.project.Validate())
			var heard strings.Builder
			for _, m := range take.Render(c.project, c.bars).Messages {
				fmt.Fprintf(&heard, "%d track %d kind %d channel %d key %d velocity %d value %d\n",
					m.Tick, m.Track, m.Kind, m.Channel, m.Key, m.Velocity, m.Value)
			}
			file := "testdata/" + c.name + ".golden"
			if *update {
				require.NoError(t, os.WriteFile(file, []byte(heard.String()), 0o644))
			}
			golden, err := os.ReadFile(file)
			require.NoError(t, err)
			require.Equal(t, string(golden), heard.String())
		})
	}
}

// everything is the demo with a kit beside it, and with every kind of chance at work.
func everything() *score.Project {
	p := score.Demo()
	p.Swing = 58
	bell := &p.Tracks[0]
	bell.Realign, bell.Jitter = 4, 3
	part := &bell.Parts()[0]
	part.Voicing, part.Ratchet = score.Voicing{Inversion: 1, Strum: 20}, score.RatchetShape{Spacing: score.Gathering, Ramp: -40, Odds: 80}
	part.Mods = []score.Mod{{Target: score.ControlTarget, Number: 74, Least: 100, Most: 20, Glide: score.TicksPerQuarter}}
	part.Details = map[int]score.StepDetail{3: {Condition: "2:3"}, 8: {Stretch: 2, Strike: score.Each}, 11: {Skip: true}}
	with := func(name score.LaneName, change func(*score.Lane)) {
		lane := part.Lanes.Lane(name).Clone()
		change(lane)
		part.Lanes.Set(name, lane)
	}
	with(score.Pitch, func(l *score.Lane) { l.Order, l.Moves = score.Shuffle, score.ByHit })
	with(score.Chord, func(l *score.Lane) { l.Steps[0], l.Steps[8] = 2, 3 })
	with(score.Ratchet, func(l *score.Lane) { l.Steps[5], l.Steps[12] = 3, 4 })
	with(score.Slide, func(l *score.Lane) { l.Steps[2] = 1 })
	with(score.Nudge, func(l *score.Lane) { l.Steps[9] = -20 })
	with(score.Octave, func(l *score.Lane) {
		l.Weights = []score.Weight{{Lowest: 0, Highest: 0, Weight: 3}, {Lowest: -1, Highest: 1, Weight: 1}}
	})
	with(score.Velocity, func(l *score.Lane) {
		l.Spread = &score.Spread{Chance: 80, Depth: 100, Lowest: -30, Highest: 10, Lean: 40, Grain: 2}
	})
	with(score.Length, func(l *score.Lane) { l.Evolve = &score.Evolve{Every: 1, Percent: 30, Lowest: 20, Highest: 100} })
	with(score.Mod1, func(l *score.Lane) {
		l.Linked, l.Length, l.Rate, l.Order = false, 5, "1/8t", score.Drift
		copy(l.Steps, []int{0, 40, 127, 80, 20})
	})

	hull := p.Tracks[0].Clone()
	hull.ID, hull.Name, hull.Kind, hull.Channel, hull.Realign, hull.Hold = 2, "Hull kit", score.Kit, 10, 0, 2
	hull.Source = score.Source{Kind: score.NoteEnds, Track: 1, Odds: 70}
	hull.Patterns[0].Parts = append(hull.Patterns[0].Parts, hull.Patterns[0].Parts[0].Clone())
	hull.Patterns[0].Parts[1].ID = 1
	hull.Patterns[0].Parts[0].Note, hull.Patterns[0].Parts[1].Note = 36, 42
	hull.Patterns[0].Parts[1].Lanes.Gate.Order = score.ThereAndBack
	p.Tracks = append(p.Tracks, hull)
	return p
}
