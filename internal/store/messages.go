package store

import (
	"bytes"
	"compress/gzip"
	"encoding/binary"
	"errors"
	"fmt"
	"io"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// messageBytes is how long a message is where it is stored: little-endian, its tick (8 bytes), track (4), kind,
// channel, key and velocity (1 each), value (2), detune (7) and, in the byte that is left of that number, what it has besides its sign: the traveller.
const messageBytes = 26

const detuneBits = 56

// pack returns messages as they are stored.
func pack(messages []midi.Message) []byte {
	packed := make([]byte, 0, messageBytes*len(messages))
	for _, m := range messages {
		packed = binary.LittleEndian.AppendUint64(packed, uint64(m.Tick))
		packed = binary.LittleEndian.AppendUint32(packed, m.Track)
		packed = append(packed, uint8(m.Kind), m.Channel, m.Key, m.Velocity)
		packed = binary.LittleEndian.AppendUint16(packed, m.Value)
		packed = binary.LittleEndian.AppendUint64(packed, uint64(m.Detune)^uint64(m.Traveller)<<detuneBits)
	}
	return packed
}

// unpack appends stored messages to dst.
func unpack(packed []byte, dst []midi.Message) ([]midi.Message, error) {
	if len(packed)%messageBytes != 0 {
		return dst, fmt.Errorf("stored messages have %d bytes, which is no multiple of %d", len(packed), messageBytes)
	}
	for ; len(packed) > 0; packed = packed[messageBytes:] {
		last := binary.LittleEndian.Uint64(packed[18:])
		detune := int64(last<<8) >> 8 // with its sign
		dst = append(dst, midi.Message{
			Tick: score.Tick(binary.LittleEndian.Uint64(packed)), Track: binary.LittleEndian.Uint32(packed[8:]),
			Kind: midi.Kind(packed[12]), Channel: packed[13], Key: packed[14], Velocity: packed[15],
			Value: binary.LittleEndian.Uint16(packed[16:]), Detune: theory.Cents(detune),
			Traveller: uint8((last ^ uint64(detune)) >> detuneBits),
		})
	}
	return dst, nil
}

// compress returns data compressed by gzip, fast. Nothing still becomes something.
func compress(data []byte) ([]byte, error) {
	var compressed bytes.Buffer
	w, err := gzip.NewWriterLevel(&compressed, gzip.BestSpeed)
	if err != nil {
		return nil, err
	}
	_, err = w.Write(data)
	if err := errors.Join(err, w.Close()); err != nil {
		return nil, err
	}
	return compressed.Bytes(), nil
}

// expand reverses compress.
func expand(compressed []byte) ([]byte, error) {
	r, err := gzip.NewReader(bytes.NewReader(compressed))
	if err != nil {
		return nil, err
	}
	return io.ReadAll(r)
}
