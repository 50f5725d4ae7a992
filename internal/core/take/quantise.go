package take

import (
	"fmt"

	"jettyfog/internal/core/entry"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// Quantise moves the starts of notes towards a grid; they keep their lengths. Strength and swing: common practice.
type Quantise struct {
	Choice
	// Grid is the distance of its lines, which begin with the take.
	Grid score.NoteValue `json:"grid"`
	// Strength is how far a note goes towards its line, in percent of the way, 0 to 100.
	Strength int `json:"strength" jsonschema:"minimum=0,maximum=100"`
	// Swing is the share of a pair of lines' distances that the first takes, in tenths of a percent; 500 is straight.
	Swing int `json:"swing" jsonschema:"minimum=500,maximum=750"`
}

// Label implements Edit.
func (e Quantise) Label() string { return fmt.Sprintf("quantisation to %s", e.Grid) }

func (e Quantise) apply(t *Take) error {
	if e.Grid.Ticks() == 0 {
		return &score.FieldError{Field: "grid", Got: fmt.Sprintf("%.20q", e.Grid), Allowed: "a note value"}
	}
	if e.Strength < 0 || e.Strength > 100 {
		return &score.FieldError{Field: "strength", Got: e.Strength, Allowed: "0 to 100"}
	}
	if err := score.CheckSwing("swing", e.Swing); err != nil {
		return err
	}
	return change(t, e.Choice, func(n *midi.Note) {
		way := (e.line(n.Start) - n.Start) * score.Tick(e.Strength) / 100
		n.Start, n.End = n.Start+way, n.End+way
	})
}

// line returns the line that is nearest to a moment, of two equally near the earlier.
func (e Quantise) line(at score.Tick) score.Tick {
	pair := 2 * e.Grid.Ticks()
	first := at / pair * pair
	nearest := first
	for _, line := range []score.Tick{first + pair*score.Tick(e.Swing)/1000, first + pair} {
		if line-at < at-nearest {
			nearest = line
		}
	}
	return nearest
}

// Fit brings notes that are foreign to a key into its scale, among the notes that it allows. Kits keep their keys unless
// they or their notes are named.
type Fit struct {
	Choice
	Key theory.Key `json:"key"`
	// Direction is where they go: nearest, of two equally near the lower, up or down.
	Direction string `json:"direction" jsonschema:"enum=nearest,enum=up,enum=down"`
}

// Label implements Edit.
func (e Fit) Label() string { return "quantisation to the scale" }

func (e Fit) apply(t *Take) error {
	if err := score.CheckKey(e.Key); err != nil {
		return err
	}
	direction, known := theory.Directions[e.Direction]
	if !known {
		return &score.FieldError{Field: "direction", Got: fmt.Sprintf("%.20q", e.Direction), Allowed: "nearest, up or down"}
	}
	if e.Key.Period() != theory.Octave {
		return &score.FieldError{Field: "key", Got: "a tuning of other than twelve notes", Allowed: "one of twelve, as the keys of a take are"}
	}
	speller := entry.NewSpeller(e.Key, score.Transpose{})
	keeps := t.keepsKeys(e.Choice)
	return change(t, e.Choice, func(n *midi.Note) {
		if !keeps(n.Track) {
			n.Key = uint8(speller.Fit(int(n.Key), direction))
		}
	})
}
