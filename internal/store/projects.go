package store

import (
	"context"
	"errors"
	"time"

	"gorm.io/gorm"

	"jettyfog/internal/core/score"
	"jettyfog/internal/studio"
)

// openingRow says which project is open from a revision on.
type openingRow struct {
	Revision  int64 `gorm:"primaryKey;autoIncrement:false"`
	ProjectID int64
}

func (openingRow) TableName() string { return "openings" }

// openProject returns the id of the project that is open.
func openProject(tx *gorm.DB) (id int64, err error) {
	return projectAt(tx, 1<<62)
}

// projectAt returns the id of the project to which a revision belongs; in a database without one, that of the first.
func projectAt(tx *gorm.DB, revision int64) (id int64, err error) {
	var row openingRow
	err = tx.Where("revision <= ?", revision).Order("revision DESC").First(&row).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return 1, nil
	}
	return row.ProjectID, err
}

// OpenDocument returns the project that is open. In a new database it stores the first project and returns that.
func (s *Store) OpenDocument(ctx context.Context, first *score.Project) (studio.Document, error) {
	var id int64
	var projects int64
	err := s.read(ctx, func(tx *gorm.DB) (err error) {
		if err = tx.Model(&projectRow{}).Count(&projects).Error; err == nil {
			id, err = openProject(tx)
		}
		return err
	})
	if err != nil {
		return studio.Document{}, err
	}
	if projects == 0 {
		document := studio.Document{ID: 1, Project: first, Revision: 1}
		return document, s.SaveOpening(ctx, document)
	}
	return s.Document(ctx, id)
}

// SaveOpening implements studio.Store.
func (s *Store) SaveOpening(ctx context.Context, document studio.Document) error {
	project, err := s.encode(document.Project)
	if err != nil {
		return err
	}
	return s.write(ctx, plainTurn, func(tx *gorm.DB) error {
		if err := saveDocument(tx, document, project); err != nil {
			return err
		}
		return tx.Create(&openingRow{Revision: document.Revision, ProjectID: document.ID}).Error
	})
}

// Projects implements studio.Store.
func (s *Store) Projects(ctx context.Context) ([]studio.Listed, error) {
	var rows []projectRow
	err := s.read(ctx, func(tx *gorm.DB) error {
		return tx.Omit("rest").Order("changed DESC, id DESC").Find(&rows).Error
	})
	if err != nil {
		return nil, err
	}
	listed := make([]studio.Listed, len(rows))
	for i, row := range rows {
		listed[i] = studio.Listed{ID: row.ID, Name: row.Name, Changed: row.Changed, Revision: row.Revision, Deleted: row.Deleted > 0}
	}
	return listed, nil
}

// AddProject implements studio.Store.
func (s *Store) AddProject(ctx context.Context, added *score.Project, held bool) (id int64, err error) {
	project, err := s.encode(added)
	if err != nil {
		return 0, err
	}
	err = s.write(ctx, plainTurn, func(tx *gorm.DB) error {
		row := projectRow{Name: added.Name, Changed: time.Now().Unix(), Rest: string(project.Rest)}
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		if id = row.ID; held {
			if err := tx.Create(&heldRow{ProjectID: id}).Error; err != nil {
				return err
			}
		}
		return saveDocument(tx, studio.Document{ID: id, Project: added, Revision: 1}, project)
	})
	return id, err
}

// SetDeleted implements studio.Store.
func (s *Store) SetDeleted(ctx context.Context, id int64, deleted bool) error {
	at := int64(0)
	if deleted {
		at = time.Now().Unix()
	}
	return s.write(ctx, plainTurn, func(tx *gorm.DB) error {
		changed := tx.Model(&projectRow{}).Where("id = ?", id).Update("deleted", at)
		if changed.Error == nil && changed.RowsAffected == 0 {
			return studio.ErrNoProject
		}
		return changed.Error
	})
}
