package play

import (
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// waiting is what has been computed and not yet been handed over.
type waiting struct {
	notes    []Note
	orders   []uint16 // of each note, the order of its part
	changes  []pendingChange
	ready    []Change       // that go with notes that were handed over
	lastSent []Change       // by part and slot the last one whose time has come, also of silent parts; one of no track is none
	silent   []bool         // by the orders of parts: whether they decide and are not heard
	patterns []int          // by the places of tracks, which of their patterns silent is about; whole is a loop
	audible  *score.Project // by which it is decided what is silent
	keys     []uint64       // scratch
}

// whole says of a track that plays a loop that it is silent as a whole.
const whole = -1

// isSilent reports whether what a part of a pattern plays is not heard. The pattern can be one that plays no more, whose
// last notes are still to come.
func (q *waiting) isSilent(order int, pattern, part uint8) bool {
	place := order / score.MaxParts
	if playing := q.patterns[place]; playing == whole || playing == int(pattern) {
		return q.silent[order]
	}
	track, muted := &q.audible.Tracks[place], &score.Part{}
	if left := track.Pattern(int(pattern)); left != nil && left.Part(int(part)) != nil {
		muted = left.Part(int(part))
	}
	return q.audible.Silent(track, muted)
}

// What waits is sorted by whole numbers, which is faster than sorting it itself: the distance from the
// beginning of the chunk, then the order, then the place, so that the sort is stable.
const (
	placeBits = 24
	orderBits = 20
)

func sortKey(distance score.Tick, order, place int) uint64 {
	return uint64(distance)<<(placeBits+orderBits) | uint64(order)<<placeBits | uint64(place)
}

func placeIn(key uint64) int { return int(key & (1<<placeBits - 1)) }

// handOver appends to dst the waiting notes that start in [from, to), ordered by start, then by the order
// of their parts, and makes the changes in it ready. Nothing that waits comes before from, and to - from is
// at most a chunk.
func (q *waiting) handOver(from, to score.Tick, dst []Note) []Note {
	q.keys = q.keys[:0]
	for place := range q.notes {
		n, order := &q.notes[place], int(q.orders[place])
		if n.Start < to && !q.isSilent(order, n.Pattern, n.Part) {
			q.keys = append(q.keys, sortKey(n.Start-from, order, place))
		}
	}
	slices.Sort(q.keys)
	for _, key := range q.keys {
		place := placeIn(key)
		dst = append(dst, q.notes[place])
	}
	kept := 0
	for place := range q.notes {
		if q.notes[place].Start >= to {
			q.notes[kept], q.orders[kept] = q.notes[place], q.orders[place]
			kept++
		}
	}
	q.notes, q.orders = q.notes[:kept], q.orders[:kept]
	q.readyChanges(from, to)
	return dst
}

// readyChanges orders the changes in [from, to) by tick, kind and part.
func (q *waiting) readyChanges(from, to score.Tick) {
	q.keys = q.keys[:0]
	for place := range q.changes {
		if c := &q.changes[place]; c.Tick < to {
			q.keys = append(q.keys, sortKey(c.Tick-from, c.Kind.Rank()<<(partBits+slotBits)|c.order, place))
		}
	}
	slices.Sort(q.keys)
	for _, key := range q.keys {
		c := &q.changes[placeIn(key)]
		if q.remember(c); !q.isSilent(c.order>>slotBits, c.Pattern, c.Part) {
			q.ready = append(q.ready, c.Change)
		}
	}
	kept := 0
	for place := range q.changes {
		if q.changes[place].Tick >= to {
			q.changes[kept] = q.changes[place]
			kept++
		}
	}
	q.changes = q.changes[:kept]
}

// Changes appends to dst what mod lanes and slides send that goes with the notes of all stretches so
// far and were not handed over yet, ordered by tick and kind.
func (q *waiting) Changes(dst []Change) []Change {
	dst = append(dst, q.ready...)
	q.ready = q.ready[:0]
	return dst
}

// remember keeps a change whose time has come, unless a later one is known. Of slides only whether they are on counts.
func (q *waiting) remember(c *pendingChange) {
	if c.Kind == midi.ControlChange && c.Number == midi.PortamentoTime && c.order&(1<<slotBits-1) == 0 {
		return
	}
	if before := &q.lastSent[c.order]; before.Track == 0 || before.Tick <= c.Tick {
		*before = c.Change
	}
}

// passOver remembers the changes before a tick, and hands none of them over.
func (q *waiting) passOver(tick score.Tick) {
	q.changes = slices.DeleteFunc(q.changes, func(c pendingChange) bool {
		if c.Tick < tick {
			q.remember(&c)
		}
		return c.Tick < tick
	})
}
