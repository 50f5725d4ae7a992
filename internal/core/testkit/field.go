package testkit

import (
	"slices"

	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

var fieldRates = []score.NoteValue{"1/8", "1/16", "1/16t", "1/4.", "1/1"}

// Field draws a small field, with travellers of all motions that can meet.
func Field(t *rapid.T) *score.Field {
	f := &score.Field{Columns: rapid.IntRange(1, 5).Draw(t, "columns"), Rows: rapid.IntRange(1, 4).Draw(t, "rows")}
	f.Cells, f.Travellers, f.Rules = FieldCells(t), Travellers(t), meetingRules(t)
	if rapid.Bool().Draw(t, "notes of rows") {
		f.RowNotes, f.ColumnNotes = []int{5, -3, 0}, []int{1}
	}
	return f
}

// layers draws what the fields of a project can be given: two layers of each kind.
func layers(t *rapid.T, p *score.Project) {
	if !slices.ContainsFunc(p.Tracks, func(track score.Track) bool { return track.Kind == score.FieldKind }) {
		return
	}
	for _, of := range []*score.Field{Field(t), Field(t)} {
		for _, kind := range score.LayerKinds() {
			layer := of.Layer(kind)
			layer.ID, layer.Name = len(p.FieldLayers)+1, "Layer"
			p.FieldLayers = append(p.FieldLayers, layer)
		}
	}
}

// recalled draws a control that gives a field a layer, and the id of one; is is false if there is neither.
func recalled(t *rapid.T, p *score.Project) (change stage.Change, is bool) {
	var places []stage.Control
	for _, track := range p.Tracks {
		for _, pattern := range track.Patterns {
			if track.Kind == score.FieldKind {
				places = append(places, stage.Control{Track: track.ID, Pattern: pattern.ID, Part: pattern.Parts[0].ID})
			}
		}
	}
	if len(places) == 0 || len(p.FieldLayers) == 0 {
		return change, false
	}
	change.Control = rapid.SampledFrom(places).Draw(t, "field")
	layer := rapid.SampledFrom(p.FieldLayers).Draw(t, "layer")
	change.Control.Name, change.Value = stage.LayerControl(layer.Kind), layer.ID
	return change, true
}

// FieldCells draws the cells of a field, some of which lie outside of small ones.
func FieldCells(t *rapid.T) (cells []score.Cell) {
	for row := range 4 {
		for column := range 5 {
			c := score.Cell{Column: column, Row: row}
			switch rapid.IntRange(0, 9).Draw(t, "cell") {
			case 0, 1, 2, 3:
				c.Note, c.Degree = true, rapid.IntRange(-9, 9).Draw(t, "degree")
				c.Octave = rapid.IntRange(-1, 1).Draw(t, "octave of a cell")
				if seldom(t, "a cell of its own") {
					c.Velocity, c.Length, c.Ratchet, c.Probability = rapid.IntRange(0, 127).Draw(t, "own"), 130, 3, 50
					c.Mods = []score.CellMod{{Mod: 1, Value: rapid.IntRange(0, 127).Draw(t, "own mod")}}
				}
			case 4:
				c.Wall = true
			case 5:
				c.Repeater, c.Note = true, rapid.Bool().Draw(t, "note of a repeater")
			case 6:
				c.Letter = rapid.SampledFrom([]string{"A", "B"}).Draw(t, "letter")
				c.Jump = rapid.SampledFrom([]score.LetterJump{score.NextLetter, score.NearestLetter, score.RandomLetter}).Draw(t, "jump")
			case 7:
				continue
			}
			for to := range score.Direction(8) {
				if rapid.IntRange(0, 4).Draw(t, "arrow") == 0 {
					c.Arrows = append(c.Arrows, score.Arrow{To: to, Weight: rapid.SampledFrom([]int{100, 30, 0}).Draw(t, "weight")})
				}
			}
			if c.Note || c.Wall || c.Repeater || c.Letter != "" || c.Arrows != nil {
				cells = append(cells, c)
			}
		}
	}
	return cells
}

// Travellers draws the travellers of a field.
func Travellers(t *rapid.T) (travellers []score.Traveller) {
	for i := range rapid.IntRange(0, 3).Draw(t, "travellers") {
		travellers = append(travellers, score.Traveller{
			ID:     []int{4, 1, 200}[i],
			Motion: rapid.SampledFrom([]score.TravellerMotion{score.StraightMotion, score.ArrowsMotion, score.WaveMotion}).Draw(t, "motion"),
			Column: rapid.IntRange(0, 4).Draw(t, "column"), Row: rapid.IntRange(0, 3).Draw(t, "row"),
			Direction: score.Direction(rapid.IntRange(0, 7).Draw(t, "direction")), Rate: rapid.SampledFrom(fieldRates).Draw(t, "rate of a traveller"),
			StartsAfter: rapid.IntRange(0, 2).Draw(t, "starts after"), Velocity: rapid.SampledFrom([]int{100, 40, 200}).Draw(t, "velocity of a traveller"),
			Length: rapid.SampledFrom([]int{100, 30, 250}).Draw(t, "length of a traveller"), Octave: rapid.IntRange(-1, 1).Draw(t, "octave of a traveller"),
			OneVoice: rapid.Bool().Draw(t, "one voice"), AtTurns: rapid.Bool().Draw(t, "at turns"),
			At:    rapid.SampledFrom([]score.EdgeTurn{score.GoThrough, score.TurnBack, score.TurnRight, score.EndThere}).Draw(t, "at an edge"),
			Meets: rapid.SampledFrom([]score.MeetingTurn{score.MeetPass, score.MeetBack, score.MeetRight}).Draw(t, "meets"),
			Every: rapid.SampledFrom([]int{0, 1, 3}).Draw(t, "every"),
			Shape: rapid.SampledFrom([]score.RingShape{score.RoundRings, score.SquareRings, score.DiamondRings}).Draw(t, "shape"),
		})
	}
	return travellers
}

func meetingRules(t *rapid.T) (rules []score.MeetingRule) {
	for range rapid.IntRange(0, 2).Draw(t, "rules of meetings") {
		rules = append(rules, score.MeetingRule{
			A: rapid.SampledFrom([]int{4, 1, 99}).Draw(t, "a"), B: rapid.SampledFrom([]int{1, 4, 200}).Draw(t, "b"),
			When:  score.MeetingWhen(rapid.SampledFrom(score.MeetingWhens()).Draw(t, "when").Value),
			Track: rapid.IntRange(1, 3).Draw(t, "track of a rule"), Distance: 2, Letter: "A", Rate: rapid.SampledFrom(fieldRates).Draw(t, "another rate"),
			Do:   score.MeetingDo(rapid.SampledFrom(score.MeetingDos()).Draw(t, "do").Value),
			Odds: rapid.SampledFrom([]int{100, 50}).Draw(t, "odds of a rule"),
		})
	}
	return rules
}
