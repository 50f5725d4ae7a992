package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"gorm.io/gorm"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/theory"
)

type takeRow struct {
	ID int64
	// ProjectID is the project that was open at its revision.
	ProjectID int64
	Name      string
	Created   int64 // Unix seconds
	Revision  int64
	Heading   string
	End       score.Tick
	Notes     int
	Finished  bool
	Wake      bool // whether it is a stretch of the wake, which is in no list of takes
	// Present is the summary of a take that was changed since it was kept, as JSON; else it is empty.
	Present string
	// Contents hold the messages of a finished take; those of a recording, and of the wake, are in pieces.
	Contents []byte
}

func (takeRow) TableName() string { return "takes" }

// heading is what is stored of a take as JSON: all but its messages and what a list of takes shows.
type heading struct {
	Luck   int            `json:"luck"`
	Meter  score.Meter    `json:"meter"`
	Meters []take.MeterAt `json:"meters,omitempty"`
	Key    theory.Key     `json:"key"`
	Tempo  play.TempoMap  `json:"tempo"`
	Tracks []take.Track   `json:"tracks"`

	Markers []take.Marker `json:"markers,omitempty"`
}

// CreateTake stores a take that is about to be recorded and returns its id. A take without a name is
// named by how many there are.
func (s *Store) CreateTake(ctx context.Context, t *take.Take, revision int64) (id int64, err error) {
	row, origin, err := rowsOf(t, revision)
	if err != nil {
		return 0, err
	}
	err = s.write(ctx, journalTurn, func(tx *gorm.DB) error {
		if row.Name == "" {
			var takes int64
			project, err := projectAt(tx, revision)
			if err != nil {
				return err
			}
			if err := tx.Model(&takeRow{}).Where("wake = ? AND project_id = ?", false, project).Count(&takes).Error; err != nil {
				return err
			}
			row.Name = fmt.Sprintf("Take %d", takes+1)
		}
		return createTake(tx, &row, origin)
	})
	if err != nil {
		return 0, err
	}
	return row.ID, nil
}

// AddTakes implements shelf.Store.
func (s *Store) AddTakes(ctx context.Context, takes []*take.Take, revision int64) (ids []int64, err error) {
	rows, origins := make([]takeRow, len(takes)), make([]*originRow, len(takes))
	for i, t := range takes {
		if rows[i], origins[i], err = rowsOf(t, revision); err != nil {
			return nil, err
		}
		if rows[i].Contents, err = compress(pack(t.Messages)); err != nil {
			return nil, err
		}
		rows[i].End, rows[i].Notes, rows[i].Finished = t.End, t.Count(), true
	}
	err = s.write(ctx, plainTurn, func(tx *gorm.DB) error {
		for i := range rows {
			if err := createTake(tx, &rows[i], origins[i]); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return nil, err
	}
	for _, row := range rows {
		ids = append(ids, row.ID)
	}
	return ids, nil
}

// rowsOf returns the rows of a take that begins now: its own, and that of the project that made it, or nil.
func rowsOf(t *take.Take, revision int64) (takeRow, *originRow, error) {
	encoded, err := json.Marshal(heading{
		Luck: t.Luck, Meter: t.Meter, Meters: t.Meters, Key: t.Key, Tempo: t.Tempo, Tracks: t.Tracks, Markers: t.Markers,
	})
	if err != nil {
		return takeRow{}, nil, err
	}
	origin, err := originOf(take.Origin{Revision: revision, Project: t.Project})
	return takeRow{Name: t.Name, Created: time.Now().Unix(), Revision: revision, Heading: string(encoded)}, origin, err
}

func createTake(tx *gorm.DB, row *takeRow, origin *originRow) (err error) {
	if row.ProjectID, err = projectAt(tx, row.Revision); err != nil {
		return err
	}
	if err := tx.Create(row).Error; err != nil {
		return err
	}
	return saveOrigin(tx, row.ID, origin)
}

// AppendTake stores a piece of a take that is being recorded, and with a heading that it has become. Storing the
// same piece again, or with more messages behind it, changes nothing else, so a call that may have failed can be
// repeated.
func (s *Store) AppendTake(ctx context.Context, id int64, piece take.Piece, grown *take.Heading) error {
	return s.write(ctx, journalTurn, func(tx *gorm.DB) error { return appendTake(tx, id, piece, grown) })
}

func appendTake(tx *gorm.DB, id int64, piece take.Piece, grown *take.Heading) error {
	row, err := findTake(tx.Omit("contents").Where("finished = ?", false), id)
	if err != nil {
		return err
	}
	if grown != nil {
		var head heading
		if err := json.Unmarshal([]byte(row.Heading), &head); err != nil {
			return err
		}
		head.Meter, head.Meters = grown.Meter, grown.Meters
		head.Tempo, head.Markers, head.Tracks = grown.Tempo, grown.Markers, grown.Tracks
		encoded, err := json.Marshal(head)
		if err != nil {
			return err
		}
		if err := tx.Model(&row).Update("heading", string(encoded)).Error; err != nil {
			return err
		}
	}
	return savePiece(tx, id, piece)
}

// FinishTake ends a take at a tick, or at its last message if that is later. Finishing it again changes nothing.
func (s *Store) FinishTake(ctx context.Context, id int64, end score.Tick) error {
	// Nothing is appended to a take that is being finished, so it is made ready before the turn to write comes.
	var row takeRow
	var t *take.Take
	err := s.read(ctx, func(tx *gorm.DB) (err error) {
		if row, err = findTake(tx, id); err == nil && !row.Finished {
			t, err = loadTake(tx, row)
		}
		return err
	})
	if err != nil || row.Finished {
		return err
	}
	t.Finish(end)
	contents, err := compress(pack(t.Messages))
	if err != nil {
		return err
	}
	return s.write(ctx, journalTurn, func(tx *gorm.DB) error {
		if err := tx.Where("take_id = ?", id).Delete(&pieceRow{}).Error; err != nil {
			return err
		}
		return tx.Model(&row).Updates(map[string]any{"end": t.End, "notes": t.Count(), "finished": true, "contents": contents}).Error
	})
}

// finishBroken finishes what was being recorded when the program was killed. What has no message goes.
func (s *Store) finishBroken() error {
	for len(s.broken) > 0 {
		row := s.broken[0]
		_, count, err := extent(s.reads, row.ID)
		switch {
		case err != nil:
		case count == 0:
			err = s.write(context.Background(), plainTurn, func(tx *gorm.DB) error { return tx.Delete(&row).Error })
		case row.Wake:
			err = s.wake.FinishTake(context.Background(), row.ID, 0)
		default:
			err = s.FinishTake(context.Background(), row.ID, 0)
		}
		if err == nil && count > 0 {
			err = s.knowBrokenLog(context.Background(), row.ID)
		}
		if err != nil {
			return fmt.Errorf("finish the takes that were broken off: %w", explain(err))
		}
		s.broken = s.broken[1:]
	}
	return nil
}

// Recording implements shelf.Store. It knows of nothing in a folder that is gone.
func (s *Store) Recording(ctx context.Context, id int64) (recording *take.Take, summary take.Summary, edits []take.Edit, err error) {
	if err := s.files.check(s.folder); err != nil {
		return nil, summary, nil, err
	}
	var row takeRow
	var rows []takeEditRow
	err = s.read(ctx, func(tx *gorm.DB) (err error) {
		if row, err = findTake(tx.Where("finished = ? AND wake = ?", true, false), id); err != nil {
			return err
		}
		if recording, err = loadTake(tx, row); err != nil {
			return err
		}
		return tx.Where("take_id = ?", id).Order("position").Find(&rows).Error
	})
	if err == nil {
		summary, err = row.summary()
	}
	if err == nil {
		edits, err = editsOf(rows)
	}
	return recording, summary, edits, err
}

func findTake(tx *gorm.DB, id int64) (takeRow, error) {
	var row takeRow
	err := tx.First(&row, id).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return row, fmt.Errorf("take %d: %w", id, take.ErrUnknown)
	}
	return row, err
}

func loadTake(tx *gorm.DB, row takeRow) (*take.Take, error) {
	var head heading
	if err := json.Unmarshal([]byte(row.Heading), &head); err != nil {
		return nil, err
	}
	t := head.take(row)
	var err error
	if len(row.Contents) == 0 {
		t.Messages, err = messagesBetween(tx, row.ID, 0, score.LastTick)
	} else {
		var packed []byte
		if packed, err = expand(row.Contents); err == nil {
			t.Messages, err = unpack(packed, nil)
		}
	}
	if err != nil {
		return nil, fmt.Errorf("read the contents of take %d: %w", row.ID, err)
	}
	t.NameTracks()
	return t, nil
}

// take returns the take of a heading, without its messages.
func (head heading) take(row takeRow) *take.Take {
	return &take.Take{
		Name: row.Name, Luck: head.Luck, Meter: head.Meter, Meters: head.Meters, Key: head.Key,
		Tempo: head.Tempo, Tracks: head.Tracks, Markers: head.Markers, End: row.End,
	}
}

// Takes lists the finished takes of the project that is open, the latest first.
func (s *Store) Takes(ctx context.Context) ([]take.Summary, error) {
	var rows []takeRow
	err := s.read(ctx, func(tx *gorm.DB) error {
		open, err := openProject(tx)
		if err != nil {
			return err
		}
		return tx.Omit("contents").Where("finished = ? AND wake = ? AND project_id = ?", true, false, open).Order("id DESC").Find(&rows).Error
	})
	if err != nil {
		return nil, err
	}
	summaries := make([]take.Summary, len(rows))
	for i, row := range rows {
		if summaries[i], err = row.summary(); err != nil {
			return nil, err
		}
	}
	return summaries, nil
}

// summary returns what the list of takes says of a take.
func (row takeRow) summary() (summary take.Summary, err error) {
	if row.Present != "" {
		err = json.Unmarshal([]byte(row.Present), &summary)
		return summary, err
	}
	var head heading
	if err := json.Unmarshal([]byte(row.Heading), &head); err != nil {
		return summary, err
	}
	summary = take.SummaryOf(head.take(row))
	summary.ID, summary.Created, summary.Revision, summary.Notes = row.ID, row.Created, row.Revision, row.Notes
	return summary, nil
}
