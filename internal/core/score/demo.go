package score

import "jettyfog/internal/core/theory"

// Blank returns a project to start from: one track with a note on each beat.
func Blank() *Project {
	part := newPart("Part 1")
	for step := 0; step < MaxSteps; step += 4 {
		part.Lanes.Gate.Steps[step] = On
	}
	return &Project{
		Name:   "Untitled",
		Tempo:  110_000,
		Meter:  Meter{Beats: 4, Unit: 4},
		Key:    theory.Key{Root: 0, Scale: "minor"},
		Luck:   Luck{Number: 1, Former: []int{}},
		Swing:  50,
		Tracks: []Track{newTrack(1, "Track 1", part)},
	}
}

// Demo returns "Night opening", a bell buoy for the night opening of a harbour museum. Its lanes run
// loops of 16, 11, 7, 5 and 9 steps, none of which divides another.
func Demo() *Project {
	part := newPart("Part 1")
	lanes := &part.Lanes
	write(lanes.Gate, 16, "1/16", On, Off, On, On, Off, On, Tie, Off, On, Off, On, On, Off, On, Tie, On)
	write(lanes.Pitch, 11, "1/16", 0, 4, 2, 6, 4, 7, 9, 4, 2, 3, 1)
	write(lanes.Velocity, 7, "1/8", 112, 78, 90, 64, 102, 72, 86)
	write(lanes.Length, 5, "1/8", 90, 45, 100, 30, 70)
	write(lanes.Probability, 9, "1/16", 100, 80, 100, 60, 100, 90, 45, 100, 70)
	lanes.Length.Order = Backward
	track := newTrack(1, "Bell buoy", part)
	track.Register = theory.Register{Lowest: 48, Highest: 88}
	return &Project{
		Name:   "Night opening",
		Tempo:  96_000,
		Meter:  Meter{Beats: 4, Unit: 4},
		Key:    theory.Key{Root: 2, Scale: "dorian"},
		Luck:   Luck{Number: 48_213, Former: []int{}},
		Swing:  50,
		Tracks: []Track{track},
	}
}

// write gives a lane a loop of its own with the given values; the steps beyond keep theirs.
func write(lane *Lane, length int, rate NoteValue, values ...int) {
	lane.Linked, lane.Length, lane.Rate = false, length, rate
	copy(lane.Steps, values)
}
