package play

import (
	"slices"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// value is a lane's contribution to a note: where it stands, what it holds, how it varies.
type value struct {
	mover
	spec   score.LaneSpec
	linked bool
	plain  bool // no amount and no spread
	fixed  bool // one value for ever, and no spread
	chance chance.Address

	total   int                  // the sum of the weights
	evolved *[score.MaxSteps]int // the values in force, where the lane evolves
	rolls   int64                // how many times it has evolved
}

func newValue(lanes *score.Lanes, spec score.LaneSpec, address chance.Address) value {
	lane := lanes.Lane(spec.Name)
	address.Lane = spec.Number()
	v := value{mover: newMover(lane, address), spec: spec, linked: lane.Linked, chance: address}
	spreads := lane.Spread != nil && lane.Spread.Chance > 0 && lane.Spread.Depth > 0
	for _, w := range lane.Weights {
		v.total += w.Weight
	}
	if lane.Evolve != nil {
		v.evolved = (*[score.MaxSteps]int)(slices.Clone(lane.Steps))
	}
	v.plain = lane.Amount == 100 && !spreads && v.total == 0 && v.evolved == nil
	v.fixed = !lanes.Has(spec.Name)
	return v
}

// read returns the value at the gate's step for a linked lane, else where the lane stands, varied by
// its spread and scaled by its amount. n counts the gate's moves since the luck began.
func (v *value) read(gateStep int, n int64) int {
	if v.fixed {
		return v.spec.Default
	}
	step := gateStep
	if !v.linked {
		step = v.step()
	}
	written := v.lane.Steps[step]
	if v.plain {
		return written
	}
	if v.evolved != nil {
		written = v.evolved[step]
	}
	if v.total > 0 {
		written = v.weigh(n)
	}
	varied := v.vary(written, n)
	switch v.spec.Name {
	case score.Velocity, score.Length, score.Probability:
		varied = varied * v.lane.Amount / 100
	}
	return min(v.spec.Most, max(v.spec.Least, varied))
}

// vary adds the spread.
func (v *value) vary(written int, n int64) int {
	s := v.lane.Spread
	if s == nil {
		return written
	}
	address := v.chance
	address.N = uint64(n)
	address.Purpose = chance.Applies
	if !chance.Happens(address, s.Chance) {
		return written
	}
	address.Purpose = chance.Spread
	slots := (s.Highest-s.Lowest)/s.Grain + 1
	slot := int(uint64(chance.Lean(address, s.Lean)) * uint64(slots) >> 32)
	return written + rounded((s.Lowest+slot*s.Grain)*s.Depth, 100)
}

// weigh draws a value from the lane's table of weights.
func (v *value) weigh(n int64) int {
	address := v.chance
	address.Purpose, address.N = chance.Weigh, uint64(n)
	lineDraw, bandDraw, _, _ := chance.Draw4(address)
	drawn := int(uint64(lineDraw) * uint64(v.total) >> 32)
	for _, w := range v.lane.Weights {
		if drawn < w.Weight {
			return w.Lowest + int(uint64(bandDraw)*uint64(w.Highest-w.Lowest+1)>>32)
		}
		drawn -= w.Weight
	}
	panic("play: the weights do not add up")
}

// evolveTo re-rolls the steps until it has been done the given number of times.
func (v *value) evolveTo(rolls int64) {
	e := v.lane.Evolve
	for v.rolls < rolls {
		v.rolls++
		for step := range v.evolved {
			address := v.chance
			address.Purpose, address.N = chance.EvolveApplies, uint64(v.rolls*score.MaxSteps+int64(step))
			if !chance.Happens(address, e.Percent) || slices.Contains(e.Locked, step) {
				continue
			}
			address.Purpose = chance.Evolve
			v.evolved[step] = e.Lowest + chance.Below(address, e.Highest-e.Lowest+1)
		}
	}
}
