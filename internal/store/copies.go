package store

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"
)

// keptCopies is how many copies of the database are kept.
const keptCopies = 7

func copiesFolder(folder string) string { return filepath.Join(folder, "copies") }

// copies lists the copies in a folder, the latest first.
func copies(folder string) []string {
	entries, err := os.ReadDir(copiesFolder(folder))
	if err != nil {
		return nil // there is none yet
	}
	var found []string
	for _, entry := range entries {
		if strings.HasPrefix(entry.Name(), "jettyfog-") && filepath.Ext(entry.Name()) == ".db" {
			found = append(found, filepath.Join(copiesFolder(folder), entry.Name()))
		}
	}
	slices.Reverse(found) // they were in the order of their names, which begin with the day
	return found
}

// latestCopy returns the latest copy that can be read.
func latestCopy(folder string) string {
	for _, file := range copies(folder) {
		if _, err := check(file); err == nil {
			return file
		}
	}
	return ""
}

// copyToday makes the copy of a day, if there is none of it yet.
func (s *Store) copyToday(ctx context.Context, now time.Time) error {
	name := now.Format(time.DateOnly)
	if _, err := os.Stat(copyFile(s.folder, name)); err == nil {
		return nil
	}
	if err := s.copyDatabase(ctx, name); err != nil {
		return fmt.Errorf("today's copy of the database could not be made, and is tried again: %w", err)
	}
	return nil
}

func copyFile(folder, name string) string {
	return filepath.Join(copiesFolder(folder), "jettyfog-"+name+".db")
}

// copyDatabase makes a copy of the database under a name, and drops the oldest copies beyond keptCopies.
func (s *Store) copyDatabase(ctx context.Context, name string) (err error) {
	if err := os.MkdirAll(copiesFolder(s.folder), 0o700); err != nil {
		return explain(err)
	}
	file := copyFile(s.folder, name)
	unfinished := file + ".part"
	defer func() {
		if err != nil {
			err = errors.Join(explain(err), os.RemoveAll(unfinished))
		}
	}()
	if err := os.RemoveAll(unfinished); err != nil {
		return err
	}
	if err := vacuumInto(ctx, databaseFile(s.folder), unfinished); err != nil {
		return err
	}
	if err := syncFile(unfinished); err != nil {
		return err
	}
	if err := os.Rename(unfinished, file); err != nil {
		return err
	}
	all := copies(s.folder)
	for _, old := range all[min(len(all), keptCopies):] {
		if err := os.Remove(old); err != nil {
			return err
		}
	}
	return nil
}

// vacuumInto writes what a database holds at this moment to another file, and keeps nobody from writing meanwhile.
func vacuumInto(ctx context.Context, file, target string) error {
	db, err := connect(file, inspecting)
	if err != nil {
		return err
	}
	pool, err := db.DB()
	if err != nil {
		return err
	}
	return errors.Join(db.WithContext(ctx).Exec("VACUUM INTO ?", target).Error, pool.Close())
}

func syncFile(path string) error {
	file, err := os.OpenFile(path, os.O_RDWR, 0)
	if err != nil {
		return err
	}
	return errors.Join(file.Sync(), file.Close())
}
