package store

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"

	"jettyfog/internal/health"
)

// DamagedError says that the database cannot be read.
type DamagedError struct {
	Folder string
	// Copy is the latest copy that can be read; empty if there is none.
	Copy string
	// Cause says what is wrong.
	Cause error
}

func (e *DamagedError) Error() string {
	if e.Copy == "" {
		return fmt.Sprintf("the database in %s is damaged (%v), and there is no copy; it is left as it is; name another folder with --data", e.Folder, e.Cause)
	}
	return fmt.Sprintf("the database in %s is damaged (%v); it is left as it is; start with --restore to put its latest copy in its place, %s", e.Folder, e.Cause, filepath.Base(e.Copy))
}

// NewerError says that a newer program has written the database, which is left untouched.
type NewerError struct {
	Folder         string
	Version, Known int
}

func (e *NewerError) Error() string {
	return fmt.Sprintf("the database in %s is of version %d, and this Jettyfog knows %d; nothing was changed; use the newer Jettyfog that wrote it, or name another folder with --data",
		e.Folder, e.Version, e.Known)
}

// inspect returns the version of the database in a folder, 0 if there is none, without changing it. The error is a
// *NewerError, a *DamagedError, or what the disk says.
func inspect(folder string) (version int, err error) {
	info, err := os.Stat(databaseFile(folder))
	if errors.Is(err, os.ErrNotExist) || err == nil && info.Size() == 0 {
		return 0, nil
	}
	if err != nil {
		return 0, err
	}
	version, err = check(databaseFile(folder))
	if p := problemIn(err); p != nil && p.Kind == health.Damaged {
		return 0, &DamagedError{Folder: folder, Copy: latestCopy(folder), Cause: p.Cause}
	}
	if err == nil && version > len(migrations()) {
		err = &NewerError{Folder: folder, Version: version, Known: len(migrations())}
	}
	return version, err
}

// check returns the version of a database file, and a problem if it is damaged.
func check(file string) (version int, err error) {
	db, err := connect(file, inspecting)
	if err != nil {
		return 0, explain(err)
	}
	defer func() {
		if pool, poolErr := db.DB(); poolErr == nil {
			err = errors.Join(err, pool.Close())
		}
	}()
	var found []string
	if err := db.Raw("PRAGMA quick_check(1)").Scan(&found).Error; err != nil {
		return 0, explain(err)
	}
	if len(found) != 1 || found[0] != "ok" {
		return 0, problem(health.Damaged, errors.New(strings.Join(found, "; ")))
	}
	if !db.Migrator().HasTable("migrations") {
		return 0, nil
	}
	// The ids of migrations count from 1.
	if err := db.Raw("SELECT COALESCE(MAX(CAST(id AS INTEGER)), 0) FROM migrations").Scan(&version).Error; err != nil {
		return 0, explain(err)
	}
	return version, nil
}
