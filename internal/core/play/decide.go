package play

import (
	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/orders"
	"jettyfog/internal/core/score"
)

// decision is what became of a step that was on, or filled.
type decision struct {
	tick        score.Tick
	step        int
	probability int // in ten-thousandths
	sounds      bool
	hits        []Hit // those that it has or would have
}

// decide finds whether the present step sounds, and with which probability in ten-thousandths; decided is false for
// a step that never could.
func (w *walker) decide(s *step) (probability int, sounds, decided bool) {
	address := w.soundChance
	address.N = uint64(w.gate.DrawIndex)
	switch s.gate {
	case score.On:
		probability = w.track.Probable(w.odds())
		sounds = w.allows(s) && chance.HappensIn(address, probability) &&
			(w.track.Kind == score.Kit || !w.pitch.rest(w.gate.Step(), w.gate.DrawIndex))
		return probability, sounds, true
	case score.Off:
		if fill := w.project.FillOf(w.part); w.project.Filling && fill > 0 {
			return 100 * fill, chance.Happens(address, fill), true
		}
	}
	return 0, false, false
}

// odds returns the probability of the present step, in ten-thousandths.
func (w *walker) odds() int {
	if own := w.ofCell(func(c *score.Cell) int { return c.Probability }, 0); own > 0 {
		return 100 * own
	}
	return w.probability.odds(w.gate.Step(), w.gate.DrawIndex)
}

// pass returns how many whole passes of the gate's order went before the present one, over realignments too.
func (w *walker) pass() int64 { return w.passes + w.gate.Moved/orders.Pass(w.gate.Lane()) }
