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
		longest := g.longest(track)
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

// longest returns the part of a track with the longest passes that has a clock of its own; nil if there is none.
func (g *group) longest(track int) (longest *walker) {
	for _, w := range g.walkers {
		if w.track.ID == track && w.ownClock && (longest == nil || w.passTicks() > longest.passTicks()) {
			longest = w
		}
	}
	return longest
}

// Passes asks for the end of so many passes of a track's pattern, beyond those that had begun before they are counted. A Base of
// -1 counts from the pass on that plays.
type Passes struct {
	Track, Pattern int
	Base, Count    int64
}

// ChainEnd returns when the passes of a pattern are over, in a kit of the longest gate, and after how many passes they are counted; found is false if that is not within
// 64 whole notes, or not known, as of a track without a clock of its own. The state is a performer's, the project and the
// acts are those with which it would resume.
func ChainEnd(p *score.Project, s *State, acts []Act, q Passes) (at score.Tick, base int64, found bool) {
	f := Resume(p, s, acts, nil)
	for _, g := range f.groups {
		if g.isOf(&Act{Tracks: []int{q.Track}}) {
			return f.chainEnd(g, q)
		}
	}
	return 0, q.Base, false
}

func (f *Performer) chainEnd(g *group, q Passes) (at score.Tick, base int64, found bool) {
	base = q.Base
	for end := f.played + maxPassEnd; ; {
		f.prepare(g, f.played)
		w := g.longest(q.Track)
		if w == nil {
			return 0, base, false
		}
		if w.track.Playing == q.Pattern {
			if base < 0 {
				base = w.pass()
			}
			if w.passAfter() >= base+q.Count && w.beginsPass() {
				return w.next, base, true
			}
		}
		switch {
		case w.next >= end:
			return 0, base, false
		case g.next != nil && g.from <= w.next:
			f.walkTo(g, g.from)
			f.switchOver(g)
		default:
			f.walkTo(g, w.next+1)
		}
		f.notes, f.orders, f.changes = f.notes[:0], f.orders[:0], f.changes[:0]
	}
}

// passAfter returns how many whole passes of the gate's order went before the one of the next step.
func (w *walker) passAfter() int64 {
	if w.realigns {
		return w.pass() + 1
	}
	next := w.gate
	w.goOn(&next)
	return w.passes + next.Moved/orders.Pass(w.gate.Lane())
}

// passTicks is about how long a pass of the gate's order takes.
func (w *walker) passTicks() score.Tick { return score.Tick(orders.Pass(w.gate.Lane())) * w.gate.Rate }

// beginsPass reports whether the next step begins a pass of the gate's order.
func (w *walker) beginsPass() bool {
	next, pass := w.gate, orders.Pass(w.gate.Lane())
	w.goOn(&next)
	return w.gate.Fresh || w.realigns || next.Moved/pass != w.gate.Moved/pass
}
