package store

import (
	"context"
	"errors"
	"fmt"
	"net/url"
	"os"
	"path/filepath"
	"sync"
	"time"

	"github.com/glebarez/sqlite"
	"github.com/gofrs/flock"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"

	"jettyfog/internal/core/score"
	"jettyfog/internal/health"
)

// Store is an open database. All methods may be called concurrently.
type Store struct {
	folder string
	lock   *flock.Flock
	writes queue
	db     *gorm.DB // its one connection is used by whose turn it is
	reads  *gorm.DB
	wake   *Wake
	files  files

	broken []takeRow // what was being recorded when the program was killed, as far as it is not finished

	encoding sync.Mutex
	encoder  score.Encoder // of the document

	mu      sync.Mutex
	trouble error // what the last write, or a read, has met
}

// Settings of connections. Writes are durable when they return; readers go on while something is written.
var (
	writing = settings{
		mode: url.Values{
			"_pragma": {"journal_mode(WAL)", "synchronous(FULL)", "foreign_keys(ON)", "busy_timeout(5000)"},
			"_txlock": {"immediate"},
		},
		expected:    map[string]string{"journal_mode": "wal", "synchronous": "2", "foreign_keys": "1", "busy_timeout": "5000"},
		connections: 1,
	}
	reading = settings{
		mode:        url.Values{"_pragma": {"query_only(ON)", "busy_timeout(5000)"}},
		expected:    map[string]string{"query_only": "1", "busy_timeout": "5000"},
		connections: 8,
	}
	inspecting = settings{mode: url.Values{"mode": {"ro"}, "_pragma": {"busy_timeout(5000)"}}, connections: 1}
)

type settings struct {
	mode        url.Values
	expected    map[string]string // what the pragmas must say once it is open
	connections int
}

// maxPath bounds the path of the database, in bytes: SQLite takes no more than 512 with what it appends.
const maxPath = 500

// Open opens the database in a folder and makes both if they are missing. Recordings that were going on when the
// program was last killed are finished. The error is a *HeldError if another program has the folder, a *DamagedError,
// or a *health.Problem. A database of a newer program is left as it is.
func Open(folder string) (*Store, error) {
	folder, err := filepath.Abs(folder)
	if err != nil {
		return nil, fmt.Errorf("find the folder of data: %w", err)
	}
	if length := len(databaseFile(folder)); length > maxPath {
		return nil, fmt.Errorf("the path of the folder of data is too long: with the name of the database it has %d bytes, and %d are possible; name another folder with --data", length, maxPath)
	}
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return nil, fmt.Errorf("make the folder of data: %w", err)
	}
	lock, err := claim(folder)
	if err != nil {
		return nil, err
	}
	s := &Store{folder: folder, lock: lock}
	if err := s.open(); err != nil {
		return nil, errors.Join(fmt.Errorf("open the folder %s: %w", folder, explain(err)), s.Close())
	}
	return s, nil
}

func databaseFile(folder string) string { return filepath.Join(folder, "jettyfog.db") }

func (s *Store) open() error {
	version, err := inspect(s.folder)
	if err != nil {
		return err
	}
	if s.db, err = connect(databaseFile(s.folder), writing); err != nil {
		return err
	}
	if s.reads, err = connect(databaseFile(s.folder), reading); err != nil {
		return err
	}
	if version > 0 && version < len(migrations()) {
		if err := s.copyDatabase(context.Background(), fmt.Sprintf("%s-before-%d", time.Now().Format(time.DateOnly), len(migrations()))); err != nil {
			return fmt.Errorf("copy the database before it is brought up to date: %w", err)
		}
	}
	if err := migrate(s.db); err != nil {
		return fmt.Errorf("bring the database up to date: %w", err)
	}
	if err := s.files.note(s.folder); err != nil {
		return err
	}
	s.wake = &Wake{store: s}
	if err := s.reads.Omit("contents").Where("finished = ?", false).Find(&s.broken).Error; err != nil {
		return fmt.Errorf("find the takes that were broken off: %w", err)
	}
	// A disk that is full can still be read and heard; one that may not be written to is the wrong one.
	err = s.finishBroken()
	if err == nil {
		err = s.probe()
	}
	if p := problemIn(err); p != nil && p.Kind == health.Full {
		return nil
	}
	return err
}

// connect opens a file with some settings, and makes sure that they are in force.
func connect(file string, with settings) (*gorm.DB, error) {
	path := filepath.ToSlash(file)
	if path[0] != '/' { // a drive
		path = "/" + path
	}
	address := url.URL{Scheme: "file", Path: path, RawQuery: with.mode.Encode()}
	db, err := gorm.Open(sqlite.Open(address.String()), &gorm.Config{Logger: logger.Discard, TranslateError: true})
	if err != nil {
		return nil, err
	}
	pool, err := db.DB()
	if err != nil {
		return nil, err
	}
	pool.SetMaxOpenConns(with.connections)
	pool.SetMaxIdleConns(with.connections)
	for pragma, want := range with.expected {
		var got string
		if err := db.Raw("PRAGMA " + pragma).Scan(&got).Error; err != nil {
			return nil, errors.Join(err, pool.Close())
		}
		if got != want {
			return nil, errors.Join(fmt.Errorf("the database has %s %q; it must be %q", pragma, got, want), pool.Close())
		}
	}
	return db, nil
}

// Close closes the database and leaves the folder to others.
func (s *Store) Close() error {
	var errs []error
	for _, db := range []*gorm.DB{s.reads, s.db} { // the writer last, because it tidies up
		if db != nil {
			pool, err := db.DB()
			if err == nil {
				err = pool.Close()
			}
			errs = append(errs, err)
		}
	}
	if err := os.Remove(ownerFile(s.folder)); err != nil && !errors.Is(err, os.ErrNotExist) {
		errs = append(errs, err)
	}
	return errors.Join(append(errs, s.lock.Close())...)
}

// write runs a transaction in its turn. When it returns nil the transaction is on disk, in the folder that bears the
// name; else nothing of it counts. What has begun is not broken off by the context.
func (s *Store) write(ctx context.Context, t turn, do func(tx *gorm.DB) error) error {
	if err := s.writes.enter(ctx, t); err != nil {
		return err
	}
	defer s.writes.leave()
	err := s.files.check(s.folder)
	if err == nil {
		err = s.db.WithContext(context.WithoutCancel(ctx)).Transaction(do)
	}
	if err == nil {
		err = s.files.check(s.folder) // it can have gone while it was written to
	}
	return s.met(err, true)
}

// read runs queries that belong together on one state of the database.
func (s *Store) read(ctx context.Context, do func(tx *gorm.DB) error) error {
	return s.met(s.reads.WithContext(ctx).Transaction(do), false)
}

// met explains what a call has met, and remembers it if it is a problem of the folder or the disk. A write that has
// gone well ends all problems but damage, which only another start ends.
func (s *Store) met(err error, wrote bool) error {
	err = explain(err)
	p := problemIn(err)
	s.mu.Lock()
	defer s.mu.Unlock()
	switch before := problemIn(s.trouble); {
	case before != nil && before.Kind == health.Damaged:
	case p != nil && (wrote || p.Kind == health.Damaged):
		s.trouble = err
	case err == nil && wrote:
		s.trouble = nil
	}
	return err
}

// Problem returns what is wrong with the folder or the disk as far as it was met; nil if nothing is.
func (s *Store) Problem() error {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.trouble
}

// probe finds out whether anything can be written.
func (s *Store) probe() error {
	return s.write(context.Background(), plainTurn, func(tx *gorm.DB) error {
		return tx.Exec(fmt.Sprintf("PRAGMA user_version = %d", len(migrations()))).Error
	})
}
