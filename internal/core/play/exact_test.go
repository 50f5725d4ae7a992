package play_test

import (
	"math/big"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// All tracks swing on one grid of the project, whatever their own steps are; pairs are counted from the bar line, and
// what is left after the last of them is straight. Starts are in hundredths of a 16th. At 66.7 % the second eighth
// comes at 2.668 sixteenths.
func TestEveryTrackSwingsOnTheGridOfTheProject(t *testing.T) {
	for _, c := range []struct {
		name   string
		change func(p *score.Project, track *score.Track, gate *score.Lane)
		upTo   score.Tick // in 16ths
		want   []score.Tick
	}{
		{"16ths on a grid of 16ths", func(*score.Project, *score.Track, *score.Lane) {}, 5, []score.Tick{0, 133, 200, 333, 400}},
		{"eighths on a grid of 16ths stay", func(_ *score.Project, _ *score.Track, gate *score.Lane) { gate.Rate = "1/8" },
			8, []score.Tick{0, 200, 400, 600}},
		{"eighths on a grid of eighths", func(p *score.Project, _ *score.Track, gate *score.Lane) { p.SwingGrid, gate.Rate = "1/8", "1/8" },
			8, []score.Tick{0, 266, 400, 666}},
		{"16ths on a grid of eighths bend with them", func(p *score.Project, _ *score.Track, _ *score.Lane) { p.SwingGrid = "1/8" },
			5, []score.Tick{0, 133, 266, 333, 400}},
		{"7/16: the last 16th is straight, and so is each bar line", func(p *score.Project, _ *score.Track, _ *score.Lane) {
			p.Meter = score.Meter{Beats: 7, Unit: 16}
		}, 10, []score.Tick{0, 133, 200, 333, 400, 533, 600, 700, 833, 900}},
		{"by its own steps it is late at every second bar line", func(p *score.Project, track *score.Track, _ *score.Lane) {
			p.Meter, track.SwingOwnSteps = score.Meter{Beats: 7, Unit: 16}, true
		}, 10, []score.Tick{0, 133, 200, 333, 400, 533, 600, 733, 800, 933}},
		{"eighths by their own steps", func(_ *score.Project, track *score.Track, gate *score.Lane) {
			track.SwingOwnSteps, gate.Rate = true, "1/8"
		}, 8, []score.Tick{0, 266, 400, 666}},
		{"a faster track meets the same grid", func(_ *score.Project, track *score.Track, _ *score.Lane) { track.Speed.N = 2 },
			2, []score.Tick{0, 66, 133, 166}},
		{"the track's own amount", func(_ *score.Project, track *score.Track, _ *score.Lane) { track.Swing = 551 },
			3, []score.Tick{0, 110, 200}},
		{"none", func(_ *score.Project, track *score.Track, _ *score.Lane) { track.Swing = score.Straight },
			3, []score.Tick{0, 100, 200}},
	} {
		t.Run(c.name, func(t *testing.T) {
			p := testkit.Plain(func(p *score.Project, track *score.Track, part *score.Part) {
				p.Swing, p.SwingGrid = 667, "1/16"
				for step := range part.Lanes.Gate.Steps {
					part.Lanes.Gate.Steps[step] = score.On
				}
				c.change(p, track, part.Lanes.Gate)
			})
			var starts []score.Tick
			for _, n := range play.Render(p, 0, c.upTo*sixteenth, nil) {
				starts = append(starts, n.Start*100/sixteenth)
			}
			require.Equal(t, c.want, starts)
		})
	}
}

// Starts and ends, at any speed, swing, ratchet, nudge and strum, are those of exact fractions, rounded down once.
func TestTimesAreThoseOfExactFractions(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		small := rapid.IntRange(1, 16)
		var speed score.Ratio
		var shape score.RatchetShape
		var strikes, nudge, length, strum, amount, meter int
		var own bool
		var rate, grid score.NoteValue
		p := testkit.Plain(func(p *score.Project, track *score.Track, part *score.Part) {
			meter = rapid.IntRange(1, 9).Draw(t, "beats")
			p.Meter = score.Meter{Beats: meter, Unit: 16}
			amount, grid = rapid.IntRange(500, 750).Draw(t, "swing"), rapid.SampledFrom(score.SwingGrids()).Draw(t, "grid")
			own = rapid.Bool().Draw(t, "own steps")
			p.Swing, p.SwingGrid, track.SwingOwnSteps = amount, grid, own
			speed = score.Ratio{N: small.Draw(t, "n"), M: small.Draw(t, "m")}
			if rapid.Bool().Draw(t, "straight, at the usual speed") { // as most tracks are, whose moments are found by a shorter way
				amount, speed = score.Straight, score.Ratio{N: 1, M: 1}
				p.Swing = amount
			}
			track.Speed = speed
			rate = rapid.SampledFrom(score.NoteValues()).Draw(t, "rate")
			part.Lanes.Gate.Rate = rate
			strikes, nudge = rapid.IntRange(1, 16).Draw(t, "strikes"), rapid.IntRange(-50, 50).Draw(t, "nudge")
			length, strum = rapid.IntRange(1, 99).Draw(t, "length"), rapid.IntRange(0, 100).Draw(t, "strum")
			shape = score.RatchetShape{Spacing: rapid.SampledFrom(score.Spacings()).Draw(t, "spacing"), Odds: 100}
			part.Ratchet, part.Voicing.Strum = shape, strum
			track.Register.Lowest, track.Register.Highest = 0, 127
			for step := range part.Lanes.Gate.Steps {
				part.Lanes.Gate.Steps[step], part.Lanes.Length.Steps[step] = score.On, length
			}
			testkit.SetLane(&part.Lanes.Ratchet, score.Ratchet, func(l *score.Lane) { l.Steps[2] = strikes })
			testkit.SetLane(&part.Lanes.Nudge, score.Nudge, func(l *score.Lane) { l.Steps[2] = nudge })
			testkit.SetLane(&part.Lanes.Chord, score.Chord, func(l *score.Lane) { l.Steps[2] = 1 })
		})
		exact := func(strike, of int) *big.Rat { // where a strike is in the track's own time
			x := big.NewRat(int64(strike), int64(of))
			switch shape.Spacing {
			case score.Gathering:
				x.Mul(x, new(big.Rat).Sub(big.NewRat(2, 1), x))
			case score.Slackening:
				x.Mul(x, x)
			}
			x.Add(x, big.NewRat(2, 1))
			return x.Mul(x, big.NewRat(int64(rate.Ticks()), 1))
		}
		ratio := big.NewRat(int64(speed.M), int64(speed.N))
		heard := func(local *big.Rat) *big.Rat {
			at, barTicks, step := new(big.Rat).Set(local), int64(0), int64(rate.Ticks())
			if !own {
				at.Mul(at, ratio)
				barTicks, step = int64(p.Meter.Bar()), int64(grid.Ticks())
			}
			at = bent(at, barTicks, step, amount)
			if own {
				at.Mul(at, ratio)
			}
			shift := big.NewRat(int64(rate.Ticks())*int64(nudge), 100)
			return at.Add(at, shift.Mul(shift, ratio))
		}
		var got []play.Note
		until := score.Tick(5) * rate.Ticks() * score.Tick(speed.M) / score.Tick(speed.N)
		for _, n := range play.Render(p, 0, until+2*score.TicksPerQuarter, nil) {
			if n.Step == 2 && n.Start < until {
				got = append(got, n)
			}
		}
		var want []score.Tick
		chord := len(got) / strikes
		for i := range strikes {
			begin, end := heard(exact(i, strikes)), heard(exact(i+1, strikes))
			for voice := range chord {
				share := big.NewRat(int64(strum*voice), int64(100*max(1, chord-1)))
				span := new(big.Rat).Sub(end, begin)
				want = append(want, floor(span.Mul(span, share).Add(span, begin)))
			}
			if chord > 0 && strum == 0 {
				room := new(big.Rat).Sub(exact(i+1, strikes), exact(i, strikes))
				room.Mul(room, big.NewRat(int64(length), 100))
				require.Equal(t, max(floor(heard(room.Add(room, exact(i, strikes)))), got[i*chord].Start+1), got[i*chord].End)
			}
		}
		require.NotZero(t, chord)
		starts := make([]score.Tick, len(got))
		for i, n := range got {
			starts[i] = n.Start
		}
		require.ElementsMatch(t, want, starts)
	})
}

// bent swings a moment, as engine.md says it: pairs of steps from the bar line, or from 0 where bar is 0.
func bent(at *big.Rat, bar, step int64, amount int) *big.Rat {
	begin := int64(floor(at)) / (2 * step) * 2 * step
	if bar > 0 {
		line := int64(floor(at)) / bar * bar
		begin = line + (int64(floor(at))-line)/(2*step)*2*step
		if begin+2*step > line+bar {
			return at
		}
	}
	from := new(big.Rat).Sub(at, big.NewRat(begin, 1))
	first := big.NewRat(2*step*int64(amount), 1000)
	if half := big.NewRat(step, 1); from.Cmp(half) < 0 {
		from.Mul(from, first).Quo(from, half)
	} else {
		rest := new(big.Rat).Sub(big.NewRat(2*step, 1), first)
		from.Sub(from, half).Mul(from, rest).Quo(from, half).Add(from, first)
	}
	return from.Add(from, big.NewRat(begin, 1))
}

func floor(x *big.Rat) score.Tick {
	q := new(big.Int)
	q.Div(x.Num(), x.Denom()) // Euclidean, which is the floor as denominators are positive
	return score.Tick(q.Int64())
}
