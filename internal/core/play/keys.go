package play

import (
	"slices"

	"jettyfog/internal/core/score"
)

// Keys are the keys of a MIDI port that are down. A key has one state however many tracks play it,
// so notes that overlap on one channel and key share it: the later note strikes it again and it stays
// down until the last of them ends. Thus note-ons and note-offs of a key take turns, and no track
// cuts another short.
//
// The zero value has all keys up. Keys may not be used by two goroutines at once.
type Keys struct {
	down   []downKey
	struck int64 // how many notes were struck
}

type downKey struct {
	channel, key uint8
	owner        uint32 // the track that struck it last
	holds        []hold
	// lifted is set while a key is up for an instant, to be struck again at the same tick.
	lifted bool
	struck score.Tick
}

// hold is a note that keeps a key down.
type hold struct {
	track  uint32
	until  score.Tick
	number int64 // of the note among all that were struck
	stolen bool
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
		dst = k.lift(start, dst)
		struck := withinVoices(notes[:together])
		k.steal(struck)
		dst = k.lift(start+1, dst)
		dst = k.strike(struck, dst)
		notes = notes[together:]
	}
	return k.lift(to, dst)
}

// withinVoices returns those of notes that start together for which their tracks have voices: the highest of each.
func withinVoices(together []Note) []Note {
	for i, n := range together {
		higher := 0
		for j, other := range together {
			if n.Voices > 0 && other.Track == n.Track && (other.Key > n.Key || other.Key == n.Key && j < i) {
				higher++
			}
		}
		if n.Voices > 0 && higher >= int(n.Voices) { // it has none, and neither may others
			return withinVoices(append(slices.Clone(together[:i]), together[i+1:]...))
		}
	}
	return together
}

// Release appends note-offs at the given moment for all keys that are down.
func (k *Keys) Release(at score.Tick, dst []Message) []Message {
	for i := range k.down {
		for j := range k.down[i].holds {
			k.down[i].holds[j].until = at
		}
	}
	return k.lift(at+1, dst)
}

// lift lets go of the keys that nothing holds any more before the moment.
func (k *Keys) lift(before score.Tick, dst []Message) []Message {
	first := len(dst)
	kept := k.down[:0]
	for _, d := range k.down {
		var last score.Tick
		holds := d.holds[:0]
		for _, h := range d.holds {
			if h.until < before {
				last = max(last, h.until)
			} else {
				holds = append(holds, h)
			}
		}
		if d.holds = holds; len(holds) > 0 {
			kept = append(kept, d)
		} else {
			dst = append(dst, d.off(last))
		}
	}
	k.down = kept
	slices.SortFunc(dst[first:], CompareMessages)
	return dst
}

// steal ends the oldest notes of tracks that have no voice left for those that start now. Notes that start
// together do not end each other.
func (k *Keys) steal(together []Note) {
	for i, n := range together {
		if n.Alone {
			k.clear(n)
		}
		if n.Voices == 0 {
			continue
		}
		// Each note takes a voice of those that were left by the ones before it.
		voices := int(n.Voices)
		for _, other := range together[:i+1] {
			if other.Track == n.Track {
				voices--
			}
		}
		for k.sounding(n.Track, n.Start) > max(0, voices) {
			h := k.oldest(n.Track, n.Start)
			h.until, h.stolen = min(h.until, n.Start+score.Tick(n.Overlap)), true
		}
	}
}

// clear ends all notes of a note's track on its channel.
func (k *Keys) clear(n Note) {
	for i := range k.down {
		for j := range k.down[i].holds {
			if h := &k.down[i].holds[j]; k.down[i].channel == n.Channel && h.track == n.Track {
				h.until, h.stolen = min(h.until, n.Start), true
			}
		}
	}
}

// sounding returns how many notes of a track last beyond a moment and were not told to end.
func (k *Keys) sounding(track uint32, at score.Tick) (count int) {
	for i := range k.down {
		for j := range k.down[i].holds {
			if h := &k.down[i].holds[j]; h.lasts(track, at) {
				count++
			}
		}
	}
	return count
}

// oldest returns the one of those notes that sounds for the longest.
func (k *Keys) oldest(track uint32, at score.Tick) (oldest *hold) {
	for i := range k.down {
		for j := range k.down[i].holds {
			h := &k.down[i].holds[j]
			if h.lasts(track, at) && (oldest == nil || h.number < oldest.number) {
				oldest = h
			}
		}
	}
	return oldest
}

func (h *hold) lasts(track uint32, at score.Tick) bool {
	return h.track == track && !h.stolen && h.until > at
}

// strike presses the keys of notes that start together. Of two that are struck at the same moment
// the first one's velocity counts.
func (k *Keys) strike(together []Note, dst []Message) []Message {
	for _, n := range together {
		if d := k.find(n); d != nil && !d.lifted && d.struck < n.Start {
			dst = append(dst, d.off(n.Start))
			d.lifted = true
		}
	}
	for _, n := range together {
		d := k.find(n)
		k.struck++
		switch {
		case d == nil:
			k.down = append(k.down, downKey{channel: n.Channel, key: n.Key})
			d = &k.down[len(k.down)-1]
		case !d.lifted:
			d.holds = append(d.holds, hold{track: n.Track, until: n.End, number: k.struck})
			continue
		}
		d.struck, d.owner, d.lifted = n.Start, n.Track, false
		d.holds = append(d.holds, hold{track: n.Track, until: n.End, number: k.struck})
		dst = append(dst, Message{
			Tick: n.Start, Track: n.Track, Kind: NoteOn, Channel: n.Channel, Key: n.Key, Velocity: n.Velocity, Detune: n.Detune,
		})
	}
	return dst
}

func (k *Keys) find(n Note) *downKey {
	for i := range k.down {
		if k.down[i].channel == n.Channel && k.down[i].key == n.Key {
			return &k.down[i]
		}
	}
	return nil
}

func (d *downKey) off(at score.Tick) Message {
	return Message{Tick: at, Track: d.owner, Channel: d.channel, Key: d.key}
}
