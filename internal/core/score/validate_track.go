package score

import (
	"fmt"

	"jettyfog/internal/core/theory"
)

func (t *Track) validate(field string, p *Project) error {
	checks := []error{
		CheckName(field+".name", t.Name),
		checkListed(field+".kind", t.Kind, Kinds()),
		checkRange(field+".register.lowest", t.Register.Lowest, theory.LowestNote, theory.HighestNote-theory.Octave+1),
		checkRange(field+".register.highest", t.Register.Highest, t.Register.Lowest+theory.Octave-1, theory.HighestNote),
		t.Source.validate(field+".source", p),
		t.Pitches.validate(field+".pitches", t, p),
		t.Loop.validate(field + ".loop"),
	}
	if t.Swing != 0 {
		checks = append(checks, CheckSwing(field+".swing", t.Swing))
	}
	if err := firstOf(checks); err != nil {
		return err
	}
	for i, shift := range t.Shifts {
		if longest := NoteValue("1/4"); shift.Ticks() == 0 || shift.Ticks() > longest.Ticks() {
			return &FieldError{fmt.Sprintf("%s.shifts[%d]", field, i), fmt.Sprintf("%.40q", string(shift)), "a note value of up to 1/4"}
		}
	}
	if err := t.checkPlaying(field); err != nil {
		return err
	}
	if t.Kind == FieldKind && t.Source.Kind != OwnClock {
		return &FieldError{field + ".source.kind", string(t.Source.Kind), string(OwnClock) + ", as travellers have rates of their own"}
	}
	for i := range t.Patterns {
		if id := t.Patterns[i].ID; t.patternPlace(id) != i {
			return &FieldError{fmt.Sprintf("%s.patterns[%d].id", field, i), id, "different from that of every other pattern of the track"}
		}
		if err := t.Patterns[i].validate(fmt.Sprintf("%s.patterns[%d]", field, i), t.Kind, p); err != nil {
			return err
		}
	}
	return nil
}

// checkPlaying checks that the pattern that plays is there.
func (t *Track) checkPlaying(field string) error {
	if t.Pattern(t.Playing) == nil {
		return &FieldError{field + ".playing", t.Playing, "the id of a pattern of the track"}
	}
	return nil
}

func (pattern *Pattern) validate(field string, kind Kind, p *Project) error {
	most := MaxParts
	if kind != Kit {
		most = 1
	}
	if err := firstOf([]error{
		CheckName(field+".name", pattern.Name), pattern.After.validate(field + ".after"),
		checkRange("the number of "+field+".parts", len(pattern.Parts), 1, most),
	}); err != nil {
		return err
	}
	ids := map[int]bool{}
	for i := range pattern.Parts {
		at := fmt.Sprintf("%s.parts[%d].id", field, i)
		if id := pattern.Parts[i].ID; ids[id] {
			return &FieldError{at, id, "different from that of every other part of the pattern"}
		}
		ids[pattern.Parts[i].ID] = true
		if has := pattern.Parts[i].Field != nil; has != (kind == FieldKind) {
			return &FieldError{fmt.Sprintf("%s.parts[%d].field", field, i), has, "given for the part of a field, and for no other"}
		}
		if err := pattern.Parts[i].validate(fmt.Sprintf("%s.parts[%d]", field, i), p); err != nil {
			return err
		}
	}
	return nil
}

func (part *Part) validate(field string, p *Project) error {
	checks := []error{
		CheckName(field+".name", part.Name),
		validateMods(field+".mods", part.Mods),
		part.Held.validate(field + ".held"),
		checkListed(field+".ratchet.spacing", part.Ratchet.Spacing, Spacings()),
		validateDurations(field+".durations", part.Durations),
	}
	if part.LengthUnit != "" {
		checks = append(checks, checkListed(field+".lengthUnit", part.LengthUnit, noteValues))
	}
	if part.Field != nil {
		checks = append(checks, part.Field.validate(field+".field"))
	}
	for step, detail := range part.Details {
		checks = append(checks, detail.validate(fmt.Sprintf("%s.details.%d", field, step), step, p))
	}
	for _, spec := range laneSpecs {
		if part.Lanes.Has(spec.Name) {
			checks = append(checks, part.Lanes.Lane(spec.Name).validate(field+".lanes."+string(spec.Name), spec))
		}
	}
	return firstOf(checks)
}

func (l *Lane) validate(field string, spec LaneSpec) error {
	checks := []error{
		checkRange(field+".first", l.First, 0, MaxSteps-l.Length),
		checkListed(field+".rate", l.Rate, noteValues),
		checkListed(field+".order", l.Order, Orders()),
		checkListed(field+".moves", l.Moves, spec.Name.Movers()),
		checkRange(field+".drift.back", l.Drift.Back, 0, 100-l.Drift.Forward),
	}
	if spec.Name == Gate && l.Linked {
		checks = append(checks, &FieldError{field + ".linked", true, "false, because the other lanes link to the gate lane"})
	}
	for i, step := range l.Path {
		checks = append(checks, checkRange(fmt.Sprintf("%s.path[%d]", field, i), step, 0, MaxSteps-1))
	}
	if l.Spread != nil {
		checks = append(checks, l.Spread.validate(field+".spread"))
	}
	checks = append(checks, validateWeights(field+".weights", l.Weights, spec)...)
	for step, own := range l.Own {
		at := fmt.Sprintf("%s.own.%d", field, step)
		checks = append(checks, checkRange(at+", its step,", step, 0, MaxSteps-1), own.validate(at, spec))
	}
	if l.Evolve != nil {
		checks = append(checks, l.Evolve.validate(field+".evolve", spec))
	}
	if spec.Name == Gate && (len(l.Weights) > 0 || l.Spread != nil || l.Evolve != nil) {
		checks = append(checks, &FieldError{field, "varied", "without spread, weights and evolve, which are for the other lanes"})
	}
	checks = append(checks, checkAscending(field+".locked", l.Locked, 0, MaxSteps-1))
	if err := firstOf(checks); err != nil {
		return err
	}
	for i, value := range l.Steps {
		if value < spec.Least || value > spec.Most {
			return checkRange(fmt.Sprintf("%s.steps[%d]", field, i), value, spec.Least, spec.Most)
		}
	}
	return nil
}

func validateWeights(field string, weights []Weight, spec LaneSpec) (checks []error) {
	for i, w := range weights {
		line := fmt.Sprintf("%s[%d]", field, i)
		checks = append(checks,
			checkRange(line+".lowest", w.Lowest, spec.Least, spec.Most),
			checkRange(line+".highest", w.Highest, w.Lowest, spec.Most))
		if w.Rest && spec.Name != Pitch {
			checks = append(checks, &FieldError{line + ".rest", true, "false, because only the pitch lane has rests"})
		}
	}
	return checks
}

func validateDurations(field string, durations []Duration) error {
	for i, d := range durations {
		if err := checkListed(fmt.Sprintf("%s[%d].value", field, i), d.Value, noteValues); err != nil {
			return err
		}
	}
	return nil
}

func (s *Spread) validate(field string) error {
	_, widest := spreadBounds.Of("highest")
	checks := []error{
		checkRange(field+".highest", s.Highest, s.Lowest, widest), checkListed(field+".touches", s.Touches, []Touch{TouchAll, TouchWithin, TouchOutside}),
	}
	if s.Touches != TouchAll {
		checks = append(checks, checkRange(field+".to", s.To, s.From, widest))
	}
	return firstOf(checks)
}

func (e *Evolve) validate(field string, spec LaneSpec) error {
	return firstOf([]error{
		checkRange(field+".lowest", e.Lowest, spec.Least, spec.Most),
		checkRange(field+".highest", e.Highest, e.Lowest, spec.Most),
	})
}

func firstOf(checks []error) error {
	for _, err := range checks {
		if err != nil {
			return err
		}
	}
	return nil
}
