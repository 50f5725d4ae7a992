package play

import (
	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// strike appends the notes of the present step, which lasts so long without its stretch. Where it does not
// sound only the first note is told, and nothing moves by it.
func (w *walker) strike(s *step, duration score.Tick, sounds bool, dst []Note) []Note {
	at, n := w.gate.Step(), w.gate.Drawn
	placing := placing{
		w: w, swing: w.swung(w.swings.read(at, n)),
		nudge: int64(duration) * int64(w.nudge.read(at, n)), later: w.track.Delay + w.drawShift(),
	}
	tied := w.lastTied(duration)
	ratchet := w.ratchet.read(at, n)
	slides := w.slide.read(at, n) > 0
	struck, cut := w.cut(s, ratchet, tied)
	for place, part := range s.struck {
		begin := w.local + score.Tick(part.first)*duration
		segment := duration * score.Tick(part.lengths)
		for i := range ratchet {
			from, to := exactly(0), exactly(segment)
			if ratchet > 1 {
				from, to = w.share(segment, ratchet, i), w.share(segment, ratchet, i+1)
			}
			due := w.realOf(from.after(begin), w.aligned).whole
			if due >= struck { // it belongs to the realigned loop
				return dst
			}
			if i > 0 && sounds && !w.strikes(n, place*maxRatchet+i) {
				continue
			}
			goOnAll(w.byStrike)
			next, last := to.after(begin), i == ratchet-1 && place == len(s.struck)-1
			if i == ratchet-1 && !last {
				next = exactly(w.local + score.Tick(s.struck[place+1].first)*duration)
			}
			last = last || w.realOf(next, w.aligned).whole >= struck
			length := w.length.read(at, n)
			until := from.after(begin).plus(w.sounding(length, duration, to.minus(from), last))
			ends := placing.at(until, w.aligned)
			if last && tied.any {
				ends = placing.at(w.sounding(length, tied.lasts, exactly(tied.lasts), true).after(tied.begin), tied.aligned)
			}
			start := placing.at(from.after(begin), w.aligned)
			note := Note{
				Start: start.whole, Track: uint32(w.track.ID), Part: uint8(w.part.ID), Step: uint8(at),
				Velocity: w.strength(at, n, i, ratchet),
			}
			note.End = ends.whole
			if cut != never {
				note.End = min(note.End, cut+placing.later)
			}
			note.End = max(note.Start+1, note.End)
			if last && slides {
				if aligned, next, ok := w.nextOn(duration); ok {
					overlap := placing
					overlap.nudge = int64(duration) * 100 / slideOverlap
					note.End = max(note.End, overlap.at(exactly(next), aligned).whole)
				}
			}
			if sounds {
				w.slideInto(note.Start)
				w.sliding = last && slides
			}
			dst = w.voice(at, n, hit{&placing, start, to.after(begin)}, note, dst)
			if !sounds {
				return dst
			}
			w.use(w.byStrike, due, note.Start)
		}
	}
	return dst
}

// cut returns the ticks at which a realignment cuts what a step plays on beyond it: its strikes, which are the realigned
// loop's from there on, and the last one's length, unless the realigned loop ties on.
func (w *walker) cut(s *step, ratchet int, tied tied) (strikes, length score.Tick) {
	boundary := w.boundaryAfter(w.aligned)
	if boundary == 0 || s.stretch == 1 && ratchet == 1 && !tied.any {
		return never, never
	}
	if tied.any && tied.aligned != w.aligned {
		return boundary, w.boundaryAfter(tied.aligned)
	}
	return boundary, boundary
}

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
