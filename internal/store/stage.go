package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"jettyfog/internal/core/stage"
)

// stageRow holds the live changes of a project.
type stageRow struct {
	ProjectID int64 `gorm:"primaryKey;autoIncrement:false"`
	Changes   string
}

func (stageRow) TableName() string { return "project_stages" }

// Stage returns the live changes of a project that are stored.
func (s *Store) Stage(ctx context.Context, document int64) (stage.Stage, error) {
	var row stageRow
	err := s.read(ctx, func(tx *gorm.DB) error { return tx.Where("project_id = ?", document).First(&row).Error })
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return stage.Stage{}, nil
	}
	if err != nil {
		return stage.Stage{}, err
	}
	var changes []stage.Change
	if err := json.Unmarshal([]byte(row.Changes), &changes); err != nil {
		return stage.Stage{}, fmt.Errorf("read the stored live changes: %w", err)
	}
	return stage.Of(changes), nil
}

// SaveStage implements live.StageStore.
func (s *Store) SaveStage(ctx context.Context, document int64, live stage.Stage) error {
	changes, err := json.Marshal(live.Changes())
	if err != nil {
		return err
	}
	return s.write(ctx, plainTurn, func(tx *gorm.DB) error {
		return tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(&stageRow{ProjectID: document, Changes: string(changes)}).Error
	})
}
