package store

import (
	"bytes"
	"compress/gzip"
	"encoding/binary"
	"errors"
	"fmt"
	"io"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// packedMessage is a message of a finished take, as its contents hold it: little-endian, in this order. Rows of a
// table, as a recording has them while it is made, would take a hundred times as long for a long take.
type packedMessage struct {
	Tick     int64
	Track    uint32
	Kind     uint8
	Channel  uint8
	Key      uint8
	Velocity uint8
	Value    uint16
	Detune   int64
}

// pack returns the contents of a take: its messages, compressed by gzip. No messages still have contents.
func pack(messages []play.Message) ([]byte, error) {
	packed := make([]packedMessage, len(messages))
	for i, m := range messages {
		packed[i] = packedMessage{
			int64(m.Tick), m.Track, uint8(m.Kind), m.Channel, m.Key, m.Velocity, m.Value, int64(m.Detune),
		}
	}
	var contents bytes.Buffer
	w, err := gzip.NewWriterLevel(&contents, gzip.BestSpeed)
	if err != nil {
		return nil, err
	}
	if err := errors.Join(binary.Write(w, binary.LittleEndian, packed), w.Close()); err != nil {
		return nil, err
	}
	return contents.Bytes(), nil
}

// unpack returns the messages of contents.
func unpack(contents []byte) ([]play.Message, error) {
	r, err := gzip.NewReader(bytes.NewReader(contents))
	if err != nil {
		return nil, fmt.Errorf("read the contents of a take: %w", err)
	}
	data, err := io.ReadAll(r)
	if err != nil {
		return nil, fmt.Errorf("read the contents of a take: %w", err)
	}
	packed := make([]packedMessage, len(data)/binary.Size(packedMessage{}))
	if _, err := binary.Decode(data, binary.LittleEndian, packed); err != nil {
		return nil, fmt.Errorf("read the contents of a take: %w", err)
	}
	var messages []play.Message
	for _, m := range packed {
		messages = append(messages, play.Message{
			Tick: score.Tick(m.Tick), Track: m.Track, Kind: play.Kind(m.Kind), Channel: m.Channel, Key: m.Key,
			Velocity: m.Velocity, Value: m.Value, Detune: theory.Cents(m.Detune),
		})
	}
	return messages, nil
}
