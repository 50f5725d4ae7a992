package route

import (
	"math"
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// Keys turns notes into messages, each note with a note-on and a note-off of its own, whatever else sounds on its key.
// A track that has a number of voices ends its oldest notes. What different notes make of one key of an instrument is
// decided where they go out: see SharedKeys.
//
// The zero value has no notes down. Keys may not be used by two goroutines at once.
type Keys struct {
	down []downNote // in the order in which they were struck
	cuts []play.Cut // that are still to come
}

// downNote is a note that sounds.
type downNote struct {
	midi.NoteID
	on      midi.Message
	until   score.Tick
	pattern uint8
	stolen  bool // whether it was told to end
}

// Play appends to dst the messages before the moment to: those of the given notes, which must be
// ordered by start, none before the moment of an earlier call, no more together than their tracks have voices, and the note-offs that are due of
// notes given before. At one tick note-offs come first. Notes must start before to.
func (k *Keys) Play(notes []midi.Note, to score.Tick, dst []midi.Message) []midi.Message {
	for len(notes) > 0 {
		start := notes[0].Start
		together := 1
		for together < len(notes) && notes[together].Start == start {
			together++
		}
		dst = k.lift(start, dst)
		struck := inUnison(notes[:together])
		k.steal(struck)
		dst = k.lift(start+1, dst)
		dst = k.strike(struck, dst)
		notes = notes[together:]
	}
	return k.lift(to, dst)
}

// inUnison returns notes that start together with those as one that a track, or a traveller with routes of its own, has on one key: the first one's velocity
// counts, and it lasts as long as the longest.
func inUnison(together []midi.Note) []midi.Note {
	unison := func(notes []midi.Note, n midi.Note) int {
		return slices.IndexFunc(notes, func(other midi.Note) bool {
			return other.Track == n.Track && other.Channel == n.Channel && other.Key == n.Key && other.Traveller == n.Traveller
		})
	}
	apart := together[:0:0]
	for i, n := range together {
		switch same := unison(apart, n); {
		case same >= 0:
			apart[same].End = max(apart[same].End, n.End)
		case len(apart) > 0:
			apart = append(apart, n)
		case unison(together[i+1:], n) >= 0: // as a rule none is
			apart = append(slices.Clone(together[:i]), n)
		}
	}
	if len(apart) == 0 {
		return together
	}
	return apart
}

// Cut has notes end as cuts say, whose moments are still to come.
func (k *Keys) Cut(cuts []play.Cut) { k.cuts = append(k.cuts, cuts...) }

// endCut ends the notes that are cut before a moment.
func (k *Keys) endCut(before score.Tick) {
	if len(k.cuts) == 0 {
		return
	}
	k.cuts = slices.DeleteFunc(slices.Clone(k.cuts), func(cut play.Cut) bool {
		if cut.Tick >= before {
			return false
		}
		for i := range k.down {
			if d := &k.down[i]; d.Track == cut.Track && d.pattern == cut.Pattern { // what begins at its moment is not down yet
				d.until = min(d.until, cut.Tick)
			}
		}
		return true
	})
}

// Release appends note-offs at the given moment for all notes that are down.
func (k *Keys) Release(at score.Tick, dst []midi.Message) []midi.Message {
	for i := range k.down {
		k.down[i].until = at
	}
	return k.lift(at+1, dst)
}

// Lasting returns the note-ons of the notes that are down, and are to be until a moment at least.
func (k *Keys) Lasting(until score.Tick) (ons []midi.Message) {
	for _, d := range k.down {
		if d.until >= until {
			ons = append(ons, d.on)
		}
	}
	return ons
}

// Until returns when the last note of a track ends that is down; before any it is the least tick.
func (k *Keys) Until(track uint32) score.Tick {
	until := score.Tick(math.MinInt64)
	for _, d := range k.down {
		if d.Track == track {
			until = max(until, d.until)
		}
	}
	return until
}

// lift lets go of the notes that end before the moment.
func (k *Keys) lift(before score.Tick, dst []midi.Message) []midi.Message {
	k.endCut(before)
	first := len(dst)
	kept := k.down[:0]
	for _, d := range k.down {
		if d.until < before {
			dst = append(dst, d.Off(d.until))
		} else {
			kept = append(kept, d)
		}
	}
	k.down = kept
	slices.SortStableFunc(dst[first:], midi.Compare)
	return dst
}

// steal ends the oldest notes of tracks that have no voice left for those that start now. Notes that start
// together do not end each other.
func (k *Keys) steal(together []midi.Note) {
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
		sounding := 0
		for j := range k.down {
			if k.down[j].lasts(n) {
				sounding++
			}
		}
		for j := range k.down { // the oldest come first
			if d := &k.down[j]; sounding > max(0, voices) && d.lasts(n) {
				d.until, d.stolen = min(d.until, n.Start+score.Tick(n.Overlap)), true
				sounding--
			}
		}
	}
}

// clear ends all notes of a note's track on its channel.
func (k *Keys) clear(n midi.Note) {
	for i := range k.down {
		if d := &k.down[i]; d.Channel == n.Channel && d.Track == n.Track {
			d.until, d.stolen = min(d.until, n.Start), true
		}
	}
}

// lasts reports whether it is of another note's track, lasts beyond that one's start and was not told to end.
func (d *downNote) lasts(n midi.Note) bool {
	return d.Track == n.Track && !d.stolen && d.until > n.Start
}

// strike begins notes that start together.
func (k *Keys) strike(together []midi.Note, dst []midi.Message) []midi.Message {
	for _, n := range together {
		d := downNote{NoteID: midi.NoteID{Track: n.Track, Channel: n.Channel, Key: n.Key}, until: n.End, pattern: n.Pattern}
		for slices.ContainsFunc(k.down, func(other downNote) bool { return other.NoteID == d.NoteID }) {
			d.Number++
		}
		d.on = d.On(n.Start, n.Velocity, n.Detune)
		d.on.Traveller = n.Traveller
		k.down = append(k.down, d)
		dst = append(dst, d.on)
	}
	return dst
}
