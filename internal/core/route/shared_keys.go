package route

import (
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// SharedKeys are the keys of an output. A key has one state however many notes are on it, so notes that overlap on one
// channel and key share it: the later one strikes it again, and it stays down until the last of them ends. Thus
// note-ons and note-offs of a key take turns, and no track cuts another short.
//
// The zero value has all keys up. SharedKeys may not be used by two goroutines at once.
type SharedKeys struct {
	down []sharedKey
}

// sharedKey is a key that is down, or up for an instant, to be struck again at the same tick.
type sharedKey struct {
	channel, key uint8
	track        uint32 // that struck it last
	struck       score.Tick
	lifted       bool
	notes        []midi.NoteID
}

// Play appends to dst what goes out of messages as Keys makes them, in order. All messages of one tick must come in one
// call.
func (k *SharedKeys) Play(messages, dst []midi.Message) []midi.Message {
	for len(messages) > 0 {
		together := 1
		for together < len(messages) && messages[together].Tick == messages[0].Tick {
			together++
		}
		dst = k.play(messages[:together], dst)
		messages = messages[together:]
	}
	return dst
}

// play appends what goes out of the messages of one tick. Keys go up before anything else happens.
func (k *SharedKeys) play(messages, dst []midi.Message) []midi.Message {
	first := len(dst)
	for _, m := range messages {
		switch d := k.find(m); {
		case m.Kind == midi.NoteOff && d != nil:
			d.notes = slices.DeleteFunc(d.notes, func(n midi.NoteID) bool { return n == m.NoteID() })
			if len(d.notes) == 0 {
				dst = append(dst, d.off(m.Tick))
				k.down = slices.DeleteFunc(k.down, func(d sharedKey) bool { return len(d.notes) == 0 })
			}
		case m.Kind == midi.NoteOn && d != nil && !d.lifted && d.struck < m.Tick:
			d.lifted = true
			dst = append(dst, d.off(m.Tick))
		}
	}
	slices.SortStableFunc(dst[first:], midi.Compare)
	for _, m := range messages {
		switch m.Kind {
		case midi.NoteOff:
		case midi.NoteOn:
			dst = k.strike(m, dst)
		default:
			dst = append(dst, m)
		}
	}
	return dst
}

// strike presses the key of a note. Of two that are struck at the same moment the first one's velocity counts.
func (k *SharedKeys) strike(m midi.Message, dst []midi.Message) []midi.Message {
	d := k.find(m)
	if d == nil {
		k.down = append(k.down, sharedKey{channel: m.Channel, key: m.Key, lifted: true})
		d = &k.down[len(k.down)-1]
	}
	d.notes = append(d.notes, m.NoteID())
	if !d.lifted {
		return dst
	}
	d.track, d.struck, d.lifted = m.Track, m.Tick, false
	m.Value = 0
	return append(dst, m)
}

func (k *SharedKeys) find(m midi.Message) *sharedKey {
	for i := range k.down {
		if k.down[i].channel == m.Channel && k.down[i].key == m.Key {
			return &k.down[i]
		}
	}
	return nil
}

func (d *sharedKey) off(at score.Tick) midi.Message {
	return midi.Message{Tick: at, Track: d.track, Channel: d.channel, Key: d.key}
}
