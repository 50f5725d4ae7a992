package score

import (
	"fmt"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"jettyfog/internal/core/theory"
)

// FieldError says which field of a document or an edit was refused, and why.
type FieldError struct {
	// Field is the path to the field as it stands in the JSON form.
	Field string
	// Got is the value that was refused.
	Got any
	// Allowed completes the sentence "it must be …".
	Allowed string
}

func (e *FieldError) Error() string {
	return fmt.Sprintf("%s is %v; it must be %s", e.Field, e.Got, e.Allowed)
}

// Validate returns nil if every field is in its range, else a *FieldError for the first that is not.
func (p *Project) Validate() error {
	if err := checkName("name", p.Name); err != nil {
		return err
	}
	if err := checkRange("tempo", int(p.Tempo), int(MinTempo), int(MaxTempo)); err != nil {
		return err
	}
	if err := p.Meter.validate(); err != nil {
		return err
	}
	if err := checkRange("key.root", p.Key.Root, 0, theory.Octave-1); err != nil {
		return err
	}
	if err := checkListed("key.scale", p.Key.Scale, theory.ScaleNames()); err != nil {
		return err
	}
	if err := p.Luck.validate(); err != nil {
		return err
	}
	if err := checkRange("the number of tracks", len(p.Tracks), 1, MaxTracks); err != nil {
		return err
	}
	for i := range p.Tracks {
		if err := p.Tracks[i].validate(fmt.Sprintf("tracks[%d]", i)); err != nil {
			return err
		}
		if p.Track(p.Tracks[i].ID) != &p.Tracks[i] {
			return &FieldError{fmt.Sprintf("tracks[%d].id", i), p.Tracks[i].ID, "different from every other track's"}
		}
	}
	return nil
}

func (m Meter) validate() error {
	if err := checkRange("meter.beats", m.Beats, 1, 16); err != nil {
		return err
	}
	return checkListed("meter.unit", m.Unit, []int{2, 4, 8, 16})
}

func (l Luck) validate() error {
	if err := checkRange("luck.number", l.Number, 0, MaxLuck); err != nil {
		return err
	}
	if err := checkRange("the number of former lucks", len(l.Former), 0, MaxFormerLuck); err != nil {
		return err
	}
	for i, former := range l.Former {
		if err := checkRange(fmt.Sprintf("luck.former[%d]", i), former, 0, MaxLuck); err != nil {
			return err
		}
	}
	return nil
}

func (t *Track) validate(field string) error {
	if err := checkRange(field+".id", t.ID, 1, 1<<31-1); err != nil {
		return err
	}
	if err := checkName(field+".name", t.Name); err != nil {
		return err
	}
	if err := checkRange(field+".channel", t.Channel, 1, 16); err != nil {
		return err
	}
	if err := checkRange(field+".register.lowest", t.Register.Lowest, theory.LowestNote, theory.HighestNote-theory.Octave+1); err != nil {
		return err
	}
	if err := checkRange(field+".register.highest", t.Register.Highest, t.Register.Lowest+theory.Octave-1, theory.HighestNote); err != nil {
		return err
	}
	for _, spec := range laneSpecs {
		if err := t.Lanes.Lane(spec.Name).validate(field+".lanes."+string(spec.Name), spec); err != nil {
			return err
		}
	}
	return nil
}

func (l *Lane) validate(field string, spec LaneSpec) error {
	if spec.Name == Gate && l.Linked {
		return &FieldError{field + ".linked", true, "false, because the other lanes link to the gate lane"}
	}
	if err := checkRange(field+".length", l.Length, 1, MaxSteps); err != nil {
		return err
	}
	if err := checkListed(field+".rate", l.Rate, noteValues); err != nil {
		return err
	}
	if err := checkListed(field+".order", l.Order, Orders()); err != nil {
		return err
	}
	if len(l.Steps) != MaxSteps {
		return &FieldError{"the number of " + field + ".steps", len(l.Steps), fmt.Sprint(MaxSteps)}
	}
	for i, value := range l.Steps {
		if err := checkRange(fmt.Sprintf("%s.steps[%d]", field, i), value, spec.Least, spec.Most); err != nil {
			return err
		}
	}
	return nil
}

func checkRange(field string, got, least, most int) error {
	if got < least || got > most {
		return &FieldError{field, got, fmt.Sprintf("%d to %d", least, most)}
	}
	return nil
}

func checkListed[T comparable](field string, got T, listed []T) error {
	if slices.Contains(listed, got) {
		return nil
	}
	names := make([]string, len(listed))
	for i, v := range listed {
		names[i] = fmt.Sprint(v)
	}
	return &FieldError{field, fmt.Sprintf("%.40q", fmt.Sprint(got)), "one of " + strings.Join(names, ", ")}
}

func checkName(field, name string) error {
	printable := strings.TrimSpace(name) == name && !strings.ContainsFunc(name, func(r rune) bool { return !unicode.IsPrint(r) })
	if n := utf8.RuneCountInString(name); n < 1 || n > MaxNameRunes || !printable || !utf8.ValidString(name) {
		return &FieldError{field, fmt.Sprintf("%.80q", name), fmt.Sprintf("1 to %d printable characters without spaces around them", MaxNameRunes)}
	}
	return nil
}
