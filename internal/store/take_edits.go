package store

import (
	"context"
	"encoding/json"
	"fmt"

	"gorm.io/gorm"

	"jettyfog/internal/core/take"
)

type takeEditRow struct {
	TakeID   int64 `gorm:"primaryKey;autoIncrement:false"`
	Position int   `gorm:"primaryKey;autoIncrement:false"` // from 1
	Edit     string
}

func (takeEditRow) TableName() string { return "take_edits" }

// editsOf returns the edits that rows hold.
func editsOf(rows []takeEditRow) ([]take.Edit, error) {
	edits := make([]take.Edit, len(rows))
	for i, row := range rows {
		edit, err := take.DecodeEdit([]byte(row.Edit))
		if err != nil {
			return nil, fmt.Errorf("read edit %d of take %d: %w", row.Position, row.TakeID, err)
		}
		edits[i] = edit
	}
	return edits, nil
}

// SaveTake implements shelf.Store.
func (s *Store) SaveTake(ctx context.Context, summary take.Summary, edit take.Edit) error {
	present, err := json.Marshal(summary)
	if err != nil {
		return err
	}
	row := takeEditRow{TakeID: summary.ID, Position: summary.Position}
	if edit != nil {
		encoded, err := take.EncodeEdit(edit)
		if err != nil {
			return err
		}
		row.Edit = string(encoded)
	}
	return s.write(ctx, plainTurn, func(tx *gorm.DB) error {
		if err := tx.Model(&takeRow{ID: summary.ID}).Update("present", string(present)).Error; err != nil || edit == nil {
			return err
		}
		if err := tx.Where("take_id = ? AND position >= ?", summary.ID, summary.Position).Delete(&takeEditRow{}).Error; err != nil {
			return err
		}
		return tx.Create(&row).Error
	})
}
