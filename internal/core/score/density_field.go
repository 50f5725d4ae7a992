package score

// hitsOfField is hits for a field, each sounding cell of which is a step; struck and played are how many strikes and notes a step has by the lanes.
func (d *densities) hitsOfField(t *Track, f *Field, struck, played float64) (steps, strikes, notes float64) {
	cells := d.cellsOf(t, f)
	if struck == 0 {
		return cells, 0, 0
	}
	ratchets := f.ratchetOfCells(struck) / struck
	return cells, cells * struck * ratchets, cells * played * ratchets
}

// cellsOf estimates how many cells of a field sound in a second, on the safe side: each to which a traveller comes, each with a note that a wave reaches, and
// what rules have sound besides.
func (d *densities) cellsOf(t *Track, f *Field) (cells float64) {
	waves, fastest := 0.0, 0.0
	notes, repeaters := f.notesAndRepeaters()
	for i := range f.Travellers {
		of := &f.Travellers[i]
		moves := d.moves(t, f, of)
		for _, rule := range f.Rules {
			if b := f.Traveller(rule.B); rule.A == of.ID && rule.Do == DoSound && rule.Odds > 0 && b != nil {
				cells += d.moves(t, f, b)
			}
		}
		if of.Motion != WaveMotion {
			cells += moves
			continue
		}
		started := moves / float64(of.WaveEvery())
		for range MaxGenerations {
			waves, started = waves+started, started*float64(repeaters)
		}
		fastest = max(fastest, moves)
	}
	// No more waves widen at a time than may, each by a ring with every move.
	rings := max(1, max(f.Columns, f.Rows)/2)
	return cells + min(waves, MaxWaves*fastest/float64(rings))*float64(notes)
}

// moves returns how often a second a traveller moves at the fastest rate that it can have.
func (d *densities) moves(t *Track, f *Field, of *Traveller) float64 {
	rate := of.Rate.Ticks()
	for _, rule := range f.Rules {
		if rule.A == of.ID && rule.Do == DoRate && rule.Odds > 0 {
			rate = min(rate, rule.Rate.Ticks())
		}
	}
	return d.perSecond(t, rate)
}

// notesAndRepeaters returns how many cells of the grid have a note, and how many are repeaters.
func (f *Field) notesAndRepeaters() (notes, repeaters int) {
	for i := range f.Cells {
		c := &f.Cells[i]
		if !f.Inside(c.Column, c.Row) || c.Wall {
			continue
		}
		if c.Note {
			notes++
		}
		if c.Repeater {
			repeaters++
		}
	}
	return notes, repeaters
}

// ratchetOfCells returns how many strikes a cell has on average, where those that have no ratchet of their own have as many as the lanes say.
func (f *Field) ratchetOfCells(usual float64) float64 {
	sum, notes := 0.0, 0
	for i := range f.Cells {
		c := &f.Cells[i]
		if !c.Note {
			continue
		}
		notes++
		if c.Ratchet > 0 {
			sum += float64(c.Ratchet)
		} else {
			sum += usual
		}
	}
	if notes == 0 {
		return usual
	}
	return sum / float64(notes)
}
