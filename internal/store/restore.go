package store

import (
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"time"
)

// Restore puts the latest copy in the place of a damaged database, which is kept beside it, and returns the paths of
// both. A database that is well is left as it is, with an error.
func Restore(folder string, now time.Time) (restored, aside string, err error) {
	folder, err = filepath.Abs(folder)
	if err != nil {
		return "", "", err
	}
	if _, err := os.Stat(folder); err != nil {
		return "", "", err
	}
	lock, err := claim(folder)
	if err != nil {
		return "", "", err
	}
	defer func() { err = errors.Join(err, lock.Close()) }()
	_, err = inspect(folder)
	var damaged *DamagedError
	switch {
	case err == nil:
		return "", "", fmt.Errorf("the database in %s is not damaged, so nothing was changed; start without --restore", folder)
	case !errors.As(err, &damaged):
		return "", "", err
	case damaged.Copy == "":
		return "", "", damaged
	}
	aside = filepath.Join(folder, "damaged-"+now.Format("2006-01-02-150405")+".db")
	if err := copyOver(damaged.Copy, databaseFile(folder)+".part"); err != nil {
		return "", "", err
	}
	for _, suffix := range []string{"-wal", "-shm", ""} {
		if err := os.Rename(databaseFile(folder)+suffix, aside+suffix); err != nil && !errors.Is(err, os.ErrNotExist) {
			return "", "", err
		}
	}
	return damaged.Copy, aside, os.Rename(databaseFile(folder)+".part", databaseFile(folder))
}

// copyOver copies a file, and has it on disk when it returns.
func copyOver(from, to string) error {
	source, err := os.Open(from)
	if err != nil {
		return err
	}
	defer source.Close()
	target, err := os.Create(to)
	if err != nil {
		return err
	}
	_, err = io.Copy(target, source)
	return errors.Join(err, target.Sync(), target.Close())
}
