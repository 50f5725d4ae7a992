package store

import (
	"context"
	"encoding/json"
	"fmt"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"jettyfog/internal/studio"
)

// setListRow holds the projects of a set list, by their ids.
type setListRow struct {
	Name     string `gorm:"primaryKey"`
	Projects string
}

func (setListRow) TableName() string { return "set_lists" }

// SetLists returns all set lists, by their names.
func (s *Store) SetLists(ctx context.Context) (lists []studio.SetList, err error) {
	var rows []setListRow
	if err := s.read(ctx, func(tx *gorm.DB) error { return tx.Order("name").Find(&rows).Error }); err != nil {
		return nil, err
	}
	for _, row := range rows {
		list := studio.SetList{Name: row.Name}
		if err := json.Unmarshal([]byte(row.Projects), &list.Projects); err != nil {
			return nil, fmt.Errorf("read the set list “%s”: %w", row.Name, err)
		}
		lists = append(lists, list)
	}
	return lists, nil
}

// KeepSetList keeps a set list, in the place of one of its name; one without projects is deleted.
func (s *Store) KeepSetList(ctx context.Context, list studio.SetList) error {
	if len(list.Projects) == 0 {
		return s.write(ctx, plainTurn, func(tx *gorm.DB) error { return tx.Delete(&setListRow{Name: list.Name}).Error })
	}
	data, err := json.Marshal(list.Projects)
	if err != nil {
		return err
	}
	return s.write(ctx, plainTurn, func(tx *gorm.DB) error {
		return tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(&setListRow{list.Name, string(data)}).Error
	})
}
