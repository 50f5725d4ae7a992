// Package store keeps everything that must survive in a folder of data: the open project, its history, all takes and
// the wake, in one SQLite database. Rows and their GORM tags never leave this package.
//
//	kept, err := store.Open(folder)
//	kept.Announce("http://127.0.0.1:7464") // for whoever finds the folder taken
//	go kept.Watch(ctx, board)
//
// # What is acknowledged, when, and by whom
//
// A call that changes something returns nil once its transaction is on disk (WAL, synchronous FULL) in the file
// that bears the folder's name at that moment; with an error nothing counts, and no id that came with it. A caller
// may make the same call again: storing the same piece of a recording, the same document or the same origin twice
// changes nothing.
//
// # What may interrupt it
//
// All writes take turns, one at a time, and the journal (pieces of takes and of the wake) goes before all else. A
// context that ends gives up a turn that has not come; what has begun to be written is written to its end, so
// nobody who asked and went away leaves a half behind, or a commit of which the rest of the program does not know.
// Reads have connections of their own and wait for no write.
//
// # The journal
//
// A recording, and every stretch of the wake, is a row in takes and pieces of messages beside it, one about every
// quarter of a second. When a recording is finished its pieces become its contents, in one transaction, and go. A
// program that is killed leaves a recording that is not finished; the next Open finishes it. One without a message
// goes.
//
// # The folder
//
//	jettyfog.db            the database, with -wal and -shm beside it while it is open
//	jettyfog.lock          held by the one program that has the folder; the system lets go of it when that dies
//	jettyfog.owner         who that is
//	copies/                copies of the database: the latest seven of those made once a day and before migrations
//	damaged-….db           a database that was put aside because it was damaged
//
// Problems of the folder and the disk are *health.Problem.
package store
