// Package stage is what performing puts on top of a project: which controls there are, and live changes, each the value
// that a control has been given.
//
//	mute := stage.Control{Name: "mute", Track: 3}
//	s := stage.Stage{}.With(mute, 1)
//	plays := s.On(project) // the project, with track 3 muted
//
// Words. A control is anything that can be changed while a project plays, named by the ids of what it belongs to. Its
// value is a whole number in the unit of its Spec: 1 is on and 0 off, and of a choice it is the place in the list of
// Values. A live change is a control and the value that it has in place of the written one.
package stage
