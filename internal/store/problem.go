package store

import (
	"context"
	"errors"
	"io/fs"
	"os"

	"jettyfog/internal/health"
)

// Primary result codes of SQLite (sqlite.org/rescode.html).
const (
	sqliteBusy     = 5
	sqliteLocked   = 6
	sqliteReadOnly = 8
	sqliteIOErr    = 10
	sqliteCorrupt  = 11
	sqliteFull     = 13
	sqliteCantOpen = 14
	sqliteNotADB   = 26

	sqliteMoved = sqliteReadOnly | 4<<8 // an extended code: the file was moved
)

// sentences say what to do about each kind of problem.
var sentences = map[health.Kind]string{
	health.Full:     "the disk is full, so nothing more is stored; make room on it, and Jettyfog continues by itself",
	health.Gone:     "the folder of data was moved or deleted, so nothing more is stored; put it back where it was, or start Jettyfog anew with the folder that you want",
	health.ReadOnly: "the folder of data may not be written to, so nothing more is stored; allow your user to write there, and Jettyfog continues by itself",
	health.Damaged:  "the database is damaged; stop Jettyfog and start it with --restore, which puts the latest copy in its place and keeps the damaged one",
	health.Busy:     "another program keeps the database locked, so nothing more is stored; end what copies or reads the folder of data, and Jettyfog continues by itself",
	health.Failing:  "the disk does not take what is written, so nothing more is stored; see whether it is connected and well, and Jettyfog continues by itself",
}

func problem(kind health.Kind, cause error) *health.Problem {
	return &health.Problem{Kind: kind, Sentence: sentences[kind], Cause: cause}
}

// explain returns an error of the database or the disk as a *health.Problem, and all others as they are.
func explain(err error) error {
	var known *health.Problem
	var coded interface{ Code() int }
	switch {
	case err == nil, errors.As(err, &known), errors.Is(err, context.Canceled), errors.Is(err, context.DeadlineExceeded):
		return err
	case errors.Is(err, fs.ErrPermission):
		return problem(health.ReadOnly, err)
	case !errors.As(err, &coded):
		var path *os.PathError
		if errors.As(err, &path) {
			return problem(health.Failing, err)
		}
		return err
	case coded.Code() == sqliteMoved:
		return problem(health.Gone, err)
	}
	switch coded.Code() & 0xFF {
	case sqliteFull:
		return problem(health.Full, err)
	case sqliteReadOnly:
		return problem(health.ReadOnly, err)
	case sqliteCorrupt, sqliteNotADB:
		return problem(health.Damaged, err)
	case sqliteBusy, sqliteLocked:
		return problem(health.Busy, err)
	case sqliteIOErr, sqliteCantOpen:
		return problem(health.Failing, err)
	}
	return err
}

// problemIn returns the problem that an error is or wraps, or nil.
func problemIn(err error) *health.Problem {
	var p *health.Problem
	errors.As(err, &p)
	return p
}
