package entry

import (
	"fmt"

	"jettyfog/internal/core/score"
)

// NameIt returns the edit that puts the chord that the notes of steps make, in the place of the notes: one that has a name, on the lowest of them. What each
// of them had of its own, of velocity, time and length, is gone then. AsDegrees is the way back: the named chords of steps become notes. Steps to which
// neither can be done stay. The steps are those of the gate, on which both pitch and chord have to sit. The error is a *score.FieldError where nothing can
// be done, or wraps one of those that Step returns.
func NameIt(p *score.Project, at score.PartAddress, steps []int) (score.Edit, error) {
	return converted(p, at, steps, "chord by its name", "the notes of the step", "a chord of the list, its lowest note the root",
		func(speller Speller, part *score.Part, step int) []score.Edit {
			own := part.Lanes.Lane(score.Pitch).Own[step]
			if len(own.Notes) < 2 {
				return nil
			}
			root, chord, named := speller.named(part, step, own.Notes)
			if !named {
				return nil
			}
			own.Notes, own.Each = nil, false
			set := func(name score.LaneName, value int) score.Edit {
				return score.SetSteps{LaneAddress: score.LaneAddress{PartAddress: at, Lane: name}, Steps: []score.StepValue{{Step: step, Value: value}}}
			}
			return []score.Edit{
				score.SetOwn{LaneAddress: score.LaneAddress{PartAddress: at, Lane: score.Pitch}, Step: step, Own: own},
				set(score.Pitch, root), set(score.Chord, chord),
			}
		})
}

// AsDegrees is the way back from NameIt.
func AsDegrees(p *score.Project, at score.PartAddress, steps []int) (score.Edit, error) {
	return converted(p, at, steps, "chord as notes", "the chord of the step", "one of the list, to be notes of its own",
		func(speller Speller, part *score.Part, step int) []score.Edit {
			chord := part.Lanes.Lane(score.Chord).Steps[step]
			if chord == 0 {
				return nil
			}
			own := part.Lanes.Lane(score.Pitch).Own[step]
			single := score.StepNote{}
			if len(own.Notes) == 1 {
				single = own.Notes[0]
			}
			own.Notes = speller.notesOf(part, step, chord, single)
			return []score.Edit{score.SetOwn{LaneAddress: score.LaneAddress{PartAddress: at, Lane: score.Pitch}, Step: step, Own: own}}
		})
}

func converted(
	p *score.Project, at score.PartAddress, steps []int, name, field, allowed string, of func(Speller, *score.Part, int) []score.Edit,
) (score.Edit, error) {
	var edits []score.EditJSON
	for _, step := range steps {
		track, part, err := find(p, Place{At: at, Step: step})
		if err != nil {
			return nil, err
		}
		if !part.Lanes.Lane(score.Pitch).Linked || !part.Lanes.Lane(score.Chord).Linked {
			return nil, &score.FieldError{Field: "the loop of pitch or chord", Got: "independent", Allowed: "the gate's, so that chord and notes are of one step"}
		}
		for _, edit := range of(NewSpeller(p.Key, track.Transpose), part, step) {
			edits = append(edits, score.FormOf(edit))
		}
	}
	if len(edits) == 0 {
		return nil, &score.FieldError{Field: field, Got: "none, or without a name", Allowed: allowed}
	}
	return score.All{Name: fmt.Sprintf("%s, %s", name, score.Counted(len(steps), "step")), Edits: edits}, nil
}

// keyOf returns the MIDI note of a note of a step, wherever that is, and without what chance does.
func (s Speller) keyOf(part *score.Part, step int, n score.StepNote) int {
	value := func(name score.LaneName) int {
		lane := part.Lanes.Lane(name)
		if !lane.Linked {
			return 0 // moves all notes alike
		}
		return lane.Steps[step]
	}
	return s.spelling.Note(s.spelling.Allow(value(score.Pitch)+n.Degree+s.transpose.Degrees)) + value(score.Alteration) + n.Alteration +
		s.spelling.Period()*(value(score.Octave)+n.Octave) + s.transpose.Semitones
}

// named returns the chord that the notes of a step make, and the degree of its root as the pitch lane has it; named is false where it has no name, or the
// pitch lane cannot hold the root.
func (s Speller) named(part *score.Part, step int, notes []score.StepNote) (root, chord int, named bool) {
	var keys []int
	var lowest score.StepNote
	for i, n := range notes {
		key := s.keyOf(part, step, n)
		if keys = append(keys, key); i == 0 || key < s.keyOf(part, step, lowest) {
			lowest = n
		}
	}
	spec := score.Pitch.Spec()
	root = part.Lanes.Lane(score.Pitch).Steps[step] + lowest.Degree
	if lowest.Octave != 0 || lowest.Alteration != 0 || root < spec.Least || root > spec.Most {
		return 0, 0, false
	}
	chord, named = s.Chord(keys)
	return root, chord, named
}

// notesOf returns the notes of a named chord of a step, each with the velocity, nudge and length of the one that the step had.
func (s Speller) notesOf(part *score.Part, step, chord int, single score.StepNote) (notes []score.StepNote) {
	root := s.keyOf(part, step, single)
	degree, off := s.near(root)
	for _, interval := range (score.Voicing{}).Voice(chord, s.spelling.Notes(), s.spelling.Period(), nil) {
		note := single
		if interval.Semitones == 0 {
			note.Degree += interval.Degrees
		} else {
			above, octave, semitones, _ := s.above(root+interval.Semitones, degree, off)
			note.Degree, note.Octave, note.Alteration = note.Degree+above, note.Octave+octave, note.Alteration+semitones
		}
		notes = append(notes, note)
	}
	return notes
}
