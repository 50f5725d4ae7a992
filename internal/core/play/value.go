package play

import (
	"slices"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/orders"
	"jettyfog/internal/core/score"
)

// value is a lane's contribution to a note: where it stands, what it holds, how it varies. What is read at each step
// comes first, so that it lies close together.
type value struct {
	valueState
	linked  bool
	plain   bool     // no amount, no spread and the like: the step's value is the one in force
	fixed   bool     // the part has no such lane: the default is in force
	rests   bool     // whether the weights have rests
	control *control // of a mod lane that goes somewhere
	steps   []int    // the written values
	orders.Mover

	name        score.LaneName
	scale       int // the amount, where it scales the value itself
	least, most int
	chance      chance.Address

	total   int                       // the sum of the weights
	own     *[score.MaxSteps]*ownStep // what steps have of their own; nil where none has
	evolved *[score.MaxSteps]int      // the values in force, where the lane evolves
}

// valueState is how far a lane has come, besides where it stands.
type valueState struct {
	used  bool       // read where it stands, so that it goes on before it is read again
	due   score.Tick // when a lane that moves by the clock moves next, in local time
	rolls int64      // how many times it has evolved
	extra int64      // of them those that were asked for while it played
}

func newValue(lanes *score.Lanes, spec score.LaneSpec, address chance.Address) value {
	lane := lanes.Lane(spec.Name)
	address.Lane = spec.Number()
	v := value{
		Mover: orders.New(lane, address), name: spec.Name, linked: lane.Linked, fixed: !lanes.Has(spec.Name), scale: 100,
		least: spec.Least, most: spec.Most, steps: lane.Steps, chance: address,
	}
	v.due = v.Rate
	spreads := lane.Spread != nil && lane.Spread.Chance > 0 && lane.Spread.Depth > 0
	v.own = readOwn(lane)
	for _, w := range lane.Weights {
		v.total += w.Weight
		v.rests = v.rests || w.Rest && w.Weight > 0
	}
	v.rests = v.rests || rests(lane)
	if lane.Evolve != nil {
		v.evolved = (*[score.MaxSteps]int)(slices.Clone(lane.Steps))
	}
	if spec.Name == score.Velocity || spec.Name == score.Probability {
		v.scale = lane.Amount
	}
	v.plain = v.scale == 100 && !spreads && v.total == 0 && v.evolved == nil && v.own == nil
	return v
}

// read returns the value at the gate's step for a linked lane, else where the lane stands, varied by
// its spread and scaled by its amount. n counts the gate's moves since the luck began.
func (v *value) read(gateStep int, n int64) int {
	step := v.stepAt(gateStep)
	if v.plain {
		return v.steps[step]
	}
	return v.vary(step, n, 0)
}

// stepAt returns the gate's step for a linked lane, else where the lane stands.
func (v *value) stepAt(gateStep int) int {
	if v.linked {
		return gateStep
	}
	return v.Step()
}

// odds returns the value of the probability lane, as read does, in ten-thousandths, so that no amount makes nothing
// of a small one.
func (v *value) odds(gateStep int, n int64) int {
	if v.plain {
		return 100 * v.read(gateStep, n)
	}
	step := v.stepAt(gateStep)
	written := v.written(step, n, 0)
	return min(100*v.most, max(100*v.least, written*v.scale+100*v.added(step, written, n, 0)))
}

// written returns what a step holds: as it was written, has evolved, or is drawn from its own table of weights, else the lane's.
func (v *value) written(step int, n int64, sub uint8) int {
	if table, total := v.table(step); total > 0 {
		if line, drawn := v.weigh(table, total, n, sub); !line.Rest {
			return drawn
		}
	}
	if v.evolved != nil {
		return v.evolved[step]
	}
	return v.steps[step]
}

func (v *value) vary(step int, n int64, sub uint8) int {
	written := v.written(step, n, sub)
	least, most := v.least, v.most
	if v.name == score.Length { // a share of a step stays a share, and a number of steps stays one
		if written <= score.WholeStep {
			most = score.WholeStep
		} else {
			least = score.WholeStep + 1
		}
	}
	return min(most, max(least, score.Rounded(written*v.scale, 100)+v.added(step, written, n, sub)))
}

// added returns what the spread of a step, else the lane's, adds to a written value.
func (v *value) added(step, written int, n int64, sub uint8) int {
	s := v.spread(step)
	if s == nil || !s.Touched(written) {
		return 0
	}
	address := v.chance
	address.N, address.Sub = uint64(n), sub
	address.Purpose = chance.Applies
	if !chance.Happens(address, s.Chance) {
		return 0
	}
	address.Purpose = chance.Spread
	g := gridOf(s, score.Rounded(written*v.scale, 100))
	return g.added(int(uint64(chance.Lean(address, s.Lean)) * uint64(g.slots) >> 32))
}

// weigh draws a line of a table of weights, and a value of its band.
func (v *value) weigh(table []score.Weight, total int, n int64, sub uint8) (line score.Weight, drawn int) {
	address := v.chance
	address.Purpose, address.N, address.Sub = chance.Weigh, uint64(n), sub
	lineDraw, bandDraw, _, _ := chance.Draw4(address)
	weight := int(uint64(lineDraw) * uint64(total) >> 32)
	for _, line := range table {
		if weight < line.Weight {
			return line, line.Lowest + int(uint64(bandDraw)*uint64(line.Highest-line.Lowest+1)>>32)
		}
		weight -= line.Weight
	}
	panic("play: the weights do not add up")
}

// rest reports whether the table of weights that is in force at the gate's step, or where the lane stands, draws a rest.
func (v *value) rest(gateStep int, n int64) bool {
	if !v.rests {
		return false
	}
	table, total := v.table(v.stepAt(gateStep))
	if total == 0 {
		return false
	}
	line, _ := v.weigh(table, total, n, 0)
	return line.Rest
}

// goOn moves a lane on that was read where it stood.
func (v *value) goOn() {
	if v.used {
		v.used = false
		v.Advance()
	}
}

// align goes back to the first step.
func (v *value) align() {
	v.used, v.due = false, v.Rate
	v.Mover.Align()
}

// evolveTo re-rolls the steps as often as it is to be done by a bar.
func (v *value) evolveTo(bar int64) {
	e := v.Lane().Evolve
	for rolls := bar/int64(e.Every) + v.extra; v.rolls < rolls; {
		v.rolls++
		for step := range v.evolved {
			address := v.chance
			address.Purpose, address.N = chance.EvolveApplies, uint64(v.rolls*score.MaxSteps+int64(step))
			if !chance.Happens(address, e.Percent) || slices.Contains(v.Lane().Locked, step) {
				continue
			}
			address.Purpose = chance.Evolve
			v.evolved[step] = e.Lowest + chance.Below(address, e.Highest-e.Lowest+1)
		}
	}
}
