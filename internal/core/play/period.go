package play

import (
	"errors"
	"math/big"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// Why a part's lanes never stand where they stood, or not predictably.
var (
	ErrRandomOrder = errors.New("a lane walks at random")
	ErrMovesByHits = errors.New("a lane moves by hits, which chance decides")
	ErrFollows     = errors.New("the track follows another track's notes")
	ErrDurations   = errors.New("the durations of steps are drawn")
	ErrNoClock     = errors.New("the track goes on by what comes in")
	ErrTooLong     = errors.New("the loops meet after more time than can be counted")
)

// Period returns after how many ticks the named lanes of a part all stand at their first step together
// again: the least common multiple of their loops, or the realignment of the track if it comes first.
func Period(p *score.Project, t *score.Track, part *score.Part, lanes ...score.LaneName) (score.Tick, error) {
	realign := score.Tick(t.Realign) * p.Meter.Bar()
	period, err := meeting(t, part, lanes)
	if realign > 0 && (err != nil || realign < period) {
		return realign, nil
	}
	return period, err
}

func meeting(t *score.Track, part *score.Part, lanes []score.LaneName) (score.Tick, error) {
	switch {
	case t.Source.FollowsTrack():
		return 0, ErrFollows
	case t.Source.Kind != score.OwnClock:
		return 0, ErrNoClock
	}
	for _, d := range part.Durations {
		if d.Weight > 0 {
			return 0, ErrDurations
		}
	}
	gateMoves, gateTicks, err := gateCycle(part)
	if err != nil {
		return 0, err
	}
	common := big.NewInt(1)
	for _, name := range lanes {
		lane := part.Lanes.Lane(name)
		moves := cycle(lane)
		loop := big.NewInt(moves * int64(lane.Rate.Ticks()))
		switch {
		case lane.Linked || name == score.Gate:
			loop.SetInt64(gateTicks)
		case moves == 0:
			return 0, ErrRandomOrder
		case lane.Moves == score.ByHit || lane.Moves == score.ByStrike:
			return 0, ErrMovesByHits
		case lane.Moves == score.ByStep:
			// The gate's loops after which the lane is back as well.
			loops := moves / new(big.Int).GCD(nil, nil, big.NewInt(moves), big.NewInt(gateMoves)).Int64()
			loop.Mul(big.NewInt(loops), big.NewInt(gateTicks))
		}
		common = lcm(common, loop)
	}
	// At a speed of n:m the time is m/n of that, and is a whole number after so many rounds.
	common.Mul(common, big.NewInt(int64(t.Speed.M)))
	common = lcm(common, big.NewInt(int64(t.Speed.N)))
	common.Div(common, big.NewInt(int64(t.Speed.N)))
	if !common.IsInt64() {
		return 0, ErrTooLong
	}
	return score.Tick(common.Int64()), nil
}

// gateCycle returns after how many steps that take time, and after how many ticks, the gate lane repeats.
func gateCycle(part *score.Part) (steps, ticks int64, err error) {
	gate := gateLane(part)
	moves := cycle(gate)
	if moves == 0 {
		return 0, 0, ErrRandomOrder
	}
	rate := int64(gate.Rate.Ticks())
	walk := newMover(gate, chance.Address{})
	for range moves {
		detail := part.Details[walk.step()]
		if !detail.Skip {
			steps++
			ticks += rate * int64(max(1, detail.Stretch))
		}
		walk.advance()
	}
	if steps == 0 { // all are skipped, and the gate lane plays on in silence
		return moves, moves * rate, nil
	}
	return steps, ticks, nil
}

func lcm(a, b *big.Int) *big.Int {
	common := new(big.Int).GCD(nil, nil, a, b)
	return new(big.Int).Mul(a, new(big.Int).Div(b, common))
}
