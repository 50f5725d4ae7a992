package play

import (
	"cmp"
	"slices"

	"jettyfog/internal/core/score"
)

// ownNotes are what a step plays that has notes, or allowed notes, of its own.
type ownNotes struct {
	*ownStep
	read  int // what the pitch lane has, once for all notes
	lead  int // degrees by transposition and the walk of a ratchet
	above int // semitones by the other lanes and transposition
}

// theOne is the notes of a step that has none of its own.
var theOne = []score.StepNote{{}}

// voiceOwn appends the notes of a step that has some of its own. Those that come to one key are struck once.
func (w *walker) voiceOwn(now *striking, h *hit, own *ownNotes, note Note, dst []Note) []Note {
	notes := own.Notes
	if len(notes) == 0 {
		notes = theOne
	}
	w.lay(now, own, notes)
	first, usual := len(dst), note
	for _, interval := range w.intervals {
		w.pitchTo(&note, interval.Degrees, interval.Semitones)
		note.Velocity = uint8(min(127, max(1, int(usual.Velocity)+notes[interval.Note].Velocity)))
		dst = append(dst, note)
	}
	voices := dst[first:]
	w.strum(now, h, w.part.Voicing.Strum, voices)
	for i := range voices {
		w.time(now, h, &voices[i], notes[w.intervals[i].Note])
	}
	if len(voices) > 1 {
		slices.SortStableFunc(voices, func(a, b Note) int { return cmp.Compare(a.Start, b.Start) })
		dst = highest(dst[:first+struckOnce(voices)], first, w.track.Voices)
		for i := range dst[first:] {
			dst[first+i].Beside = i > 0
		}
	}
	return dst
}

// lay finds the degrees and semitones of the notes of a step, or of the named chord on the one that it has, in the order in which they are
// struck.
func (w *walker) lay(now *striking, own *ownNotes, notes []score.StepNote) {
	octave := w.pitches.spelling.Period()
	w.intervals = w.intervals[:0]
	for i, note := range notes {
		read := own.read
		if own.Each && i > 0 && !w.pitch.plain {
			read = w.pitch.vary(w.pitch.stepAt(now.step), now.n, uint8(i))
		}
		degree := read + note.Degree
		if own.nearest != nil {
			degree += own.nearest[floorMod(degree, len(own.nearest))]
		}
		w.intervals = append(w.intervals, score.Interval{
			Degrees: degree + own.lead, Semitones: own.above + note.Alteration + octave*note.Octave, Note: i,
		})
	}
	if len(notes) == 1 {
		root := w.intervals[0]
		w.intervals = w.part.Voicing.Voice(w.chord.read(now.step, now.n), w.pitches.spelling.Notes(), octave, w.intervals[:0])
		for i := range w.intervals {
			w.intervals[i] = score.Interval{Degrees: w.intervals[i].Degrees + root.Degrees, Semitones: w.intervals[i].Semitones + root.Semitones}
		}
		return
	}
	slices.SortStableFunc(w.intervals, func(a, b score.Interval) int {
		return cmp.Compare(w.noteAt(a.Degrees)+a.Semitones, w.noteAt(b.Degrees)+b.Semitones)
	})
	w.part.Voicing.Lay(w.intervals, score.Interval{Semitones: octave})
}

// time gives a note the nudge and the length that it has of its own. A step that is tied or slides lasts as long as that asks for, and a hit at most
// until the next one.
func (w *walker) time(now *striking, h *hit, n *Note, own score.StepNote) {
	n.Start, n.End = n.Start+own.Nudge, n.End+own.Nudge
	if own.Length > 0 && !(h.last && (now.tied.any || now.slides)) {
		n.End = n.Start + own.Length
		if !h.last {
			n.End = min(n.End, now.placing.at(h.until, w.aligned).whole+own.Nudge)
		}
	}
	if now.cut != never {
		n.End = min(n.End, now.cut+now.placing.later)
	}
	n.End = max(n.End, n.Start+1)
}

// struckOnce makes notes of one key the first of them, as loud as the loudest and until the last ends, and returns how many are left. They are
// in the order of their starts.
func struckOnce(notes []Note) (left int) {
	for _, n := range notes {
		same := func(other Note) bool { return other.Key == n.Key && other.Detune == n.Detune }
		if at := slices.IndexFunc(notes[:left], same); at >= 0 {
			first := &notes[at]
			first.End, first.Velocity = max(first.End, n.End), max(first.Velocity, n.Velocity)
			continue
		}
		notes[left] = n
		left++
	}
	return left
}

// floorMod returns the remainder of a division that rounds down.
func floorMod(number, by int) int { return number - by*floorDiv(number, by) }
