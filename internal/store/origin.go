package store

import (
	"bytes"
	"compress/gzip"
	"context"
	"errors"
	"fmt"
	"io"

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
	return saveOrigin(s.db.WithContext(ctx), id, origin)
}

// saveOrigin stores an origin, unless no project is known.
func saveOrigin(tx *gorm.DB, id int64, origin take.Origin) error {
	if origin.Project == nil {
		return nil
	}
	encoded, err := score.Encode(origin.Project)
	if err != nil {
		return err
	}
	var packed bytes.Buffer
	w := gzip.NewWriter(&packed)
	_, failed := w.Write(encoded)
	if err := errors.Join(failed, w.Close()); err != nil {
		return err
	}
	row := originRow{TakeID: id, Tick: origin.Tick, Revision: origin.Revision, Project: packed.Bytes()}
	return tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(&row).Error
}

// Origin implements shelf.Store.
func (s *Store) Origin(ctx context.Context, id int64) (*score.Project, error) {
	origin, err := originAt(s.db.WithContext(ctx), id, 0)
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
	unpacked, err := gzip.NewReader(bytes.NewReader(row.Project))
	if err != nil {
		return take.Origin{}, fmt.Errorf("read the project that made take %d: %w", id, err)
	}
	encoded, err := io.ReadAll(unpacked)
	if err != nil {
		return take.Origin{}, fmt.Errorf("read the project that made take %d: %w", id, err)
	}
	project, err := score.Decode(encoded)
	if err != nil {
		return take.Origin{}, fmt.Errorf("read the project that made take %d: %w", id, err)
	}
	return take.Origin{Tick: row.Tick, Revision: row.Revision, Project: project}, nil
}
