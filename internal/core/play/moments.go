package play

import (
	"jettyfog/internal/core/orders"
	"jettyfog/internal/core/score"
)

// Ahead returns how far ahead of what is handed over the steps of tracks of a project must be done; without any, of all.
func Ahead(p *score.Project, tracks []int) (ahead score.Tick) {
	for _, g := range newPerformer(p, tracks).groups {
		ahead = max(ahead, g.ahead)
	}
	return ahead
}

// Ahead returns how far ahead of what is handed over the steps of tracks have been done; without any, of all tracks.
func (f *Performer) Ahead(tracks []int) (ahead score.Tick) {
	for _, g := range f.groups {
		if g.isOf(&Act{Tracks: tracks}) {
			ahead = max(ahead, g.walked-f.played)
		}
	}
	return ahead
}

// NextStep returns when the first step of a track comes that has not been done yet; found is false if that is not known.
func (f *Performer) NextStep(track int) (at score.Tick, found bool) {
	at = never
	f.each(func(w *walker) {
		if w.track.ID == track {
			at = min(at, w.next)
		}
	})
	return at, at != never
}

// maxPassEnd bounds how far ahead the end of a pass is looked for.
const maxPassEnd = 64 * 4 * score.TicksPerQuarter

// PassEnd returns when the next whole pass of a track's gate begins of which no step has been done yet, in a kit of the
// longest; found is false if that is not within 64 whole notes, or not known. The state is a performer's, the project and
// the acts are those with which it would resume.
func PassEnd(p *score.Project, s *State, acts []Act, track int) (at score.Tick, found bool) {
	f := Resume(p, s, acts, nil)
	for _, g := range f.groups {
		if !g.isOf(&Act{Tracks: []int{track}}) {
			continue
		}
		var longest *walker
		for _, w := range g.walkers {
			if w.track.ID == track && w.ownClock && (longest == nil || w.passTicks() > longest.passTicks()) {
				longest = w
			}
		}
		if longest == nil {
			return 0, false
		}
		for end := longest.next + maxPassEnd; longest.next < end; f.walkTo(g, longest.next+1) {
			if longest.beginsPass() {
				return longest.next, true
			}
			f.notes, f.orders, f.changes = f.notes[:0], f.orders[:0], f.changes[:0]
		}
	}
	return 0, false
}

// passTicks is about how long a pass of the gate's order takes.
func (w *walker) passTicks() score.Tick { return score.Tick(orders.Pass(w.gate.Lane())) * w.gate.Rate }

// beginsPass reports whether the next step begins a pass of the gate's order.
func (w *walker) beginsPass() bool {
	next, pass := w.gate, orders.Pass(w.gate.Lane())
	w.goOn(&next)
	return w.gate.Fresh || next.Moved/pass != w.gate.Moved/pass
}
