package play_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/testkit"
)

const sixteenths = score.TicksPerQuarter / 4

// sounding returns a project whose 16ths all sound, with modulators.
func sounding(t require.TestingT, modulators ...score.Modulator) *score.Project {
	p := always(score.Velocity, 64, 100)
	for i := range modulators {
		m := &modulators[i]
		m.ID, m.Amount = i+1, 100
		if m.Name == "" {
			m.Name = fmt.Sprint("Modulator ", i+1)
		}
		if m.Times == 0 && m.Hertz == 0 {
			m.Times, m.Value = 1, "1/1"
		}
	}
	p.Modulators = modulators
	require.NoError(t, p.Validate())
	return p
}

func ofTrack(name string) score.ControlAddress { return score.ControlAddress{Name: name, Track: 1} }

func ofLane(name string, lane score.LaneName) score.ControlAddress {
	return score.ControlAddress{Name: name, Track: 1, Pattern: testkit.Buoy().Tracks[0].Playing, Part: testkit.Buoy().Tracks[0].Parts()[0].ID, Lane: lane}
}

func moves(c score.ControlAddress, depth int) []score.ModulatorMove {
	return []score.ModulatorMove{{Control: c, Depth: depth}}
}

// A modulator with no depth, or no amount, or that moves what is not there, changes no byte. So does one of other tracks.
func TestNoDepthChangesNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		for i := range p.Tracks {
			if p.Tracks[i].Source.Kind == score.CurveClock {
				p.Tracks[i].Source.Kind = score.OwnClock
			}
		}
		for i := range p.Modulators {
			p.Modulators[i].Sends = nil
			for k := range p.Modulators[i].Moves {
				if rapid.Bool().Draw(t, "no depth") {
					p.Modulators[i].Moves[k].Depth = 0
				} else {
					p.Modulators[i].Amount = 0
				}
			}
			if p.Modulators[i].Amount > 0 {
				for k := range p.Modulators[i].Moves {
					p.Modulators[i].Moves[k].Depth = 0
				}
			}
		}
		bare := p.Clone()
		bare.Modulators = nil
		with, without := play.NewPerformer(p), play.NewPerformer(bare)
		require.Equal(t, without.Advance(400_000, nil), with.Advance(400_000, nil))
		require.Equal(t, without.Changes(nil), with.Changes(nil))
	})
}

// The value of a control is that of the formula in perform.md 4, at each step, worked out in floating point from the curve of a ramp: what stands, what macros
// add, and depth times wave times half the range, of all modulators together, rounded and bounded once.
func TestModulatedValuesFollowTheFormula(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		depths := [2]int{rapid.IntRange(-1000, 1000).Draw(t, "depth"), rapid.IntRange(-1000, 1000).Draw(t, "second depth")}
		written := rapid.IntRange(0, 200).Draw(t, "written")
		p := sounding(t,
			score.Modulator{Shape: score.RampShape, Moves: moves(ofLane("amount", score.Velocity), depths[0])},
			score.Modulator{Shape: score.TriangleShape, Times: 3, Value: "1/8", Moves: moves(ofLane("amount", score.Velocity), depths[1])})
		p.Tracks[0].Parts()[0].Lanes.Velocity.Amount = written
		by, position := rapid.IntRange(-300, 300).Draw(t, "by"), rapid.IntRange(0, 1000).Draw(t, "position")
		p.Macros = []score.Macro{{ID: 1, Name: "Swell", Position: position, Moves: []score.MacroMove{{Control: ofLane("amount", score.Velocity), By: by}}}}
		notes := play.Render(stage.Stage{}.On(p), 0, 32*sixteenths, nil)
		require.Len(t, notes, 32)
		for i, n := range notes {
			ramp := 2*math.Mod(float64(i)/16, 1) - 1
			x := math.Mod(float64(i)/6, 1)
			triangle := 4 * x
			if x >= 0.25 {
				triangle = 2 - 4*x
			}
			if x >= 0.75 {
				triangle = 4*x - 4
			}
			exact := float64(written) + float64(by*position)/1000 + (float64(depths[0])*ramp+float64(depths[1])*triangle)/1000*100
			amount := math.Max(0, math.Min(200, math.Round(exact)))
			if rest := math.Abs(exact - math.Floor(exact) - 0.5); rest < 1.2e-2 {
				continue // which way a half goes is decided in sixteen bits
			}
			require.Equal(t, max(1, min(127, score.Rounded(64*int(amount), 100))), int(n.Velocity), "step %d: %g", i, exact)
		}
	})
}

// Each control that says so is moved, and heard to be.
func TestEachControlThatCanBeIsModulated(t *testing.T) {
	for _, spec := range stage.Specs() {
		if !spec.Modulated {
			continue
		}
		t.Run(string(spec.Of)+" "+spec.Name, func(t *testing.T) {
			c := map[stage.Scope]score.ControlAddress{
				stage.OfProject: {Name: spec.Name}, stage.OfTrack: ofTrack(spec.Name), stage.OfPart: ofLane(spec.Name, ""), stage.OfLane: ofLane(spec.Name, score.Pitch),
			}[spec.Of]
			if spec.Name == "amount" {
				c.Lane = score.Velocity
			}
			p := sounding(t, score.Modulator{Shape: score.PulseShape, Times: 1, Value: "1/2", Moves: moves(c, 600)})
			track := &p.Tracks[0]
			part := &track.Parts()[0]
			p.Filling, p.Swing = true, 600
			track.Swing = 600
			if spec.Of == stage.OfProject {
				track.Swing = 0
			}
			if spec.Name == "part fill" || spec.Name == "fill level" {
				part.Fill = 50
				for step := range part.Lanes.Gate.Steps {
					part.Lanes.Gate.Steps[step] = score.Off
				}
			}
			pitch := part.Lanes.Pitch.Clone()
			for step := range pitch.Steps {
				pitch.Steps[step] = step % 7
			}
			pitch.Spread = &score.Spread{Chance: 100, Depth: 50, Lowest: -14, Highest: 14, Grain: 1}
			part.Lanes.Pitch = pitch
			track.Register.Lowest, track.Register.Highest = 40, 90
			still := p.Clone()
			still.Modulators = nil
			require.NoError(t, p.Validate())
			require.NotEqual(t, play.Render(still, 0, 128*sixteenths, nil), play.Render(p, 0, 128*sixteenths, nil))
		})
	}
}

// drivenBy returns a project whose second track drives a modulator that moves the amount of the velocity of the first, from 100 up to 200 %. The second sounds
// once a bar, for two quarters, at velocity 127 and on key 60.
func drivenBy(t *testing.T, m score.Modulator) *score.Project {
	p := always(score.Velocity, 50, 100)
	driver := p.Tracks[0].Clone()
	driver.ID, driver.Name, driver.Channel = 2, "Driver", 2
	part := &driver.Parts()[0]
	gate := *part.Lanes.Gate
	gate.Steps, gate.Length, gate.First = append([]int{}, gate.Steps...), 16, 0
	for step := range gate.Steps {
		gate.Steps[step] = score.Off
	}
	gate.Steps[4] = score.On
	part.Lanes.Gate = &gate
	length, velocity := *part.Lanes.Lane(score.Length), *part.Lanes.Lane(score.Velocity)
	length.Steps, velocity.Steps = append([]int{}, length.Steps...), append([]int{}, velocity.Steps...)
	for step := range length.Steps {
		length.Steps[step], velocity.Steps[step] = score.WholeStep+7, 127
	}
	part.Lanes.Length, part.Lanes.Velocity = &length, &velocity
	driver.Register.Lowest, driver.Register.Highest = 40, 80
	p.Tracks = append(p.Tracks, driver)
	m.ID, m.Name, m.Amount, m.Track = 1, "Driven", 100, 2
	m.Moves = moves(ofLane("amount", score.Velocity), 1000)
	p.Modulators = []score.Modulator{m}
	require.NoError(t, p.Validate())
	return p
}

// What drives a modulator is read at each step: how long a note rises and falls, how loud and how high it is, where a mod lane stands. Nothing moves before
// the first note.
func TestDrivenModulators(t *testing.T) {
	quarter := 60_000_000 / int(testkit.Buoy().Tempo) // in milliseconds
	for name, c := range map[string]struct {
		m    score.Modulator
		want map[int]int // the amounts, in percent, at 16ths
	}{
		"while a note sounds":     {score.Modulator{Shape: score.NotesShape}, map[int]int{0: 100, 3: 100, 4: 200, 11: 200, 12: 100, 19: 100, 20: 200}},
		"rising over a quarter":   {score.Modulator{Shape: score.NotesShape, Attack: quarter}, map[int]int{4: 100, 5: 125, 6: 150, 8: 200, 12: 100}},
		"falling over a quarter":  {score.Modulator{Shape: score.NotesShape, Release: quarter}, map[int]int{11: 200, 12: 200, 13: 175, 15: 125, 16: 100}},
		"the velocity stays":      {score.Modulator{Shape: score.VelocityShape}, map[int]int{3: 100, 4: 200, 15: 200}},
		"the key in its register": {score.Modulator{Shape: score.PitchShape}, map[int]int{3: 100, 4: -1}},
	} {
		t.Run(name, func(t *testing.T) {
			p := drivenBy(t, c.m)
			notes := map[score.Tick]int{}
			key := 0
			for _, n := range play.Render(p, 0, 32*sixteenths, nil) {
				if n.Track == 1 {
					notes[n.Start] = int(n.Velocity)
				} else if key == 0 {
					key = int(n.Key)
				}
			}
			for at, want := range c.want {
				if want < 0 {
					want = 100 + score.Rounded(100*(key-40), 40)
				}
				require.InDelta(t, min(127, score.Rounded(50*want, 100)), notes[score.Tick(at)*sixteenths], 1, "at %d", at)
			}
		})
	}
	p := drivenBy(t, score.Modulator{Shape: score.ModShape, Mod: 1})
	part := &p.Tracks[1].Parts()[0]
	mod := *part.Lanes.Lane(score.Pitch)
	mod.Linked, mod.Moves, mod.Rate, mod.Length, mod.First, mod.Spread = false, score.ByClock, "1/16", 2, 0, nil
	mod.Steps = make([]int, score.MaxSteps)
	mod.Steps[1] = 127
	part.Lanes.Mod1, part.Mods = &mod, []score.Mod{{Target: score.ControlTarget, Number: 74, Most: 127}}
	require.NoError(t, p.Validate())
	for _, n := range play.Render(p, 0, 32*sixteenths, nil) {
		if n.Track == 1 {
			require.Equal(t, map[bool]int{false: 50, true: 100}[n.Start/sixteenths%2 == 1], int(n.Velocity), n.Start)
		}
	}
}

// A controller that comes in drives a modulator from the first step on that was not decided yet, on its channel only.
func TestAControllerDrivesAModulator(t *testing.T) {
	p := sounding(t, score.Modulator{Shape: score.ControlShape, Controller: 20, Channel: 3, Moves: moves(ofLane("amount", score.Velocity), -500)})
	f := play.NewPerformer(p)
	hear := func(tick score.Tick, channel, number uint8, value uint16) bool {
		_, counts := f.Hear(midi.Message{Tick: tick, Kind: midi.ControlChange, Channel: channel, Key: number, Value: value})
		return counts
	}
	require.True(t, hear(4*sixteenths, 2, 20, 127))
	require.False(t, hear(4*sixteenths, 1, 20, 127))
	require.False(t, hear(4*sixteenths, 2, 21, 127))
	require.True(t, hear(8*sixteenths, 2, 20, 64))
	for i, n := range f.Advance(12*sixteenths, nil) {
		require.InDelta(t, []int{64, 32, 48}[i/4], n.Velocity, 1, i)
	}
}

// However many modulators are on one control, they add up and are bounded once.
func TestSixteenModulatorsOnOneControl(t *testing.T) {
	var all []score.Modulator
	for range score.MaxModulators {
		all = append(all, score.Modulator{Shape: score.PulseShape, Moves: moves(ofLane("amount", score.Velocity), 1000)})
	}
	for i, n := range play.Render(sounding(t, all...), 0, 16*sixteenths, nil) {
		require.Equal(t, map[bool]int{true: 127, false: 1}[i < 8], int(n.Velocity), "16 times 200 % of 64, and of nothing")
	}
	all = append(all, all[0])
	all[16].ID, all[16].Name = 99, "One more"
	p := testkit.Buoy()
	p.Modulators = all
	require.ErrorContains(t, p.Validate(), "modulators")
}

// A modulator that would reach itself is refused, and the circle is named.
func TestCirclesAreRefused(t *testing.T) {
	p := drivenBy(t, score.Modulator{Shape: score.NotesShape})
	for name, c := range map[string]struct {
		change func(*score.Project)
		wants  string
	}{
		"through the track that drives it": {func(p *score.Project) {
			p.Modulators[0].Moves = moves(score.ControlAddress{Name: "degrees", Track: 2}, 5)
		}, "(Driven → Driver → Driven)"},
		"through all tracks":                {func(p *score.Project) { p.Modulators[0].Moves = moves(score.ControlAddress{Name: "swing"}, 5) }, "(Driven → Driver → Driven)"},
		"through a track that is its clock": {func(p *score.Project) { p.Tracks[1].Source = score.Source{Kind: score.NoteStarts, Track: 1, Odds: 100} }, "(Driven → " + p.Tracks[0].Name + " → Driver → Driven)"},
		"through copies": {func(p *score.Project) {
			p.Modulators = []score.Modulator{
				{ID: 1, Name: "One", Shape: score.CopyShape, Copies: 2, Stretch: &score.Ratio{N: 1, M: 1}}, {ID: 2, Name: "Two", Shape: score.CopyShape, Copies: 1, Stretch: &score.Ratio{N: 1, M: 1}},
			}
		}, "(One → Two → One)"},
	} {
		t.Run(name, func(t *testing.T) {
			closed := p.Clone()
			c.change(closed)
			err := closed.Validate()
			require.ErrorContains(t, err, "a circle "+c.wants)
			require.ErrorContains(t, err, "something that does not reach itself")
		})
	}
}

// A curve is sent wherever it goes, 24 times a quarter at most, and only what is new; from a far bar on as if it had been sent from the beginning.
func TestCurvesAreSent(t *testing.T) {
	p := sounding(t, score.Modulator{Shape: score.RampShape, Times: 1, Value: "1/4"})
	p.Tracks[0].Parts()[0].Mods = nil
	p.Modulators[0].Sends = []score.ModulatorSend{
		{Track: 1, Mod: score.Mod{Target: score.ControlTarget, Number: 74, Least: 127}}, {Track: 1, Mod: score.Mod{Target: score.BendTarget, Most: 4}},
	}
	require.NoError(t, p.Validate())
	f := play.NewPerformer(p)
	f.Advance(2*score.TicksPerQuarter, nil)
	sent := map[midi.Kind][]play.Change{}
	for _, c := range f.Changes(nil) {
		sent[c.Kind] = append(sent[c.Kind], c)
	}
	require.Len(t, sent[midi.ControlChange], 48)
	for i, c := range sent[midi.ControlChange] {
		require.Equal(t, score.Tick(i)*score.TicksPerQuarter/24, c.Tick)
		require.Equal(t, 127-score.Rounded(127*(i%24), 24), int(c.Value), i)
		require.EqualValues(t, 74, c.Number)
	}
	require.Len(t, sent[midi.Bend], 2*5, "0 to 4, each once a pass")
	far := play.NewPerformerAt(p, 1000*score.TicksPerQuarter, play.Past{})
	far.Advance(1002*score.TicksPerQuarter, nil)
	later := far.Changes(nil)
	for i := range later {
		later[i].Tick -= 1000 * score.TicksPerQuarter
	}
	all := play.NewPerformer(p)
	all.Advance(2*score.TicksPerQuarter, nil)
	all.Changes(nil)
	all.Advance(4*score.TicksPerQuarter, nil)
	next := all.Changes(nil)
	for i := range next {
		next[i].Tick -= 2 * score.TicksPerQuarter
	}
	require.Equal(t, next, later)
}

// A track whose clock is a curve goes on whenever that rises to the level, and not where it begins or falls. By table: 16ths of a bar.
func TestACurveIsAClock(t *testing.T) {
	for name, c := range map[string]struct {
		m     score.Modulator
		level int
		want  []float64 // quarters
	}{
		"a triangle at its middle":     {score.Modulator{Shape: score.TriangleShape, Times: 1, Value: "1/4"}, 0, []float64{1, 2, 3}},
		"at half its height":           {score.Modulator{Shape: score.TriangleShape, Times: 1, Value: "1/2"}, 50, []float64{0.25, 2.25}},
		"a pulse as it rises":          {score.Modulator{Shape: score.PulseShape, Times: 1, Value: "1/2"}, 100, []float64{2}},
		"a drawn one, twice a pass":    {score.Modulator{Shape: score.DrawnShape, Times: 1, Value: "1/1", Points: []int{-100, 100, -100, 60}}, 60, []float64{1, 3}},
		"what stays above never rises": {score.Modulator{Shape: score.PulseShape, Times: 1, Value: "1/4"}, -100, nil},
	} {
		t.Run(name, func(t *testing.T) {
			p := sounding(t, c.m)
			p.Tracks[0].Source = score.Source{Kind: score.CurveClock, Modulator: 1, Crossing: c.level, Odds: 100}
			require.NoError(t, p.Validate())
			var at []float64
			for _, n := range play.Render(p, 0, p.Meter.Bar(), nil) {
				at = append(at, float64(n.Start)/float64(score.TicksPerQuarter))
			}
			require.Equal(t, c.want, at)
			all := len(play.Render(p, 0, 400*p.Meter.Bar(), nil))
			p.Tracks[0].Source.Odds = 50
			require.InDelta(t, float64(all)/2, len(play.Render(p, 0, 400*p.Meter.Bar(), nil)), 2*math.Sqrt(float64(all)), "four deviations of the binomial")
			p.Tracks[0].Source.Modulator = 9
			require.Empty(t, play.Render(p, 0, p.Meter.Bar(), nil), "its modulator is gone")
		})
	}
}

// Where a track's luck is held, a random modulator repeats what it does to it.
func TestHeldLuckRepeatsARandomModulator(t *testing.T) {
	p := sounding(t, score.Modulator{Shape: score.RandomShape, Times: 1, Value: "1/16", Moves: moves(ofLane("amount", score.Velocity), 1000)})
	bar := func(k score.Tick) (velocities []uint8) {
		for _, n := range play.Render(p, k*p.Meter.Bar(), (k+1)*p.Meter.Bar(), nil) {
			velocities = append(velocities, n.Velocity)
		}
		return velocities
	}
	require.NotEqual(t, bar(1), bar(3))
	p.Tracks[0].Hold, p.Tracks[0].HoldFrom = 2, 1
	require.Equal(t, bar(1), bar(3))
	require.NotEqual(t, bar(1), bar(2))
}
