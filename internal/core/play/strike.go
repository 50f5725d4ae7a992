package play

import (
	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// strike appends the notes of the present step, which lasts so long without its stretch. Where it does not
// sound only the first note is told, and nothing moves by it.
func (w *walker) strike(s *step, duration score.Tick, sounds bool, dst []Note) []Note {
	segments, segment := 1, duration
	switch s.strike {
	case strikeEach:
		segments = int(s.stretch)
	case strikeSustain:
		segment *= score.Tick(s.stretch)
	}
	at, n := w.gate.step(), w.gate.drawn
	shift := duration * score.Tick(w.nudge.read(at, n)) / 100
	moment := w.track.Delay + w.drawShift()
	bend := w.swung(w.swings.read(at, n))
	tied := w.lastTied(duration)
	ratchet := w.ratchet.read(at, n)
	slides := w.slide.read(at, n) > 0
	cut := w.cut(s, ratchet, tied)
	for segmentAt := range segments {
		begin := w.local + score.Tick(segmentAt)*duration
		for i := range ratchet {
			if i > 0 && sounds && !w.strikes(n, segmentAt*maxRatchet+i) {
				continue
			}
			goOnAll(w.byStrike)
			from, to := score.Tick(0), segment
			if ratchet > 1 {
				from, to = w.share(segment, ratchet, i), w.share(segment, ratchet, i+1)
			}
			if w.real(begin+from) >= cut { // it belongs to the realigned loop
				return dst
			}
			last := i == ratchet-1 && segmentAt == segments-1
			length := w.length.read(at, n)
			end := begin + from + w.sounding(length, duration, to-from, last)
			note := Note{
				Start: w.real(bend.at(begin+from, w.gate.rate)+shift) + moment,
				Track: uint32(w.track.ID), Part: uint8(w.index), Step: uint8(at), Channel: uint8(w.track.Channel - 1),
				Voices: uint8(w.track.Voices), Overlap: uint16(w.track.Overlap), Velocity: w.strength(at, n, i, ratchet),
			}
			until := w.real(bend.at(end, w.gate.rate) + shift)
			if last && tied.any {
				until = tied.aligned + w.span(bend.at(tied.begin+w.sounding(length, tied.lasts, tied.lasts, true), w.gate.rate)+shift)
			}
			note.End = max(note.Start+1, min(until, cut)+moment)
			hit := w.real(bend.at(begin+to, w.gate.rate)+shift) + moment - note.Start
			if last && slides {
				if aligned, next, ok := w.nextOn(duration); ok {
					note.End = max(note.End, aligned+w.span(bend.at(next, w.gate.rate)+duration/slideOverlap)+moment)
				}
			}
			if sounds {
				w.slideInto(note.Start)
				w.sliding = last && slides
			}
			dst = w.voice(at, n, hit, note, dst)
			if !sounds {
				return dst
			}
			w.use(w.byStrike, w.real(begin+from), note.Start)
		}
	}
	return dst
}

// cut returns the tick at which a realignment cuts what a step plays on beyond it: its stretch, its ratchet, or the
// steps that are tied to it, unless the realigned loop ties on.
func (w *walker) cut(s *step, ratchet int, tied tied) score.Tick {
	boundary := w.boundaryAfter(w.aligned)
	if boundary == 0 || s.stretch == 1 && ratchet == 1 && !tied.any {
		return never
	}
	if tied.any && tied.aligned != w.aligned {
		boundary = w.boundaryAfter(tied.aligned)
	}
	return boundary
}

// slideOverlap is what part of a step, in the project's time, a note that slides lasts into the next one.
const slideOverlap = 8

// maxRatchet is how many strikes a step length has at most.
const maxRatchet = 16

// strikes decides whether a strike of a ratchet sounds.
func (w *walker) strikes(n int64, strike int) bool {
	address := w.chance
	address.Lane, address.Purpose = score.Ratchet.Spec().Number(), chance.Strike
	const most = 8 * maxRatchet // strikes of a step
	address.N = uint64(n*most + int64(strike))
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
