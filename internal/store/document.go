package store

import (
	"context"
	"errors"
	"fmt"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"jettyfog/internal/core/score"
	"jettyfog/internal/studio"
)

type documentRow struct {
	ID       int
	Project  string
	Revision int64
	Position int
}

func (documentRow) TableName() string { return "documents" }

type changeRow struct {
	Position int `gorm:"primaryKey;autoIncrement:false"`
	Edit     string
	Inverse  string
	Text     string
	ByPlace  bool
}

func (changeRow) TableName() string { return "changes" }

// Document returns the stored document. In a new database it stores the first project and returns
// that.
func (s *Store) Document(ctx context.Context, first *score.Project) (studio.Document, error) {
	var row documentRow
	err := s.read(ctx, func(tx *gorm.DB) error { return tx.First(&row, 1).Error })
	if errors.Is(err, gorm.ErrRecordNotFound) {
		document := studio.Document{Project: first, Revision: 1}
		return document, s.SaveMove(ctx, document)
	}
	if err != nil {
		return studio.Document{}, err
	}
	project, err := score.Decode([]byte(row.Project))
	if err != nil {
		return studio.Document{}, fmt.Errorf("read the stored project: %w", err)
	}
	return studio.Document{Project: project, Revision: row.Revision, Position: row.Position}, nil
}

// SaveEdit implements studio.Store.
func (s *Store) SaveEdit(ctx context.Context, document studio.Document, change studio.Change) error {
	edit, err := score.EncodeEdit(change.Edit)
	if err != nil {
		return err
	}
	inverse, err := score.EncodeEdit(change.Inverse)
	if err != nil {
		return err
	}
	project, err := s.rowOf(document)
	if err != nil {
		return err
	}
	return s.write(ctx, plainTurn, func(tx *gorm.DB) error {
		if err := tx.Where("position >= ?", document.Position).Delete(&changeRow{}).Error; err != nil {
			return err
		}
		row := changeRow{Position: document.Position, Edit: string(edit), Inverse: string(inverse), Text: change.Text}
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		return saveDocument(tx, project)
	})
}

// SaveMove implements studio.Store.
func (s *Store) SaveMove(ctx context.Context, document studio.Document) error {
	row, err := s.rowOf(document)
	if err != nil {
		return err
	}
	return s.write(ctx, plainTurn, func(tx *gorm.DB) error { return saveDocument(tx, row) })
}

// Revision implements studio.Store. It knows of nothing in a folder that is gone.
func (s *Store) Revision(ctx context.Context) (revision int64, err error) {
	if err := s.files.check(s.folder); err != nil {
		return 0, err
	}
	err = s.read(ctx, func(tx *gorm.DB) error {
		return tx.Model(&documentRow{}).Select("revision").Where("id = 1").Scan(&revision).Error
	})
	return revision, err
}

func (s *Store) rowOf(document studio.Document) (documentRow, error) {
	s.encoding.Lock()
	defer s.encoding.Unlock()
	project, err := s.encoder.Encode(document.Project)
	return documentRow{ID: 1, Project: string(project), Revision: document.Revision, Position: document.Position}, err
}

func saveDocument(tx *gorm.DB, row documentRow) error {
	return tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(&row).Error
}

// Change implements studio.Store.
func (s *Store) Change(ctx context.Context, position int) (studio.Change, bool, error) {
	placed, err := s.Changes(ctx, position+1, 1)
	if err != nil || len(placed) == 0 || placed[0].Position != position {
		return studio.Change{}, false, err
	}
	return placed[0].Change, true, nil
}

// Changes implements studio.Store.
func (s *Store) Changes(ctx context.Context, before, count int) ([]studio.PlacedChange, error) {
	var rows []changeRow
	err := s.read(ctx, func(tx *gorm.DB) error {
		query := tx.Order("position DESC").Limit(count)
		if before > 0 {
			query = query.Where("position < ?", before)
		}
		return query.Find(&rows).Error
	})
	if err != nil {
		return nil, err
	}
	placed := make([]studio.PlacedChange, len(rows))
	for i, row := range rows {
		decode := score.DecodeEdit
		if row.ByPlace {
			decode = score.DecodeOldEdit
		}
		edit, err := decode([]byte(row.Edit))
		if err != nil {
			return nil, fmt.Errorf("read the edit at position %d: %w", row.Position, err)
		}
		inverse, err := decode([]byte(row.Inverse))
		if err != nil {
			return nil, fmt.Errorf("read the inverse at position %d: %w", row.Position, err)
		}
		placed[i] = studio.PlacedChange{Position: row.Position, Change: studio.Change{Edit: edit, Inverse: inverse, Text: row.Text, ByPlace: row.ByPlace}}
	}
	return placed, nil
}
