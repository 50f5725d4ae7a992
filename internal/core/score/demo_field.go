package score

// mooringField has a loop of arrows with a fork, a ferry that goes to and fro, and rings from a buoy; where the first two are in one cell the ferry turns.
func mooringField() Track {
	part := NewFieldPart()
	part.Field = &Field{Columns: 9, Rows: 6, Travellers: []Traveller{
		{ID: 1, Motion: ArrowsMotion, Column: 1, Row: 1, Rate: "1/8", Velocity: 90, Length: 90},
		{ID: 2, Motion: StraightMotion, Column: 8, Row: 3, Direction: 6, Rate: "1/16", Velocity: 60, Length: 60, At: TurnBack},
		{ID: 3, Motion: WaveMotion, Column: 7, Row: 5, Rate: "1/8", Every: 32, Velocity: 55, Length: 120, Octave: 1},
	}}
	f := part.Field
	put := func(column, row int, degree int, arrows ...Direction) {
		cell := Cell{Column: column, Row: row, Note: degree != silent, Degree: max(degree, 0)}
		for i, to := range arrows {
			cell.Arrows = append(cell.Arrows, Arrow{To: to, Weight: []int{70, 30}[i]})
		}
		f.Cells = append(f.Cells, cell)
	}
	put(1, 1, 0, 2)
	put(2, 1, silent, 2)
	put(3, 1, 4, 3, 2)
	put(4, 1, 7, 3)
	put(4, 2, 2, 4)
	put(5, 2, silent, 4)
	put(4, 3, 5, 5)
	put(5, 3, 6, 5)
	put(3, 4, silent, 6)
	put(4, 4, 3, 6)
	put(2, 4, 4, 7)
	put(1, 3, 2, 0)
	put(1, 2, silent, 0)
	put(7, 5, 0)
	put(7, 2, 4)
	put(8, 4, 2)
	put(6, 4, 7)
	put(7, 3, 9)
	put(2, 3, 1)
	f.Cells = append(f.Cells, Cell{Column: 6, Row: 0, Wall: true}, Cell{Column: 6, Row: 1, Wall: true})
	f.Rules = []MeetingRule{{A: 2, B: 1, When: InOneCell, Do: DoTurn, Odds: 100}}
	track := newTrack(6, "Mooring field", part)
	track.Kind, track.Channel, track.Realign = FieldKind, 5, 8
	track.Register.Lowest, track.Register.Highest = 55, 91
	track.Routes = patched("organ")
	return track
}

// mooringLayers are what the field can be given while it plays: a shorter round, into which all cells of the longer one lead, lower notes, and two of the travellers.
func mooringLayers(f *Field) []FieldLayer {
	round := FieldLayer{ID: 1, Name: "Short round", Kind: ArrowsLayer, Cells: []Cell{{Column: 6, Row: 0, Wall: true}, {Column: 6, Row: 1, Wall: true}}}
	for _, way := range []struct {
		column, row int
		to          Direction
	}{
		{1, 1, 2}, {2, 1, 2}, {3, 1, 3}, {4, 2, 5}, {3, 3, 6}, {2, 3, 7}, {1, 2, 0},
		{4, 1, 4}, {5, 2, 6}, {4, 3, 0}, {5, 3, 7}, {3, 4, 0}, {4, 4, 7}, {2, 4, 0}, {1, 3, 2},
	} {
		round.Cells = append(round.Cells, Cell{Column: way.column, Row: way.row, Arrows: []Arrow{{To: way.to, Weight: 100}}})
	}
	low := f.Layer(ValuesLayer)
	low.ID, low.Name = 2, "Low water"
	for i := range low.Cells {
		low.Cells[i].Degree, low.Cells[i].Octave = low.Cells[i].Degree%5, -1
	}
	two := FieldLayer{ID: 3, Name: "Ferry and buoy", Kind: TravellersLayer, Travellers: f.Layer(TravellersLayer).Travellers[1:]}
	return []FieldLayer{round, low, two}
}

// silent stands for no note where a field is sketched.
const silent = -1
