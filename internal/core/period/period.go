package period

import (
	"errors"
	"math/big"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/orders"
	"jettyfog/internal/core/score"
)

// Why a part's lanes never stand where they stood, or not predictably.
var (
	ErrRandomOrder = errors.New("a lane walks at random")
	ErrMovesByHits = errors.New("a lane moves by hits, which chance decides")
	ErrFollows     = errors.New("the track follows another track's notes")
	ErrDurations   = errors.New("the lengths of steps are random")
	ErrNoClock     = errors.New("its clock is the MIDI input")
	ErrField       = errors.New("its steps are the cells of a field that sound")
	ErrTooLong     = errors.New("the loops meet after more time than can be counted")
)

// Of returns after how many ticks the named lanes of a part all stand at their first step together
// again: the least common multiple of their loops, or the realignment of the track if it comes first.
func Of(p *score.Project, t *score.Track, part *score.Part, lanes ...score.LaneName) (score.Tick, error) {
	realign := score.Tick(t.Realign) * lastBar(p)
	period, err := meeting(t, part, lanes)
	if realign > 0 && (err != nil || realign < period) {
		return realign, nil
	}
	return period, err
}

func meeting(t *score.Track, part *score.Part, lanes []score.LaneName) (score.Tick, error) {
	local, err := localPeriod(t, part, lanes)
	if err != nil {
		return 0, err
	}
	return inTicks(local, t.Speed)
}

// localPeriod returns after how much of the track's own time the named lanes meet.
func localPeriod(t *score.Track, part *score.Part, lanes []score.LaneName) (*big.Int, error) {
	switch {
	case part.Field != nil:
		return nil, ErrField
	case t.Source.FollowsTrack():
		return nil, ErrFollows
	case t.Source.Kind != score.OwnClock:
		return nil, ErrNoClock
	}
	for _, d := range part.Durations {
		if d.Weight > 0 {
			return nil, ErrDurations
		}
	}
	gateMoves, gateTicks, err := gateCycle(part)
	if err != nil {
		return nil, err
	}
	common := big.NewInt(1)
	for _, name := range lanes {
		lane := part.Lanes.Lane(name)
		moves := orders.Cycle(lane)
		loop := big.NewInt(moves * int64(lane.Rate.Ticks()))
		switch {
		case lane.Linked || name == score.Gate:
			loop.SetInt64(gateTicks)
		case moves == 0:
			return nil, ErrRandomOrder
		case lane.Moves == score.ByHit || lane.Moves == score.ByStrike:
			return nil, ErrMovesByHits
		case lane.Moves == score.ByStep:
			// The gate's loops after which the lane is back as well.
			loops := moves / new(big.Int).GCD(nil, nil, big.NewInt(moves), big.NewInt(gateMoves)).Int64()
			loop.Mul(big.NewInt(loops), big.NewInt(gateTicks))
		}
		common = lcm(common, loop)
	}
	return common, nil
}

// inTicks returns the project's time of a period of a track's own time at a speed of n:m: m/n of it, as often
// as it takes to be whole.
func inTicks(local *big.Int, speed score.Ratio) (score.Tick, error) {
	common := new(big.Int).Mul(local, big.NewInt(int64(speed.M)))
	common = lcm(common, big.NewInt(int64(speed.N)))
	common.Div(common, big.NewInt(int64(speed.N)))
	if !common.IsInt64() {
		return 0, ErrTooLong
	}
	return score.Tick(common.Int64()), nil
}

// OfTrack returns after how many ticks all lanes of all parts of a track stand at their first step
// together again.
func OfTrack(p *score.Project, t *score.Track) (score.Tick, error) {
	common := big.NewInt(1)
	for i := range t.Parts() {
		part := &t.Parts()[i]
		period, err := Of(p, t, part, lanesOf(part)...)
		if err != nil {
			return 0, err
		}
		common = lcm(common, big.NewInt(int64(period)))
	}
	return inTicks(common, score.Ratio{N: 1, M: 1})
}

func lanesOf(part *score.Part) (names []score.LaneName) {
	for _, spec := range score.LaneSpecs() {
		if part.Lanes.Has(spec.Name) {
			names = append(names, spec.Name)
		}
	}
	return names
}

// gateCycle returns after how many steps that take time, and after how many ticks, the gate lane repeats.
func gateCycle(part *score.Part) (steps, ticks int64, err error) {
	gate := part.GateLane()
	moves := orders.Cycle(gate)
	if moves == 0 {
		return 0, 0, ErrRandomOrder
	}
	rate := int64(gate.Rate.Ticks())
	walk := orders.New(gate, chance.Address{})
	for range moves {
		detail := part.Details[walk.Step()]
		if !detail.Skip {
			steps++
			ticks += rate * int64(max(1, detail.Stretch))
		}
		walk.Advance()
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

// lastBar returns the length of the bars from the last change of meter on, from where on everything repeats.
func lastBar(p *score.Project) score.Tick { return p.Bars().Last().Bar() }
