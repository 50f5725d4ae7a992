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

// logRow is the log of which a take is a stretch.
type logRow struct {
	TakeID int64      `gorm:"primaryKey;autoIncrement:false"`
	From   score.Tick // in run time
	// Recorded is the first tick of run time of which the take has something.
	Recorded score.Tick
	Log      []byte // a file of a log, compressed by gzip
	// Known is the tick of run time up to which the log is known; 0 is where the file ends.
	Known score.Tick
}

func (logRow) TableName() string { return "logs" }

// logEntriesRow are some entries of a log, after those of its file, compressed by gzip.
type logEntriesRow struct {
	TakeID  int64 `gorm:"primaryKey;autoIncrement:false"`
	First   int   `gorm:"primaryKey;autoIncrement:false"`
	Entries []byte
}

func (logEntriesRow) TableName() string { return "log_entries" }

// AppendLog stores what a take is a function of, whose first entries are stored already: with none also where the log
// begins. One without a log has what was stored forgotten. Storing the same again changes nothing. The error wraps
// take.ErrUnknown if the take is not there.
func (s *Store) AppendLog(ctx context.Context, id int64, logged take.Logged, first int) error {
	if logged.Log == nil {
		return s.write(ctx, journalTurn, func(tx *gorm.DB) error { return forgetLog(tx, id) })
	}
	var head, entries []byte
	var err error
	if first == 0 {
		if head, err = log.Encode(logged.Log.Head(), logged.To); err == nil {
			head, err = compress(head)
		}
	}
	if more := logged.Log.Entries[first:]; err == nil && len(more) > 0 {
		if entries, err = log.EncodeEntries(more); err == nil {
			entries, err = compress(entries)
		}
	}
	if err != nil {
		return err
	}
	return s.write(ctx, journalTurn, func(tx *gorm.DB) error {
		if _, err := findTake(tx.Omit("contents"), id); err != nil {
			return err
		}
		if first == 0 {
			row := logRow{TakeID: id, From: logged.From, Recorded: logged.Recorded, Log: head}
			if err := tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(&row).Error; err != nil {
				return err
			}
		}
		// What was stored by a call that may have failed is stored anew.
		if err := tx.Where("take_id = ? AND first >= ?", id, first).Delete(&logEntriesRow{}).Error; err != nil {
			return err
		}
		if entries != nil {
			if err := tx.Create(&logEntriesRow{TakeID: id, First: first, Entries: entries}).Error; err != nil {
				return err
			}
		}
		return knowLog(tx, id, logged.To)
	})
}

// AppendLog stores what a stretch of the wake is a function of, as Store.AppendLog does.
func (w *Wake) AppendLog(ctx context.Context, id int64, logged take.Logged, first int) error {
	return w.store.AppendLog(ctx, id, logged, first)
}

// knowLog says up to which tick of run time the log of a take is known.
func knowLog(tx *gorm.DB, id int64, known score.Tick) error {
	return tx.Model(&logRow{}).Where("take_id = ?", id).Update("known", known).Error
}

func forgetLog(tx *gorm.DB, id int64) error {
	return errors.Join(
		tx.Where("take_id = ?", id).Delete(&logRow{}).Error,
		tx.Where("take_id = ?", id).Delete(&logEntriesRow{}).Error,
	)
}

// knowBrokenLog says of the log of a take that was broken off, and finished since, that it is known up to the take's end: no
// message came to disk before what it follows from.
func (s *Store) knowBrokenLog(ctx context.Context, id int64) error {
	return s.write(ctx, plainTurn, func(tx *gorm.DB) error {
		row, err := findTake(tx.Omit("contents"), id)
		if err != nil {
			return err
		}
		var logged logRow
		if err := tx.Omit("log").Limit(1).Find(&logged, "take_id = ?", id).Error; err != nil {
			return err
		}
		return knowLog(tx, id, logged.From+row.End)
	})
}

// CopyLog gives a take that was kept from [from, to) of a stretch what the stretch is a function of, if that is known.
func (w *Wake) CopyLog(ctx context.Context, stretch, id int64, from, to score.Tick) error {
	return w.store.write(ctx, plainTurn, func(tx *gorm.DB) error {
		var row logRow
		if err := tx.Limit(1).Find(&row, "take_id = ?", stretch).Error; err != nil || row.TakeID == 0 {
			return err
		}
		var entries []logEntriesRow
		if err := tx.Find(&entries, "take_id = ?", stretch).Error; err != nil {
			return err
		}
		row.TakeID, row.Known = id, row.From+to
		row.From += from
		row.Recorded = row.From
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		for i := range entries {
			entries[i].TakeID = id
		}
		if len(entries) == 0 {
			return nil
		}
		return tx.CreateInBatches(entries, 100).Error
	})
}

// Log implements shelf.Store.
func (s *Store) Log(ctx context.Context, id int64) (logged take.Logged, err error) {
	var row logRow
	var rows []logEntriesRow
	err = s.read(ctx, func(tx *gorm.DB) error {
		if err := tx.First(&row, "take_id = ?", id).Error; err != nil {
			return err
		}
		return tx.Order("first").Find(&rows, "take_id = ?", id).Error
	})
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return logged, take.ErrNoLog
	}
	if err != nil {
		return logged, err
	}
	if logged, err = row.read(rows); err != nil {
		return logged, fmt.Errorf("read the log of take %d: %w", id, err)
	}
	return logged, nil
}

func (row *logRow) read(rows []logEntriesRow) (logged take.Logged, err error) {
	head, err := expand(row.Log)
	if err != nil {
		return logged, err
	}
	logged.From, logged.Recorded, logged.To = row.From, row.Recorded, row.Known
	if row.Known == 0 {
		logged.Log, logged.To, err = log.Decode(head)
		return logged, err
	}
	var entries [][]byte
	for _, more := range rows {
		data, err := expand(more.Entries)
		if err != nil {
			return logged, err
		}
		entries = append(entries, data)
	}
	logged.Log, err = log.DecodeGrown(head, entries)
	return logged, err
}
