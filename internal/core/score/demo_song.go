package score

// withSong gives the demo's tracks other patterns, and the project the scenes and the song that play them: an evening from the
// opening of the doors to the lights going out.
func withSong(p *Project) *Project {
	bell, bass, kit := &p.Tracks[0], &p.Tracks[1], &p.Tracks[2]

	far := bell.Patterns[0].clone()
	far.ID, far.Name = 1, "Far bells"
	write(far.Parts[0].Lanes.Gate, 12, "1/8", On, Tie, Off, Off, On, Off, Off, On, Tie, Tie, Off, Off)
	write(far.Parts[0].Lanes.Pitch, 7, "1/8", 0, 4, 7, 2, 9, 4, 6)
	signal := bell.Patterns[0].clone()
	signal.ID, signal.Name = 2, "Fog signal"
	write(signal.Parts[0].Lanes.Gate, 8, "1/4", On, Tie, Tie, Off, On, Tie, Off, Off)
	write(signal.Parts[0].Lanes.Pitch, 3, "1/4", 0, -3, 4)
	bell.Patterns = append(bell.Patterns, far, signal)

	ebb := bass.Patterns[0].clone()
	ebb.ID, ebb.Name = 1, "Ebb"
	write(ebb.Parts[0].Lanes.Gate, 16, "1/8", On, Tie, Tie, Tie, Off, Off, On, Tie, On, Tie, Tie, Off, Off, Off, Off, On)
	write(ebb.Parts[0].Lanes.Pitch, 5, "1/2", 0, -3, 2, 3, -1)
	bass.Patterns = append(bass.Patterns, ebb)

	winches := kit.Patterns[0].clone()
	winches.ID, winches.Name = 1, "Winches"
	write(winches.Parts[0].Lanes.Gate, 12, "1/16", On, Off, Off, On, Off, Off, On, Off, Off, On, Off, Off)
	write(winches.Parts[2].Lanes.Gate, 5, "1/8", On, Off, On, On, Off)
	kit.Patterns = append(kit.Patterns, winches)

	scene := func(id int, name string, bellPattern, bassPattern, kitPattern int, bassMute, kitMute, lampsMute, chainMute, fieldMute int, more ...SceneValue) Scene {
		of := func(name string, track, value int) SceneValue {
			return SceneValue{ControlAddress{Name: name, Track: track}, value}
		}
		return Scene{ID: id, Name: name, Values: append([]SceneValue{
			of("pattern", 1, bellPattern), of("pattern", 2, bassPattern), of("pattern", 3, kitPattern), of("mute", 2, bassMute), of("mute", 3, kitMute),
			of("mute", 4, lampsMute), of("mute", 5, chainMute), of("mute", 6, fieldMute),
		}, more...)}
	}
	up := SceneValue{ControlAddress{Name: "degrees", Track: 1}, 2}
	level := SceneValue{ControlAddress{Name: "degrees", Track: 1}, 0}
	p.Scenes = []Scene{
		scene(1, "Doors", 1, 0, 0, 1, 1, 0, 1, 1, level),
		scene(2, "Ferry", 0, 0, 0, 0, 1, 0, 0, 1, level),
		scene(3, "Engine room", 0, 0, 0, 0, 0, 1, 1, 0, level),
		scene(4, "Fog signal", 2, 1, 0, 0, 1, 1, 1, 0, level),
		scene(5, "Winches", 0, 0, 1, 0, 0, 1, 0, 1, up),
		scene(6, "Low water", 1, 1, 1, 0, 0, 0, 0, 0, level),
		scene(7, "Lights out", 2, 1, 0, 0, 1, 0, 1, 1, level),
	}
	p.Song = []Section{
		{ID: 1, Name: "Doors", Scene: 1, Bars: 4, Repeats: 1},
		{ID: 2, Name: "Ferry", Scene: 2, Bars: 4, Repeats: 2},
		{ID: 3, Name: "Engine room", Scene: 3, Bars: 4, Repeats: 2},
		{ID: 4, Name: "Fog signal", Scene: 4, Bars: 4, Repeats: 1, Tempo: tempoOf(88)},
		{ID: 5, Name: "Winches", Scene: 5, Bars: 4, Repeats: 2, Tempo: tempoOf(100), Luck: luckOf(7_412)},
		{ID: 6, Name: "Low water", Scene: 6, Bars: 4, Repeats: 0, Tempo: tempoOf(96)},
		{ID: 7, Name: "Lights out", Scene: 7, Bars: 4, Repeats: 1, Tempo: tempoOf(72), Luck: luckOf(48_213)},
	}
	return p
}

func tempoOf(bpm int) *Tempo {
	tempo := Tempo(bpm * 1000)
	return &tempo
}

func luckOf(number int) *int { return &number }
