package play

import (
	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// maxRatchet is how many strikes a step length has at most.
const maxRatchet = 16

// strikes decides whether a strike of a ratchet sounds.
func (w *walker) strikes(n int64, strike int) bool {
	address := w.chance
	address.Lane, address.Purpose = score.Ratchet.Spec().Number(), chance.Strike
	const most = 8 * maxRatchet // strikes of a step; those beyond are numbered apart
	address.N = uint64(n*most + int64(strike%most))
	if strike >= most {
		address.N |= 1 << 63
	}
	return chance.Happens(address, w.part.Ratchet.Odds)
}

// strength returns the velocity of the i-th of r strikes.
func (w *walker) strength(at int, n int64, i, r int) uint8 {
	velocity := w.velocity.read(at, n)
	if r > 1 {
		velocity += velocity * w.part.Ratchet.Ramp * i / (100 * (r - 1))
	}
	return uint8(min(127, max(1, velocity)))
}

// share returns where the i-th of r strikes lies in a segment; see score.Spacing.
func (w *walker) share(segment score.Tick, r, i int) exact {
	strikes, at, all := int64(r), int64(i), int64(segment)
	switch w.part.Ratchet.Spacing {
	case score.Gathering:
		return fraction(all*at*(2*strikes-at), strikes*strikes)
	case score.Slackening:
		return fraction(all*at*at, strikes*strikes)
	}
	return fraction(all*at, strikes)
}
