package field

import "jettyfog/internal/core/score"

// source is from where a wave comes, and what counts as its distance.
type source struct {
	place
	shape score.RingShape
}

// start starts a wave, unless there are too many.
func (now *moment) start(w Wave) {
	if len(now.Waves) >= score.MaxWaves || w.Generation >= score.MaxGenerations {
		now.Unstarted++
		return
	}
	now.Waves = append(now.Waves, w)
}

// widen has a wave come to its next ring if it is due, and start others at repeaters there.
func (m *Machine) widen(now *moment, i int) {
	w := &now.Waves[i]
	if w.Due != now.now {
		return
	}
	w.Ring++
	w.Due += w.Rate
	from := *w
	for _, at := range m.ring(&from) {
		if c := m.cells[at.row][at.column]; c != nil && c.Repeater {
			now.start(Wave{Traveller: from.Traveller, Column: at.column, Row: at.row, Generation: from.Generation + 1, Rate: from.Rate, Due: from.Due})
		}
	}
}

// soundsOfWaves appends the cells with notes that waves have just reached, and drops the waves that have none left to reach.
func (m *Machine) soundsOfWaves(now *moment, dst []Sound) []Sound {
	kept := now.Waves[:0]
	for _, w := range now.Waves {
		if reached := w.Due == now.now+w.Rate; reached && (w.Ring > 0 || w.Generation == 0) { // a repeater's cell has sounded already
			for _, at := range m.ring(&w) {
				if c := m.cells[at.row][at.column]; c != nil && c.Note {
					dst = append(dst, Sound{
						Traveller: w.Traveller, Column: at.column, Row: at.row, Degree: c.Degree, Octave: c.Octave, Cell: c, Lasts: w.Rate,
					})
				}
			}
		}
		if w.Ring < len(m.rings(&w))-1 {
			kept = append(kept, w)
		}
	}
	now.Waves = kept
	return dst
}

// ring returns the cells that a wave reaches with its present ring, in rows from the top.
func (m *Machine) ring(w *Wave) []place {
	if rings := m.rings(w); w.Ring < len(rings) {
		return rings[w.Ring]
	}
	return nil
}

// rings returns the cells with notes and repeaters that a wave reaches, ring by ring.
func (m *Machine) rings(w *Wave) [][]place {
	from := source{place{w.Column, w.Row}, m.field.Travellers[w.Traveller].Shape}
	if rings, known := m.reached[from]; known {
		return rings
	}
	var rings [][]place
	for row := range m.field.Rows {
		for column := range m.field.Columns {
			c := m.cells[row][column]
			if c == nil || c.Wall || !c.Note && !c.Repeater || !m.sees(from.place, place{column, row}) {
				continue
			}
			ring := from.shape.Distance(column-w.Column, row-w.Row)
			for len(rings) <= ring {
				rings = append(rings, nil)
			}
			rings[ring] = append(rings[ring], place{column, row})
		}
	}
	m.reached[from] = rings
	return rings
}

// sees reports whether no wall lies on the straight line of cells between two: at each column, or row where there are more of these, the line's cell is the
// nearest one, as by Bresenham's algorithm (1965); where two are equally near, both must be walls to close it. So the way there is the way back, and turned
// and mirrored fields see the same.
func (m *Machine) sees(from, to place) bool {
	columns, rows := to.column-from.column, to.row-from.row
	steps := max(columns, -columns, rows, -rows)
	for i := 1; i < steps; i++ {
		column, otherColumn := nearest(columns*i, steps)
		row, otherRow := nearest(rows*i, steps)
		if !m.free(from.column+column, from.row+row) && !m.free(from.column+otherColumn, from.row+otherRow) {
			return false
		}
	}
	return true
}

// nearest returns the whole numbers that are nearest to n/d: one twice, or two where it lies half way.
func nearest(n, d int) (below, above int) {
	doubled := 2*n + d
	below = doubled / (2 * d)
	if doubled < 0 && doubled%(2*d) != 0 {
		below--
	}
	above = below
	if doubled%(2*d) == 0 {
		below--
	}
	return below, above
}
