package score

import "jettyfog/internal/core/theory"

// Blank returns a project to start from: one track with a note on each beat.
func Blank() *Project {
	lanes := newLanes()
	for step := 0; step < MaxSteps; step += 4 {
		lanes.Gate.Steps[step] = On
	}
	return &Project{
		Name:   "Untitled",
		Tempo:  110_000,
		Meter:  Meter{Beats: 4, Unit: 4},
		Key:    theory.Key{Root: 0, Scale: "minor"},
		Luck:   Luck{Number: 1, Former: []int{}},
		Tracks: []Track{{ID: 1, Name: "Track 1", Channel: 1, Register: theory.Register{Lowest: 36, Highest: 96}, Lanes: lanes}},
	}
}

// Demo returns "Night opening", a bell buoy for the night opening of a harbour museum. Its lanes run
// loops of 16, 11, 7, 5 and 9 steps, none of which divides another.
func Demo() *Project {
	lanes := newLanes()
	lanes.Gate.Steps = written(Off, On, Off, On, On, Off, On, Tie, Off, On, Off, On, On, Off, On, Tie, On)
	lanes.Pitch = Lane{
		Length: 11, Rate: "1/16", Order: Forward,
		Steps: written(0, 0, 4, 2, 6, 4, 7, 9, 4, 2, 3, 1),
	}
	lanes.Velocity = Lane{
		Length: 7, Rate: "1/8", Order: Forward,
		Steps: written(96, 112, 78, 90, 64, 102, 72, 86),
	}
	lanes.Length = Lane{
		Length: 5, Rate: "1/8", Order: Backward,
		Steps: written(60, 90, 45, 100, 30, 70),
	}
	lanes.Probability = Lane{
		Length: 9, Rate: "1/16", Order: Forward,
		Steps: written(100, 100, 80, 100, 60, 100, 90, 45, 100, 70),
	}
	return &Project{
		Name:   "Night opening",
		Tempo:  96_000,
		Meter:  Meter{Beats: 4, Unit: 4},
		Key:    theory.Key{Root: 2, Scale: "dorian"},
		Luck:   Luck{Number: 48_213, Former: []int{}},
		Tracks: []Track{{ID: 1, Name: "Bell buoy", Channel: 1, Register: theory.Register{Lowest: 48, Highest: 88}, Lanes: lanes}},
	}
}

// written returns MaxSteps values: the given ones first, then beyond for all others.
func written(beyond int, values ...int) []int {
	steps := make([]int, MaxSteps)
	for i := range steps {
		steps[i] = beyond
	}
	copy(steps, values)
	return steps
}
