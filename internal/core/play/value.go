package play

import (
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
	spread chance.Address
}

func newValue(lanes *score.Lanes, spec score.LaneSpec, address chance.Address) value {
	lane := lanes.Lane(spec.Name)
	address.Lane = spec.Number()
	v := value{mover: newMover(lane, address), spec: spec, linked: lane.Linked, spread: address}
	spreads := lane.Spread != nil && lane.Spread.Chance > 0 && lane.Spread.Depth > 0
	v.plain = lane.Amount == 100 && !spreads
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
	address := v.spread
	address.N = uint64(n)
	address.Purpose = chance.Applies
	if !chance.Happens(address, s.Chance) {
		return written
	}
	address.Purpose = chance.Spread
	slots := (s.Highest-s.Lowest)/s.Grain + 1
	slot := int(uint64(chance.Lean(address, s.Lean)) * uint64(slots) >> 32)
	return written + roundedPercent(s.Lowest+slot*s.Grain, s.Depth)
}

// roundedPercent returns percent of a number, rounded to the nearest, halves away from 0.
func roundedPercent(number, percent int) int {
	if number < 0 {
		return -roundedPercent(-number, percent)
	}
	return (number*percent + 50) / 100
}
