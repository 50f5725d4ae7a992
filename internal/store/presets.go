package store

import (
	"context"
	"fmt"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"jettyfog/internal/core/preset"
)

// presetRow is what was kept for other projects, as the file of a preset.
type presetRow struct {
	Kind   string `gorm:"primaryKey"`
	Name   string `gorm:"primaryKey"`
	Preset string
}

func (presetRow) TableName() string { return "presets" }

// Presets returns all presets that were kept, by kind and name.
func (s *Store) Presets(ctx context.Context) (kept []preset.Preset, err error) {
	var rows []presetRow
	if err := s.read(ctx, func(tx *gorm.DB) error { return tx.Order("kind, name").Find(&rows).Error }); err != nil {
		return nil, err
	}
	for _, row := range rows {
		one, err := preset.Decode([]byte(row.Preset))
		if err != nil {
			return nil, fmt.Errorf("read the preset “%s”: %w", row.Name, err)
		}
		kept = append(kept, one)
	}
	return kept, nil
}

// KeepPreset keeps a preset, in the place of one of its kind that has its name.
func (s *Store) KeepPreset(ctx context.Context, kept preset.Preset) error {
	data, err := preset.Encode(kept)
	if err != nil {
		return err
	}
	return s.write(ctx, plainTurn, func(tx *gorm.DB) error {
		return tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(&presetRow{string(kept.Kind), kept.Name, string(data)}).Error
	})
}

// DeletePreset deletes a preset; it says whether there was one.
func (s *Store) DeletePreset(ctx context.Context, kind preset.Kind, name string) (was bool, err error) {
	err = s.write(ctx, plainTurn, func(tx *gorm.DB) error {
		gone := tx.Delete(&presetRow{Kind: string(kind), Name: name})
		was = gone.RowsAffected > 0
		return gone.Error
	})
	return was, err
}
