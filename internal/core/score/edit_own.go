package score

import (
	"fmt"
	"slices"
)

// SetOwn changes what a step of a lane has of its own. A step that gets several notes loses the named chord that it had where pitch and chord
// both sit on the gate's step.
type SetOwn struct {
	LaneAddress
	Step int     `json:"step" jsonschema:"minimum=0,maximum=63"`
	Own  StepOwn `json:"own"`
}

// Label implements Edit.
func (e SetOwn) Label() string {
	if len(e.Own.Notes) > 0 {
		return fmt.Sprintf("notes of step %d", e.Step+1)
	}
	return fmt.Sprintf("%s chance of step %d", e.Lane, e.Step+1)
}

func (e SetOwn) apply(p *Project) (Edit, error) {
	if err := checkRange("step", e.Step, 0, MaxSteps-1); err != nil {
		return nil, err
	}
	lane, inverse, err := p.own(e.LaneAddress)
	if err != nil {
		return nil, err
	}
	// What one step had is less to keep than the lane, but several notes would take a named chord away that is there too.
	before := lane.Own[e.Step]
	if restore, _ := inverse.(RestoreLane); restore.Value != nil && (len(before.Notes) < 2 || !p.namesChord(e.PartAddress, e.Step)) {
		inverse = SetOwn{LaneAddress: e.LaneAddress, Step: e.Step, Own: before}
	}
	lane.setOwn(e.Step, e.Own)
	if len(e.Own.Notes) < 2 {
		return inverse, nil
	}
	return p.alsoWriting(e.LaneAddress, Chord, inverse, func(chord *Lane) bool {
		had := chord.Steps[e.Step] != 0
		chord.Steps[e.Step] = 0
		return had
	}), nil
}

// namesChord reports whether a step of a part, which must exist, has a named chord.
func (p *Project) namesChord(a PartAddress, step int) bool {
	part, err := p.Part(a)
	return err == nil && part.Lanes.Has(Chord) && part.Lanes.Lane(Chord).Steps[step] != 0
}

// alsoWriting changes another lane of the part together with one, where both sit on the gate's step, and returns the edit that undoes
// both. What was written last is what is heard: so a chord takes the place of notes, and they of it.
func (p *Project) alsoWriting(a LaneAddress, other LaneName, inverse Edit, change func(*Lane) bool) Edit {
	part, err := p.Part(a.PartAddress)
	if err != nil || !part.Lanes.Has(other) || !part.Lanes.Lane(other).Linked || !part.Lanes.Lane(a.Lane).Linked {
		return inverse
	}
	before := part.Lanes.Lane(other).Clone()
	if !change(part.Lanes.Lane(other)) {
		return inverse
	}
	return all("back", RestoreLane{LaneAddress{a.PartAddress, other}, before}, inverse)
}

// writtenOver takes from the notes of steps what values written into another lane say anew: a chord takes the place of several notes, and
// a length that of notes' own lengths.
func (e SetSteps) writtenOver(pitch *Lane) (changed bool) {
	for _, s := range e.Steps {
		own, has := pitch.Own[s.Step]
		switch {
		case !has:
			continue
		case e.Lane == Chord && s.Value != 0 && len(own.Notes) > 1:
			own.Notes = nil
		case e.Lane == Length && slices.ContainsFunc(own.Notes, func(n StepNote) bool { return n.Length != 0 }):
			own.Notes = slices.Clone(own.Notes)
			for i := range own.Notes {
				own.Notes[i].Length = 0
			}
			own.Notes = tidied(own.Notes)
		default:
			continue
		}
		pitch.setOwn(s.Step, own)
		changed = true
	}
	return changed
}

// tidied returns notes, or none if they are the one note that the lanes have.
func tidied(notes []StepNote) []StepNote {
	if len(notes) == 1 && notes[0] == (StepNote{}) {
		return nil
	}
	return notes
}

// ToggleNote adds a note to a step of the pitch lane, or takes it away. What is left is at least one note, the lowest of which is the value of the
// lane if that had none.
type ToggleNote struct {
	PartAddress
	Step int `json:"step" jsonschema:"minimum=0,maximum=63"`
	// Degree is that of the key, as in the pitch lane.
	Degree int `json:"degree" jsonschema:"minimum=-28,maximum=28"`
}

// Label implements Edit.
func (e ToggleNote) Label() string { return fmt.Sprintf("a note of step %d", e.Step+1) }

func (e ToggleNote) apply(p *Project) (Edit, error) {
	part, err := p.Part(e.PartAddress)
	if err == nil {
		err = checkRange("step", e.Step, 0, MaxSteps-1)
	}
	if err != nil {
		return nil, err
	}
	lane := part.Lanes.Lane(Pitch)
	own, value := lane.Own[e.Step], lane.Steps[e.Step]
	notes := slices.Clone(own.Notes)
	if len(notes) == 0 {
		notes = []StepNote{{}}
	}
	above := e.Degree - value
	at := slices.IndexFunc(notes, func(n StepNote) bool { return n.Degree == above && n.Octave == 0 && n.Alteration == 0 })
	switch {
	case at >= 0 && len(notes) == 1:
		return nil, &FieldError{"the number of notes of the step", 0, "1 at least; switch its gate off to silence it"}
	case at >= 0:
		notes = slices.Delete(notes, at, at+1)
	case len(notes) == MaxStepNotes:
		return nil, &FieldError{"the number of notes of the step", MaxStepNotes + 1, fmt.Sprintf("at most %d; take one away first", MaxStepNotes)}
	default:
		notes = append(notes, StepNote{Degree: above})
	}
	byDegree := func(a, b StepNote) int { return a.Degree - b.Degree }
	lowest, highest := slices.MinFunc(notes, byDegree).Degree, slices.MaxFunc(notes, byDegree).Degree
	fits := value+lowest >= Pitch.Spec().Least && value+lowest <= Pitch.Spec().Most && highest-lowest <= MaxNoteDegree
	if fits && !slices.ContainsFunc(notes, func(n StepNote) bool { return n.Degree == 0 && n.Octave == 0 }) {
		value += lowest
		for i := range notes {
			notes[i].Degree -= lowest
		}
	}
	own.Notes = tidied(notes)
	a := LaneAddress{e.PartAddress, Pitch}
	return all("notes",
		SetSteps{LaneAddress: a, Steps: []StepValue{{e.Step, value}}}, SetOwn{LaneAddress: a, Step: e.Step, Own: own},
	).apply(p)
}
