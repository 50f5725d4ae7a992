package store

import (
	"context"
	"errors"
	"fmt"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
)

// logRow is the log of which a take is a stretch, until the take's end.
type logRow struct {
	TakeID int64      `gorm:"primaryKey;autoIncrement:false"`
	From   score.Tick // in run time
	// Recorded is the first tick of run time of which the take has something.
	Recorded score.Tick
	Log      []byte // a file of a log, compressed by gzip
}

func (logRow) TableName() string { return "logs" }

// maxLog bounds the file of a log that is kept, in bytes. A take of more has none.
const maxLog = 64 << 20

// KeepLog stores what a take is a function of. Storing it again changes nothing. The error wraps take.ErrUnknown if the
// take is not there.
func (s *Store) KeepLog(ctx context.Context, id int64, logged take.Logged) error {
	file, err := log.Encode(logged.Log, logged.To)
	if err != nil || len(file) > maxLog {
		return err
	}
	packed, err := compress(file)
	if err != nil {
		return err
	}
	return s.write(ctx, journalTurn, func(tx *gorm.DB) error {
		if _, err := findTake(tx.Omit("contents"), id); err != nil {
			return err
		}
		row := logRow{TakeID: id, From: logged.From, Recorded: logged.Recorded, Log: packed}
		return tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(&row).Error
	})
}

// KeepLog stores what a stretch of the wake is a function of, as Store.KeepLog does.
func (w *Wake) KeepLog(ctx context.Context, id int64, logged take.Logged) error {
	return w.store.KeepLog(ctx, id, logged)
}

// Log implements shelf.Store.
func (s *Store) Log(ctx context.Context, id int64) (logged take.Logged, err error) {
	var row logRow
	err = s.read(ctx, func(tx *gorm.DB) error { return tx.First(&row, "take_id = ?", id).Error })
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return logged, take.ErrNoLog
	}
	if err != nil {
		return logged, err
	}
	file, err := expand(row.Log)
	if err == nil {
		logged.Log, logged.To, err = log.Decode(file)
	}
	if err != nil {
		return logged, fmt.Errorf("read the log of take %d: %w", id, err)
	}
	logged.From, logged.Recorded = row.From, row.Recorded
	return logged, nil
}
