package score

import (
	"fmt"
	"slices"
)

// Bounds of the notes of steps.
const (
	MaxStepNotes      = 8
	MaxProjectNotes   = 16_384 // of all steps of a project that have notes of their own
	MaxNoteDegree     = 56     // above or below what the lanes have
	MaxNoteAlteration = 12
	MaxNoteNudge      = Tick(80_640) // a whole note
)

// StepOwn is what a step of a lane has of its own in place of the lane's; it is never changed. The zero value is as the lane.
type StepOwn struct {
	// Spread varies the value of the step in place of the lane's spread; one whose depth or chance is 0 leaves it as it is written.
	Spread *Spread `json:"spread,omitempty"`
	// Weights, if there are any, are a table from which the value of the step is drawn, in place of the lane's table. If all are 0 the
	// lane's is in force.
	Weights []Weight `json:"weights,omitempty" jsonschema:"maxItems=32"`
	// Allowed, in the pitch lane, are the degrees of the scale, from 0, that the step can play, ascending: after its spread it goes to the nearest
	// of them, in any octave, the lower of two. Those that the scale does not have count for nothing, and where none is left all are allowed.
	Allowed []int `json:"allowed,omitempty" jsonschema:"maxItems=128"`
	// Notes, in the pitch lane, are what the step plays; nothing is one note as the lanes have it. Of two and more the chord lane is not read.
	Notes []StepNote `json:"notes,omitempty" jsonschema:"maxItems=8"`
	// Each says that spread, weights and rolls draw for each of the notes by itself, not once for all of them.
	Each bool `json:"each,omitempty"`
}

// StepNote is one of the notes of a step. The zero value is the note that the lanes have.
type StepNote struct {
	// Degree, Octave and Alteration are how far the note lies above what the lanes have: in degrees of the scale, octaves, and semitones.
	Degree     int `json:"degree,omitempty" jsonschema:"minimum=-56,maximum=56"`
	Octave     int `json:"octave,omitempty" jsonschema:"minimum=-10,maximum=10"`
	Alteration int `json:"alteration,omitempty" jsonschema:"minimum=-12,maximum=12"`
	// Velocity is added to that of the step, after the ramp of a ratchet; the result is kept from 1 to 127.
	Velocity int `json:"velocity,omitempty" jsonschema:"minimum=-126,maximum=126"`
	// Nudge is how much later the note comes than the step's lanes have it, in ticks; earlier below 0.
	Nudge Tick `json:"nudge,omitempty" jsonschema:"minimum=-80640,maximum=80640"`
	// Length is how long the note sounds, in ticks, in place of what the length lane says; 0 is as the lane. Of a ratchet all hits but the last end where the
	// next begins. A step that is tied or slides sounds as long as that asks for.
	Length Tick `json:"length,omitempty" jsonschema:"minimum=0,maximum=20643840"`
}

// isPlain reports whether a step has nothing of its own.
func (o StepOwn) isPlain() bool {
	return o.Spread == nil && len(o.Weights) == 0 && len(o.Allowed) == 0 && len(o.Notes) == 0 && !o.Each
}

// Total returns the sum of the weights.
func (o *StepOwn) Total() (total int) {
	for _, w := range o.Weights {
		total += w.Weight
	}
	return total
}

// Varies reports whether chance changes the value of the step by what it has of its own.
func (o *StepOwn) Varies() bool { return o.Total() > 0 || o.Spread.varies() }

// varies reports whether a spread can change anything.
func (s *Spread) varies() bool { return s != nil && s.Chance > 0 && s.Depth > 0 }

// setOwn sets what a step has of its own; one that has nothing has no entry.
func (l *Lane) setOwn(step int, own StepOwn) {
	if l.Own == nil {
		l.Own = map[int]StepOwn{}
	}
	l.Own[step] = own
	if own.isPlain() {
		delete(l.Own, step)
	}
	if len(l.Own) == 0 {
		l.Own = nil
	}
}

func (o StepOwn) validate(field string, spec LaneSpec) error {
	checks := validateWeights(field+".weights", o.Weights, spec)
	if o.Spread != nil {
		checks = append(checks, o.Spread.validate(field+".spread"))
	}
	if spec.Name == Gate {
		checks = append(checks, &FieldError{field, "given", "left out, because a gate step is on, off or tied"})
	}
	if !spec.Notes && (len(o.Allowed) > 0 || len(o.Notes) > 0 || o.Each) {
		checks = append(checks, &FieldError{field, "of notes", "without allowed, notes and each, which are for the pitch lane"})
	}
	checks = append(checks, checkAscending(field+".allowed", o.Allowed, 0, 127))
	for i, note := range o.Notes {
		same := func(other StepNote) bool {
			return other.Degree == note.Degree && other.Octave == note.Octave && other.Alteration == note.Alteration
		}
		if first := slices.IndexFunc(o.Notes, same); first < i {
			checks = append(checks, &FieldError{
				fmt.Sprintf("%s.notes[%d]", field, i), fmt.Sprintf("the same note as notes[%d]", first), "another note than all others of the step",
			})
		}
	}
	return firstOf(checks)
}

// validateNotes checks how many notes steps of a project have of their own.
func (p *Project) validateNotes() error {
	notes := 0
	for i := range p.Tracks {
		for _, pattern := range p.Tracks[i].Patterns {
			for j := range pattern.Parts {
				for _, own := range pattern.Parts[j].Lanes.Lane(Pitch).Own {
					notes += len(own.Notes)
				}
			}
		}
	}
	return checkRange("the number of notes of all steps that have notes of their own", notes, 0, MaxProjectNotes)
}
