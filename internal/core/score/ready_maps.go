package score

// ReadyChordMaps lists the chord maps that ship, in the order in which to offer them. They have no ids.
func ReadyChordMaps() []ChordMap {
	ready := func(name string, led bool, chords ...[]int) ChordMap {
		m := ChordMap{Name: name, Led: led}
		for _, keys := range chords {
			m.Chords = append(m.Chords, MapChord{Keys: append([]int{}, keys...)})
		}
		return m
	}
	return []ChordMap{
		ready("Lamps along the quay", true, []int{50, 53, 57, 60}, []int{55, 59, 62, 65}, []int{48, 52, 55, 59}, []int{57, 60, 64, 67}),
		ready("Four tides", true, []int{57, 60, 64}, []int{53, 57, 60}, []int{48, 52, 55}, []int{55, 59, 62}),
		ready("Hall of figureheads", false, []int{48, 55, 64}, []int{50, 57, 65}, []int{52, 59, 67}, []int{53, 60, 69}, []int{55, 62, 71}, []int{57, 64, 72}),
		ready("Breakwater", false, []int{43, 50, 55}, []int{41, 48, 53}, []int{46, 53, 58}, []int{48, 55, 60}),
		ready("Open sea", true, []int{48, 55, 59, 62, 66}, []int{50, 57, 61, 64, 68}, []int{46, 53, 57, 60, 64}),
		ready("Fog signals", false, []int{48, 53, 58}, []int{50, 55, 60}, []int{46, 51, 56}, []int{53, 58, 63}),
		ready("Night ferry", true, []int{50, 53, 57, 60, 64}, []int{46, 50, 53, 57, 60}, []int{43, 46, 50, 53, 57}, []int{45, 49, 52, 55}),
		ready("Rope walk", true, []int{60, 64, 67}, []int{60, 65, 69}, []int{59, 62, 67}, []int{60, 64, 69}),
		ready("Dry dock", false, []int{48, 51, 54}, []int{50, 53, 56}, []int{52, 55, 58}, []int{54, 57, 60}),
		ready("Sails in the roof", true, []int{52, 56, 59, 63}, []int{57, 61, 64, 68}, []int{54, 57, 61, 64}, []int{59, 63, 66, 69}),
		ready("Low water", false, []int{36, 43, 52}, []int{33, 40, 48}, []int{41, 48, 57}, nil),
		ready("Bell tower", false, []int{60, 67, 74}, []int{62, 69, 76}, []int{57, 64, 71}, []int{55, 62, 69}, []int{53, 60, 67}),
	}
}
