package period

import (
	"errors"
	"math/big"
	"slices"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/field"
	"jettyfog/internal/core/orders"
	"jettyfog/internal/core/score"
)

// Why a track does not repeat, besides those why its lanes do not meet.
var (
	ErrChance  = errors.New("something is left to chance")
	ErrListens = errors.New("a step listens to what sounded before")
	ErrOnce    = errors.New("a step counts passes from the beginning on")
	ErrMoved   = errors.New("a modulator moves it")
	ErrChords  = errors.New("its pitches are from chords")
)

// Repeats returns after how many ticks a track plays the same again and again, once its late notes have come: the
// meeting of its lanes, and of the passes that conditions count. Where chance is at work it never does,
// unless a hold repeats it. Which channel a note of a tuned track goes to is left out.
func Repeats(p *score.Project, t *score.Track) (score.Tick, error) {
	if t.Loop != nil {
		return t.Loop.Length, nil
	}
	if isModulated(p, t) {
		return 0, ErrMoved
	}
	if t.Pitches != nil {
		return 0, ErrChords
	}
	common := big.NewInt(1)
	for i := range t.Parts() {
		period, err := partRepeats(p, t, &t.Parts()[i])
		if err != nil {
			return 0, err
		}
		common = lcm(common, big.NewInt(int64(period)))
	}
	return inTicks(common, score.Ratio{N: 1, M: 1})
}

// ProjectRepeats returns after how many ticks all tracks together do.
func ProjectRepeats(p *score.Project) (score.Tick, error) {
	common := big.NewInt(1)
	for i := range p.Tracks {
		period, err := Repeats(p, &p.Tracks[i])
		if err != nil {
			return 0, err
		}
		common = lcm(common, big.NewInt(int64(period)))
	}
	return inTicks(common, score.Ratio{N: 1, M: 1})
}

func partRepeats(p *score.Project, t *score.Track, part *score.Part) (score.Tick, error) {
	hold := score.Tick(t.Hold) * lastBar(p)
	if holdsAll(p, t, part) {
		return hold, nil
	}
	random := isRandom(p, t, part)
	if random && hold == 0 || evolves(part) || t.Jitter > 0 && len(p.TempoChanges) > 0 { // jitter is in milliseconds
		return 0, ErrChance
	}
	if listens(part) {
		return 0, ErrListens
	}
	if countsOn(part) {
		return 0, ErrOnce
	}
	swings := false
	local, err := localPeriod(t, part, append(lanesOf(part), score.Gate))
	var period score.Tick
	if err == nil {
		amount, grid := p.SwingOf(t)
		if swings = amount != score.Straight; swings && grid == 0 { // it bends pairs of steps
			local = lcm(local, big.NewInt(2*int64(part.Lanes.Gate.Rate.Ticks())))
		}
		local, err = passes(local, part)
	}
	if err == nil {
		period, err = inTicks(local, t.Speed)
	}
	if _, grid := p.SwingOf(t); err == nil && swings && grid > 0 { // it bends bars
		period, err = inTicks(lcm(big.NewInt(int64(period)), big.NewInt(int64(lastBar(p)))), score.Ratio{N: 1, M: 1})
	}
	if realign := score.Tick(t.Realign) * lastBar(p); realign > 0 { // which also ends ties and slides
		switch {
		case errors.Is(err, ErrRandomOrder), errors.Is(err, ErrFollows), errors.Is(err, ErrNoClock), errors.Is(err, ErrDurations):
			return 0, err
		}
		period, err = realign*realignments(realign, t, part), nil
	}
	if err != nil || !random {
		return period, err
	}
	return inTicks(lcm(big.NewInt(int64(period)), big.NewInt(int64(hold))), score.Ratio{N: 1, M: 1})
}

// holdsAll reports whether each pass of what is held is the first again: what chance moves is brought back by the hold,
// what moves by arithmetic by a realign that fits into it.
func holdsAll(p *score.Project, t *score.Track, part *score.Part) bool {
	if t.Hold == 0 || t.Realign == 0 || t.Hold%t.Realign > 0 || t.Source.Kind != score.OwnClock || t.Jitter > 0 && len(p.TempoChanges) > 0 {
		return false
	}
	if amount, grid := p.SwingOf(t); amount != score.Straight && grid == 0 { // which pairs steps from the beginning on
		return false
	}
	for _, detail := range part.Details {
		terms, _, _ := detail.Condition.Terms()
		for _, term := range terms {
			if term.Kind == score.PassTerm || term.Track > 0 && term.Track != t.ID {
				return false
			}
		}
	}
	return true
}

// passes returns the period in which the passes that a part's conditions count come around too.
func passes(local *big.Int, part *score.Part) (*big.Int, error) {
	_, gateTicks, err := gateCycle(part) // a pass is a whole cycle of the order
	if err != nil {
		return nil, err
	}
	for _, detail := range part.Details {
		for _, of := range cycles(detail.Condition) {
			local = lcm(local, big.NewInt(gateTicks*int64(of)))
		}
	}
	return local, nil
}

// realignments returns after how many realignments the passes that a part's conditions count come around: each of
// them begins a pass anew.
func realignments(realign score.Tick, t *score.Track, part *score.Part) score.Tick {
	gate := part.GateLane()
	walk := orders.New(gate, chance.Address{})
	for local := score.Tick(0); ; walk.Advance() {
		if detail := part.Details[walk.Step()]; !detail.Skip {
			local += gate.Rate.Ticks() * score.Tick(max(1, detail.Stretch))
		}
		if local*score.Tick(t.Speed.M)/score.Tick(t.Speed.N) >= realign || walk.Moved > 4*int64(realign) {
			break
		}
	}
	begun := walk.Moved/orders.Pass(gate) + 1
	times := big.NewInt(1)
	for _, detail := range part.Details {
		for _, of := range cycles(detail.Condition) {
			each := int64(of) / new(big.Int).GCD(nil, nil, big.NewInt(int64(of)), big.NewInt(begun)).Int64()
			times = lcm(times, big.NewInt(each))
		}
	}
	return score.Tick(times.Int64())
}

// countsOn reports whether a condition counts passes that are never counted anew.
func countsOn(part *score.Part) bool {
	for _, detail := range part.Details {
		if slices.Contains(cycles(detail.Condition), 0) {
			return true
		}
	}
	return false
}

// cycles returns of how many passes each term of a condition counts, 0 where it counts all.
func cycles(condition score.Condition) (of []int) {
	terms, _, _ := condition.Terms()
	for _, t := range terms {
		if t.Kind == score.PassTerm {
			of = append(of, t.Of)
		}
	}
	return of
}

func listens(part *score.Part) bool {
	for _, detail := range part.Details {
		terms, _, _ := detail.Condition.Terms()
		for _, t := range terms {
			if t.Kind == score.SoundedTerm || t.Track > 0 {
				return true
			}
		}
	}
	return false
}

func evolves(part *score.Part) bool {
	for _, spec := range score.LaneSpecs() {
		if evolve := part.Lanes.Lane(spec.Name).Evolve; evolve != nil && evolve.Percent > 0 {
			return true
		}
	}
	return false
}

// isModulated reports whether a modulator moves something of a track, or of all.
func isModulated(p *score.Project, t *score.Track) bool {
	return slices.ContainsFunc(p.Modulators, func(m score.Modulator) bool {
		return m.Amount > 0 && slices.ContainsFunc(m.Moves, func(move score.ModulatorMove) bool {
			return move.Depth != 0 && (move.Control.Track == 0 || move.Control.Track == t.ID)
		})
	})
}

// isRandom reports whether chance has a say in what a part plays, beside the orders of its lanes.
func isRandom(p *score.Project, t *score.Track, part *score.Part) bool {
	if part.Field != nil && field.HasChance(part.Field) {
		return true
	}
	if t.Jitter > 0 || len(t.Shifts) > 0 || p.Filling && p.FillOf(part) > 0 && p.FillOf(part) < 100 {
		return true
	}
	if part.Lanes.Has(score.Ratchet) && part.Ratchet.Odds < 100 {
		return true
	}
	for _, detail := range part.Details {
		if detail.Ratchet.IsRandom() {
			return true
		}
	}
	for _, spec := range score.LaneSpecs() {
		lane := part.Lanes.Lane(spec.Name)
		for _, own := range lane.Own {
			if own.Varies() {
				return true
			}
		}
		for _, w := range lane.Weights {
			if w.Weight > 0 {
				return true
			}
		}
		if s := lane.Spread; s != nil && s.Chance > 0 && s.Depth > 0 {
			return true
		}
	}
	return isUncertain(t, part)
}

// isUncertain reports whether a probability is neither 0 nor 100 percent.
func isUncertain(t *score.Track, part *score.Part) bool {
	lane, loop := part.Lanes.Lane(score.Probability), part.Loop(score.Probability)
	for _, step := range loop.LoopSteps() {
		if effective := t.Probable(min(lane.Steps[step]*lane.Amount, 10_000)); effective > 0 && effective < 10_000 {
			return true
		}
	}
	return false
}
