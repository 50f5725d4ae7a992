package store

import (
	"errors"
	"fmt"
	"net/url"
	"os"
	"path/filepath"

	"github.com/glebarez/sqlite"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"
)

// Store is an open database. All methods may be called concurrently.
type Store struct {
	db *gorm.DB
}

// pragmas make each commit durable and let readers go on while something is written.
var pragmas = url.Values{
	"_pragma": {"journal_mode(WAL)", "synchronous(FULL)", "foreign_keys(ON)", "busy_timeout(5000)"},
	"_txlock": {"immediate"},
}

// Open opens the database in a folder and makes both if they are missing. Takes that were being
// recorded when the program was last killed are finished.
func Open(folder string) (*Store, error) {
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return nil, fmt.Errorf("make the data folder: %w", err)
	}
	file := url.URL{Scheme: "file", Opaque: filepath.ToSlash(filepath.Join(folder, "jettyfog.db")), RawQuery: pragmas.Encode()}
	db, err := gorm.Open(sqlite.Open(file.String()), &gorm.Config{
		Logger:         logger.Discard,
		TranslateError: true,
	})
	if err != nil {
		return nil, fmt.Errorf("open the database in %s: %w", folder, err)
	}
	s := &Store{db: db}
	if err := migrate(db); err != nil {
		return nil, errors.Join(fmt.Errorf("bring the database in %s up to date: %w", folder, err), s.Close())
	}
	if err := s.finishBrokenTakes(); err != nil {
		return nil, errors.Join(fmt.Errorf("finish the takes that were broken off: %w", err), s.Close())
	}
	return s, nil
}

// Close closes the database.
func (s *Store) Close() error {
	db, err := s.db.DB()
	if err != nil {
		return err
	}
	return db.Close()
}
