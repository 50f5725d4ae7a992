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
		return tx.Create(&row).Error
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
func (w *Wake) AppendTake(ctx context.Context, id int64, seq int, messages []play.Message, tempo play.TempoMap) error {
	return w.store.AppendTake(ctx, id, seq, messages, tempo)
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

// Last returns the last whole bars that were played, as a take that has no name yet, at which bar they began,
// from 0, and the revision of the project when that stretch began. The error wraps take.ErrUnknown if nothing
// was played yet.
func (w *Wake) Last(ctx context.Context, bars int) (last *take.Take, bar int, revision int64, err error) {
	tx := w.store.db.WithContext(ctx)
	var row takeRow
	err = tx.Where("wake = ?", true).Order("id DESC").First(&row).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return nil, 0, 0, take.ErrUnknown
	}
	if err != nil {
		return nil, 0, 0, err
	}
	var head heading
	if err := json.Unmarshal([]byte(row.Heading), &head); err != nil {
		return nil, 0, 0, err
	}
	end, _, err := extent(tx, row.ID)
	if err != nil {
		return nil, 0, 0, err
	}
	from, to := take.LastBars(max(end, row.End), head.Meter.Bar(), bars)
	whole := head.take(row)
	var before, rows []messageRow
	// Of what instruments were told, the last of each kind, channel and number.
	told := tx.Model(&messageRow{}).Select("MAX(seq)").Where("take_id = ? AND tick < ? AND kind NOT IN ?", row.ID, from, []play.Kind{play.NoteOff, play.NoteOn}).
		Group("kind, channel, key")
	if err := tx.Where("take_id = ? AND seq IN (?)", row.ID, told).Order("seq").Find(&before).Error; err != nil {
		return nil, 0, 0, err
	}
	if err := tx.Where("take_id = ? AND tick >= ? AND tick <= ?", row.ID, from, to).Order("seq").Find(&rows).Error; err != nil {
		return nil, 0, 0, err
	}
	whole.Messages = messagesOf(append(before, rows...))
	return take.Cut(whole, from, to), int(from / head.Meter.Bar()), row.Revision, nil
}
