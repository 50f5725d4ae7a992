package store

import (
	"gorm.io/gorm"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// packRows makes pieces of the rows, one a message, that a database of version 5 has.
func packRows(tx *gorm.DB) error {
	type messageRow struct {
		TakeID   int64
		Seq      int
		Tick     score.Tick
		Track    uint32
		Kind     midi.Kind
		Channel  uint8
		Key      uint8
		Velocity uint8
		Value    uint16
		Detune   theory.Cents
	}
	var ids []int64
	if err := tx.Raw("SELECT DISTINCT take_id FROM messages").Scan(&ids).Error; err != nil {
		return err
	}
	const rowsAPiece = 1000
	for _, id := range ids {
		var sent midi.Settings
		for next, first := 0, 0; ; {
			var rows []messageRow
			if err := tx.Raw("SELECT * FROM messages WHERE take_id = ? AND seq >= ? ORDER BY seq LIMIT ?", id, next, rowsAPiece).Scan(&rows).Error; err != nil {
				return err
			}
			if len(rows) == 0 {
				break
			}
			var messages []midi.Message
			for _, m := range rows {
				messages = append(messages, midi.Message{
					Tick: m.Tick, Track: m.Track, Kind: m.Kind, Channel: m.Channel, Key: m.Key, Velocity: m.Velocity, Value: m.Value, Detune: m.Detune,
				})
			}
			if err := tx.Exec(`INSERT INTO pieces (take_id, first, count, "from", "to", messages, stands, standing) VALUES (?, ?, ?, ?, ?, ?, TRUE, ?)`,
				id, first, len(messages), messages[0].Tick, messages[len(messages)-1].Tick, pack(messages), pack(sent.Standing(0))).Error; err != nil {
				return err
			}
			sent.Note(messages)
			first += len(rows)
			next = rows[len(rows)-1].Seq + 1
		}
	}
	return nil
}
