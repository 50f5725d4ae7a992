// Package shelf keeps the takes: each is its recording, which never changes, and the edits that were made of it,
// of which those up to a position are in force.
//
//	kept, err := takes.Edit(ctx, id, version, take.Trim{From: 0, To: bar})
//	kept, err = takes.Undo(ctx, id, kept.Version)
//
// A change names the version of the take that it was made for, so two pages cannot undo each other's work
// unseen. Nothing is ever removed: a deleted take is only out of the way.
package shelf
