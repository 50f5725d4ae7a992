package entry

import (
	"fmt"
	"slices"

	"jettyfog/internal/core/score"
)

// Struck is a key that a person has struck.
type Struck struct {
	Key      int `json:"key" jsonschema:"minimum=0,maximum=127"`
	Velocity int `json:"velocity" jsonschema:"minimum=1,maximum=127"`
	// Late is how much later it was struck than the place where it is entered has it, and Length how long it was held, in ticks; a length of 0 is
	// as the place has it.
	Late   score.Tick `json:"late,omitempty" jsonschema:"minimum=-80640,maximum=80640"`
	Length score.Tick `json:"length,omitempty" jsonschema:"minimum=0,maximum=20643840"`
}

// Place is where notes are entered.
type Place struct {
	// At is the part; for the notes of a kit any of its parts.
	At score.PartAddress
	// Step is the step of the gate lane, from 0.
	Step int
	// Lanes are the steps at which lanes stand that run loops of their own. Those that are not named are
	// written as many steps from the beginning of their loop as the gate is of its own, over and over.
	Lanes map[score.LaneName]int
	// Nudge is how far off the step they are struck, in percent of it, and Length the value of the length
	// lane; a length of 0 leaves both as they are.
	Nudge, Length int
}

// Step returns the edit that writes notes which were struck together into a step. Those of a kit go to the parts
// with their keys; keys that no part has are left out. The error is a *score.FieldError, or wraps
// score.ErrUnknownTrack or score.ErrUnknownPart.
func Step(p *score.Project, place Place, struck []Struck) (score.Edit, error) {
	track, part, err := find(p, place)
	if err != nil {
		return nil, err
	}
	for _, s := range struck {
		if s.Key < 0 || s.Key > 127 || s.Velocity < 1 || s.Velocity > 127 {
			return nil, &score.FieldError{Field: "the note", Got: fmt.Sprintf("%d with velocity %d", s.Key, s.Velocity), Allowed: "0 to 127 with velocity 1 to 127"}
		}
	}
	if len(struck) == 0 {
		return nil, &score.FieldError{Field: "the number of notes", Got: 0, Allowed: "1 at least"}
	}
	if track.Kind == score.Melodic && len(struck) > score.MaxStepNotes {
		return nil, &score.FieldError{
			Field: "the number of notes struck together", Got: len(struck), Allowed: fmt.Sprintf("at most %d, as many as a step can have", score.MaxStepNotes),
		}
	}
	w := writer{place: place, name: fmt.Sprintf("notes played into step %d", place.Step+1)}
	if track.Kind == score.Melodic {
		w.melodic(p, track, part, struck)
	} else {
		w.kit(track, struck)
	}
	return w.edit()
}

// Chord returns the edit that gives a step of a melodic part the chord that some notes are, on the pitch that it has.
// The error is a *score.FieldError where they are none that has a name, or wraps one of those that Step returns.
func Chord(p *score.Project, place Place, struck []Struck) (score.Edit, error) {
	track, part, err := find(p, place)
	if err != nil {
		return nil, err
	}
	if track.Kind == score.Kit || len(struck) == 0 {
		return nil, &score.FieldError{Field: "the track", Got: "a kit, or nothing was played", Allowed: "melodic, and notes played, for a chord"}
	}
	var keys []int
	for _, s := range struck {
		keys = append(keys, s.Key)
	}
	chord, named := NewSpeller(p.Key, track.Transpose).Kind(keys)
	if !named {
		return nil, &score.FieldError{Field: "the chord", Got: "of notes that no chord of the list has", Allowed: "one of the list, its lowest note the root"}
	}
	w := writer{place: place, name: fmt.Sprintf("chord played into step %d", place.Step+1)}
	w.set(part, place.At, score.Chord, chord)
	return w.edit()
}

// Rest returns the edit that silences a step, Tie the one that has the note before it go on.
func Rest(p *score.Project, place Place) (score.Edit, error) {
	return gate(p, place, score.Off, "rest")
}

// Tie returns the edit that has the note before a step go on over it.
func Tie(p *score.Project, place Place) (score.Edit, error) { return gate(p, place, score.Tie, "tie") }

func gate(p *score.Project, place Place, value int, name string) (score.Edit, error) {
	_, part, err := find(p, place)
	if err != nil {
		return nil, err
	}
	w := writer{place: place, name: fmt.Sprintf("%s in step %d", name, place.Step+1)}
	w.set(part, place.At, score.Gate, value)
	return w.edit()
}

func find(p *score.Project, place Place) (*score.Track, *score.Part, error) {
	track := p.Track(place.At.Track)
	if track == nil {
		return nil, nil, fmt.Errorf("track %d: %w", place.At.Track, score.ErrUnknownTrack)
	}
	part, err := p.Part(place.At)
	if err != nil {
		return nil, nil, err
	}
	if place.Step < 0 || place.Step >= score.MaxSteps {
		return nil, nil, &score.FieldError{Field: "step", Got: place.Step, Allowed: fmt.Sprintf("0 to %d", score.MaxSteps-1)}
	}
	return track, part, nil
}

// writer gathers the values that an entry changes.
type writer struct {
	place Place
	name  string
	edits []score.EditJSON
}

// set writes a value into the step at which a lane of a part stands, unless it is there already.
func (w *writer) set(part *score.Part, at score.PartAddress, name score.LaneName, value int) {
	lane, step := part.Lanes.Lane(name), w.stepOf(part, name)
	spec := name.Spec()
	if value = min(max(value, spec.Least), spec.Most); lane.Steps[step] == value {
		return
	}
	w.edits = append(w.edits, score.EditJSON{SetSteps: &score.SetSteps{
		LaneAddress: score.LaneAddress{PartAddress: at, Lane: name}, Steps: []score.StepValue{{Step: step, Value: value}},
	}})
}

// stepOf returns the step at which a lane of a part stands.
func (w *writer) stepOf(part *score.Part, name score.LaneName) int {
	lane := part.Lanes.Lane(name)
	if name == score.Gate || lane.Linked {
		return w.place.Step
	}
	if step, known := w.place.Lanes[name]; known {
		return step
	}
	return lane.First + max(0, w.place.Step-part.Lanes.Lane(score.Gate).First)%lane.Length
}

// strike writes what all notes of a step share.
func (w *writer) strike(part *score.Part, at score.PartAddress, velocity int) {
	w.set(part, at, score.Gate, score.On)
	w.set(part, at, score.Velocity, velocity)
	w.set(part, at, score.Ratchet, score.Ratchet.Spec().Default)
	w.set(part, at, score.Probability, score.Probability.Spec().Default)
	if w.place.Length > 0 {
		w.set(part, at, score.Nudge, w.place.Nudge)
		w.set(part, at, score.Length, w.place.Length)
	}
}

// melodic writes one note, a chord by its name where that says all of it, or else the notes as they were struck.
func (w *writer) melodic(p *score.Project, track *score.Track, part *score.Part, struck []Struck) {
	speller := NewSpeller(p.Key, track.Transpose)
	velocity := 0
	for _, s := range struck {
		velocity = max(velocity, s.Velocity)
	}
	written := speller.Write(struck, velocity)
	at := w.place.At
	w.strike(part, at, velocity)
	w.set(part, at, score.Pitch, written.Pitch)
	w.set(part, at, score.Octave, written.Octave)
	w.set(part, at, score.Alteration, written.Alteration)
	if len(written.Notes) < 2 {
		w.set(part, at, score.Chord, written.Chord)
	}
	w.own(part, at, written.Notes)
}

// own writes the notes of a step, unless it has them already.
func (w *writer) own(part *score.Part, at score.PartAddress, notes []score.StepNote) {
	step := w.stepOf(part, score.Pitch)
	own := part.Lanes.Lane(score.Pitch).Own[step]
	if slices.Equal(own.Notes, notes) {
		return
	}
	own.Notes, own.Each = notes, own.Each && len(notes) > 1
	w.edits = append(w.edits, score.EditJSON{SetOwn: &score.SetOwn{
		LaneAddress: score.LaneAddress{PartAddress: at, Lane: score.Pitch}, Step: step, Own: own,
	}})
}

func (w *writer) kit(track *score.Track, struck []Struck) {
	at := w.place.At
	parts := track.Pattern(at.Pattern).Parts
	for i := range parts {
		at.Part = parts[i].ID
		for _, s := range struck {
			if parts[i].Note == s.Key {
				w.strike(&parts[i], at, s.Velocity)
			}
		}
	}
}

// ErrSame is returned for notes that are in the step already, or that no part of the kit has.
var ErrSame = &score.FieldError{Field: "what was played", Got: "there already, or no key of the kit", Allowed: "something new"}

func (w *writer) edit() (score.Edit, error) {
	if len(w.edits) == 0 {
		return nil, ErrSame
	}
	return score.All{Name: w.name, Edits: w.edits}, nil
}
