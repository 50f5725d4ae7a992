package store

import (
	"context"
	"encoding/json"
	"errors"
	"time"

	"gorm.io/gorm"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
)

// What the wake keeps: stretches until so much playing has come after them, within so many messages.
const (
	wakeFor      = 24 * time.Hour
	wakeMessages = 20_000_000
)

// Wake is the journal of everything that was played: a stretch from each start to its stop. It is written like
// takes are, and is in no list of them.
type Wake struct{ store *Store }

// Wake returns the wake.
func (s *Store) Wake() *Wake { return &Wake{s} }

// CreateTake begins a stretch, and drops the oldest ones that need not be kept any longer.
func (w *Wake) CreateTake(ctx context.Context, t *take.Take, revision int64) (int64, error) {
	encoded, err := encodeHeading(t)
	if err != nil {
		return 0, err
	}
	row := takeRow{Created: time.Now().Unix(), Revision: revision, Heading: encoded, Wake: true}
	err = w.store.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if err := dropOldWake(tx); err != nil {
			return err
		}
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		return saveOrigin(tx, row.ID, take.Origin{Revision: revision, Project: t.Project})
	})
	return row.ID, err
}

func dropOldWake(tx *gorm.DB) error {
	var rows []takeRow
	if err := tx.Where("wake = ?", true).Order("id DESC").Find(&rows).Error; err != nil {
		return err
	}
	var played int64 // nanoseconds of all later stretches
	messages := 0
	for _, row := range rows {
		if played >= int64(wakeFor) || messages >= wakeMessages {
			if err := tx.Delete(&row).Error; err != nil {
				return err
			}
			continue
		}
		var head heading
		if err := json.Unmarshal([]byte(row.Heading), &head); err != nil {
			return err
		}
		played += head.Tempo.Nanos(row.End)
		messages += row.Notes
	}
	return nil
}

// AppendTake writes messages of the stretch that is being played, as Store.AppendTake does.
func (w *Wake) AppendTake(ctx context.Context, id int64, seq int, messages []play.Message, line take.Timeline) error {
	if err := w.store.AppendTake(ctx, id, seq, messages, line); err != nil {
		return err
	}
	if next := seq + len(messages); len(messages) > 0 && next/dropEvery > seq/dropEvery {
		return dropOldMessages(w.store.db.WithContext(ctx), id, next, messages[len(messages)-1].Tick, line.Tempo)
	}
	return nil
}

// dropEvery is after how many messages the beginning of a long stretch is looked at.
const dropEvery = 10_000

// dropOldMessages drops what a stretch that goes on and on need not keep any longer: all but what instruments were
// told last.
func dropOldMessages(tx *gorm.DB, id int64, count int, last score.Tick, tempo play.TempoMap) error {
	oldest := tempo.TickAt(tempo.Nanos(last) - int64(wakeFor))
	if oldest <= 0 && count <= wakeMessages {
		return nil
	}
	old := func() *gorm.DB {
		return tx.Model(&messageRow{}).Where("take_id = ? AND (tick < ? OR seq < ?)", id, oldest, count-wakeMessages)
	}
	standing := old().Select("MAX(seq)").Where("kind NOT IN ?", notes).Group("kind, channel, key")
	return old().Where("seq NOT IN (?)", standing).Delete(&messageRow{}).Error
}

// notes are the kinds that are no settings of an instrument.
var notes = []play.Kind{play.NoteOff, play.NoteOn}

// AddOrigin says which project plays from a tick of a stretch on.
func (w *Wake) AddOrigin(ctx context.Context, id int64, origin take.Origin) error {
	return w.store.AddOrigin(ctx, id, origin)
}

// FinishTake ends a stretch at a tick, or at its last message if that is later. Notes that are still sounding,
// which a program that was killed leaves, end when they are cut.
func (w *Wake) FinishTake(ctx context.Context, id int64, end score.Tick) error {
	return w.store.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		row, err := findTake(tx, id)
		if err != nil {
			return err
		}
		last, count, err := extent(tx, id)
		if err != nil {
			return err
		}
		return tx.Model(&row).Updates(map[string]any{"end": max(end, last), "notes": count, "finished": true}).Error
	})
}

// extent returns the tick of a take's last message, and how many there are.
func extent(tx *gorm.DB, id int64) (last score.Tick, count int, err error) {
	var found struct {
		Last  score.Tick
		Count int
	}
	err = tx.Model(&messageRow{}).Where("take_id = ?", id).Select("COALESCE(MAX(tick), 0) AS last, COUNT(*) AS count").Scan(&found).Error
	return found.Last, found.Count, err
}

// LastBars returns the last whole bars before a moment of a stretch; a stretch of 0 is the last one, a moment of 0
// its end. The error wraps take.ErrUnknown if there is none.
func (w *Wake) LastBars(ctx context.Context, id int64, end score.Tick, bars int) (take.Stretch, error) {
	tx := w.store.db.WithContext(ctx)
	row, whole, err := w.stretch(tx, id)
	if err != nil {
		return take.Stretch{}, err
	}
	if end == 0 {
		end = whole.End
	}
	from, to := take.LastBars(min(end, whole.End), whole.Meter.Bar(), bars)
	return piece(tx, row, whole, from, to)
}

// Piece returns what is in [from, to) of a stretch, as LastBars does.
func (w *Wake) Piece(ctx context.Context, id int64, from, to score.Tick) (take.Stretch, error) {
	tx := w.store.db.WithContext(ctx)
	row, whole, err := w.stretch(tx, id)
	if err != nil {
		return take.Stretch{}, err
	}
	from = max(0, min(from, whole.End))
	return piece(tx, row, whole, from, max(from, min(to, whole.End)))
}

// stretch returns a stretch without its messages.
func (w *Wake) stretch(tx *gorm.DB, id int64) (takeRow, *take.Take, error) {
	find := tx.Where("wake = ?", true)
	if id != 0 {
		find = find.Where("id = ?", id)
	}
	var row takeRow
	err := find.Order("id DESC").First(&row).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return row, nil, take.ErrUnknown
	}
	if err != nil {
		return row, nil, err
	}
	var head heading
	if err := json.Unmarshal([]byte(row.Heading), &head); err != nil {
		return row, nil, err
	}
	last, _, err := extent(tx, row.ID)
	if err != nil {
		return row, nil, err
	}
	whole := head.take(row)
	whole.End = max(whole.End, last)
	return row, whole, nil
}

func piece(tx *gorm.DB, row takeRow, whole *take.Take, from, to score.Tick) (take.Stretch, error) {
	found := take.Stretch{ID: row.ID, From: from, To: to, Revision: row.Revision}
	beside := tx.Model(&takeRow{}).Where("wake = ?", true)
	if err := beside.Session(&gorm.Session{}).Select("COALESCE(MAX(id), 0)").Where("id < ?", row.ID).Scan(&found.Before).Error; err != nil {
		return found, err
	}
	if err := beside.Session(&gorm.Session{}).Select("COALESCE(MIN(id), 0)").Where("id > ?", row.ID).Scan(&found.After).Error; err != nil {
		return found, err
	}
	var before, rows []messageRow
	// Of what instruments were told, the last of each kind, channel and number.
	told := tx.Model(&messageRow{}).Select("MAX(seq)").Where("take_id = ? AND tick < ? AND kind NOT IN ?", row.ID, from, notes).
		Group("kind, channel, key")
	if err := tx.Where("take_id = ? AND seq IN (?)", row.ID, told).Order("seq").Find(&before).Error; err != nil {
		return found, err
	}
	if err := tx.Where("take_id = ? AND tick >= ? AND tick <= ?", row.ID, from, to).Order("seq").Find(&rows).Error; err != nil {
		return found, err
	}
	whole.Messages = messagesOf(append(before, rows...))
	origin, err := originAt(tx, row.ID, from)
	switch {
	case err == nil:
		found.Revision, whole.Project, whole.Luck = origin.Revision, origin.Project, origin.Project.Luck.Number
	case !errors.Is(err, take.ErrUnknown):
		return found, err
	}
	found.Take = take.Cut(whole, from, to)
	return found, nil
}
