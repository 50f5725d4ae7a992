package play

import (
	"slices"
	"sort"

	"jettyfog/internal/core/score"
)

// looper plays the loop of a track in place of its patterns. Where it is follows from the time alone.
type looper struct {
	track *score.Track
	order int
}

func newLoopers(p *score.Project, only []int) (loopers []looper) {
	for place := range p.Tracks {
		track := &p.Tracks[place]
		// A loop has no parts that could be muted.
		if track.Loop != nil && !p.Silent(track, &score.Part{}) && (len(only) == 0 || slices.Contains(only, track.ID)) {
			loopers = append(loopers, looper{track, place * score.MaxParts})
		}
	}
	return loopers
}

// play appends the notes that start in [from, to).
func (l looper) play(from, to score.Tick, dst []Note) []Note {
	loop := l.track.Loop
	// The last beginning of the loop that is not after from; that before tick 0 can be negative.
	begin := from - ((from-loop.Start)%loop.Length+loop.Length)%loop.Length
	for ; begin < to; begin += loop.Length {
		first := sort.Search(len(loop.Notes), func(i int) bool { return begin+loop.Notes[i].Start >= from })
		for _, n := range loop.Notes[first:] {
			start := begin + n.Start
			if start >= to {
				break
			}
			dst = append(dst, Note{
				Start: start, End: start + n.Length, Track: uint32(l.track.ID),
				Key: uint8(n.Key), Velocity: uint8(n.Velocity), Detune: n.Detune,
			})
		}
	}
	return dst
}

// LoopNotes returns the notes of a track's loop that start in [from, to), whether it is heard or not.
func LoopNotes(t *score.Track, from, to score.Tick) []Note {
	return looper{track: t}.play(from, to, nil)
}

// loop has the loops play what starts in [from, to).
func (f *Performer) loop(from, to score.Tick) {
	for _, l := range f.loopers {
		before := len(f.notes)
		f.notes = l.play(from, to, f.notes)
		for range f.notes[before:] {
			f.orders = append(f.orders, uint16(l.order))
		}
	}
}
