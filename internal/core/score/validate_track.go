package score

import (
	"fmt"

	"jettyfog/internal/core/theory"
)

func (t *Track) validate(field string, p *Project) error {
	checks := []error{
		checkRange(field+".id", t.ID, 1, 1<<31-1),
		checkName(field+".name", t.Name),
		checkListed(field+".kind", t.Kind, Kinds()),
		checkRange(field+".channel", t.Channel, 1, 16),
		checkRange(field+".register.lowest", t.Register.Lowest, theory.LowestNote, theory.HighestNote-theory.Octave+1),
		checkRange(field+".register.highest", t.Register.Highest, t.Register.Lowest+theory.Octave-1, theory.HighestNote),
		t.Source.validate(field+".source", p),
		checkRange(field+".transpose.degrees", t.Transpose.Degrees, -28, 28),
		checkRange(field+".transpose.semitones", t.Transpose.Semitones, -48, 48),
		checkRange(field+".program", t.Program, 0, 128),
		checkRange(field+".bank", t.Bank, 0, MaxBank),
		t.Loop.validate(field + ".loop"),
		checkRange(field+".speed.n", t.Speed.N, 1, 16),
		checkRange(field+".speed.m", t.Speed.M, 1, 16),
		checkRange(field+".voices", t.Voices, 0, MaxVoices),
		checkRange(field+".overlap", int(t.Overlap), 0, int(MaxOverlap)),
		checkRange("the number of "+field+".shifts", len(t.Shifts), 0, MaxShifts),
		checkRange(field+".delay", int(t.Delay), -int(MaxDelay), int(MaxDelay)),
		checkRange(field+".jitter", t.Jitter, 0, 100),
		checkRange(field+".luck", t.Luck, FollowLuck, MaxLuck),
		checkRange(field+".hold", t.Hold, 0, MaxBars),
		checkRange(field+".holdFrom", t.HoldFrom, 0, MaxHoldFrom),
		checkRange(field+".realign", t.Realign, 0, MaxBars),
		checkRange("the number of "+field+".patterns", len(t.Patterns), 1, MaxPatterns),
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
	if kind == Melodic {
		most = 1
	}
	if err := firstOf([]error{
		checkRange(field+".id", pattern.ID, 0, MaxPatternID),
		checkName(field+".name", pattern.Name),
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
		if err := pattern.Parts[i].validate(fmt.Sprintf("%s.parts[%d]", field, i), p); err != nil {
			return err
		}
	}
	return nil
}

func (part *Part) validate(field string, p *Project) error {
	checks := []error{
		checkName(field+".name", part.Name),
		checkRange(field+".id", part.ID, 0, MaxPartID),
		checkRange(field+".note", part.Note, theory.LowestNote, theory.HighestNote),
		checkRange(field+".fill", part.Fill, 0, 100),
		checkRange(field+".voicing.inversion", part.Voicing.Inversion, 0, 4),
		checkRange(field+".voicing.strum", part.Voicing.Strum, -100, 100),
		validateMods(field+".mods", part.Mods),
		checkRange(field+".slideTime", part.SlideTime, 0, 127),
		checkRange(field+".held.length", part.Held.Length, 0, MaxSteps),
		checkRange(field+".held.first", part.Held.First, 0, MaxSteps-max(1, part.Held.Length)),
		checkListed(field+".ratchet.spacing", part.Ratchet.Spacing, Spacings()),
		validateDurations(field+".durations", part.Durations),
		checkRange(field+".ratchet.ramp", part.Ratchet.Ramp, -100, 100),
		checkRange(field+".ratchet.odds", part.Ratchet.Odds, 0, 100),
	}
	if part.LengthUnit != "" {
		checks = append(checks, checkListed(field+".lengthUnit", part.LengthUnit, noteValues))
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
		checkRange(field+".length", l.Length, 1, MaxSteps),
		checkRange(field+".first", l.First, 0, MaxSteps-l.Length),
		checkListed(field+".rate", l.Rate, noteValues),
		checkListed(field+".order", l.Order, Orders()),
		checkListed(field+".moves", l.Moves, spec.Name.Movers()),
		checkRange(field+".drift.forward", l.Drift.Forward, 0, 100),
		checkRange(field+".drift.back", l.Drift.Back, 0, 100-l.Drift.Forward),
		checkRange("the number of "+field+".path", len(l.Path), 0, MaxSteps),
		checkRange(field+".amount", l.Amount, 0, 200),
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
	checks = append(checks, checkRange("the number of "+field+".weights", len(l.Weights), 0, MaxWeights))
	for i, w := range l.Weights {
		line := fmt.Sprintf("%s.weights[%d]", field, i)
		checks = append(checks,
			checkRange(line+".lowest", w.Lowest, spec.Least, spec.Most),
			checkRange(line+".highest", w.Highest, w.Lowest, spec.Most),
			checkRange(line+".weight", w.Weight, 0, MaxWeight))
		if w.Rest && spec.Name != Pitch {
			checks = append(checks, &FieldError{line + ".rest", true, "false, because only the pitch lane has rests"})
		}
	}
	if l.Evolve != nil {
		checks = append(checks, l.Evolve.validate(field+".evolve", spec))
	}
	if spec.Name == Gate && (len(l.Weights) > 0 || l.Spread != nil || l.Evolve != nil) {
		checks = append(checks, &FieldError{field, "varied", "without spread, weights and evolve, which are for the other lanes"})
	}
	checks = append(checks, checkAscending(field+".locked", l.Locked, 0, MaxSteps-1))
	if len(l.Steps) != MaxSteps {
		checks = append(checks, &FieldError{"the number of " + field + ".steps", len(l.Steps), fmt.Sprint(MaxSteps)})
	}
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

func validateDurations(field string, durations []Duration) error {
	checks := []error{checkRange("the number of "+field, len(durations), 0, MaxWeights)}
	for i, d := range durations {
		line := fmt.Sprintf("%s[%d]", field, i)
		checks = append(checks,
			checkListed(line+".value", d.Value, noteValues),
			checkRange(line+".weight", d.Weight, 0, MaxWeight))
	}
	return firstOf(checks)
}

func (s *Spread) validate(field string) error {
	const widest = 200 // the widest lane, that of swing
	return firstOf([]error{
		checkRange(field+".chance", s.Chance, 0, 100),
		checkRange(field+".depth", s.Depth, 0, 100),
		checkRange(field+".lowest", s.Lowest, -widest, widest),
		checkRange(field+".highest", s.Highest, s.Lowest, widest),
		checkRange(field+".lean", s.Lean, -100, 100),
		checkRange(field+".grain", s.Grain, 1, 64),
	})
}

func (e *Evolve) validate(field string, spec LaneSpec) error {
	return firstOf([]error{
		checkRange(field+".every", e.Every, 1, MaxBars),
		checkRange(field+".percent", e.Percent, 0, 100),
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
