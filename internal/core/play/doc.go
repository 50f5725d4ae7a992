// Package play computes what a project plays: notes from a score and a stretch of time.
//
//	notes := play.Render(project, 0, project.Meter.Bar(), nil)
//
// Render is a pure function of the project and the stretch, so however time is cut up, the notes are
// the same. A lane's place is computed from the time alone: after n of its own steps a lane of length
// l stands at step n mod l, or l-1 - n mod l going backward.
//
// One step. The gate lane goes on; if its step is on, the probability in force decides by the luck
// whether it sounds. Degree, velocity and length are read from where their lanes stand at that
// moment. The degree is spelled in the key and folded into the track's register. Ties lengthen the
// note to the end of the last tied step, where the length lane says what share of that step sounds.
// A tie after a step that did not sound is silent.
//
// Keys turns notes into the note-on and note-off messages of a MIDI port. TempoMap relates ticks to
// nanoseconds.
package play
