package stage

import (
	"slices"

	"jettyfog/internal/core/score"
)

// timeOf returns the edit that writes the tempos, and where sections of the song have meters the meters, of a project in which
// a control of them has a value. A tempo or a meter of a section holds from its bar until the next one that is written. A
// live change of the tempo counts in place of the tempos of sections. The push scales all tempos, by tenths of a percent.
func timeOf(t *target, value int) score.EditJSON {
	if section := t.project.Section(value); t.Control.Name == "meter" && (section == nil || section.Meter == nil) {
		return score.EditJSON{}
	}
	t.given = &value
	edit := &score.SetProject{}
	project := t.project
	if meter, changes, any := t.meters(); any {
		edit.Meter, edit.MeterChanges = &meter, &changes
		barred := *project
		barred.Meter, barred.MeterChanges = meter, changes
		project = &barred
	}
	push := t.standing("push", 0)
	scaled := func(tempo score.Tempo) score.Tempo {
		return max(score.MinTempo, min(score.MaxTempo, score.Tempo(score.Rounded(int(tempo)*(1000+push), 1000))))
	}
	first, changes := score.Tempo(t.standing("tempo", int(project.Tempo))), slices.Clone(project.TempoChanges)
	if _, held := t.stage.Value(Control{Name: "tempo"}); !held {
		bars := project.Bars()
		for _, at := range t.byBar("tempo") {
			changes = slices.DeleteFunc(changes, func(c score.TempoChange) bool { return c.Tick == bars.Start(int64(at.Control.Bar)) })
			changes = append(changes, score.TempoChange{Tick: bars.Start(int64(at.Control.Bar)), Tempo: score.Tempo(at.Value)})
		}
		slices.SortStableFunc(changes, func(a, b score.TempoChange) int { return int(a.Tick - b.Tick) })
	}
	tempo, scaledChanges := scaled(first), []score.TempoChange{}
	for _, change := range changes {
		change.Tempo = scaled(change.Tempo)
		scaledChanges = append(scaledChanges, change)
	}
	edit.Tempo, edit.TempoChanges = &tempo, &scaledChanges
	return score.EditJSON{SetProject: edit}
}

// meters returns the meters of a project with those of sections that count; any is false if there are none.
func (t *target) meters() (first score.Meter, changes []score.MeterChange, any bool) {
	first, changes = t.project.Meter, append([]score.MeterChange{}, t.project.MeterChanges...)
	at := t.byBar("meter")
	if value, begins := t.value(Control{Name: "meter"}); begins {
		at = append(at, Change{Control{Name: "meter"}, value})
	}
	for _, change := range at {
		section := t.project.Section(change.Value)
		if section == nil || section.Meter == nil {
			continue
		}
		if any = true; change.Control.Bar == 0 {
			first = *section.Meter
			continue
		}
		changes = slices.DeleteFunc(changes, func(c score.MeterChange) bool { return c.Bar == change.Control.Bar })
		changes = append(changes, score.MeterChange{Bar: change.Control.Bar, Meter: *section.Meter})
	}
	slices.SortStableFunc(changes, func(a, b score.MeterChange) int { return a.Bar - b.Bar })
	return first, changes, any
}

// byBar lists the values that count of a control by bars, but for the one from the beginning on.
func (t *target) byBar(name string) (changes []Change) {
	for _, change := range t.stage.InForce() {
		if change.Control.Name == name && change.Control.Bar > 0 && change.Control != t.Control {
			changes = append(changes, change)
		}
	}
	if t.given != nil && t.Control.Name == name && t.Control.Bar > 0 {
		changes = append(changes, Change{t.Control, *t.given})
	}
	return changes
}

// value returns the value that a control has, which is the one that is given if it is asked about; ok is false if it has the
// written one.
func (t *target) value(c Control) (value int, ok bool) {
	if t.given != nil && c == t.Control {
		return *t.given, true
	}
	return t.stage.InForceOf(c)
}

// writtenTempo returns the tempo that is written at the bar of a control.
func (t *target) writtenTempo() int {
	if t.Control.Bar == 0 {
		return int(t.project.Tempo)
	}
	at, tempo := t.project.Bars().Start(int64(t.Control.Bar)), t.project.Tempo
	for _, change := range t.project.TempoChanges {
		if change.Tick <= at {
			tempo = change.Tempo
		}
	}
	return int(tempo)
}
