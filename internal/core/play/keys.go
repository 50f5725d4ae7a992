package play

import (
	"cmp"
	"slices"

	"jettyfog/internal/core/score"
)

// Message is a note-on or a note-off of a MIDI port.
type Message struct {
	Tick score.Tick
	// Track is the id of the track whose note it is.
	Track uint32
	// On tells a note-on from a note-off.
	On bool
	// Channel counts from 0.
	Channel uint8
	// Key is the MIDI note number.
	Key uint8
	// Velocity is 1 to 127 for a note-on and 0 for a note-off.
	Velocity uint8
}

// CompareMessages orders messages by tick; at one tick note-offs come first, then by channel and key.
func CompareMessages(a, b Message) int {
	return cmp.Or(
		cmp.Compare(a.Tick, b.Tick), cmp.Compare(order(a.On), order(b.On)),
		cmp.Compare(a.Channel, b.Channel), cmp.Compare(a.Key, b.Key),
	)
}

func order(on bool) int {
	if on {
		return 1
	}
	return 0
}

// Keys are the keys of a MIDI port that are down. A key has one state however many tracks play it,
// so notes that overlap on one channel and key share it: the later note strikes it again and it stays
// down until the last of them ends. Thus note-ons and note-offs of a key take turns, and no track
// cuts another short.
//
// The zero value has all keys up. Keys may not be used by two goroutines at once.
type Keys struct {
	held []heldKey
}

type heldKey struct {
	struck, until score.Tick
	track         uint32
	channel, key  uint8
	// lifted is set while a key is up for an instant, to be struck again at the same tick.
	lifted bool
}

// Play appends to dst the messages before the moment to: those of the given notes, which must be
// ordered by start, none before the moment of an earlier call, and the note-offs that are due of
// notes given before. At one tick note-offs come first. Notes must start before to.
func (k *Keys) Play(notes []Note, to score.Tick, dst []Message) []Message {
	for len(notes) > 0 {
		start := notes[0].Start
		together := 1
		for together < len(notes) && notes[together].Start == start {
			together++
		}
		dst = k.lift(start+1, dst)
		dst = k.strike(notes[:together], dst)
		notes = notes[together:]
	}
	return k.lift(to, dst)
}

// Release appends note-offs at the given moment for all keys that are down.
func (k *Keys) Release(at score.Tick, dst []Message) []Message {
	for i := range k.held {
		k.held[i].until = at
	}
	return k.lift(at+1, dst)
}

// lift lets go of the keys that are due before the moment.
func (k *Keys) lift(before score.Tick, dst []Message) []Message {
	first := len(dst)
	kept := k.held[:0]
	for _, h := range k.held {
		if h.until < before {
			dst = append(dst, h.off(h.until))
		} else {
			kept = append(kept, h)
		}
	}
	k.held = kept
	slices.SortFunc(dst[first:], CompareMessages)
	return dst
}

// strike presses the keys of notes that start together. Of two that are struck at the same moment
// the first one's velocity counts.
func (k *Keys) strike(together []Note, dst []Message) []Message {
	for _, n := range together {
		if h := k.find(n); h != nil && h.struck < n.Start && !h.lifted {
			dst = append(dst, h.off(n.Start))
			h.lifted = true
		}
	}
	for _, n := range together {
		h := k.find(n)
		switch {
		case h == nil:
			k.held = append(k.held, heldKey{channel: n.Channel, key: n.Key})
			h = &k.held[len(k.held)-1]
		case !h.lifted:
			h.until = max(h.until, n.End)
			continue
		}
		h.struck, h.until, h.track, h.lifted = n.Start, max(h.until, n.End), n.Track, false
		dst = append(dst, Message{Tick: n.Start, Track: n.Track, On: true, Channel: n.Channel, Key: n.Key, Velocity: n.Velocity})
	}
	return dst
}

func (k *Keys) find(n Note) *heldKey {
	for i := range k.held {
		if k.held[i].channel == n.Channel && k.held[i].key == n.Key {
			return &k.held[i]
		}
	}
	return nil
}

func (h heldKey) off(at score.Tick) Message {
	return Message{Tick: at, Track: h.track, Channel: h.channel, Key: h.key}
}
