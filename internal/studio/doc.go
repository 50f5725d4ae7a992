// Package studio keeps the project that is open. Every change of it takes one way: an edit is applied
// by the core, stored, and told to everybody who listens, in that order.
//
//	state, err := studio.Edit(ctx, state.Revision, score.ChangeLuck{Number: 7})
//	state, err = studio.Undo(ctx, state.Revision)
//
// Words. The revision counts all changes, undoing included, and never goes back: whoever asks for a
// change names the revision that he saw. The position is the number of edits that are in force; undo
// lowers it, redo raises it, and a new edit forgets those beyond it.
package studio
