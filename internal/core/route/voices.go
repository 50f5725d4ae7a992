package route

import "jettyfog/internal/core/score"

// voices say which of the channels of routes that have several are free.
type voices map[voicesOf]*channels

type voicesOf struct {
	track uint32
	place score.Route
}

// channels are those of a route: how many notes each has, and when it was struck or free last, counted in notes.
type channels struct {
	count int
	notes [16]int
	since [16]int
}

// take returns on which of so many channels, from 0, a note goes: the one that has been free the longest, or else the one that was struck
// first.
func (v voices) take(track uint32, r score.Route, count int) uint8 {
	of := voicesOf{track, placeOf(r)}
	c := v[of]
	if c == nil {
		c = &channels{}
		v[of] = c
	}
	best := 0
	for i := range count {
		free, bestFree := c.notes[i] == 0, c.notes[best] == 0
		if free && !bestFree || free == bestFree && c.since[i] < c.since[best] {
			best = i
		}
	}
	c.count++
	c.notes[best]++
	c.since[best] = c.count
	return uint8(best)
}

// free gives the channel of a note back.
func (v voices) free(p placed) {
	c := v[voicesOf{p.note.Track, placeOf(p.route)}]
	if c == nil {
		return
	}
	if i := int(p.note.Channel) - int(p.base); c.notes[i] > 0 {
		c.count++
		c.notes[i]--
		c.since[i] = c.count
	}
}
