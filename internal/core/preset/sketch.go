package preset

import (
	"strings"

	"jettyfog/internal/core/score"
)

// The shipped presets are sketched in a few words each, from which these functions make parts.

// change is a change of a part that is being made.
type change func(*score.Part)

// partOf makes a part whose gate lane has a step for each character: x is on, ~ a tie, and anything else off. Spaces are for the eye.
func partOf(rate score.NoteValue, gates string, changes ...change) score.Part {
	part := score.NewPart("Part 1")
	gates = strings.ReplaceAll(gates, " ", "")
	gate := part.Lanes.Gate
	gate.Length, gate.Rate = len(gates), rate
	for i, c := range gates {
		gate.Steps[i] = map[rune]int{'x': score.On, '~': score.Tie}[c]
	}
	for _, change := range changes {
		change(&part)
	}
	return part
}

// drum makes a part of a kit.
func drum(name string, note int, rate score.NoteValue, gates string, changes ...change) score.Part {
	part := partOf(rate, gates, changes...)
	part.Name, part.Note = name, note
	return part
}

// lane changes a lane of a part, which gets it if it has none.
func lane(name score.LaneName, changes func(*score.Lane)) change {
	return func(part *score.Part) {
		changed := part.Lanes.Lane(name).Clone()
		changes(changed)
		part.Lanes.Set(name, changed)
	}
}

// on writes values on the gate's steps; a 0 that the lane cannot hold leaves the usual value.
func on(name score.LaneName, values ...int) change {
	return lane(name, func(l *score.Lane) {
		l.Linked = true
		for step, value := range values {
			if value >= name.Spec().Least {
				l.Steps[step] = value
			}
		}
	})
}

// loop writes values into a lane that has a loop of its own.
func loop(name score.LaneName, rate score.NoteValue, values ...int) change {
	return lane(name, func(l *score.Lane) {
		l.Linked, l.Rate, l.Length = false, rate, len(values)
		copy(l.Steps, values)
	})
}

// spread gives a lane a spread that applies in so many of a hundred cases.
func spread(name score.LaneName, lowest, highest, chance, lean int) change {
	return lane(name, func(l *score.Lane) {
		l.Spread = &score.Spread{Chance: chance, Depth: 100, Lowest: lowest, Highest: highest, Lean: lean, Grain: 1}
	})
}

// weigh gives a lane a table of weights: values and their weights in turn.
func weigh(name score.LaneName, lines ...int) change {
	return lane(name, func(l *score.Lane) { l.Weights = weights(lines...) })
}

func weights(lines ...int) (table []score.Weight) {
	for i := 0; i < len(lines); i += 2 {
		table = append(table, score.Weight{Lowest: lines[i], Highest: lines[i], Weight: lines[i+1]})
	}
	return table
}

// order has a lane walk in an order.
func order(name score.LaneName, walk score.Order) change {
	return lane(name, func(l *score.Lane) { l.Order = walk })
}

// evolve has a lane write new values over so many of its steps every so many bars.
func evolve(name score.LaneName, every, percent, lowest, highest int) change {
	return lane(name, func(l *score.Lane) {
		l.Evolve = &score.Evolve{Every: every, Percent: percent, Lowest: lowest, Highest: highest}
	})
}

// own gives a step of a lane something of its own.
func own(name score.LaneName, step int, has score.StepOwn) change {
	return lane(name, func(l *score.Lane) {
		if l.Own == nil {
			l.Own = map[int]score.StepOwn{}
		}
		l.Own[step] = has
	})
}

// wander is a step's own spread over degrees, of which only some are allowed; none is all.
func wander(lowest, highest int, allowed ...int) score.StepOwn {
	return score.StepOwn{Spread: &score.Spread{Chance: 100, Depth: 100, Lowest: lowest, Highest: highest, Grain: 1}, Allowed: allowed}
}

// notes are those of a step, by the degrees above the first.
func notes(degrees ...int) score.StepOwn {
	has := score.StepOwn{Notes: []score.StepNote{{}}}
	for _, degree := range degrees {
		has.Notes = append(has.Notes, score.StepNote{Degree: degree})
	}
	return has
}

// detail says what is special of a gate step.
func detail(step int, special score.StepDetail) change {
	return func(part *score.Part) {
		if part.Details == nil {
			part.Details = map[int]score.StepDetail{}
		}
		part.Details[step] = special
	}
}

// ratchet is a step's own ratchet.
func ratchet(spacing score.Spacing, odds, ramp, walk int, counts ...int) score.StepDetail {
	return score.StepDetail{Ratchet: &score.StepRatchet{RatchetShape: score.RatchetShape{Spacing: spacing, Odds: odds, Ramp: ramp}, Walk: walk, Counts: counts}}
}

func kit(name, words string, parts ...score.Part) Preset {
	for i := range parts {
		parts[i].ID = i
	}
	return Preset{Kind: KitKind, Name: name, Words: words, Pattern: &score.Pattern{Name: name, Parts: parts}}
}

func pattern(name, words string, part score.Part) Preset {
	return Preset{Kind: PatternKind, Name: name, Words: words, Pattern: &score.Pattern{Name: name, Parts: []score.Part{part}}}
}

// aLane is a preset of one lane of a part.
func aLane(name, words string, of score.LaneName, changes ...change) Preset {
	part := partOf("1/16", "x---", changes...)
	return Preset{Kind: LaneKind, Name: name, Words: words, Lane: &Lane{Name: of, Value: *part.Lanes.Lane(of)}}
}

func table(name, words string, of score.LaneName, lines ...int) Preset {
	return Preset{Kind: WeightsKind, Name: name, Words: words, Weights: &Weights{Lane: of, Lines: weights(lines...)}}
}

func roll(name, words string, recipe score.Recipe) Preset {
	recipe.Name = name
	return Preset{Kind: RollKind, Name: name, Words: words, Roll: &recipe}
}
