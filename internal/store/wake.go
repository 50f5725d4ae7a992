package store

import (
	"context"
	"encoding/json"
	"errors"
	"sync"

	"gorm.io/gorm"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
)

// Wake is the journal of everything that was played: a stretch from each start to its stop. It is written like
// takes are, and is in no list of them.
type Wake struct {
	store *Store

	mu   sync.Mutex
	gone cutoff
}

// Wake returns the wake.
func (s *Store) Wake() *Wake { return s.wake }

// CreateTake begins a stretch, and finds out which of the others need not be kept any longer.
func (w *Wake) CreateTake(ctx context.Context, t *take.Take, revision int64) (id int64, err error) {
	row, origin, err := rowsOf(t, revision)
	if err != nil {
		return 0, err
	}
	row.Name, row.Wake = "", true
	var gone cutoff
	err = w.store.write(ctx, journalTurn, func(tx *gorm.DB) error {
		if err := createTake(tx, &row, origin); err != nil {
			return err
		}
		gone, err = oldStretches(tx)
		return err
	})
	if err != nil {
		return 0, err
	}
	w.setGone(gone)
	return row.ID, nil
}

// AppendTake writes a piece of the stretch that is being played, as Store.AppendTake does. It also drops a little of
// what need not be kept any longer, so that nothing ever waits long for that.
func (w *Wake) AppendTake(ctx context.Context, id int64, piece take.Piece, grown *take.Heading) error {
	return w.store.write(ctx, journalTurn, func(tx *gorm.DB) error {
		if err := appendTake(tx, id, piece, grown); err != nil {
			return err
		}
		gone := w.getGone()
		if next := piece.First + len(piece.Messages); next/lookEach > piece.First/lookEach {
			var err error
			if gone, err = gone.within(tx, id); err != nil {
				return err
			}
		}
		left, err := gone.drop(tx)
		w.setGone(left)
		return err
	})
}

// AddOrigin says which project plays from a tick of a stretch on.
func (w *Wake) AddOrigin(ctx context.Context, id int64, origin take.Origin) error {
	return w.store.AddOrigin(ctx, id, origin)
}

// FinishTake ends a stretch at a tick, or at its last message if that is later. Notes that are still sounding,
// which a program that was killed leaves, end when they are cut.
func (w *Wake) FinishTake(ctx context.Context, id int64, end score.Tick) error {
	return w.store.write(ctx, journalTurn, func(tx *gorm.DB) error {
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

// LastBars returns the last whole bars before a moment of a stretch; a stretch of 0 is the last one, a moment of 0
// its end. The error wraps take.ErrUnknown if there is none.
func (w *Wake) LastBars(ctx context.Context, id int64, end score.Tick, bars int) (found take.Stretch, err error) {
	err = w.store.read(ctx, func(tx *gorm.DB) error {
		row, whole, err := stretch(tx, id)
		if err != nil {
			return err
		}
		if end == 0 {
			end = whole.End
		}
		from, to := take.LastBars(min(end, whole.End), whole.Bars(), bars)
		found, err = piece(tx, row, whole, from, to)
		return err
	})
	return found, err
}

// Piece returns what is in [from, to) of a stretch, as LastBars does.
func (w *Wake) Piece(ctx context.Context, id int64, from, to score.Tick) (found take.Stretch, err error) {
	err = w.store.read(ctx, func(tx *gorm.DB) error {
		row, whole, err := stretch(tx, id)
		if err != nil {
			return err
		}
		from = max(0, min(from, whole.End))
		found, err = piece(tx, row, whole, from, max(from, min(to, whole.End)))
		return err
	})
	return found, err
}

// stretch returns a stretch without its messages.
func stretch(tx *gorm.DB, id int64) (takeRow, *take.Take, error) {
	find := tx.Where("wake = ?", true)
	if id != 0 {
		find = find.Where("id = ?", id)
	} else {
		open, err := openProject(tx)
		if err != nil {
			return takeRow{}, nil, err
		}
		find = find.Where("project_id = ?", open)
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

func piece(tx *gorm.DB, row takeRow, whole *take.Take, from, to score.Tick) (found take.Stretch, err error) {
	found = take.Stretch{ID: row.ID, From: from, To: to, Bar: whole.Bars().At(from), Revision: row.Revision}
	beside := tx.Model(&takeRow{}).Where("wake = ? AND project_id = ?", true, row.ProjectID)
	if err := beside.Session(&gorm.Session{}).Select("COALESCE(MAX(id), 0)").Where("id < ?", row.ID).Scan(&found.Before).Error; err != nil {
		return found, err
	}
	if err := beside.Session(&gorm.Session{}).Select("COALESCE(MIN(id), 0)").Where("id > ?", row.ID).Scan(&found.After).Error; err != nil {
		return found, err
	}
	if whole.Messages, err = messagesBetween(tx, row.ID, from, to); err != nil {
		return found, err
	}
	whole.NameTracks()
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
