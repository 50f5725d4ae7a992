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
	times := map[string]time.Time{}
	for _, entry := range entries {
		info, err := entry.Info()
		if err != nil || !strings.HasPrefix(entry.Name(), "jettyfog-") || filepath.Ext(entry.Name()) != ".db" {
			continue
		}
		file := filepath.Join(copiesFolder(folder), entry.Name())
		found, times[file] = append(found, file), info.ModTime()
	}
	slices.SortFunc(found, func(a, b string) int { return times[b].Compare(times[a]) })
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
	if err := s.reads.WithContext(ctx).Exec("VACUUM INTO ?", unfinished).Error; err != nil {
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

func syncFile(path string) error {
	file, err := os.OpenFile(path, os.O_RDWR, 0)
	if err != nil {
		return err
	}
	return errors.Join(file.Sync(), file.Close())
}
