package preset

import (
	"strings"

	s "jettyfog/internal/core/score"
)

// shippedFields are fields unlike each other: each is a way in which places make music.
func shippedFields() []Preset {
	return []Preset{
		onField("Ferry crossing", "Two ferries on crossing lines of seven and five cells, which meet every thirty-five moves.",
			"0. 2. 4. 7. 9. 7. 4. / .. .. .. 3. .. .. .. / .. .. .. 5. .. .. .. / .. .. .. 8. .. .. .. / .. .. .. a. .. .. ..",
			goes(0, 0, 2, "1/8"), goes(3, 0, 4, "1/8"), when(1, s.InOneCell, 2, s.DoRate, "1/16")),
		onField("Turning basin", "Four boats turn right at the walls of a basin, each at a rate of its own.",
			"0. .. 3. .. 5. / .. .. .. .. .. / 2. .. ## .. 7. / .. .. .. .. .. / 4. .. 6. .. 9.",
			turns(goes(0, 0, 2, "1/8"), s.TurnRight), turns(goes(4, 0, 4, "1/8."), s.TurnRight), turns(goes(4, 4, 6, "1/4"), s.TurnRight)),
		onField("Bell in the fog", "Rings of a bell reach what is near first; a wall keeps half of the harbour silent.",
			"7. .. 4. .. 2. .. / .. .. .. ## .. 9. / 5. .. .. ## .. b. / .. .. 0. .. .. .. / 3. .. .. .. 8. ..",
			wave(2, 3, "1/16", 12, s.RoundRings)),
		onField("Winch loop", "A loop of arrows, and a second way now and then that is three cells shorter.",
			"0> .> 4> .v / 2^ .. .. 6v / .^ 7< .< 9<", follows(0, 0, "1/8"), fork(2, 0, 4, 30), arrow(2, 1, 4)),
		onField("Tide gate", "A stream that forks at every gate and is led back by letters.",
			"0> 2> 4> 6A / .. .. .. .. / A> 5> 7> 9> / .. .. .. ..", follows(0, 0, "1/8t"), fork(1, 0, 3, 50), arrow(2, 1, 4), fork(2, 2, 1, 40), arrow(3, 1, 0), jump(3, 2, "A")),
		onField("Echo off the hulls", "Each ring wakes the hulls that it reaches, and they ring in turn.",
			"0. .. .. 5* .. / .. 3. .. .. 8. / .. .. 2. .. .. / 9. .. .. .. 4. / .. 7* .. .. 1.", wave(0, 0, "1/8", 24, s.RoundRings)),
		onField("Lift bridge", "Up and down, a note where it turns at the top and at the bottom only.",
			".. .. .. .. / .. .. .. .. / .. .. .. ..",
			atTurns(goes(0, 0, 4, "1/16")), atTurns(goes(1, 1, 4, "1/16t")), atTurns(goes(2, 2, 4, "1/8")), atTurns(goes(3, 0, 0, "1/8."))),
		onField("Two pilots", "They turn back where they meet, and sound together only there.",
			"0. 1. 2. 3. 4. 5. 6. 7. 8.", turnsBack(goes(0, 0, 2, "1/8")), turnsBack(goes(8, 0, 6, "1/8")),
			when(1, s.LeftOf, 2, s.DoSilence, ""), when(1, s.InOneCell, 2, s.DoSound, "")),
		onField("Cargo maze", "Over walls and through gaps: a straight way that never looks the same twice in a row.",
			"0. ## 3. .. 5. .. / .. .. ## 7. .. ## / 2. .. 4. ## 9. .. / ## 6. .. .. ## b. / 1. .. ## 8. .. ..", goes(0, 0, 3, "1/16"), goes(5, 4, 5, "1/8")),
		onField("Drifting buoys", "Buoys that drift where currents lead, with a fork in every cell.",
			"0> 2v 4< / 3> 5v 7< / 6^ 9^ a<", follows(1, 1, "1/8"), follows(0, 2, "1/4"), fork(1, 0, 2, 50), fork(1, 1, 6, 60), fork(1, 2, 1, 50), fork(0, 1, 0, 40), fork(2, 1, 4, 40)),
		onField("Square signals", "Square and diamond rings from two corners, against each other.",
			"0. .. 2. .. 4. / .. 5. .. 7. .. / 3. .. 9. .. 8. / .. b. .. 6. .. / 1. .. a. .. c.",
			wave(0, 0, "1/16", 11, s.SquareRings), wave(4, 4, "1/16t", 13, s.DiamondRings)),
		onField("Chain ferry", "One goes to and fro and wakes the other each time it comes near.",
			"0. .. 4. .. 7. .. 9. / .. .. .. .. .. .. .. / .. .. .. 2. .. .. ..", turnsBack(goes(0, 0, 2, "1/16")), goes(3, 2, 0, "1/2"), when(2, s.NearEachOther, 1, s.DoSound, "")),
	}
}

// onField makes a preset of a field that is sketched in rows from the top, with a / between them: a cell is two characters. The first is a degree, from 0 to 9 and
// then a to f, a # a wall, a dot nothing, or A a letter A; the second is an arrow's head, a * a repeater, or A a letter A.
func onField(name, words, rows string, changes ...change) Preset {
	part := s.NewFieldPart()
	part.Name, part.Field.Cells, part.Field.Travellers = name, nil, nil
	lines := strings.Split(rows, "/")
	part.Field.Rows = len(lines)
	for row, line := range lines {
		for column, sketch := range strings.Fields(line) {
			if cell := cellOf(sketch); cell.Note || cell.Wall || cell.Letter != "" || len(cell.Arrows) > 0 {
				cell.Column, cell.Row = column, row
				part.Field.Cells = append(part.Field.Cells, cell)
			}
		}
	}
	part.Field.Columns = len(strings.Fields(lines[0]))
	for _, change := range changes {
		change(&part)
	}
	return pattern(name, words, part)
}

func cellOf(sketch string) (cell s.Cell) {
	switch first := sketch[0]; {
	case first >= '0' && first <= '9':
		cell.Note, cell.Degree = true, int(first-'0')
	case first >= 'a' && first <= 'f':
		cell.Note, cell.Degree = true, int(first-'a')+10
	case first == '#':
		cell.Wall = true
	case first == 'A':
		cell.Letter = "A"
	}
	switch second := sketch[1]; second {
	case '*':
		cell.Repeater = true
	case 'A':
		cell.Letter = "A"
	default:
		if to := strings.IndexByte("^?>?v?<", second); to >= 0 && second != '?' {
			cell.Arrows = []s.Arrow{{To: s.Direction(to), Weight: 100}}
		}
	}
	return cell
}

// adds adds a traveller to the field.
func adds(t s.Traveller) change {
	return func(part *s.Part) {
		t.ID = len(part.Field.Travellers) + 1
		part.Field.Travellers = append(part.Field.Travellers, t)
	}
}

func goes(column, row int, to s.Direction, rate s.NoteValue) change {
	t := s.NewTraveller(0, column, row)
	t.Direction, t.Rate = to, rate
	return adds(t)
}

func follows(column, row int, rate s.NoteValue) change {
	t := s.NewTraveller(0, column, row)
	t.Motion, t.Rate = s.ArrowsMotion, rate
	return adds(t)
}

func wave(column, row int, rate s.NoteValue, every int, shape s.RingShape) change {
	t := s.NewTraveller(0, column, row)
	t.Motion, t.Rate, t.Every, t.Shape = s.WaveMotion, rate, every, shape
	return adds(t)
}

// last changes the traveller that another change adds.
func last(adds change, changes func(*s.Traveller)) change {
	return func(part *s.Part) {
		adds(part)
		changes(&part.Field.Travellers[len(part.Field.Travellers)-1])
	}
}

func turns(adds change, at s.EdgeTurn) change {
	return last(adds, func(t *s.Traveller) { t.At = at })
}

func turnsBack(adds change) change {
	return last(adds, func(t *s.Traveller) { t.At, t.Meets = s.TurnBack, s.MeetBack })
}

func atTurns(adds change) change {
	return last(adds, func(t *s.Traveller) { t.At, t.AtTurns = s.TurnBack, true })
}

// arrow adds an arrow to a cell, and fork one that is followed so many percent of the time beside one that is there.
func arrow(column, row int, to s.Direction) change { return fork(column, row, to, 100) }

func fork(column, row int, to s.Direction, percent int) change {
	return func(part *s.Part) {
		cell := part.Field.Cell(column, row)
		if cell == nil {
			part.Field.Cells = append(part.Field.Cells, s.Cell{Column: column, Row: row})
			cell = &part.Field.Cells[len(part.Field.Cells)-1]
		}
		if len(cell.Arrows) == 1 {
			cell.Arrows[0].Weight = 100 - percent
		}
		cell.Arrows = append(cell.Arrows, s.Arrow{To: to, Weight: percent})
	}
}

// jump has a cell lead to the others of a letter.
func jump(column, row int, letter string) change {
	return func(part *s.Part) { part.Field.Cell(column, row).Letter = letter }
}

// when adds a rule of meetings; the rate is for one that changes it.
func when(a int, how s.MeetingWhen, b int, what s.MeetingDo, rate s.NoteValue) change {
	return func(part *s.Part) {
		part.Field.Rules = append(part.Field.Rules, s.MeetingRule{A: a, B: b, When: how, Do: what, Rate: rate, Distance: 3, Odds: 100})
	}
}
