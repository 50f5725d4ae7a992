package play

import (
	"slices"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// pitches holds the notes of the degrees that lanes usually reach, because spelling them takes divisions.
type pitches struct {
	spelling theory.Spelling
	tuned    bool
	tuning   theory.Pitches
	notes    [2*usualDegrees + 1]int16
}

const usualDegrees = 100

func newPitches(key theory.Key) *pitches {
	p := &pitches{spelling: key.Spelling(), tuned: key.Tuning != nil, tuning: key.Tuning.Ready()}
	for i := range p.notes {
		p.notes[i] = int16(p.spelling.Note(p.spelling.Allow(i - usualDegrees)))
	}
	return p
}

// note returns the note of the allowed degree that is nearest to a degree.
func (p *pitches) note(degree int) int {
	if at := degree + usualDegrees; at >= 0 && at < len(p.notes) {
		return int(p.notes[at])
	}
	return p.spelling.Note(p.spelling.Allow(degree))
}

// leastShare is what part of its hit a note lasts at least that a strum makes shorter.
const leastShare = 64

// voice appends a note at the pitch that the lanes ask for, or the notes of a chord on it, or those that the step has of its own, as many as there
// are voices for.
func (w *walker) voice(now *striking, h *hit, note Note, dst []Note) []Note {
	at, n := now.step, now.n
	if w.track.Kind == score.Kit {
		note.Key = uint8(w.part.Note)
		return append(dst, note)
	}
	octave := w.pitches.spelling.Period()
	own := w.pitch.ownAt(w.pitch.stepAt(at))
	read, lead := w.pitch.read(at, n), w.track.Transpose.Degrees+now.shape.Walk*h.number
	ofCell, octaves := w.pitchOfCell()
	read += ofCell
	above := octave*octaves + octave*w.octave.read(at, n) + w.alteration.read(at, n) + w.track.Transpose.Semitones
	degree := w.beginHit(now, h, read+lead)
	switch {
	case w.source.OfChord() && len(w.keys) == 0:
		return dst
	case w.source.AtOnce():
		return w.voiceAll(now, h, degree, above, note, dst)
	case own != nil && (len(own.Notes) > 0 || len(own.Allowed) > 0):
		return w.voiceOwn(now, h, &ownNotes{own, degree - lead, lead, above}, note, dst)
	}
	chord := w.chord.read(at, n)
	if chord == 0 {
		w.pitchTo(&note, degree, above)
		return append(dst, note)
	}
	w.intervals = w.part.Voicing.Voice(chord, w.pitches.spelling.Notes(), octave, w.intervals[:0])
	first := len(dst)
	for _, interval := range w.intervals {
		w.pitchTo(&note, degree+interval.Degrees, above+interval.Semitones)
		dst = append(dst, note)
	}
	dst = highest(dst, first, w.track.Voices)
	w.strum(now, h, w.part.Voicing.Strum, dst[first:])
	return dst
}

// voiceAll appends all notes of the chord that the track has its pitches from, as many as there are voices for.
func (w *walker) voiceAll(now *striking, h *hit, degree, above int, note Note, dst []Note) []Note {
	first := len(dst)
	for i := range w.keys {
		w.pitchTo(&note, degree+i, above)
		dst = append(dst, note)
	}
	strum := w.part.Voicing.Strum
	if w.mapped != nil && w.mapped.Strum != 0 {
		strum = w.mapped.Strum
	}
	if strum < 0 {
		slices.Reverse(dst[first:])
	}
	dst = dst[:first+struckOnce(dst[first:])]
	dst = highest(dst, first, w.track.Voices)
	w.strum(now, h, strum, dst[first:])
	return dst
}

// noteOfKey returns the note that a key is: in a tuning the one that sounds nearest to it.
func (p *pitches) noteOfKey(key int) int {
	if !p.tuned {
		return key
	}
	at := theory.Cents(key) * theory.Semitone
	note := p.tuning.Middle() + int(theory.Cents(key-p.tuning.Middle())*theory.Semitone*theory.Cents(p.tuning.Notes())/p.tuning.Period())
	for p.tuning.Sounding(note) > at {
		note--
	}
	for p.tuning.Sounding(note+1) <= at {
		note++
	}
	if p.tuning.Sounding(note+1)-at < at-p.tuning.Sounding(note) {
		note++
	}
	return note
}

// strum spreads the notes of a chord over so many percent of its hit, as Voicing has them.
func (w *walker) strum(now *striking, h *hit, percent int, chord []Note) {
	start := now.placing.at(h.begin, w.aligned)
	strum, lasts := int64(max(percent, -percent)), now.placing.at(h.until, w.aligned).minus(start)
	for i := range chord {
		late := &chord[i]
		least := min(late.End-late.Start, max(1, lasts.whole/leastShare))
		late.Beside = i > 0
		if i > 0 && strum > 0 {
			late.Start = start.over(lasts.den).plus(lasts.times(strum*int64(i), 100*int64(len(chord)-1))).whole
		}
		late.End = max(late.End, late.Start+least)
	}
}

// highest keeps so many of the notes from a place on: the highest, in their order. 0 keeps all.
func highest(notes []Note, from, voices int) []Note {
	for chord := notes[from:]; voices > 0 && len(chord) > voices; chord = notes[from:] {
		lowest := 0
		for i := range chord {
			if chord[i].Key < chord[lowest].Key {
				lowest = i
			}
		}
		notes = slices.Delete(notes, from+lowest, from+lowest+1)
	}
	return notes
}

// pitchTo spells a degree, folds it into the register and gives the note its key.
func (w *walker) pitchTo(n *Note, degree, above int) {
	note := w.noteAt(degree) + above + w.ruled(degree)
	register := w.track.Register
	if !w.pitches.tuned {
		n.Key = uint8(register.Fold(note))
		return
	}
	tuning := &w.pitches.tuning
	if !w.track.Retunes() {
		note += register.Folds(tuning.Key(note), tuning.Span()) * tuning.Notes()
		key := tuning.Key(note)
		n.Key, n.Detune = uint8(key), tuning.Sounding(note)-theory.Cents(key)*theory.Semitone
		return
	}
	for tuning.Nearest(note) < register.Lowest {
		note += tuning.Notes()
	}
	for tuning.Nearest(note) > register.Highest {
		note -= tuning.Notes()
	}
	key := tuning.Nearest(note)
	n.Key, n.Detune = uint8(key), tuning.Sounding(note)-theory.Cents(key)*theory.Semitone
}
