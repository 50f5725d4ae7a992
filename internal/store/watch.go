package store

import (
	"context"
	"os"
	"sync"
	"time"

	"jettyfog/internal/health"
)

// How often the folder is looked at, and how often it is seen whether today has a copy.
const (
	lookEvery = time.Second
	copyEvery = 10 * time.Minute
)

// files are the files that the database has open, so that it is noticed when others come into their place.
type files struct {
	mu    sync.Mutex
	known map[string]os.FileInfo
}

// watched are the files that stay the same as long as the database is open.
var watched = []string{"", "-wal"}

// note remembers the files.
func (f *files) note(folder string) error {
	f.mu.Lock()
	defer f.mu.Unlock()
	f.known = map[string]os.FileInfo{}
	for _, suffix := range watched {
		info, err := os.Stat(databaseFile(folder) + suffix)
		if err != nil {
			return err
		}
		f.known[suffix] = info
	}
	return nil
}

// check returns a problem if the files are not where they were: what is written to them then is on no disk that
// anybody will find.
func (f *files) check(folder string) error {
	f.mu.Lock()
	defer f.mu.Unlock()
	for suffix, known := range f.known {
		info, err := os.Stat(databaseFile(folder) + suffix)
		if err == nil && os.SameFile(info, known) {
			continue
		}
		if err == nil {
			err = &os.PathError{Op: "find", Path: databaseFile(folder) + suffix, Err: os.ErrExist}
		}
		return problem(health.Gone, err)
	}
	return nil
}

// Watch looks after the folder until the context ends: it reports what is wrong with it, tries again whether a
// problem is over, and makes a copy of the database once a day.
func (s *Store) Watch(ctx context.Context, board *health.Board) {
	look, copies := time.NewTicker(lookEvery), time.NewTicker(copyEvery)
	defer look.Stop()
	defer copies.Stop()
	copyNow := func(now time.Time) {
		if s.look(); s.Problem() != nil {
			return // that is told already
		}
		if err := s.copyToday(ctx, now); ctx.Err() == nil {
			board.Report(health.Copies, err)
		}
	}
	copyNow(time.Now())
	for {
		select {
		case <-ctx.Done():
			return
		case <-look.C:
			s.look()
			board.Report(health.Folder, s.Problem())
		case now := <-copies.C:
			copyNow(now)
		}
	}
}

// look finds out whether the files are where they were, and whether a problem is over. It may not be called twice at
// once.
func (s *Store) look() {
	if err := s.files.check(s.folder); err != nil {
		_ = s.met(err, true) // it is remembered
		return
	}
	if p := problemIn(s.Problem()); p != nil && p.Kind != health.Damaged {
		_ = s.probe() // what it meets is remembered
	}
	if s.Problem() == nil {
		_ = s.finishBroken() // at the start there was no room for it
	}
}
