package store

import (
	"context"
	"time"

	"gorm.io/gorm"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// CopyToday makes the copy of a day, as Watch does.
func (s *Store) CopyToday(now time.Time) error { return s.copyToday(context.Background(), now) }

// Look looks after the folder once, as Watch does.
func (s *Store) Look() { s.look() }

// Raw returns the connection that writes.
func (s *Store) Raw() *gorm.DB { return s.db }

// Hold takes a turn to write, and returns what ends it.
func (s *Store) Hold() (release func(), err error) {
	return s.writes.leave, s.writes.enter(context.Background(), plainTurn)
}

// Waiting returns how many wait for their turn.
func (s *Store) Waiting() (count int) {
	s.writes.mu.Lock()
	defer s.writes.mu.Unlock()
	for _, list := range s.writes.waiting {
		count += len(list)
	}
	return count
}

// LastStretch returns all messages of the last stretch of the wake as they are stored.
func (s *Store) LastStretch() (messages []midi.Message, err error) {
	row, _, err := stretch(s.reads, 0)
	if err != nil {
		return nil, err
	}
	return messagesBetween(s.reads, row.ID, 0, score.LastTick)
}

// Busy reports whether somebody is writing.
func (s *Store) Busy() bool {
	s.writes.mu.Lock()
	defer s.writes.mu.Unlock()
	return s.writes.busy
}

// Met remembers what a write has met.
func (s *Store) Met(err error) { _ = s.met(err, true) }

// Pack and Unpack store messages and read them.
var Pack, Unpack = pack, unpack
