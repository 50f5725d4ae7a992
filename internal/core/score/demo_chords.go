package score

import "jettyfog/internal/core/theory"

// quayLamps plays slow chords of four notes, strummed, low in the mix.
func quayLamps() Track {
	part := NewPart("Part 1")
	lanes := &part.Lanes
	write(lanes.Gate, 4, "1/1", On, On, On, On)
	write(lanes.Pitch, 6, "1/1", 0, 5, 3, -3, 2, 4)
	lanes.Length.Linked, lanes.Velocity.Linked = false, false
	write(lanes.Length, 1, "1/1", 96)
	write(lanes.Velocity, 3, "1/1", 44, 52, 38)
	lanes.Chord = newLane(Chord.Spec())
	write(lanes.Chord, 1, "1/1", seventh)
	part.Voicing = Voicing{Inversion: 1, Strum: 6}
	track := newTrack(4, "Quay lamps", part)
	track.Channel = 3
	track.Register = theory.Register{Lowest: 48, Highest: 72}
	track.Routes = patched("pad")
	return track
}

// lampChain arpeggiates the notes of quayLamps: a fifth becomes a sixth now and then.
func lampChain() Track {
	part := NewPart("Part 1")
	lanes := &part.Lanes
	write(lanes.Gate, 10, "1/16", On, Off, On, On, Off, On, Off, Off, On, Off)
	write(lanes.Velocity, 7, "1/16", 66, 46, 58, 40, 72, 50, 44)
	write(lanes.Length, 1, "1/16", 60)
	write(lanes.Probability, 13, "1/16", 100, 90, 70, 100, 80, 100, 60, 100, 90, 75, 100, 85, 50)
	track := newTrack(5, "Lamp chain", part)
	track.Channel = 4
	track.Register = theory.Register{Lowest: 60, Highest: 96}
	track.Pitches = &PitchSource{
		Kind: TrackPitches, Track: 4, Highest: theory.HighestNote, Order: UpDown, Octaves: 2,
		Rules: []RoleRule{{Role: theory.FifthRole, Semitones: 2, Odds: 25}},
	}
	track.Routes = patched("pluck")
	return track
}

// seventh is the number of the seventh chord among Chords.
const seventh = 3

// patched returns the route of a track to a patch of the built-in sound.
func patched(patch Patch) *[]Route {
	route := WholeRoute(BuiltIn)
	route.Patch = patch
	return &[]Route{route}
}
