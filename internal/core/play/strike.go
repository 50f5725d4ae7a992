package play

import (
	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// strike appends the notes of the present step. Where it does not sound only the first note is told,
// and nothing moves by it.
func (w *walker) strike(sounds bool, detail score.StepDetail, dst []Note) []Note {
	segments, segment := 1, w.gate.rate
	switch detail.Strike {
	case score.Each:
		segments = max(1, detail.Stretch)
	case score.Sustain:
		segment *= score.Tick(max(1, detail.Stretch))
	}
	step, n := w.gate.step(), w.gate.drawn
	shift := w.gate.rate * score.Tick(w.nudge.read(step, n)) / 100
	moment := w.track.Delay + w.drawShift(n)
	tied := w.tiedSteps(detail)
	ratchet := w.ratchet.read(step, n)
	slides := w.slide.read(step, n) > 0
	for s := range segments {
		begin := w.local + score.Tick(s)*w.gate.rate
		for i := range ratchet {
			if i > 0 && sounds && !w.strikes(n, s*16+i) {
				continue
			}
			from, to := w.share(segment, ratchet, i), w.share(segment, ratchet, i+1)
			last := i == ratchet-1 && s == segments-1
			end := begin + from + w.sounding(step, n, to-from, last)
			if last && tied > 0 {
				lastTied := w.local + score.Tick(max(1, detail.Stretch)+tied-1)*w.gate.rate
				end = lastTied + w.sounding(step, n, w.gate.rate, true)
			}
			note := Note{
				Start: max(0, w.real(w.swung(begin+from)+shift)+moment),
				Track: uint32(w.track.ID), Part: uint8(w.index), Step: uint8(step), Channel: uint8(w.track.Channel - 1),
				Mono: w.track.Mono, Velocity: w.strength(step, n, i, ratchet),
			}
			note.End = max(note.Start+1, w.real(w.swung(end)+shift)+moment)
			if last && slides {
				if next, ok := w.nextOn(detail); ok {
					note.End = max(note.End, w.real(w.swung(next))+w.gate.rate/slideOverlap+moment)
				}
			}
			if sounds {
				w.slideInto(note.Start)
				w.sliding = last && slides
			}
			dst = w.voice(step, n, note, dst)
			if !sounds {
				return dst
			}
			w.use(w.byStrike, w.real(begin+from))
		}
	}
	return dst
}

// slideOverlap is what part of a step a note that slides lasts into the next one.
const slideOverlap = 8

// nextOn returns when the next step that is on comes, in local time; ok is false if none comes before the
// lanes are aligned, or none is on.
func (w *walker) nextOn(detail score.StepDetail) (local score.Tick, ok bool) {
	ahead, time, boundary := w.gate, w.local, w.boundary()
	stretch := max(1, detail.Stretch)
	for range score.MaxSteps {
		time += score.Tick(stretch) * w.gate.rate
		ahead.advance()
		for skipped := 0; skipped < score.MaxSteps && w.details[ahead.step()].Skip; skipped++ {
			ahead.advance()
		}
		if boundary > 0 && w.real(time) >= boundary {
			return 0, false
		}
		if ahead.lane.Steps[ahead.step()] == score.On {
			return time, true
		}
		stretch = max(1, w.details[ahead.step()].Stretch)
	}
	return 0, false
}

// share returns where the i-th of r strikes lies in a segment; see score.Spacing.
func (w *walker) share(segment score.Tick, r, i int) score.Tick {
	strikes, at := score.Tick(r), score.Tick(i)
	switch w.part.Ratchet.Spacing {
	case score.Gathering:
		return segment * at * (2*strikes - at) / (strikes * strikes)
	case score.Slackening:
		return segment * at * at / (strikes * strikes)
	}
	return segment * at / strikes
}

// strikes decides whether a strike of a ratchet sounds.
func (w *walker) strikes(n int64, strike int) bool {
	address := w.chance
	address.Lane, address.Purpose = score.Ratchet.Spec().Number(), chance.Strike
	const most = 8 * 16 // strikes of a step
	address.N = uint64(n*most + int64(strike))
	return chance.Happens(address, w.part.Ratchet.Odds)
}

// sounding returns how long a note sounds that has the given room; only the last one of a step can
// last longer than that.
func (w *walker) sounding(step int, n int64, room score.Tick, last bool) score.Tick {
	length := w.length.read(step, n)
	if length <= score.WholeStep {
		return max(1, room*score.Tick(length)/score.WholeStep)
	}
	if !last {
		return room
	}
	return w.gate.rate * score.Tick(length-score.WholeStep+1)
}

// tiedSteps returns how many steps after the present one are tied to it.
func (w *walker) tiedSteps(detail score.StepDetail) int {
	ahead := w.gate
	time := w.local + score.Tick(max(1, detail.Stretch))*w.gate.rate
	tied := 0
	for tied < score.MaxSteps {
		ahead.advance()
		for range score.MaxSteps {
			if !w.details[ahead.step()].Skip {
				break
			}
			ahead.advance()
		}
		boundary := w.boundary()
		if ahead.lane.Steps[ahead.step()] != score.Tie || boundary > 0 && w.real(time) >= boundary {
			return tied
		}
		stretch := max(1, w.details[ahead.step()].Stretch)
		tied += stretch
		time += score.Tick(stretch) * w.gate.rate
	}
	return tied
}

// voice appends a note at the pitch that the lanes ask for, or the notes of a chord on it.
func (w *walker) voice(step int, n int64, note Note, dst []Note) []Note {
	if w.track.Kind == score.Kit {
		note.Key = uint8(w.part.Note)
		return append(dst, note)
	}
	degree := w.pitch.read(step, n) + w.track.Transpose.Degrees
	above := theory.Octave*w.octave.read(step, n) + w.track.Transpose.Semitones
	chord := w.chord.read(step, n)
	if chord == 0 {
		note.Key = w.key(degree, above)
		return append(dst, note)
	}
	degrees := w.part.Voicing.Voice(chord, w.spelling.Notes())
	strum := w.gate.rate * score.Tick(max(w.part.Voicing.Strum, -w.part.Voicing.Strum)) / 100
	start := note.Start
	for i, interval := range degrees {
		note.Start = start + strum*score.Tick(i)/score.Tick(max(1, len(degrees)-1))
		note.End = max(note.End, note.Start+1)
		note.Key = w.key(degree+interval, above)
		dst = append(dst, note)
	}
	return dst
}

// key spells a degree and folds it into the register.
func (w *walker) key(degree, semitones int) uint8 {
	return uint8(w.track.Register.Fold(w.spelling.Note(w.spelling.Allow(degree)) + semitones))
}

// strength returns the velocity of the i-th of r strikes.
func (w *walker) strength(step int, n int64, i, r int) uint8 {
	velocity := w.velocity.read(step, n)
	if r > 1 {
		velocity += velocity * w.part.Ratchet.Ramp * i / (100 * (r - 1))
	}
	return uint8(min(127, max(1, velocity)))
}

// swung bends local time, so that of each pair of gate steps the first takes the share of the swing.
func (w *walker) swung(local score.Tick) score.Tick {
	if w.swing == 50 {
		return local
	}
	pair := 2 * w.gate.rate
	within := local % pair
	pairs := local - within
	if within < w.gate.rate {
		return pairs + within*w.swing/50
	}
	return pairs + pair*w.swing/100 + (within-w.gate.rate)*(100-w.swing)/50
}

// drawShift draws how far jitter shifts the step's notes.
func (w *walker) drawShift(n int64) score.Tick {
	if w.jitter == 0 {
		return 0
	}
	address := w.chance
	address.Lane, address.Purpose, address.N = score.Nudge.Spec().Number(), chance.Shift, uint64(n)
	return score.Tick(chance.Below(address, 2*int(w.jitter)+1)) - w.jitter
}
