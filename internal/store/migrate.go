package store

import (
	"github.com/go-gormigrate/gormigrate/v2"
	"gorm.io/gorm"
)

// migrate brings the tables up to date.
func migrate(db *gorm.DB) error {
	return gormigrate.New(db, gormigrate.DefaultOptions, migrations()).Migrate()
}

// migrations are numbered steps, from 1. A step that has been released is never changed; it names its own rows,
// because those of today may differ from those of its day.
func migrations() []*gormigrate.Migration {
	return []*gormigrate.Migration{
		{ID: "1", Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
CREATE TABLE documents (
	id       INTEGER PRIMARY KEY CHECK (id = 1),
	project  TEXT    NOT NULL,
	revision INTEGER NOT NULL,
	position INTEGER NOT NULL
) STRICT;
CREATE TABLE changes (
	position INTEGER PRIMARY KEY,
	edit     TEXT    NOT NULL,
	inverse  TEXT    NOT NULL
) STRICT;
CREATE TABLE takes (
	id       INTEGER PRIMARY KEY AUTOINCREMENT,
	name     TEXT    NOT NULL,
	created  INTEGER NOT NULL,
	revision INTEGER NOT NULL,
	heading  TEXT    NOT NULL,
	"end"    INTEGER NOT NULL,
	notes    INTEGER NOT NULL,
	finished INTEGER NOT NULL
) STRICT;
CREATE TABLE messages (
	take_id  INTEGER NOT NULL REFERENCES takes (id) ON DELETE CASCADE,
	seq      INTEGER NOT NULL,
	tick     INTEGER NOT NULL,
	track    INTEGER NOT NULL,
	kind     INTEGER NOT NULL,
	channel  INTEGER NOT NULL,
	key      INTEGER NOT NULL,
	velocity INTEGER NOT NULL,
	value    INTEGER NOT NULL,
	PRIMARY KEY (take_id, seq)
) STRICT, WITHOUT ROWID;`).Error
		}},
		{ID: "2", Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`ALTER TABLE messages ADD COLUMN detune INTEGER NOT NULL DEFAULT 0;`).Error
		}},
		{ID: "3", Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
ALTER TABLE takes ADD COLUMN wake INTEGER NOT NULL DEFAULT 0;
CREATE INDEX takes_of_the_wake ON takes (wake, id);`).Error
		}},
		{ID: "4", Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
ALTER TABLE takes ADD COLUMN present TEXT NOT NULL DEFAULT '';
CREATE TABLE take_edits (
	take_id  INTEGER NOT NULL REFERENCES takes (id) ON DELETE CASCADE,
	position INTEGER NOT NULL,
	edit     TEXT    NOT NULL,
	PRIMARY KEY (take_id, position)
) STRICT, WITHOUT ROWID;
CREATE TABLE origins (
	take_id  INTEGER NOT NULL REFERENCES takes (id) ON DELETE CASCADE,
	tick     INTEGER NOT NULL,
	revision INTEGER NOT NULL,
	project  BLOB    NOT NULL,
	PRIMARY KEY (take_id, tick)
) STRICT, WITHOUT ROWID;`).Error
		}},
		{ID: "5", Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`ALTER TABLE takes ADD COLUMN contents BLOB;`).Error
		}},
		{ID: "6", Migrate: func(tx *gorm.DB) error {
			if err := tx.Exec(`
CREATE TABLE pieces (
	id       INTEGER PRIMARY KEY,
	take_id  INTEGER NOT NULL REFERENCES takes (id) ON DELETE CASCADE,
	first    INTEGER NOT NULL,
	count    INTEGER NOT NULL,
	"from"   INTEGER NOT NULL,
	"to"     INTEGER NOT NULL,
	messages BLOB    NOT NULL,
	stands   INTEGER NOT NULL,
	standing BLOB    NOT NULL,
	UNIQUE (take_id, first)
) STRICT;`).Error; err != nil {
				return err
			}
			if err := packRows(tx); err != nil {
				return err
			}
			return tx.Exec(`DROP TABLE messages;`).Error
		}},
		{ID: "7", Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`ALTER TABLE changes ADD COLUMN text TEXT NOT NULL DEFAULT '';`).Error
		}},
		{ID: "8", Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
ALTER TABLE changes ADD COLUMN by_place INTEGER NOT NULL DEFAULT 0;
UPDATE changes SET by_place = 1;`).Error
		}},
		{ID: "9", Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
CREATE TABLE stages (
	id      INTEGER PRIMARY KEY CHECK (id = 1),
	changes TEXT    NOT NULL
) STRICT;`).Error
		}},
		{ID: "10", Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
CREATE TABLE logs (
	take_id  INTEGER PRIMARY KEY REFERENCES takes (id) ON DELETE CASCADE,
	"from"   INTEGER NOT NULL,
	recorded INTEGER NOT NULL,
	log      BLOB    NOT NULL
) STRICT;`).Error
		}},
		{ID: "11", Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
ALTER TABLE logs ADD COLUMN known INTEGER NOT NULL DEFAULT 0;
CREATE TABLE log_entries (
	take_id INTEGER NOT NULL REFERENCES takes (id) ON DELETE CASCADE,
	first   INTEGER NOT NULL,
	entries BLOB    NOT NULL,
	PRIMARY KEY (take_id, first)
) STRICT, WITHOUT ROWID;`).Error
		}},
		{ID: "12", Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
CREATE TABLE document_tracks (
	place  INTEGER PRIMARY KEY,
	digest TEXT    NOT NULL,
	track  TEXT    NOT NULL
) STRICT;`).Error
		}},
		{ID: "13", Migrate: func(tx *gorm.DB) error { return tx.Exec(severalProjects).Error }},
		{ID: "14", Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
CREATE TABLE bindings (
	output TEXT PRIMARY KEY,
	device TEXT NOT NULL
) STRICT, WITHOUT ROWID;
CREATE TABLE held_projects (
	project_id INTEGER PRIMARY KEY REFERENCES projects (id) ON DELETE CASCADE
) STRICT;
CREATE TABLE setups (
	name  TEXT PRIMARY KEY,
	setup TEXT NOT NULL
) STRICT, WITHOUT ROWID;`).Error
		}},
		{ID: "15", Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
CREATE TABLE presets (
	kind   TEXT NOT NULL,
	name   TEXT NOT NULL,
	preset TEXT NOT NULL,
	PRIMARY KEY (kind, name)
) STRICT, WITHOUT ROWID;`).Error
		}},
		{ID: "16", Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
CREATE TABLE positions (
	project_id INTEGER PRIMARY KEY REFERENCES projects (id) ON DELETE CASCADE,
	place      TEXT    NOT NULL
) STRICT;
CREATE TABLE set_lists (
	name     TEXT PRIMARY KEY,
	projects TEXT NOT NULL
) STRICT, WITHOUT ROWID;`).Error
		}},
		{ID: "17", Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
CREATE TABLE calibrations (
	interface TEXT    NOT NULL,
	channel   INTEGER NOT NULL,
	readings  TEXT    NOT NULL,
	PRIMARY KEY (interface, channel)
) STRICT, WITHOUT ROWID;`).Error
		}},
		{ID: "18", Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
CREATE TABLE input_bindings (
	input  TEXT PRIMARY KEY,
	device TEXT NOT NULL
) STRICT, WITHOUT ROWID;`).Error
		}},
	}
}
