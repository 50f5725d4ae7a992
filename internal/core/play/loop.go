package play

import (
	"sort"

	"jettyfog/internal/core/score"
)

// looper plays the loop of a track in place of its patterns. Where it is follows from the time alone.
type looper struct {
	track      *score.Track
	trackIndex int        // of the track in the project
	next       score.Tick // when its next note starts
}

func newLooper(p *score.Project, place int) *looper {
	l := &looper{track: &p.Tracks[place], trackIndex: place}
	l.seek(0)
	return l
}

// seek finds the first note that starts at a tick or later. Before the beginning of the loop it has played too.
func (l *looper) seek(tick score.Tick) {
	loop := l.track.Loop
	if l.next = never; len(loop.Notes) == 0 {
		return
	}
	begin := passAt(loop, tick)
	first := sort.Search(len(loop.Notes), func(i int) bool { return begin+loop.Notes[i].Start >= tick })
	if first == len(loop.Notes) {
		begin, first = begin+loop.Length, 0
	}
	l.next = begin + loop.Notes[first].Start
}

func (l *looper) due() score.Tick { return l.next }

// play appends the notes that start now.
func (l *looper) play(dst []Note) []Note {
	now := l.next
	l.seek(now + 1)
	return l.between(now, now+1, dst)
}

// between appends the notes that start in [from, to).
func (l *looper) between(from, to score.Tick, dst []Note) []Note {
	loop := l.track.Loop
	for begin := passAt(loop, from); begin < to; begin += loop.Length {
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

// passAt returns the last beginning of a loop that is not after a tick; that before tick 0 can be negative.
func passAt(loop *score.Loop, tick score.Tick) score.Tick {
	return tick - ((tick-loop.Start)%loop.Length+loop.Length)%loop.Length
}

// LoopNotes returns the notes of a track's loop that start in [from, to), whether it is heard or not.
func LoopNotes(t *score.Track, from, to score.Tick) []Note {
	return (&looper{track: t}).between(from, to, nil)
}

func (l *looper) rank() int { return l.trackIndex * score.MaxParts }

// jumps is false where notes are tuned to what those before them were.
func (l *looper) jumps() bool { return !l.track.Retunes() }

func (l *looper) jump(tick score.Tick) { l.seek(tick) }

func (l *looper) key() partKey { return partKey{l.track.ID, ofLoop} }

func (l *looper) save() any { return l.next }

func (l *looper) restore(state any) { l.next = state.(score.Tick) }
