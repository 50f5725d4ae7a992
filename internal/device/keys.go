package device

import (
	"maps"
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/output"
)

// keys are those of a device: how many notes hold each one that is down, as several outputs can be one device, and all that were
// ever used.
type keys struct {
	down map[key]held
	used map[key]held
}

type key struct{ channel, key uint8 }

// held is how often a key is, and the event that struck it.
type held struct {
	times int
	on    output.Event
}

func newKeys() keys { return keys{down: map[key]held{}, used: map[key]held{}} }

// play returns the messages as which an event goes out, in order. A key goes up before it is struck again, and when the last note lets
// go of it.
func (k *keys) play(e output.Event) (messages [][]byte) {
	at := key{e.Channel, e.Key}
	h := k.down[at]
	switch e.Kind {
	case midi.NoteOn:
		if h.times > 0 {
			messages = h.off()
		}
		h = held{h.times + 1, e}
		k.down[at], k.used[at] = h, h
	case midi.NoteOff:
		if h.times > 1 {
			h.times--
			k.down[at] = h
			return nil
		}
		delete(k.down, at)
	}
	return append(messages, e.Bytes()...)
}

// off returns what ends the note of a key.
func (h held) off() [][]byte {
	off := h.on
	off.Message = h.on.NoteID().Off(h.on.Tick)
	return off.Bytes()
}

// release returns what ends all notes.
func (k *keys) release() (messages [][]byte) {
	for _, at := range sorted(k.down) {
		messages = append(messages, k.down[at].off()...)
	}
	clear(k.down)
	return messages
}

// panic returns what ends notes that hang.
func (k *keys) panic() (messages [][]byte) {
	for channel := range uint8(16) {
		messages = midi.AppendEnding(messages, channel)
	}
	return append(messages, k.releaseUsed()...)
}

// releaseUsed returns what ends all notes that there can be: also those of which the device may not have had the end.
func (k *keys) releaseUsed() (messages [][]byte) {
	for _, at := range sorted(k.used) {
		messages = append(messages, k.used[at].off()...)
	}
	clear(k.down)
	return messages
}

func sorted(of map[key]held) []key {
	return slices.SortedFunc(maps.Keys(of), func(a, b key) int {
		return int(a.channel)*128 + int(a.key) - int(b.channel)*128 - int(b.key)
	})
}
