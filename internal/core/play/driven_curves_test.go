package play_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

const grid = score.TicksPerQuarter / 24

// sent is a value that was sent, and when.
type sent struct {
	tick  score.Tick
	value int
}

func sendsOf(f *play.Performer, until score.Tick) (all []sent) {
	f.Advance(until, nil)
	for _, c := range f.Changes(nil) {
		if c.Number == 74 {
			all = append(all, sent{c.Tick, int(c.Value)})
		}
	}
	return all
}

// sendingDriven returns the project of drivenBy, whose modulator moves nothing and is sent by a track.
func sendingDriven(t *testing.T, m score.Modulator, track, least, most int) *score.Project {
	p := drivenBy(t, m)
	p.Modulators[0].Moves = nil
	p.Modulators[0].Sends = []score.ModulatorSend{{Track: track, Mod: score.Mod{Target: score.ControlTarget, Number: 74, Least: least, Most: most}}}
	for i := range p.Tracks {
		p.Tracks[i].Parts()[0].Mods = nil
	}
	require.NoError(t, p.Validate())
	return p
}

// A curve that a track drives is sent from its lowest value up to its highest, on the grid, by the driving track itself too. A note of the driver sounds from the
// 4th to the 12th 16th of a bar.
func TestDrivenCurvesAreSent(t *testing.T) {
	quarter := 60_000_000 / int(testkit.Buoy().Tempo) // in milliseconds
	rising := []sent{{0, 0}}
	for k := range 24 {
		rising = append(rising, sent{4*sixteenths + score.Tick(k+1)*grid, score.Rounded(96*(k+1), 24)})
	}
	for name, c := range map[string]struct {
		m           score.Modulator
		least, most int
		want        []sent
	}{
		"while a note sounds":    {score.Modulator{Shape: score.NotesShape}, 0, 127, []sent{{0, 0}, {4 * sixteenths, 127}, {12 * sixteenths, 0}}},
		"upside down":            {score.Modulator{Shape: score.NotesShape}, 100, 20, []sent{{0, 100}, {4 * sixteenths, 20}, {12 * sixteenths, 100}}},
		"rising over a quarter":  {score.Modulator{Shape: score.NotesShape, Attack: quarter}, 0, 96, append(rising, sent{12 * sixteenths, 0})},
		"the velocity stays":     {score.Modulator{Shape: score.VelocityShape}, 0, 127, []sent{{0, 0}, {4 * sixteenths, 127}}},
		"a copy goes as it does": {score.Modulator{Shape: score.CopyShape, Copies: 2, Stretch: &score.Ratio{N: 1, M: 1}}, 0, 127, []sent{{0, 0}, {4 * sixteenths, 127}}},
	} {
		for track := 1; track <= 2; track++ {
			t.Run(fmt.Sprint(name, " by track ", track), func(t *testing.T) {
				p := sendingDriven(t, c.m, track, c.least, c.most)
				if c.m.Shape == score.CopyShape {
					p.Modulators = append(p.Modulators, score.Modulator{ID: 2, Name: "Original", Shape: score.VelocityShape, Track: 2})
				}
				require.NoError(t, p.Validate())
				require.Equal(t, c.want, sendsOf(play.NewPerformer(p), 16*sixteenths))
				again, whole := play.NewPerformer(p), []sent(nil)
				for at := score.Tick(0); at < 16*sixteenths; at += 1777 {
					whole = append(whole, sendsOf(again, min(16*sixteenths, at+1777))...)
				}
				require.Equal(t, c.want, whole, "however time is cut")
			})
		}
	}
	p := sendingDriven(t, score.Modulator{Shape: score.NotesShape}, 1, 0, 100)
	p.Modulators[0].Amount = 30
	require.Equal(t, []sent{{0, 0}, {4 * sixteenths, 30}, {12 * sixteenths, 0}}, sendsOf(play.NewPerformer(p), 16*sixteenths), "as much as its amount")
	far := play.NewPerformerAt(p, 6*sixteenths, play.Past{})
	require.Equal(t, []sent{{12 * sixteenths, 0}}, sendsOf(far, 16*sixteenths))
	require.Contains(t, far.Standing(nil), play.Change{Tick: 16 * sixteenths, Track: 1, Kind: midi.ControlChange, Number: 74}, "what stands is known all the same")
}

// A mod lane is read where it stands at each tick of the grid, and a controller that comes in counts from the next one on.
func TestWhatStandsIsSentOn(t *testing.T) {
	p := sendingDriven(t, score.Modulator{Shape: score.ModShape, Mod: 1}, 1, 0, 127)
	part := &p.Tracks[1].Parts()[0]
	lane := *part.Lanes.Lane(score.Pitch)
	lane.Linked, lane.Moves, lane.Rate, lane.Length, lane.First, lane.Spread = false, score.ByClock, "1/8", 2, 0, nil
	lane.Steps = make([]int, score.MaxSteps)
	lane.Steps[0], lane.Steps[1] = 11, 127
	part.Lanes.Mod1, part.Mods = &lane, []score.Mod{{Target: score.ControlTarget, Number: 9, Most: 127}}
	require.NoError(t, p.Validate())
	require.Equal(t, []sent{{0, 11}, {2 * sixteenths, 127}, {4 * sixteenths, 11}, {6 * sixteenths, 127}}, sendsOf(play.NewPerformer(p), 8*sixteenths))

	p = sendingDriven(t, score.Modulator{Shape: score.ControlShape, Controller: 20}, 1, 0, 127)
	f := play.NewPerformer(p)
	for _, came := range []sent{{1, 40}, {5 * grid, 90}} {
		_, counts := f.Hear(midi.Message{Tick: came.tick, Kind: midi.ControlChange, Key: 20, Value: uint16(came.value)})
		require.True(t, counts)
	}
	require.Equal(t, []sent{{0, 0}, {grid, 40}, {5 * grid, 90}}, sendsOf(f, 8*grid))
	at, counts := f.Hear(midi.Message{Tick: 2, Kind: midi.ControlChange, Key: 20, Value: 7})
	require.True(t, counts, "though it is late")
	require.Equal(t, []sent{{max(at, 8*grid), 7}}, sendsOf(f, 20*grid))
}

// A curve that something drives is a clock where it rises to the level: at the step by which it does. What the steps of that clock drive is sent from
// the same tick on.
func TestADrivenCurveIsAClock(t *testing.T) {
	p := drivenBy(t, score.Modulator{Shape: score.NotesShape})
	p.Modulators[0].Moves = nil
	p.Modulators = append(p.Modulators, score.Modulator{
		ID: 2, Name: "Second", Amount: 100, Shape: score.VelocityShape, Track: 1,
		Sends: []score.ModulatorSend{{Track: 2, Mod: score.Mod{Target: score.ControlTarget, Number: 74, Most: 127}}},
	})
	for i := range p.Tracks {
		p.Tracks[i].Parts()[0].Mods = nil
	}
	p.Tracks[0].Source = score.Source{Kind: score.CurveClock, Modulator: 1, Crossing: 50, Odds: 100}
	require.NoError(t, p.Validate())
	f := play.NewPerformer(p)
	var at []score.Tick
	for _, n := range f.Advance(40*sixteenths, nil) {
		if n.Track == 1 {
			at = append(at, n.Start)
		}
	}
	require.Equal(t, []score.Tick{4 * sixteenths, 20 * sixteenths, 36 * sixteenths}, at)
	require.Equal(t, []sent{{0, 0}, {4 * sixteenths, 50}}, sendsOf(f, 40*sixteenths+1))

	p.Modulators[0].Attack = 60_000_000 / int(p.Tempo)
	at = nil
	for _, n := range play.Render(p, 0, 16*sixteenths, nil) {
		if n.Track == 1 {
			at = append(at, n.Start)
		}
	}
	require.Equal(t, []score.Tick{6 * sixteenths}, at, "halfway up a quarter")

	p.Modulators[0].Shape, p.Modulators[0].Controller = score.ControlShape, 20
	f = play.NewPerformer(p)
	f.Hear(midi.Message{Tick: 3*grid - 1, Kind: midi.ControlChange, Key: 20, Value: 64})
	notes := f.Advance(4*sixteenths, nil)
	require.Len(t, notes, 1)
	require.Equal(t, 3*grid, notes[0].Start)

	p.Modulators[0].Shape, p.Modulators[0].Track = score.NotesShape, 1
	require.ErrorContains(t, p.Validate(), "a circle (Driven → Bell buoy → Driven)")
}

// Where a track's luck is held, an envelope that still falls at the beginning of what is held falls there again in every pass.
func TestHeldLuckRepeatsAnEnvelope(t *testing.T) {
	p := sendingDriven(t, score.Modulator{Shape: score.NotesShape, Release: 2 * 60_000_000 / int(testkit.Buoy().Tempo)}, 1, 0, 127)
	bar := p.Meter.Bar()
	p.Tracks[1].Hold, p.Tracks[1].HoldFrom = 1, 1
	f := play.NewPerformer(p)
	first := sendsOf(f, bar)
	require.Greater(t, len(first), 24, "it falls to the end of the bar")
	var passes [3][]sent
	for i := range passes {
		for _, s := range sendsOf(f, score.Tick(i+2)*bar) {
			passes[i] = append(passes[i], sent{s.tick - score.Tick(i+1)*bar, s.value})
		}
	}
	require.Greater(t, len(passes[0]), 40, "it falls in the first quarter and after the note")
	for _, pass := range passes[1:] {
		require.Equal(t, passes[0], pass)
	}
}
