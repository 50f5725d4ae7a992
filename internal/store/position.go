package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"jettyfog/internal/core/log"
)

// positionRow holds where the playing of a project is, or stopped.
type positionRow struct {
	ProjectID int64 `gorm:"primaryKey;autoIncrement:false"`
	Place     string
}

func (positionRow) TableName() string { return "positions" }

// Position returns where the playing of a project was when that was stored last; the zero value where nothing is.
func (s *Store) Position(ctx context.Context, document int64) (place log.Position, err error) {
	var row positionRow
	err = s.read(ctx, func(tx *gorm.DB) error { return tx.Where("project_id = ?", document).First(&row).Error })
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return place, nil
	}
	if err == nil {
		err = json.Unmarshal([]byte(row.Place), &place)
	}
	if err != nil {
		return log.Position{}, fmt.Errorf("read where playing was: %w", err)
	}
	return place, nil
}

// SavePosition implements log.PositionStore.
func (s *Store) SavePosition(ctx context.Context, document int64, place log.Position) error {
	data, err := json.Marshal(place)
	if err != nil {
		return err
	}
	return s.write(ctx, journalTurn, func(tx *gorm.DB) error {
		return tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(&positionRow{ProjectID: document, Place: string(data)}).Error
	})
}
