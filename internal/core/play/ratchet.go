package play

import (
	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// maxRatchet is how many strikes a step length has at most.
const maxRatchet = 16

// count returns how many strikes a step has: by its own weights, or as the lane has it.
func (w *walker) count(shape *score.StepRatchet, at int, n int64) int {
	usual := w.ofCell(func(c *score.Cell) int { return c.Ratchet }, w.ratchet.read(at, n))
	if len(shape.Counts) == 0 {
		return usual
	}
	total := shape.CountsTotal()
	if total == 0 {
		return usual
	}
	address := w.chance
	address.Lane, address.Purpose, address.N = score.Ratchet.Spec().Number(), chance.Count, uint64(n)
	drawn := chance.Below(address, total)
	for i, weight := range shape.Counts {
		if drawn -= weight; drawn < 0 {
			return i + 1
		}
	}
	panic("play: the weights do not add up")
}

// strikes decides whether a strike of a ratchet sounds that is not the first.
func (w *walker) strikes(now *striking, h *hit) bool {
	address := w.chance
	address.Lane, address.Purpose = score.Ratchet.Spec().Number(), chance.Strike
	address.N = h.numbered(now.n)
	return chance.Happens(address, now.shape.OddsOf(h.number))
}

// numbered returns the number of a hit among all hits of the part, where n counts the gate's moves.
func (h *hit) numbered(n int64) uint64 {
	const most = 8 * maxRatchet // strikes of a step; those beyond are numbered apart
	number := uint64(n*most + int64(h.address%most))
	if h.address >= most {
		number |= 1 << 63
	}
	return number
}

// strength returns the velocity of the i-th of the strikes of a step.
func (w *walker) strength(now *striking, i int) uint8 {
	velocity := w.ofCell(func(c *score.Cell) int { return c.Velocity }, w.velocity.read(now.step, now.n))
	if w.sound != nil {
		velocity = score.Rounded(velocity*w.traveller().Velocity, 100)
	}
	if r := now.ratchet; r > 1 {
		velocity += velocity * now.shape.Ramp * i / (100 * (r - 1))
	}
	return uint8(min(127, max(1, velocity)))
}

// share returns where the i-th of r strikes lies in a segment; see score.Spacing and score.StepRatchet.
func share(shape *score.StepRatchet, segment score.Tick, r, i int) exact {
	strikes, at, all := int64(r), int64(i), int64(segment)
	if len(shape.Shares) > 0 {
		before, whole := 0, 0
		for hit := range r {
			if whole += shape.ShareOf(hit); hit < i {
				before += shape.ShareOf(hit)
			}
		}
		return fraction(all*int64(before), int64(whole))
	}
	switch shape.Spacing {
	case score.Gathering:
		return fraction(all*at*(2*strikes-at), strikes*strikes)
	case score.Slackening:
		return fraction(all*at*at, strikes*strikes)
	}
	return fraction(all*at, strikes)
}
