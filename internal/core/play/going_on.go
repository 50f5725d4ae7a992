package play

import (
	"maps"
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// Going is how everything that chance can move stood where a song was left, for chance to go on from there wherever the song
// is taken up. It is what is held, too: the numbers of draws, the steps of lanes that go at random or move by hits, what has
// evolved, and what sounded last. It is never changed.
type Going struct {
	parts map[partKey]going
	left  map[partKey]partState
}

// going is how a part stood, and the part as it was.
type going struct {
	kept *keptLuck
	of   *walker
}

// GoingAt returns how everything that chance can move stands at a tick, of which and after which no step is done yet. The
// state is one from before then, the project and the acts are those with which it resumes, the inputs what came in since.
func GoingAt(p *score.Project, s *State, acts []Act, inputs []midi.Message, at score.Tick) *Going {
	f := Resume(p, s, acts, func(int, int, score.LaneName, Move) {}) // watched, so that lanes move that go nowhere
	for _, m := range inputs {
		f.Hear(m)
	}
	f.limit = at
	f.pass(at, nil)
	g := &Going{parts: map[partKey]going{}, left: maps.Clone(f.left)}
	f.each(func(w *walker) {
		w.seekOver(at, at-1) // a song is left before what is held begins anew
		g.parts[w.key()] = going{w.keep(at), w}
		delete(g.left, w.key())
	})
	return g
}

// GoOn has everything that chance can move be as it was elsewhere. The performer stands exactly at a tick, as one does that
// began there by Past.Exactly. Notes and changes of later steps that would come before then are left out.
func (f *Performer) GoOn(g *Going) {
	at := f.played
	f.left = maps.Clone(g.left)
	f.each(func(w *walker) {
		w.seekOver(at, at-1)
		if w.realigns && w.next == at {
			w.align(at)
			w.local = 0
		}
		if was, there := g.parts[w.key()]; there {
			w.gate.Fresh = w.gate.Fresh && (w.alignedAt(at) || !w.gateByChance())
			w.bringBack(w.refit(was.kept, was.of), at)
			w.triggered = was.of.triggered
			w.evolvedBars += was.kept.bar - w.bars.At(at)
			w.moveAtBeginning(at)
			if w.unsteady && w.ownClock && !w.alignedAt(at) {
				w.findNext()
			}
			if w.machine != nil {
				w.findMoment()
			}
		}
	})
	for _, group := range f.groups {
		group.coupled.arrange()
		f.walk(group, at, at)
	}
	f.watchTo(at)
	f.leaveOut(at)
}

// gateByChance reports whether chance decides where the gate stands.
func (w *walker) gateByChance() bool { return w.unsteady || !w.ownClock || w.gate.AtRandom() }

// moveAtBeginning makes up for the beginning of a song, where lanes that move by the clock stand on their first step without
// having moved: when chance goes on there, it has decided of a move.
func (w *walker) moveAtBeginning(tick score.Tick) {
	if tick > 0 || w.alignedAt(0) {
		return
	}
	for _, v := range w.byClock {
		if v.AtRandom() {
			v.due = 0
		} else {
			v.DrawIndex++
		}
	}
}

// leaveOut drops what waits to come before a tick.
func (q *waiting) leaveOut(tick score.Tick) {
	kept := 0
	for i, n := range q.notes {
		if n.Start >= tick {
			q.notes[kept], q.orders[kept] = n, q.orders[i]
			kept++
		}
	}
	q.notes, q.orders = q.notes[:kept], q.orders[:kept]
	q.passOver(tick)
	q.ready = slices.DeleteFunc(q.ready, func(c Change) bool { return c.Tick < tick })
}
