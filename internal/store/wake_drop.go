package store

import (
	"encoding/json"
	"time"

	"gorm.io/gorm"
)

// What the wake keeps: stretches until so much playing has come after them, within so many messages.
const (
	wakeFor      = 24 * time.Hour
	wakeMessages = 20_000_000
)

// lookEach is after how many messages it is looked whether the beginning of a long stretch may go.
const lookEach = 10_000

// cutoff is what of the wake may go: stretches before one, and the first pieces of one that goes on and on.
type cutoff struct {
	before  int64 // all stretches of lower ids
	stretch int64
	first   int // pieces of the stretch whose first message is before it
}

// oldStretches finds the stretches after which there is enough playing.
func oldStretches(tx *gorm.DB) (gone cutoff, err error) {
	var rows []takeRow
	if err := tx.Where("wake = ?", true).Order("id DESC").Find(&rows).Error; err != nil {
		return gone, err
	}
	var played int64 // nanoseconds of all later stretches
	messages := 0
	for _, row := range rows {
		if played >= int64(wakeFor) || messages >= wakeMessages {
			return cutoff{before: row.ID + 1}, nil
		}
		var head heading
		if err := json.Unmarshal([]byte(row.Heading), &head); err != nil {
			return gone, err
		}
		played += head.Tempo.Nanos(row.End)
		messages += row.Notes
	}
	return gone, nil
}

// within returns what may go of a stretch that goes on and on, besides.
func (c cutoff) within(tx *gorm.DB, id int64) (cutoff, error) {
	row, err := findTake(tx, id)
	if err != nil {
		return c, err
	}
	var head heading
	if err := json.Unmarshal([]byte(row.Heading), &head); err != nil {
		return c, err
	}
	last, count, err := extent(tx, id)
	if err != nil {
		return c, err
	}
	oldest := head.Tempo.TickAt(head.Tempo.Nanos(last) - int64(wakeFor))
	c.stretch = id
	// The first piece that stays has what was told before it.
	err = tx.Model(&pieceRow{}).Select("COALESCE(MAX(first), 0)").
		Where(`take_id = ? AND stands AND ("from" < ? OR first <= ?)`, id, oldest, count-wakeMessages).Scan(&c.first).Error
	return c, err
}

// droppedAtOnce is how many pieces go with each piece that comes.
const droppedAtOnce = 64

// drop drops a little of what may go, and returns what is left to be dropped.
func (c cutoff) drop(tx *gorm.DB) (left cutoff, err error) {
	if c.before > 0 {
		old := tx.Model(&takeRow{}).Select("id").Where("wake = ? AND id < ?", true, c.before)
		some := tx.Model(&pieceRow{}).Select("id").Where("take_id IN (?)", old).Limit(droppedAtOnce)
		dropped := tx.Where("id IN (?)", some).Delete(&pieceRow{})
		if dropped.Error != nil || dropped.RowsAffected == droppedAtOnce {
			return c, dropped.Error
		}
		if err := tx.Where("wake = ? AND id < ?", true, c.before).Delete(&takeRow{}).Error; err != nil {
			return c, err
		}
		c.before = 0
	}
	if c.first > 0 {
		some := tx.Model(&pieceRow{}).Select("id").Where("take_id = ? AND first < ?", c.stretch, c.first).Limit(droppedAtOnce)
		if err := tx.Where("id IN (?)", some).Delete(&pieceRow{}).Error; err != nil {
			return c, err
		}
	}
	return c, nil
}

func (w *Wake) setGone(gone cutoff) {
	w.mu.Lock()
	defer w.mu.Unlock()
	w.gone = gone
}

func (w *Wake) getGone() cutoff {
	w.mu.Lock()
	defer w.mu.Unlock()
	return w.gone
}
