package score

import (
	"fmt"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"jettyfog/internal/core/bounds"
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
	return p.validate(func(int) bool { return true })
}

// validate is Validate, where only some tracks have to be looked at, by their ids: what a track may be depends, beside its own content and what is checked of the project, only
// on which other tracks there are.
func (p *Project) validate(looksAt func(track int) bool) error {
	if err := CheckName("name", p.Name); err != nil {
		return err
	}
	if err := checkTempo("tempo", p.Tempo); err != nil {
		return err
	}
	if err := CheckBounds(projectBounds, p); err != nil {
		return err
	}
	if err := p.validateTempoChanges(); err != nil {
		return err
	}
	for i, recipe := range p.Recipes {
		if err := recipe.validate(fmt.Sprintf("recipes[%d]", i)); err != nil {
			return err
		}
	}
	if err := firstOf([]error{validateSwitches(p.Switches), validateMappings(p.Mappings), p.validateMacros()}); err != nil {
		return err
	}
	if err := p.validateMeters(); err != nil {
		return err
	}
	if err := CheckKey(p.Key); err != nil {
		return err
	}
	if err := p.Luck.validate(); err != nil {
		return err
	}
	if err := firstOf([]error{CheckSwing("swing", p.Swing), checkListed("swingGrid", p.SwingGrid, SwingGrids())}); err != nil {
		return err
	}
	parts := 0
	for i := range p.Tracks {
		if looksAt(p.Tracks[i].ID) {
			if err := p.Tracks[i].validate(fmt.Sprintf("tracks[%d]", i), p); err != nil {
				return err
			}
		}
		for _, pattern := range p.Tracks[i].Patterns {
			parts += len(pattern.Parts)
		}
		if p.Track(p.Tracks[i].ID) != &p.Tracks[i] {
			return &FieldError{fmt.Sprintf("tracks[%d].id", i), p.Tracks[i].ID, "different from every other track's"}
		}
	}
	if err := p.validateSong(); err != nil {
		return err
	}
	if err := p.validateSources(); err != nil {
		return err
	}
	if err := p.validateTuned(); err != nil {
		return err
	}
	if err := p.validateChordMaps(); err != nil {
		return err
	}
	if err := p.validateFieldLayers(); err != nil {
		return err
	}
	if err := p.validateModulators(); err != nil {
		return err
	}
	if err := p.validateOutputs(); err != nil {
		return err
	}
	if err := p.validateInputs(); err != nil {
		return err
	}
	if err := p.validateNotes(); err != nil {
		return err
	}
	return checkRange("the number of parts of all patterns", parts, 1, MaxAllParts)
}

func (p *Project) validateTempoChanges() error {
	before := Tick(0)
	for i, change := range p.TempoChanges {
		at := fmt.Sprintf("tempoChanges[%d]", i)
		if err := firstOf([]error{
			checkRange(at+".tick", int(change.Tick), int(before)+1, int(LastTick)),
			checkTempo(at+".tempo", change.Tempo),
		}); err != nil {
			return err
		}
		before = change.Tick
	}
	return nil
}

// CheckKey refuses a key that is not valid. The error is a *FieldError, or a *FileError about its tuning.
func CheckKey(k theory.Key) error {
	if k.Tuning != nil {
		if err := k.Tuning.Validate(); err != nil {
			return &FileError{"key.tuning: " + err.Error()}
		}
	}
	if err := checkRange("key.root", k.Root, 0, k.Period()-1); err != nil {
		return err
	}
	if k.Scale == theory.Custom {
		if err := checkAscending("key.notes", k.Notes, 0, k.Period()-1); err != nil {
			return err
		}
		if len(k.Notes) == 0 || k.Notes[0] != 0 {
			return &FieldError{"key.notes", k.Notes, "begun by the root, 0"}
		}
	} else if k.Period() != theory.Octave {
		if err := checkListed("key.scale", k.Scale, []string{theory.Chromatic, theory.Custom}); err != nil {
			return err
		}
	} else if err := checkListed("key.scale", k.Scale, append(theory.ScaleNames(), theory.Custom)); err != nil {
		return err
	}
	return checkAscending("key.allowed", k.Allowed, 0, k.Spelling().Notes()-1)
}

// Valid reports whether the meter is one that a project can have.
func (m Meter) Valid() bool { return m.validate("meter") == nil }

func (m Meter) validate(field string) error {
	if err := checkRange(field+".beats", m.Beats, 1, 16); err != nil {
		return err
	}
	if err := checkListed(field+".unit", m.Unit, []int{2, 4, 8, 16}); err != nil || len(m.Groups) == 0 {
		return err
	}
	sum := 0
	for i, group := range m.Groups {
		if err := checkRange(fmt.Sprintf("%s.groups[%d]", field, i), group, 1, m.Beats); err != nil {
			return err
		}
		sum += group
	}
	if sum != m.Beats {
		return &FieldError{"the sum of " + field + ".groups", sum, fmt.Sprintf("%d, the number of beats", m.Beats)}
	}
	return nil
}

func (p *Project) validateMeters() error {
	if err := p.Meter.validate("meter"); err != nil {
		return err
	}
	first := 1
	for i, change := range p.MeterChanges {
		field := fmt.Sprintf("meterChanges[%d]", i)
		if err := checkRange(field+".bar", change.Bar, first, MaxMeterBar); err != nil {
			return err
		}
		if err := change.Meter.validate(field + ".meter"); err != nil {
			return err
		}
		first = change.Bar + 1
	}
	return nil
}

func (l Luck) validate() error {
	for i, former := range l.Former {
		if err := checkRange(fmt.Sprintf("luck.former[%d]", i), former, 0, MaxLuck); err != nil {
			return err
		}
	}
	return nil
}

// The bounds that stand in the tags of a project, and of a spread.
var (
	projectBounds = bounds.For[Project]()
	spreadBounds  = bounds.For[Spread]()
)

// CheckBounds refuses what is out of the bounds that stand in the tags of a type. The error is a *FieldError.
func CheckBounds[T any](b bounds.Bounds[T], value *T) error {
	if v, broken := b.Check(value); broken {
		return &FieldError{v.Field, v.Got, v.Allowed()}
	}
	return nil
}

func checkRange(field string, got, least, most int) error {
	if got < least || got > most {
		return &FieldError{field, got, fmt.Sprintf("%d to %d", least, most)}
	}
	return nil
}

// CheckSwing refuses an amount of swing, in the percents that a musician reads.
func CheckSwing(field string, got int) error {
	if got < Straight || got > MostSwing {
		return &FieldError{field, fmt.Sprintf("%d.%d %%", got/10, max(got, -got)%10), "50.0 to 75.0 %"}
	}
	return nil
}

// checkTempo refuses a tempo in beats per minute, as it is read.
func checkTempo(field string, got Tempo) error {
	if got < MinTempo || got > MaxTempo {
		return &FieldError{field, fmt.Sprintf("%g bpm", float64(got)/1000), fmt.Sprintf("%d to %d bpm", MinTempo/1000, MaxTempo/1000)}
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

// CleanName makes a name of a text: printable, without spaces around it, not too long; it can be empty.
func CleanName(text string) string {
	printable := strings.Map(func(r rune) rune {
		if !unicode.IsPrint(r) || r == utf8.RuneError {
			return -1
		}
		return r
	}, text)
	runes := []rune(strings.TrimSpace(printable))
	return strings.TrimSpace(string(runes[:min(len(runes), MaxNameRunes)]))
}

// CheckName refuses a name that is not one. The error is a *FieldError.
func CheckName(field, name string) error {
	printable := strings.TrimSpace(name) == name && !strings.ContainsFunc(name, func(r rune) bool { return !unicode.IsPrint(r) })
	if n := utf8.RuneCountInString(name); n < 1 || n > MaxNameRunes || !printable || !utf8.ValidString(name) {
		return &FieldError{field, fmt.Sprintf("%.80q", name), fmt.Sprintf("1 to %d printable characters without spaces around them", MaxNameRunes)}
	}
	return nil
}

func checkAscending(field string, values []int, least, most int) error {
	for i, value := range values {
		if err := checkRange(fmt.Sprintf("%s[%d]", field, i), value, least, most); err != nil {
			return err
		}
		if i > 0 && value <= values[i-1] {
			return &FieldError{fmt.Sprintf("%s[%d]", field, i), value, fmt.Sprintf("above %d, the one before it", values[i-1])}
		}
	}
	return nil
}
