// Package field moves travellers over the cells of a field, and says which cells sound when. Its time is counted in ticks from where the field begins, as
// if its track's speed were 1:1.
//
//	m := field.New(part.Field, address)
//	s := m.Begin()
//	for s.Due() < end {
//		for _, sound := range m.Move(s, nil) { … }
//	}
//
// A traveller is in its first cell at the moment at which it starts, and is taken to arrive there. At each moment all move at once that are due. Then
// meetings are judged, pair by pair in the order of the list: two are in one cell, or have changed places; what those do that turn where they meet comes
// first, then the rules about the pair in their order. Then cells sound: those of travellers in their order, then those of waves in the order in which they
// started, each ring in rows from the top.
package field
