package store_test

import (
	"encoding/binary"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/theory"
	"jettyfog/internal/store"
)

// What is stored of a message is what it was, whatever its detune and traveller; messages that were stored before travellers were have none.
func TestMessagesAreStored(t *testing.T) {
	for _, detune := range []theory.Cents{0, 1, -1, 150_000_000, -150_000_000} {
		for _, traveller := range []uint8{0, 1, 128, 255} {
			m := midi.Message{Tick: 1 << 40, Track: 7, Kind: midi.NoteOn, Channel: 15, Key: 127, Velocity: 1, Value: 65535, Detune: detune, Traveller: traveller}
			read, err := store.Unpack(store.Pack([]midi.Message{m}), nil)
			require.NoError(t, err)
			require.Equal(t, []midi.Message{m}, read)
		}
		old := store.Pack([]midi.Message{{Detune: detune}})
		require.Equal(t, uint64(detune), binary.LittleEndian.Uint64(old[18:]), "as it was")
	}
}
