package play

import (
	"math"
	"slices"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// never is when a track goes on that follows another's notes, until there is one.
const never = score.Tick(math.MaxInt64)

// follows reports whether the track goes on by another track's notes instead of by the clock.
func (w *walker) follows() bool { return w.track.Source.Kind != score.OwnClock }

// hear has the track go on by a note of the track that it follows, if the odds are with it.
func (w *walker) hear(n Note) {
	address := w.chance
	address.Lane, address.Purpose, address.N = score.Gate.Spec().Number(), chance.Follow, uint64(w.triggered)
	w.triggered++
	if !chance.Happens(address, w.track.Source.Odds) {
		return
	}
	at := n.Start
	if w.track.Source.Kind == score.NoteEnds {
		at = n.End
	}
	at += w.track.Source.Delay
	place, _ := slices.BinarySearch(w.triggers, at)
	for place < len(w.triggers) && w.triggers[place] == at {
		place++
	}
	w.triggers = slices.Insert(w.triggers, place, at)
	w.findTrigger()
}

// findTrigger finds the trigger by which the track goes on next.
func (w *walker) findTrigger() {
	w.next = never
	if len(w.triggers) > 0 {
		w.next = w.triggers[0]
	}
}

// chainLength returns how many tracks follow each other from the given one on, itself included.
func chainLength(p *score.Project, t *score.Track) int {
	length := 1
	for t.Source.Kind != score.OwnClock {
		t = p.Track(t.Source.Track)
		length++
	}
	return length
}
