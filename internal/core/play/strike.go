package play

import "jettyfog/internal/core/score"

// striking is what holds for all hits of the present step.
type striking struct {
	step     int
	n        int64 // the gate's moves since the luck began
	duration score.Tick
	placing  placing
	ratchet  int // how many hits
	shape    *score.StepRatchet
	slides   bool
	tied     tied
	cut      score.Tick // where a realignment cuts the last note, or never
}

// hit is one of the strikes of a step. Its times are the walker's own.
type hit struct {
	number  int // of its ratchet, from 0
	address int // of its luck
	begin   exact
	until   exact      // when the next one would come, in the segment or after it
	room    exact      // how long it lasts at most, unless it is the last
	due     score.Tick // of the project, before swing, nudge, jitter and delay
	last    bool       // of the step
}

// strike appends the notes of the present step, which lasts so long without its stretch. Where decisions are watched it
// returns all hits, those too that are silent; nothing moves by these.
func (w *walker) strike(s *step, duration score.Tick, sounds bool, dst []Note) (notes []Note, hits []Hit) {
	now := w.striking(s, duration)
	w.findHits(s, &now)
	watched := w.decided != nil
	for i := range w.hits {
		h := &w.hits[i]
		happens := h.number == 0 || w.strikes(&now, h)
		if !happens || !sounds {
			if watched {
				hits = append(hits, w.hitOf(&now, h, happens, w.voice(&now, h, w.noteOf(&now, h), nil)))
			}
			continue
		}
		goOnAll(w.byStrike)
		first := len(dst)
		if dst = w.voice(&now, h, w.noteOf(&now, h), dst); len(dst) == first { // a chord without notes
			continue
		}
		w.struck++
		start := dst[first].Start
		w.slideInto(start)
		w.sliding = h.last && now.slides
		if watched {
			hits = append(hits, w.hitOf(&now, h, true, dst[first:]))
		}
		w.use(w.byStrike, h.due, start)
	}
	return dst, hits
}

// striking reads the lanes that hold for all hits of the present step.
func (w *walker) striking(s *step, duration score.Tick) striking {
	at, n := w.gate.Step(), w.gate.DrawIndex
	return striking{
		step: at, n: n, duration: duration,
		placing: placing{
			w: w, swing: w.swung(w.swings.read(at, n)),
			nudge: int64(duration) * int64(w.nudge.read(at, n)), later: w.track.Delay + w.drawShift(),
		},
		tied: w.lastTied(duration), ratchet: w.count(s.ratchet, at, n), shape: s.ratchet, slides: w.slide.read(at, n) > 0, cut: never,
	}
}

// findHits finds the hits of a step: a ratchet's in each segment of it. Those that come where the lanes are realigned or
// later are the realigned loop's.
func (w *walker) findHits(s *step, now *striking) {
	w.hits = w.hits[:0]
	struck := never
	if boundary := w.boundaryAfter(w.aligned); boundary > 0 && (s.stretch > 1 || now.ratchet > 1 || now.tied.any) {
		struck, now.cut = boundary, boundary
		if now.tied.any && now.tied.aligned != w.aligned { // the realigned loop ties on
			now.cut = w.boundaryAfter(now.tied.aligned)
		}
	}
	for place, part := range s.struck {
		begin := w.local + score.Tick(part.first)*now.duration
		segment := now.duration * score.Tick(part.lengths)
		for i := range now.ratchet {
			from, to := exactly(0), exactly(segment)
			if now.ratchet > 1 {
				from, to = share(now.shape, segment, now.ratchet, i), share(now.shape, segment, now.ratchet, i+1)
			}
			h := hit{number: i, address: place*maxRatchet + i, begin: from.after(begin), until: to.after(begin), room: to.minus(from)}
			if h.due = w.realOf(h.begin, w.aligned).whole; h.due >= struck {
				return
			}
			next := h.until
			if i == now.ratchet-1 && place < len(s.struck)-1 {
				next = exactly(w.local + score.Tick(s.struck[place+1].first)*now.duration)
			}
			h.last = i == now.ratchet-1 && place == len(s.struck)-1 || w.realOf(next, w.aligned).whole >= struck
			w.hits = append(w.hits, h)
		}
	}
}

// noteOf returns the note of a hit, without its pitch.
func (w *walker) noteOf(now *striking, h *hit) Note {
	note := Note{
		Start: now.placing.at(h.begin, w.aligned).whole, Track: uint32(w.track.ID), Part: uint8(w.part.ID), Pattern: uint8(w.track.Playing), Step: uint8(now.step),
		Velocity: w.strength(now, h.number),
	}
	if w.sound != nil {
		note.Traveller = uint8(w.traveller().ID)
	}
	length := w.ofCell(func(c *score.Cell) int { return c.Length }, w.length.read(now.step, now.n))
	if tied := &now.tied; h.last && tied.any {
		note.End = now.placing.at(w.sounding(length, tied.lasts, exactly(tied.lasts), true).after(tied.begin), tied.aligned).whole
	} else {
		note.End = now.placing.at(h.begin.plus(w.sounding(length, now.duration, h.room, h.last)), w.aligned).whole
	}
	if now.cut != never {
		note.End = min(note.End, now.cut+now.placing.later)
	}
	if w.sound != nil && w.traveller().OneVoice {
		note.End = min(note.End, now.placing.at(exactly(w.local+now.duration), w.aligned).whole)
	}
	note.End = max(note.Start+1, note.End)
	if h.last && now.slides {
		note.End = max(note.End, w.slideEnd(now))
	}
	return note
}
