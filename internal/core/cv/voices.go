package cv

import (
	"cmp"
	"slices"
)

// span is how long a voice plays a note.
type span struct {
	from, to int64
	pitch    float64
	velocity int
	// tied says that the gate stays up from the span before, which ends where this one begins.
	tied bool
	// slides says that the pitch slides to it.
	slides bool
}

// event is a note that begins or ends.
type event struct {
	at    int64
	index int // of the note
	on    bool
}

// voicesOf gives notes, in the order in which they begin, to voices, and returns the spans of each.
func voicesOf(notes []note, count int, lowestFree bool) [][]span {
	voices := make([][]span, count)
	if count == 0 {
		return voices
	}
	if count == 1 {
		voices[0] = lastOf(notes)
		return voices
	}
	busy, turn := make([]int64, count), 0 // until when
	for _, n := range notes {
		voice := -1
		for i := range count {
			at := i
			if !lowestFree {
				at = (turn + i) % count
			}
			if busy[at] <= n.from {
				voice = at
				break
			}
		}
		if voice < 0 { // none is free
			voice = turn
			if lowestFree {
				voice = oldest(voices)
			}
		}
		turn = (voice + 1) % count
		if last := len(voices[voice]) - 1; last >= 0 && voices[voice][last].to > n.from {
			voices[voice][last].to = n.from
		}
		busy[voice] = n.to
		voices[voice] = append(voices[voice], span{from: n.from, to: n.to, pitch: n.pitch, velocity: n.velocity, slides: n.slides})
	}
	for i := range voices {
		voices[i] = lasting(voices[i])
	}
	return voices
}

// oldest returns the voice whose note was struck first.
func oldest(voices [][]span) (voice int) {
	for i := range voices {
		if voices[i][len(voices[i])-1].from < voices[voice][len(voices[voice])-1].from {
			voice = i
		}
	}
	return voice
}

// lastOf returns the spans of a voice that plays the note that was struck last, and returns to the last one that is still held.
func lastOf(notes []note) (spans []span) {
	var held []int
	begin := func(at int64, index int, tied bool) {
		if last := len(spans) - 1; last >= 0 && spans[last].to > at {
			spans[last].to = at
		}
		n := notes[index]
		spans = append(spans, span{at, n.to, n.pitch, n.velocity, tied, n.slides && !(tied && at > n.from)})
	}
	for _, e := range eventsOf(notes) {
		if e.on {
			meets := len(held) > 0 || len(spans) > 0 && spans[len(spans)-1].to == e.at
			legato := notes[e.index].slides && meets
			held = append(held, e.index)
			begin(e.at, e.index, legato)
			continue
		}
		last := len(held) - 1
		for i, index := range held {
			if index != e.index {
				continue
			}
			held = append(held[:i:i], held[i+1:]...)
			if i == last && last > 0 {
				begin(e.at, held[last-1], true)
			}
			break
		}
	}
	return lasting(spans)
}

// lasting leaves out spans that were over before they began.
func lasting(spans []span) (left []span) {
	for _, s := range spans {
		if s.to > s.from {
			left = append(left, s)
		}
	}
	return left
}

// eventsOf returns what begins and ends of notes, in order; at one moment ends come first.
func eventsOf(notes []note) (events []event) {
	for i, n := range notes {
		events = append(events, event{n.from, i, true}, event{n.to, i, false})
	}
	rank := func(e event) int {
		if e.on {
			return 1
		}
		return 0
	}
	slices.SortStableFunc(events, func(a, b event) int { return cmp.Or(cmp.Compare(a.at, b.at), cmp.Compare(rank(a), rank(b))) })
	return events
}
