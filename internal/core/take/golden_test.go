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
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

var update = flag.Bool("update", false, "write the goldens anew; that changes what listeners hear, so tell it in the changelog")

// What a listener hears of the demo, and of a project that uses nearly everything, is frozen here.
func TestGoldens(t *testing.T) {
	for _, c := range []struct {
		name    string
		project *score.Project
		bars    int
	}{{"demo", testkit.Demo(), 8}, {"everything", everything(), 3}, {"tuned", tuned(), 2}} {
		t.Run(c.name, func(t *testing.T) {
			require.NoError(t, c.project.Validate())
			var heard strings.Builder
			for _, m := range take.Render(c.project, c.bars).Messages {
				fmt.Fprintf(&heard, "%d track %d kind %d channel %d key %d velocity %d value %d detune %d\n",
					m.Tick, m.Track, m.Kind, m.Channel, m.Key, m.Velocity, m.Value, m.Detune)
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
	p := testkit.Buoy()
	p.Swing, p.SwingGrid = 583, "1/8"
	p.TempoChanges = []score.TempoChange{{Tick: 2 * score.TicksPerQuarter, Tempo: 80_000}}
	bell := &p.Tracks[0]
	bell.Realign, bell.Jitter, bell.Shifts, bell.Voices, bell.Overlap = 4, 3, []score.NoteValue{"1/64"}, 2, 700
	part := &bell.Parts()[0]
	part.Voicing, part.Ratchet = score.Voicing{Inversion: 1, Strum: 20}, score.RatchetShape{Spacing: score.Gathering, Ramp: -40, Odds: 80}
	part.Mods = []score.Mod{{Target: score.ControlTarget, Number: 74, Least: 100, Most: 20, Glide: score.TicksPerQuarter}}
	part.Details = map[int]score.StepDetail{3: {Condition: "pass 2 of 3"}, 8: {Stretch: 2, Lengths: "11"}, 11: {Skip: true}}
	with := func(name score.LaneName, change func(*score.Lane)) {
		lane := part.Lanes.Lane(name).Clone()
		change(lane)
		part.Lanes.Set(name, lane)
	}
	with(score.Pitch, func(l *score.Lane) { l.Order, l.Moves = score.Shuffle, score.ByHit })
	with(score.Chord, func(l *score.Lane) { l.Steps[0], l.Steps[8], l.Steps[5] = 2, 3, 14 })
	with(score.Alteration, func(l *score.Lane) { l.Steps[4] = -1 })
	with(score.Swing, func(l *score.Lane) { l.Steps[3], l.Steps[7] = 0, 200 })
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
	hull.Patterns[0].Parts[1].LengthUnit = "1/32"
	hull.Patterns[0].Parts[0].Durations = []score.Duration{{Value: "1/16", Weight: 3}, {Value: "1/8t", Weight: 1}, {Value: "1/16.", Rest: true, Weight: 1}}
	p.Tracks = append(p.Tracks, hull)
	return p
}

// tuned is the demo in seven equal notes an octave, which it plays by bends on three channels, and a copy
// of it that plays them by tuning messages.
func tuned() *score.Project {
	p := testkit.Buoy()
	tuning := &theory.Tuning{
		Name:    "seven equal notes",
		Pitches: []string{"171.428571", "342.857143", "514.285714", "685.714286", "857.142857", "1028.571429", "2/1"},
	}
	p.Key = theory.Key{Scale: theory.Chromatic, Tuning: tuning}
	told := p.Tracks[0].Clone()
	told.ID, told.Name, told.Channel, told.Tuned = 2, "Buoy, told", 5, &score.Tuned{By: score.MessageTuned}
	p.Tracks[0].Tuned = &score.Tuned{By: score.BendTuned, Channels: 3, Range: 2}
	p.Tracks = append(p.Tracks, told)
	return p
}
