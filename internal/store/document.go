package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"jettyfog/internal/core/score"
	"jettyfog/internal/studio"
)

type projectRow struct {
	ID       int64
	Name     string
	Changed  int64  // Unix seconds
	Deleted  int64  // Unix seconds, or 0
	Rest     string // the project file without its tracks
	Revision int64
	Position int
}

func (projectRow) TableName() string { return "projects" }

// projectTrackRow is a track of a project, by its place from 0. A project of before has its tracks in its rest.
type projectTrackRow struct {
	ProjectID int64 `gorm:"primaryKey;autoIncrement:false"`
	Place     int   `gorm:"primaryKey;autoIncrement:false"`
	Digest    string
	Track     string
}

func (projectTrackRow) TableName() string { return "project_tracks" }

type changeRow struct {
	ProjectID int64 `gorm:"primaryKey;autoIncrement:false"`
	Position  int   `gorm:"primaryKey;autoIncrement:false"`
	Edit      string
	Inverse   string
	Text      string
	ByPlace   bool
}

func (changeRow) TableName() string { return "project_changes" }

// Document implements studio.Store.
func (s *Store) Document(ctx context.Context, id int64) (studio.Document, error) {
	var row projectRow
	var rows []projectTrackRow
	err := s.read(ctx, func(tx *gorm.DB) error {
		if err := tx.Where("deleted = 0").First(&row, id).Error; err != nil {
			return err
		}
		return tx.Where("project_id = ?", id).Order("place").Find(&rows).Error
	})
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return studio.Document{}, studio.ErrNoProject
	}
	if err != nil {
		return studio.Document{}, err
	}
	file := []byte(row.Rest)
	if len(rows) > 0 {
		var tracks []json.RawMessage
		for _, track := range rows {
			tracks = append(tracks, json.RawMessage(track.Track))
		}
		file = score.JoinTracks(file, tracks)
	}
	project, err := score.Decode(file)
	if err != nil {
		return studio.Document{}, fmt.Errorf("read the stored project “%s”: %w", row.Name, err)
	}
	return studio.Document{ID: row.ID, Project: project, Revision: row.Revision, Position: row.Position}, nil
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
	project, err := s.encode(document.Project)
	if err != nil {
		return err
	}
	return s.write(ctx, plainTurn, func(tx *gorm.DB) error {
		if err := tx.Where("project_id = ? AND position >= ?", document.ID, document.Position).Delete(&changeRow{}).Error; err != nil {
			return err
		}
		row := changeRow{ProjectID: document.ID, Position: document.Position, Edit: string(edit), Inverse: string(inverse), Text: change.Text}
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		return saveDocument(tx, document, project)
	})
}

// SaveMove implements studio.Store.
func (s *Store) SaveMove(ctx context.Context, document studio.Document) error {
	project, err := s.encode(document.Project)
	if err != nil {
		return err
	}
	return s.write(ctx, plainTurn, func(tx *gorm.DB) error { return saveDocument(tx, document, project) })
}

// Revision implements studio.Store. It knows of nothing in a folder that is gone.
func (s *Store) Revision(ctx context.Context) (revision int64, err error) {
	if err := s.files.check(s.folder); err != nil {
		return 0, err
	}
	err = s.read(ctx, func(tx *gorm.DB) error {
		open, err := openProject(tx)
		if err != nil {
			return err
		}
		return tx.Model(&projectRow{}).Select("revision").Where("id = ?", open).Scan(&revision).Error
	})
	return revision, err
}

func (s *Store) encode(project *score.Project) (score.EncodedProject, error) {
	s.encoding.Lock()
	defer s.encoding.Unlock()
	return s.encoder.Encode(project)
}

// saveDocument writes a document, and of its tracks those that are not in the database as they are.
func saveDocument(tx *gorm.DB, document studio.Document, project score.EncodedProject) error {
	row := projectRow{
		ID: document.ID, Name: document.Project.Name, Changed: time.Now().Unix(), Rest: string(project.Rest),
		Revision: document.Revision, Position: document.Position,
	}
	if err := tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(&row).Error; err != nil {
		return err
	}
	var stored []projectTrackRow
	if err := tx.Select("place", "digest").Where("project_id = ?", document.ID).Order("place").Find(&stored).Error; err != nil {
		return err
	}
	for place, track := range project.Tracks {
		if place < len(stored) && stored[place].Digest == track.Digest {
			continue
		}
		changed := projectTrackRow{ProjectID: document.ID, Place: place, Digest: track.Digest, Track: string(track.JSON)}
		if err := tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(&changed).Error; err != nil {
			return err
		}
	}
	if len(stored) <= len(project.Tracks) {
		return nil
	}
	return tx.Where("project_id = ? AND place >= ?", document.ID, len(project.Tracks)).Delete(&projectTrackRow{}).Error
}

// Change implements studio.Store.
func (s *Store) Change(ctx context.Context, document int64, position int) (studio.Change, bool, error) {
	placed, err := s.Changes(ctx, document, position+1, 1)
	if err != nil || len(placed) == 0 || placed[0].Position != position {
		return studio.Change{}, false, err
	}
	return placed[0].Change, true, nil
}

// Changes implements studio.Store.
func (s *Store) Changes(ctx context.Context, document int64, before, count int) ([]studio.PlacedChange, error) {
	var rows []changeRow
	err := s.read(ctx, func(tx *gorm.DB) error {
		query := tx.Where("project_id = ?", document).Order("position DESC").Limit(count)
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
