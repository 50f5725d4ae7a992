package store

import (
	"gorm.io/gorm"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
)

// pieceRow is a run of messages of a recording or of a stretch of the wake. Pieces follow each other in time.
type pieceRow struct {
	ID       int64
	TakeID   int64
	First    int // how many messages of the take come before
	Count    int
	From     score.Tick // of its first message
	To       score.Tick // of its last
	Messages []byte
	// Stands says that the piece has, in Standing, what instruments were told before it, so that it can be read
	// without all pieces that come before it.
	Stands   bool
	Standing []byte
}

func (pieceRow) TableName() string { return "pieces" }

// standingEvery is how many messages lie at most between two pieces that have what stands before them, less a piece.
const standingEvery = 4096

// savePiece writes a piece in the place of those that are there from its first message on, so that it can be written
// again, and longer.
func savePiece(tx *gorm.DB, id int64, p take.Piece) error {
	if err := tx.Where("take_id = ? AND first >= ?", id, p.First).Delete(&pieceRow{}).Error; err != nil || len(p.Messages) == 0 {
		return err
	}
	row := pieceRow{
		TakeID: id, First: p.First, Count: len(p.Messages), Messages: pack(p.Messages),
		From: p.Messages[0].Tick, To: p.Messages[len(p.Messages)-1].Tick,
	}
	var latest pieceRow
	err := tx.Select("first").Where("take_id = ? AND stands", id).Order("first DESC").Limit(1).Find(&latest).Error
	if err != nil {
		return err
	}
	if p.First-latest.First >= standingEvery {
		row.Stands, row.Standing = true, pack(p.Standing)
	}
	return tx.Create(&row).Error
}

// messagesBetween returns the messages of a take from a tick up to and with another, and what was told before. There
// can be more of what came before, and it can be told by fewer messages than it was.
func messagesBetween(tx *gorm.DB, id int64, from, to score.Tick) (messages []midi.Message, err error) {
	begin := pieceRow{}
	// A piece that begins at the tick itself can have messages of that tick before it.
	err = tx.Select(`first, standing, "from"`).Where(`take_id = ? AND stands AND "from" < ?`, id, from).
		Order("first DESC").Limit(1).Find(&begin).Error
	if err != nil {
		return nil, err
	}
	if messages, err = unpack(begin.Standing, nil); err != nil {
		return nil, err
	}
	for i := range messages {
		messages[i].Tick = begin.From
	}
	var rows []pieceRow
	if err := tx.Where(`take_id = ? AND first >= ? AND "from" <= ?`, id, begin.First, to).Order("first").Find(&rows).Error; err != nil {
		return nil, err
	}
	for _, row := range rows {
		if messages, err = unpack(row.Messages, messages); err != nil {
			return nil, err
		}
	}
	return messages, nil
}

// extent returns the tick of a take's last message, and how many there are.
func extent(tx *gorm.DB, id int64) (last score.Tick, count int, err error) {
	var row pieceRow
	err = tx.Select(`first, count, "to"`).Where("take_id = ?", id).Order("first DESC").Limit(1).Find(&row).Error
	return row.To, row.First + row.Count, err
}
