package play_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// Jumping to a far moment gives the notes and moves that playing all the way there gives.
func TestJumpingIsPlayingThrough(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		makePlaceable(t, p)
		from := score.Tick(rapid.IntRange(0, 200*int(score.TicksPerQuarter)).Draw(t, "from"))
		to := from + stretch/4

		through := play.NewPerformer(p)
		through.Advance(from, nil)
		through.Changes(nil)
		there := play.NewPerformerAt(p, from, play.Past{})
		require.Equal(t, through.Advance(to, nil), there.Advance(to, nil))
		require.Equal(t, through.Changes(nil), there.Changes(nil))

		var all, jumped []play.Move
		tell := func(moves *[]play.Move) play.Watch {
			return func(track, part int, lane score.LaneName, move play.Move) {
				if track == 1 && part == 0 && lane == score.Pitch && move.Tick >= from && move.Tick < to {
					*moves = append(*moves, move)
				}
			}
		}
		play.NewPerformerAt(p, 0, play.Past{Watch: tell(&all)}).Advance(to, nil)
		play.NewPerformerAt(p, from, play.Past{Watch: tell(&jumped)}).Advance(to, nil)
		require.Equal(t, all, jumped)
	})
}

// makePlaceable takes away what makes a lane's place depend on more than the time.
func makePlaceable(t *rapid.T, p *score.Project) {
	for i := range p.Tracks {
		track := &p.Tracks[i]
		track.Hold, track.Realign, track.Source.Kind = 0, 0, score.OwnClock
		for j := range track.Parts() {
			part := &track.Parts()[j]
			part.Durations = nil
			part.Details, part.Lanes.Slide = map[int]score.StepDetail{0: {Condition: "pass 2 of 3"}}, nil
			for k := range part.Mods {
				part.Mods[k].Glide = 0
			}
			for _, spec := range score.LaneSpecs() {
				if !part.Lanes.Has(spec.Name) {
					continue
				}
				lane := part.Lanes.Lane(spec.Name)
				lane.Moves = score.ByClock
				if lane.Order == score.Shuffle || lane.Order == score.Drift {
					lane.Order = rapid.SampledFrom([]score.Order{score.Random, score.Backward}).Draw(t, "placeable")
				}
			}
		}
	}
}

// BenchmarkRenderFar renders one bar after three hours of playing, which jumping makes as quick as the
// first bar.
func BenchmarkRenderFar(b *testing.B) {
	p := busyProject()
	bar := p.Meter.Bar()
	const threeHours = 4320 // bars at 96 bpm
	var notes []play.Note
	for b.Loop() {
		notes = play.Render(p, threeHours*bar, (threeHours+1)*bar, notes[:0])
	}
}

// Every lane with a clock of its own tells where it begins.
func TestLanesTellWhereTheyBegin(t *testing.T) {
	p := testkit.Buoy()
	p.Tracks[0].Parts()[0].Lanes.Pitch.First = 2
	began := map[score.LaneName]play.Move{}
	watch := func(_, _ int, lane score.LaneName, move play.Move) {
		if _, told := began[lane]; !told {
			began[lane] = move
		}
	}
	play.NewPerformerAt(p, 0, play.Past{Watch: watch}).Advance(score.TicksPerQuarter, nil)
	for _, name := range []score.LaneName{score.Gate, score.Pitch, score.Velocity, score.Length, score.Probability} {
		require.Contains(t, began, name)
		require.Zero(t, began[name].Tick, name)
		if lane := p.Tracks[0].Parts()[0].Lanes.Lane(name); lane.Order == score.Forward {
			require.Equal(t, lane.First, began[name].Step, name)
		}
	}
}

// What a mod that evolves has sent last is known far into a project too, though it may have been read before the lane
// evolved.
func TestAnEvolvingModIsKnownAnywhere(t *testing.T) {
	p := testkit.Buoy()
	part := &p.Tracks[0].Parts()[0]
	spec := score.LaneSpecs()[slices.IndexFunc(score.LaneSpecs(), func(s score.LaneSpec) bool { return s.Name == "mod1" })]
	lane := part.Lanes.Gate.Clone()
	lane.Linked, lane.First, lane.Length, lane.Rate = false, 0, 1, "1/1."
	lane.Steps = slices.Repeat([]int{spec.Default}, score.MaxSteps)
	lane.Evolve = &score.Evolve{Every: 1, Percent: 100, Lowest: spec.Least, Highest: spec.Most}
	part.Lanes.Set("mod1", lane)
	part.Mods = []score.Mod{{Target: "control", Number: 20, Most: 127}}
	part.Details = nil
	require.NoError(t, p.Validate())
	bar := p.Meter.Bar()
	for at := 3 * bar; at < 40*bar; at += 3 * bar / 2 {
		through := play.NewPerformer(p)
		through.Advance(at, nil)
		there := play.NewPerformerAt(p, at, play.Past{})
		require.Equal(t, through.Standing(nil), there.Standing(nil), "bar %v", float64(at)/float64(bar))
	}
}
