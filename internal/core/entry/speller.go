package entry

import (
	"slices"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// Speller finds what a track has to play in a key to sound as MIDI notes.
type Speller struct {
	spelling  theory.Spelling
	transpose score.Transpose
}

// NewSpeller returns a speller for a track that is transposed.
func NewSpeller(key theory.Key, transpose score.Transpose) Speller {
	return Speller{key.Spelling(), transpose}
}

// Spell returns the degree and the alteration that sound as a MIDI note, or as near to it as there is; exact is
// false where they do not quite.
func (s Speller) Spell(note int) (degree, alteration int, exact bool) {
	degree, off := s.near(note)
	spec := score.Alteration.Spec()
	alteration = min(max(off, spec.Least), spec.Most)
	return degree, alteration, alteration == off
}

// near returns the degree that is nearest to a MIDI note, and how many semitones the note is above it.
func (s Speller) near(note int) (degree, off int) {
	note -= s.transpose.Semitones
	around := s.spelling.Quantise(note, theory.Nearest)
	least := theory.HighestNote
	for d := around - s.spelling.Notes(); d <= around+s.spelling.Notes(); d++ {
		off := note - s.spelling.Note(s.spelling.Allow(d))
		if size(off) < size(least) || d == around && size(off) == size(least) {
			degree, least = d, off
		}
	}
	return degree - s.transpose.Degrees, least
}

// Fit returns the MIDI note of the key's scale that stands for one, among the notes that the key allows.
func (s Speller) Fit(note int, direction theory.Direction) int {
	fitted := s.spelling.Note(s.spelling.Allow(s.spelling.Quantise(note-s.transpose.Semitones, direction))) + s.transpose.Semitones
	for ; fitted > theory.HighestNote; fitted -= s.spelling.Period() {
	}
	for ; fitted < theory.LowestNote; fitted += s.spelling.Period() {
	}
	return fitted
}

// Split returns a degree as the values of the pitch and the octave lane.
func (s Speller) Split(degree int) (pitch, octave int) {
	for spec := score.Pitch.Spec(); degree > spec.Most; octave++ {
		degree -= s.spelling.Notes()
	}
	for spec := score.Pitch.Spec(); degree < spec.Least; octave-- {
		degree += s.spelling.Notes()
	}
	return degree, octave
}

// Chord returns the value of the chord lane that sounds as some MIDI notes on the lowest of them; ok is false if
// none does.
func (s Speller) Chord(notes []int) (chord int, ok bool) {
	keys := slices.Clone(notes)
	slices.Sort(keys)
	keys = slices.Compact(keys)
	if len(keys) == 1 {
		return 0, true
	}
	degree, alteration, _ := s.Spell(keys[0])
	degree += s.transpose.Degrees
	for chord := range score.Chords() {
		var sounds []int
		for _, interval := range (score.Voicing{}).Voice(chord, s.spelling.Notes(), s.spelling.Period(), nil) {
			note := s.spelling.Note(s.spelling.Allow(degree+interval.Degrees)) + alteration + s.transpose.Semitones
			sounds = append(sounds, note+interval.Semitones)
		}
		if slices.Equal(sounds, keys) {
			return chord, true
		}
	}
	return 0, false
}

// Kind returns the value of the chord lane that some MIDI notes are wherever they stand: of degrees where their root is
// in the scale, else of semitones. ok is false if there is none.
func (s Speller) Kind(notes []int) (chord int, ok bool) {
	if _, alteration, _ := s.Spell(slices.Min(notes)); alteration == 0 {
		return s.Chord(notes)
	}
	keys := slices.Clone(notes)
	slices.Sort(keys)
	keys = slices.Compact(keys)
	for i := range keys {
		keys[i] -= slices.Min(notes)
	}
	at := slices.IndexFunc(score.Chords(), func(c score.ChordType) bool { return slices.Equal(c.Semitones, keys) })
	return at, at >= 0
}

// KeyOf returns a key whose scale is just some MIDI notes, on a root if that is among them, else on the lowest.
// A scale that has a name gets it. There must be a note.
func KeyOf(notes []int, root int) theory.Key {
	var classes [theory.Octave]bool
	for _, note := range notes {
		classes[note%theory.Octave] = true
	}
	if root >= theory.Octave || !classes[root] {
		root = slices.Min(notes) % theory.Octave
	}
	key := theory.Key{Root: root, Scale: theory.Custom}
	for above := range theory.Octave {
		if classes[(root+above)%theory.Octave] {
			key.Notes = append(key.Notes, above)
		}
	}
	for _, name := range theory.ScaleNames() {
		if named, _ := theory.ScaleByName(name); slices.Equal(named.Semitones, key.Notes) {
			return theory.Key{Root: root, Scale: name}
		}
	}
	return key
}

func size(n int) int { return max(n, -n) }
