package store

import (
	"context"
	"errors"
	"fmt"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
)

// originRow is the project that plays from a tick of a take on.
type originRow struct {
	TakeID   int64      `gorm:"primaryKey;autoIncrement:false"`
	Tick     score.Tick `gorm:"primaryKey;autoIncrement:false"`
	Revision int64
	Project  []byte // a project file, compressed by gzip
}

func (originRow) TableName() string { return "origins" }

// AddOrigin says which project plays from a tick of a take on. Saying it again changes nothing.
func (s *Store) AddOrigin(ctx context.Context, id int64, origin take.Origin) error {
	row, err := originOf(origin)
	if err != nil {
		return err
	}
	return s.write(ctx, journalTurn, func(tx *gorm.DB) error { return saveOrigin(tx, id, row) })
}

// originOf returns the row of an origin, or nil if no project is known.
func originOf(origin take.Origin) (*originRow, error) {
	if origin.Project == nil {
		return nil, nil
	}
	encoded, err := score.Encode(origin.Project)
	if err != nil {
		return nil, err
	}
	packed, err := compress(encoded)
	return &originRow{Tick: origin.Tick, Revision: origin.Revision, Project: packed}, err
}

// saveOrigin stores an origin of a take, if there is one.
func saveOrigin(tx *gorm.DB, id int64, row *originRow) error {
	if row == nil {
		return nil
	}
	row.TakeID = id
	return tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(row).Error
}

// Origin implements shelf.Store.
func (s *Store) Origin(ctx context.Context, id int64) (*score.Project, error) {
	var origin take.Origin
	err := s.read(ctx, func(tx *gorm.DB) (err error) {
		origin, err = originAt(tx, id, 0)
		return err
	})
	return origin.Project, err
}

// originAt returns the project that plays at a tick of a take, and since when. The error wraps take.ErrUnknown
// if none is known.
func originAt(tx *gorm.DB, id int64, tick score.Tick) (take.Origin, error) {
	var row originRow
	err := tx.Where("take_id = ? AND tick <= ?", id, tick).Order("tick DESC").First(&row).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return take.Origin{}, fmt.Errorf("the project that made take %d: %w", id, take.ErrUnknown)
	}
	if err != nil {
		return take.Origin{}, err
	}
	encoded, err := expand(row.Project)
	if err != nil {
		return take.Origin{}, fmt.Errorf("read the project that made take %d: %w", id, err)
	}
	project, err := score.Decode(encoded)
	if err != nil {
		return take.Origin{}, fmt.Errorf("read the project that made take %d: %w", id, err)
	}
	return take.Origin{Tick: row.Tick, Revision: row.Revision, Project: project}, nil
}
