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
	ID       int64
	Name     string
	Created  int64 // Unix seconds
	Revision int64
	Heading  string
	End      score.Tick
	Notes    int
	Finished bool
	Wake     bool // whether it is a stretch of the wake, which is in no list of takes
	// Present is the summary of a take that was changed since it was kept, as JSON; else it is empty.
	Present string
	// Contents hold the messages of a finished take; those of a recording, and of the wake, are rows.
	Contents []byte
}

func (takeRow) TableName() string { return "takes" }

// heading is what is stored of a take as JSON: all but its messages and what a list of takes shows.
type heading struct {
	Luck   int           `json:"luck"`
	Meter  score.Meter   `json:"meter"`
	Key    theory.Key    `json:"key"`
	Tempo  play.TempoMap `json:"tempo"`
	Tracks []take.Track  `json:"tracks"`

	Markers []take.Marker `json:"markers,omitempty"`
}

type messageRow struct {
	TakeID   int64 `gorm:"primaryKey;autoIncrement:false"`
	Seq      int   `gorm:"primaryKey;autoIncrement:false"`
	Tick     score.Tick
	Track    uint32
	Kind     play.Kind
	Channel  uint8
	Key      uint8
	Velocity uint8
	Value    uint16
	Detune   theory.Cents
}

func (messageRow) TableName() string { return "messages" }

// batch is how many messages are written in one statement; SQLite bounds the variables of one.
const batch = 500

// CreateTake stores a take that is about to be recorded and returns its id. A take without a name is
// named by how many there are.
func (s *Store) CreateTake(ctx context.Context, t *take.Take, revision int64) (int64, error) {
	encoded, err := encodeHeading(t)
	if err != nil {
		return 0, err
	}
	row := takeRow{Name: t.Name, Created: time.Now().Unix(), Revision: revision, Heading: encoded}
	err = s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		if err := saveOrigin(tx, row.ID, take.Origin{Revision: revision, Project: t.Project}); err != nil || row.Name != "" {
			return err
		}
		var takes int64
		if err := tx.Model(&takeRow{}).Where("wake = ?", false).Count(&takes).Error; err != nil {
			return err
		}
		return tx.Model(&row).Update("name", fmt.Sprintf("Take %d", takes)).Error
	})
	return row.ID, err
}

// AddTake stores a finished take and returns its id.
func (s *Store) AddTake(ctx context.Context, t *take.Take, revision int64) (int64, error) {
	encoded, err := encodeHeading(t)
	if err != nil {
		return 0, err
	}
	contents, err := pack(t.Messages)
	if err != nil {
		return 0, err
	}
	row := takeRow{
		Contents: contents, Name: t.Name, Created: time.Now().Unix(), Revision: revision, Heading: encoded,
		End: t.End, Notes: t.Count(), Finished: true,
	}
	err = s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		return saveOrigin(tx, row.ID, take.Origin{Revision: revision, Project: t.Project})
	})
	return row.ID, err
}

func encodeHeading(t *take.Take) (string, error) {
	encoded, err := json.Marshal(heading{Luck: t.Luck, Meter: t.Meter, Key: t.Key, Tempo: t.Tempo, Tracks: t.Tracks, Markers: t.Markers})
	return string(encoded), err
}

// AppendTake stores messages of a take that is being recorded, of which the first is the take's
// seq-th, counted from 0, and its tempos and markers so far. Storing the same messages again changes nothing,
// so a call that may have failed can be repeated.
func (s *Store) AppendTake(ctx context.Context, id int64, seq int, messages []play.Message, line take.Timeline) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		row, err := findTake(tx, id)
		if err != nil {
			return err
		}
		var head heading
		if err := json.Unmarshal([]byte(row.Heading), &head); err != nil {
			return err
		}
		head.Tempo, head.Markers = line.Tempo, line.Markers
		encoded, err := json.Marshal(head)
		if err != nil {
			return err
		}
		if err := tx.Model(&row).Update("heading", string(encoded)).Error; err != nil {
			return err
		}
		return replaceMessages(tx, id, seq, messages)
	})
}

// FinishTake ends a take at a tick, or at its last message if that is later.
func (s *Store) FinishTake(ctx context.Context, id int64, end score.Tick) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		row, err := findTake(tx, id)
		if err != nil {
			return err
		}
		t, err := loadTake(tx, row)
		if err != nil {
			return err
		}
		t.Finish(end)
		contents, err := pack(t.Messages)
		if err != nil {
			return err
		}
		if err := tx.Where("take_id = ?", id).Delete(&messageRow{}).Error; err != nil {
			return err
		}
		return tx.Model(&row).Updates(map[string]any{"end": t.End, "notes": t.Count(), "finished": true, "contents": contents}).Error
	})
}

// replaceMessages writes messages from the seq-th on in the place of those that are there.
func replaceMessages(tx *gorm.DB, id int64, seq int, messages []play.Message) error {
	if err := tx.Where("take_id = ? AND seq >= ?", id, seq).Delete(&messageRow{}).Error; err != nil {
		return err
	}
	rows := make([]messageRow, len(messages))
	for i, m := range messages {
		rows[i] = messageRow{
			TakeID: id, Seq: seq + i, Tick: m.Tick, Track: m.Track,
			Kind: m.Kind, Channel: m.Channel, Key: m.Key, Velocity: m.Velocity, Value: m.Value, Detune: m.Detune,
		}
	}
	if len(rows) == 0 {
		return nil
	}
	return tx.CreateInBatches(rows, batch).Error
}

func (s *Store) finishBrokenTakes() error {
	var rows []takeRow
	if err := s.db.Where("finished = ?", false).Find(&rows).Error; err != nil {
		return err
	}
	for _, row := range rows {
		finish := s.FinishTake
		if row.Wake {
			finish = s.Wake().FinishTake
		}
		if err := finish(context.Background(), row.ID, 0); err != nil {
			return err
		}
	}
	return nil
}

// Recording implements shelf.Store.
func (s *Store) Recording(ctx context.Context, id int64) (*take.Take, take.Summary, error) {
	tx := s.db.WithContext(ctx)
	row, err := findTake(tx.Where("finished = ? AND wake = ?", true, false), id)
	if err != nil {
		return nil, take.Summary{}, err
	}
	summary, err := row.summary()
	if err != nil {
		return nil, summary, err
	}
	recording, err := loadTake(tx, row)
	return recording, summary, err
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
	if len(row.Contents) > 0 {
		messages, err := unpack(row.Contents)
		t.Messages = messages
		return t, err
	}
	var rows []messageRow
	if err := tx.Where("take_id = ?", row.ID).Order("seq").Find(&rows).Error; err != nil {
		return nil, err
	}
	t.Messages = messagesOf(rows)
	return t, nil
}

// take returns the take of a heading, without its messages.
func (head heading) take(row takeRow) *take.Take {
	return &take.Take{
		Name: row.Name, Luck: head.Luck, Meter: head.Meter, Key: head.Key,
		Tempo: head.Tempo, Tracks: head.Tracks, Markers: head.Markers, End: row.End,
	}
}

func messagesOf(rows []messageRow) (messages []play.Message) {
	for _, m := range rows {
		messages = append(messages, play.Message{
			Tick: m.Tick, Track: m.Track, Kind: m.Kind, Channel: m.Channel, Key: m.Key, Velocity: m.Velocity, Value: m.Value, Detune: m.Detune,
		})
	}
	return messages
}

// Takes lists the finished takes, the latest first.
func (s *Store) Takes(ctx context.Context) ([]take.Summary, error) {
	var rows []takeRow
	err := s.db.WithContext(ctx).Omit("contents").Where("finished = ? AND wake = ?", true, false).Order("id DESC").Find(&rows).Error
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
