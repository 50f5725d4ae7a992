package score

import "jettyfog/internal/core/theory"

// Blank returns a project to start from: one track with a note on each beat.
func Blank() *Project {
	part := NewPart("Part 1")
	for step := 0; step < MaxSteps; step += 4 {
		part.Lanes.Gate.Steps[step] = On
	}
	return &Project{
		Name:  "Untitled",
		Tempo: 110_000,
		Meter: Meter{Beats: 4, Unit: 4},
		Key:   theory.Key{Root: 0, Scale: "minor"},
		Luck:  Luck{Number: 1, Former: []int{}},
		Swing: Straight, SwingGrid: "1/16",
		Tracks: []Track{newTrack(1, "Track 1", part)},
	}
}

// Demo returns "Night opening", music for the night opening of a harbour museum: a bell buoy, a tide bass and
// a kit of hull sounds.
func Demo() *Project {
	return withMovers(withSong(withVoltages(&Project{
		Name:  "Night opening",
		Tempo: 96_000,
		Meter: Meter{Beats: 4, Unit: 4},
		Key:   theory.Key{Root: 2, Scale: "dorian"},
		Luck:  Luck{Number: 48_213, Former: []int{}},
		Swing: Straight, SwingGrid: "1/16",
		Tracks:      []Track{bellBuoy(), tideBass(), hullKit(), quayLamps(), lampChain(), mooringField()},
		FieldLayers: mooringLayers(mooringField().Patterns[0].Parts[0].Field),
	})))
}

// bellBuoy has lanes of 16, 11, 7, 5 and 9 steps, none of which divides another.
func bellBuoy() Track {
	part := NewPart("Part 1")
	lanes := &part.Lanes
	write(lanes.Gate, 16, "1/16", On, Off, On, On, Off, On, Tie, Off, On, Off, On, On, Off, On, Tie, On)
	write(lanes.Pitch, 11, "1/16", 0, 4, 2, 6, 4, 7, 9, 4, 2, 3, 1)
	write(lanes.Velocity, 7, "1/8", 112, 78, 90, 64, 102, 72, 86)
	write(lanes.Length, 5, "1/8", 90, 45, 100, 30, 70)
	write(lanes.Probability, 9, "1/16", 100, 80, 100, 60, 100, 90, 45, 100, 70)
	lanes.Length.Order = Backward
	track := newTrack(1, "Bell buoy", part)
	track.Register = theory.Register{Lowest: 48, Highest: 88}
	return track
}

// tideBass plays one voice, legato, and its velocities spread.
func tideBass() Track {
	part := NewPart("Part 1")
	lanes := &part.Lanes
	write(lanes.Gate, 12, "1/8", On, Tie, Off, On, Off, Off, On, Off, On, Tie, Off, On)
	write(lanes.Pitch, 7, "1/4", 0, 0, 4, 3, 0, 2, -3)
	lanes.Velocity.Spread = &Spread{Chance: 100, Depth: 100, Lowest: -28, Highest: 12, Lean: 30, Grain: 1}
	write(lanes.Probability, 5, "1/4", 100, 100, 75, 100, 60)
	track := newTrack(2, "Tide bass", part)
	track.Channel, track.Voices, track.Overlap = 2, 1, 1008
	track.Routes = patched("bass")
	track.Register = theory.Register{Lowest: 31, Highest: 54}
	return track
}

// hullKit has parts of 16, 12, 7 and 10 steps; winches are ratchets, and the chain waits for its pass.
func hullKit() Track {
	boom, hatch, winch, chain := NewKitPart(36), NewKitPart(42), NewKitPart(37), NewKitPart(46)
	boom.Name, hatch.Name, winch.Name, chain.Name = "Hull boom", "Hatch", "Winch", "Chain"
	write(boom.Lanes.Gate, 16, "1/16", On, Off, Off, Off, Off, Off, On, Off, On, Off, Off, Off, Off, On, Off, Off)
	write(hatch.Lanes.Gate, 12, "1/16", On, Off, On, Off, On, On, Off, On, On, Off, On, Off)
	write(hatch.Lanes.Velocity, 5, "1/16", 84, 46, 62, 40, 72)
	write(hatch.Lanes.Probability, 7, "1/16", 100, 85, 100, 60, 100, 90, 70)
	write(winch.Lanes.Gate, 7, "1/8", Off, Off, On, Off, Off, On, Off)
	winch.Lanes.Ratchet = newLane(Ratchet.Spec())
	write(winch.Lanes.Ratchet, 5, "1/8", 1, 3, 1, 2, 4)
	winch.Ratchet = RatchetShape{Spacing: Gathering, Ramp: -45, Odds: 80}
	write(winch.Lanes.Probability, 3, "1/2", 90, 60, 75)
	write(chain.Lanes.Gate, 10, "1/8", Off, Off, Off, On)
	chain.Details = map[int]StepDetail{3: {Condition: EveryPass(2, 3)}}
	track := newTrack(3, "Hull kit", boom)
	track.Kind, track.Channel = Kit, percussionChannel
	track.Patterns[0].Parts = nil
	for id, part := range []Part{boom, hatch, winch, chain} {
		part.ID = id
		track.Patterns[0].Parts = append(track.Patterns[0].Parts, part)
	}
	return track
}

// write gives a lane a loop of its own with the given values; the steps beyond keep theirs.
func write(lane *Lane, length int, rate NoteValue, values ...int) {
	lane.Linked, lane.Length, lane.Rate = false, length, rate
	copy(lane.Steps, values)
}
