// Package play computes what a project plays: notes from a score and a stretch of time.
//
//	notes := play.Render(project, 0, project.Meter.Bar(), nil)
//	performer := play.NewPerformer(project)
//	notes = performer.Advance(project.Meter.Bar(), nil) // the same
//
// Render is a pure function of the project and the stretch, and a Performer gives the same notes in
// stretches of any size. Its sources do what is due: a walker goes along the gate lane of each part step by step, a looper
// plays a loop in its place. The performer takes them in the order of time, at one tick each after those that it hears,
// and sorts their notes, which swing, nudge, jitter and delay can move. Where it stands is one value, which Save returns
// and from which Resume goes on, also with another project: see Replayed.
//
// One step. The gate lane goes on, past steps that are skipped. If its step is on, the step's condition
// and then the probability in force decide by the luck whether it sounds. Each lane is read where it
// stands, drawn from its weights if it has any, varied by its spread, and scaled by its amount. The
// degree is transposed, brought to an allowed note, spelled in the key, moved by octaves and semitones,
// and only then folded into the register, so that a note is in the register always. A note's length is a
// share of the step length, or counts steps. Ties carry it to the end of the last tied step, of which the
// same share sounds; a tie after a step that did not sound is silent. Ratchets share the room evenly,
// gathering or slackening.
//
// Chance. Where a lane goes is addressed by its own moves; what a step decides, by the gate lane's moves.
// Both count from the beginning, so realigning lanes does not repeat their luck; hold alone sets them back, see
// holding.
//
// Notes and changes carry their track and part; which channel and which instrument they reach is decided by package
// route. Swing bends time on one grid of the project; moments are exact fractions of
// a tick until the last. TempoMap relates ticks to
// nanoseconds. Look tells what a part is going to do, Period when its lanes meet again.
package play
