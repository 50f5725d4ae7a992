package play

import (
	"reflect"
	"slices"

	"jettyfog/internal/core/score"
)

// Act is something that a performer does while it plays. Unlike an edit, which counts as if it had always been, it counts
// from a tick on: lanes stand where they stood, their draws are numbered on, and the move that is due stays due.
type Act struct {
	// Number is different for each act, and ascending, from 1.
	Number int64
	// Issued is the tick before which all was handed over when it was done, Tick the one from which it is to count. It counts
	// for a track from the first step at that tick or later none of whose notes can begin before Issued. A pattern enters at
	// Tick itself if it can, and with the next step of the track if Tick is Issued. An act that silences counts for all that
	// begins at Tick or later and was not handed over by then.
	Issued, Tick score.Tick
	// Tracks are the ids of those that it is about; nil is all of them.
	Tracks []int
	// Silences says that it decides which parts are heard, and nothing else.
	Silences bool
	// Change returns the state of the project after it.
	Change func(*score.Project) *score.Project
	// Moves is what it does to the lanes of its tracks.
	Moves Moves
}

// Moves is what an act does to lanes besides changing the project.
type Moves int

// Realigning has all lanes go on at their first steps, as a realignment has them, from the tick from which a pattern would
// enter. Evolving lets the lanes that evolve do so once more.
const (
	Realigning Moves = 1 + iota
	Evolving
)

// Act has something count that was done. All acts of a performer are given to it in the order of their numbers, before it is at
// their ticks Issued.
func (f *Performer) Act(a Act) { f.acts = append(f.acts, a) }

// taken is what an act made of a state of the project.
type taken struct {
	number int64
	before *common
}

// after returns a state of the project after an act; groups that are in one state before share the one after it too.
func (f *Performer) after(c *common, a *Act) *common {
	key := taken{a.Number, c}
	next := f.taken[key]
	if next == nil {
		changed := inOrder(a.Change(c.project), f.order)
		pitches := c.pitches
		if !reflect.DeepEqual(changed.Key, c.project.Key) {
			pitches = newPitches(changed.Key)
		}
		next = newCommon(changed, pitches, c.hearing)
		f.taken[key] = next
	}
	return next
}

// before returns a tick up to which nothing new counts for what is handed over: the given one, or an earlier one.
func (f *Performer) before(from, to score.Tick) score.Tick {
	for i := range f.acts {
		a := &f.acts[i]
		if a.Issued > from {
			to = min(to, a.Issued)
		}
		if a.Silences && a.Number > f.silenced {
			to = min(to, max(a.Issued, a.Tick, from+1))
		}
	}
	return to
}

// silence lets all acts count that silence by a tick.
func (f *Performer) silence(from score.Tick) {
	changed := false
	for i := range f.acts {
		a := &f.acts[i]
		if a.Number <= f.silenced {
			continue
		}
		if a.Issued > from || a.Silences && a.Tick > from {
			break
		}
		if f.silenced = a.Number; a.Silences {
			f.heard, changed = f.after(f.heard, a), true
		}
	}
	if changed {
		f.decideSilence()
	}
}

// dropActs forgets the acts that count everywhere.
func (f *Performer) dropActs() {
	if len(f.acts) == 0 {
		return
	}
	done := f.Done()
	f.acts = slices.DeleteFunc(f.acts, func(a Act) bool { return a.Number <= done })
	if len(f.acts) == 0 {
		clear(f.taken)
	}
}

// lead is how far ahead of what is handed over the steps of a group are done.
func (g *group) lead() score.Tick {
	if g.next != nil {
		return max(g.ahead, g.next.ahead)
	}
	return g.ahead
}

// walk does the steps of a group so far ahead that nothing is missing before a tick, by the acts that were issued by
// another.
func (f *Performer) walk(g *group, now, until score.Tick) {
	for {
		f.prepare(g, now)
		to := f.limited(until + g.lead())
		if g.next == nil || g.from > to {
			f.walkTo(g, to)
			return
		}
		f.walkTo(g, g.from)
		f.switchOver(g)
	}
}

// limited returns a tick, or the one at which a performer has to stand.
func (f *Performer) limited(tick score.Tick) score.Tick {
	if f.limit > 0 {
		return min(tick, f.limit)
	}
	return tick
}

// prepare makes the next act ready that is about a group.
func (f *Performer) prepare(g *group, now score.Tick) {
	for i := 0; i < len(f.acts) && g.next == nil; i++ {
		a := &f.acts[i]
		switch {
		case a.Number <= g.acted:
			continue
		case a.Issued > now:
			return
		case a.Silences || !g.isOf(a):
			g.acted = a.Number
			continue
		}
		g.next = f.newGroup(f.after(g.common, a), g.tracks)
		g.next.acted, g.next.moves, g.next.moved = a.Number, a.Moves, a.Tracks
		g.from = max(a.Tick, a.Issued+g.lead(), g.walked)
		g.onStep = g.from > a.Tick || a.Tick == a.Issued
	}
}

func (g *group) isOf(a *Act) bool {
	return a.Tracks == nil || slices.ContainsFunc(a.Tracks, func(id int) bool { return slices.Contains(g.tracks, id) })
}
