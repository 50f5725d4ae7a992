// Package score holds the document that a musician writes: a project of tracks, each with patterns of
// parts, each with lanes of steps, and the edits that change it.
//
// A project is a value. Apply never changes the project it is given: it returns a new one, the edit
// that undoes the change, or an error that says what was refused and why.
//
//	next, undo, err := score.Apply(project, score.SetSteps{
//		LaneAddress: score.LaneAddress{PartAddress: score.PartAddress{Track: 1}, Lane: score.Pitch},
//		Steps:       []score.StepValue{{Step: 0, Value: 4}},
//	})
//
// Words. A lane is a row of 64 step values. It is linked when it sits on the gate lane's step;
// unlinked, it runs a loop of its own with a length, a rate and an order. Values beyond the length
// are kept. Time is counted in Tick.
package score
