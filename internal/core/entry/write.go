package entry

import (
	"cmp"
	"slices"

	"jettyfog/internal/core/score"
)

// Written is what the lanes and the notes of a step have to hold to sound as what was struck.
type Written struct {
	Pitch, Octave, Alteration, Chord int
	// Notes are empty where one note, or a chord that has a name, says all.
	Notes []score.StepNote
	// Off counts the notes that no degree and alteration quite sounds as.
	Off int
}

// Write spells keys that were struck together, up to score.MaxStepNotes, for a step of a velocity. The lowest is what the lanes hold. Keys that were
// struck alike and make a chord that has a name are that chord; of a key that was struck twice the first counts.
func (s Speller) Write(struck []Struck, velocity int) (w Written) {
	struck = slices.Clone(struck)
	slices.SortStableFunc(struck, func(a, b Struck) int { return cmp.Compare(a.Key, b.Key) })
	struck = slices.CompactFunc(struck, func(a, b Struck) bool { return a.Key == b.Key })
	var keys []int
	alike := true
	for _, one := range struck {
		keys = append(keys, one.Key)
		alike = alike && one.Velocity == struck[0].Velocity && one.Late == struck[0].Late && one.Length == struck[0].Length
	}
	root, alteration, exact := s.Spell(keys[0])
	w.Pitch, w.Octave = s.Split(root)
	w.Alteration = alteration
	if !exact {
		w.Off++
	}
	chord, named := s.Chord(keys)
	if named && alike {
		w.Chord = chord
		struck = struck[:1]
	}
	for i, one := range struck {
		note := score.StepNote{Velocity: one.Velocity - velocity, Nudge: one.Late, Length: one.Length}
		if i > 0 {
			var exact bool
			if note.Degree, note.Octave, note.Alteration, exact = s.above(one.Key, root, alteration); !exact {
				w.Off++
			}
		}
		w.Notes = append(w.Notes, note)
	}
	if len(w.Notes) == 1 && w.Notes[0] == (score.StepNote{}) {
		w.Notes = nil
	}
	return w
}

// above returns how far a key lies above a degree with an alteration.
func (s Speller) above(key, root, alteration int) (degree, octave, semitones int, exact bool) {
	degree, off := s.near(key)
	for degree -= root; degree > score.MaxNoteDegree; octave++ {
		degree -= s.spelling.Notes()
	}
	off -= alteration
	semitones = min(score.MaxNoteAlteration, max(-score.MaxNoteAlteration, off))
	return degree, octave, semitones, semitones == off
}
