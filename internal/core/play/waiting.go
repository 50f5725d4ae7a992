package play

import (
	"slices"

	"jettyfog/internal/core/score"
)

// waiting is what has been computed and not yet been handed over.
type waiting struct {
	notes    []Note
	orders   []uint16 // of each note, the order of its part
	controls []pendingControl
	ready    []Message // controls that go with notes that were handed over
	keys     []uint64  // scratch
	tuners   []*tuner  // of each track that tunes its notes itself
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
// of their parts, and makes the controls in it ready. Nothing that waits comes before from, and to - from is
// at most a chunk.
func (q *waiting) handOver(from, to score.Tick, dst []Note) []Note {
	q.keys = q.keys[:0]
	for place := range q.notes {
		if start := q.notes[place].Start; start < to {
			q.keys = append(q.keys, sortKey(start-from, int(q.orders[place]), place))
		}
	}
	slices.Sort(q.keys)
	for _, key := range q.keys {
		place := placeIn(key)
		dst = append(dst, q.notes[place])
		if u := q.tuners[q.orders[place]/score.MaxParts]; u != nil {
			var played bool
			if q.controls, played = u.tune(&dst[len(dst)-1], q.controls); !played {
				dst = dst[:len(dst)-1]
			}
		}
	}
	kept := 0
	for place := range q.notes {
		if q.notes[place].Start >= to {
			q.notes[kept], q.orders[kept] = q.notes[place], q.orders[place]
			kept++
		}
	}
	q.notes, q.orders = q.notes[:kept], q.orders[:kept]
	q.readyControls(from, to)
	return dst
}

// readyControls orders the controls in [from, to) by tick, kind and part.
func (q *waiting) readyControls(from, to score.Tick) {
	q.keys = q.keys[:0]
	for place := range q.controls {
		if c := &q.controls[place]; c.Tick < to {
			q.keys = append(q.keys, sortKey(c.Tick-from, c.Kind.rank()<<maxSlotBits|c.order, place))
		}
	}
	slices.Sort(q.keys)
	for _, key := range q.keys {
		q.ready = append(q.ready, q.controls[placeIn(key)].Message)
	}
	kept := 0
	for place := range q.controls {
		if q.controls[place].Tick >= to {
			q.controls[kept] = q.controls[place]
			kept++
		}
	}
	q.controls = q.controls[:kept]
}

// Controls appends to dst the messages of mod lanes and slides that go with the notes of all stretches so
// far and were not handed over yet, ordered by tick and kind.
func (q *waiting) Controls(dst []Message) []Message {
	dst = append(dst, q.ready...)
	q.ready = q.ready[:0]
	return dst
}
