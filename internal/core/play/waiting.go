package play

import (
	"cmp"
	"slices"

	"jettyfog/internal/core/score"
)

// waiting is what has been computed and not yet been handed over.
type waiting struct {
	notes    []Note
	orders   []uint16 // of each note, the order of its part
	keys     []uint64 // scratch
	controls []pendingControl
}

// handOver appends to dst the waiting notes that start in [from, to), ordered by start, then by the order
// of their parts. None that waits starts before from, and to - from is at most a chunk.
func (q *waiting) handOver(from, to score.Tick, dst []Note) []Note {
	// Whole numbers sort faster than notes: the start, then the order of the part, then the place.
	const placeBits, orderBits = 32, 10
	q.keys = q.keys[:0]
	for place := range q.notes {
		if start := q.notes[place].Start; start < to {
			key := uint64(start-from)<<(placeBits+orderBits) | uint64(q.orders[place])<<placeBits | uint64(place)
			q.keys = append(q.keys, key)
		}
	}
	slices.Sort(q.keys)
	for _, key := range q.keys {
		dst = append(dst, q.notes[uint32(key)])
	}
	kept := 0
	for place := range q.notes {
		if q.notes[place].Start >= to {
			q.notes[kept], q.orders[kept] = q.notes[place], q.orders[place]
			kept++
		}
	}
	q.notes, q.orders = q.notes[:kept], q.orders[:kept]
	return dst
}

// Controls appends to dst the messages of mod lanes and slides that go with the notes of all stretches so
// far and were not handed over yet, ordered by tick and kind.
func (f *Performer) Controls(dst []Message) []Message {
	if len(f.controls) == 0 {
		return dst
	}
	slices.SortStableFunc(f.controls, func(a, b pendingControl) int {
		return cmp.Or(cmp.Compare(a.Tick, b.Tick), cmp.Compare(a.Kind, b.Kind), cmp.Compare(a.order, b.order))
	})
	ready := 0
	for ready < len(f.controls) && f.controls[ready].Tick < f.played {
		dst = append(dst, f.controls[ready].Message)
		ready++
	}
	f.controls = slices.Delete(f.controls, 0, ready)
	return dst
}
