package play

import (
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// Performer plays a project from its beginning on, in stretches of any size. The notes of all stretches
// together are the same however time is cut up. The project must be valid and must not be changed.
type Performer struct {
	sources   []source       // in the order of their ranks
	walkers   []*walker      // those of them that walk
	alone     []source       // those that neither hear others nor are heard by others
	coupled   coupledWalkers // the others
	followers [][]*walker    // of each track
	inputs    []*walker      // those that go on by what comes in
	states    []trackState

	ahead  score.Tick // how much earlier than their steps notes can start, along tracks that follow each other
	reach  score.Tick // how much earlier than its own step a note can start
	walked score.Tick // all steps before this tick are done
	played score.Tick // all notes before this tick are handed over
	waiting
}

// chunk is how much is walked at once, so that notes that wait to be sorted stay few.
const chunk = 4 * score.TicksPerQuarter

// NewPerformer returns a performer at tick 0.
func NewPerformer(p *score.Project) *Performer { return newPerformer(p, nil) }

// newPerformer returns a performer at tick 0 of some tracks, or of all if none are named.
func newPerformer(p *score.Project, only []int) *Performer {
	p = ranked(p)
	f := &Performer{states: make([]trackState, len(p.Tracks)), followers: make([][]*walker, len(p.Tracks))}
	f.silent = make([]bool, len(p.Tracks)*score.MaxParts)
	f.told = make([]Change, len(f.silent)<<slotBits)
	for i := range f.states {
		f.states[i].since = -1
	}
	pitches, tempo := newPitches(p.Key), TempoMapOf(p)
	longest := 1
	for track := range p.Tracks {
		if len(only) > 0 && !slices.Contains(only, p.Tracks[track].ID) {
			continue
		}
		for part := range p.Tracks[track].Parts() {
			w := newWalker(p, track, part, track*score.MaxParts+part, pitches, tempo)
			w.changes, w.states = &f.changes, f.states
			f.silent[w.order] = !w.audible()
			f.walkers, f.sources = append(f.walkers, w), append(f.sources, w)
			f.reach = max(f.reach, w.ahead())
			longest = max(longest, chainLength(p, w.track))
		}
		if p.Tracks[track].Loop != nil {
			l := newLooper(p, track)
			f.silent[l.rank()] = !l.audible()
			f.sources, f.alone = append(f.sources, l), append(f.alone, l)
		}
	}
	// A note that comes early lets the tracks that follow it come early too.
	f.ahead = f.reach * score.Tick(longest)
	f.introduce(p)
	return f
}

// introduce finds out which parts hear which.
func (f *Performer) introduce(p *score.Project) {
	heard := make([]bool, len(p.Tracks))
	for _, w := range f.walkers {
		switch {
		case w.track.Source.FollowsTrack():
			place := placeOf(p, w.track.Source.Track)
			heard[place] = true
			f.followers[place] = append(f.followers[place], w)
		case !w.ownClock:
			f.inputs = append(f.inputs, w)
		}
		for i := range w.steps {
			for _, t := range w.steps[i].about() {
				heard[t.place] = true
			}
		}
	}
	for _, w := range f.walkers {
		if heard[w.place] || w.hearsOthers() {
			f.coupled = append(f.coupled, w)
		} else {
			f.alone = append(f.alone, w)
		}
	}
	f.coupled.arrange()
}

// Past is what a performer that begins in the middle needs to know of what came before.
type Past struct {
	// Watch, if it is set, is told of all moves from the beginning on, or of the last of them.
	Watch Watch
	// Inputs are the messages that came in, ascending; see Performer.Hear.
	Inputs []midi.Message
	// Only names the tracks that are played, which hear no others; without it all are.
	Only []int
	// Passed, if it is set, is given the notes before the tick, in order, of tracks whose places do not follow from the
	// time alone, and of all tracks that tune their notes.
	Passed func(notes []Note)
}

// Watch is called for every move of every lane that has a loop of its own, and of the gate lanes, with the ids of the
// track and of the part. Moves
// can be told earlier than their notes.
type Watch func(track, part int, lane score.LaneName, move Move)

// NewPerformerAt returns a performer whose first stretch begins at a tick.
func NewPerformerAt(p *score.Project, tick score.Tick, past Past) *Performer {
	f := newPerformer(p, past.Only)
	if past.Watch != nil {
		f.watch(past.Watch)
	}
	for _, m := range past.Inputs {
		f.Hear(m)
	}
	f.skipTo(tick)
	f.pass(tick, past.Passed)
	return f
}

// pass plays on to a tick in silence.
func (f *Performer) pass(tick score.Tick, passed func([]Note)) {
	var silent []Note
	for f.played < tick {
		if idle := min(tick, f.idleUntil()); idle > f.played+chunk {
			f.played = idle
			f.watchTo(idle)
			f.passOver(idle)
			continue
		}
		silent = f.Advance(min(tick, f.played+chunk), silent[:0])
		f.ready = f.ready[:0]
		if passed != nil {
			passed(silent)
		}
	}
}

// idleUntil returns a tick before which no part has anything left to play.
func (f *Performer) idleUntil() score.Tick {
	if len(f.notes) > 0 {
		return f.played
	}
	first := never
	for _, s := range f.sources {
		first = min(first, s.due())
	}
	return first - f.ahead
}

func (f *Performer) watch(watch Watch) {
	for _, w := range f.walkers {
		w.watchLanes(func(lane score.LaneName, move Move) { watch(w.track.ID, w.part.ID, lane, move) })
	}
}

// Hear lets the tracks hear a message that comes in and have it for their clock. One that comes in later
// than what has been computed already counts at the first moment that has not; Hear returns when that is,
// and whether it counts for any track.
func (f *Performer) Hear(m midi.Message) (at score.Tick, counts bool) {
	m.Tick = max(m.Tick, f.walked)
	for _, w := range f.inputs {
		if w.hearInput(m) {
			counts = true
		}
	}
	f.coupled.arrange()
	return m.Tick, counts
}

// Advance appends to dst the notes that start before the tick to and after all those it gave before,
// ordered by start, then by the order of the tracks and parts.
func (f *Performer) Advance(to score.Tick, dst []Note) []Note {
	for f.played < to {
		from := f.played
		f.played = min(to, f.played+chunk)
		f.walkTo(f.played + f.ahead)
		f.watchTo(f.played)
		dst = f.handOver(from, f.played, dst)
	}
	return dst
}

// walkTo does all steps before a tick.
func (f *Performer) walkTo(to score.Tick) {
	f.walked = to
	for _, s := range f.alone {
		for s.due() < to {
			f.play(s)
		}
	}
	for len(f.coupled) > 0 && f.coupled[0].next < to {
		w := f.coupled[0]
		notes := f.play(w)
		f.coupled.moved()
		if followers := f.followers[w.place]; len(followers) > 0 && len(notes) > 0 {
			for _, follower := range followers {
				for _, n := range notes {
					if !n.Beside { // a chord is heard once
						follower.hear(n)
					}
				}
			}
			f.coupled.arrange()
		}
	}
}

// play has a source do what is due, keeps its notes, and returns them.
func (f *Performer) play(s source) []Note {
	w, walks := s.(*walker)
	if walks && w.hold.every > 0 { // other parts of the track see how it is at the same moment
		for _, sibling := range f.walkers {
			if sibling.place == w.place && sibling.next >= w.next && sibling.hold.next() <= w.next {
				sibling.seekTo(w.next)
			}
		}
	}
	first, early := len(f.notes), s.due() < f.ahead
	f.notes = s.play(f.notes)
	if early { // what would start before the beginning is left out, and heard by nobody
		played := slices.DeleteFunc(f.notes[first:], func(n Note) bool { return n.Start < 0 })
		f.notes = f.notes[:first+len(played)]
	}
	notes := f.notes[first:]
	if walks && w.track.Loop != nil { // which plays in its place
		f.notes = f.notes[:first]
		return notes
	}
	for range notes {
		f.orders = append(f.orders, uint16(s.rank()))
	}
	return notes
}

// watchTo tells the moves of lanes that come between two gate steps, and has mod lanes glide on.
func (f *Performer) watchTo(to score.Tick) {
	for _, w := range f.walkers {
		if w.watch != nil || len(w.mods) > 0 {
			w.seekTo(min(to+f.reach, w.next)) // what comes early is due by then
		}
		for _, v := range w.mods {
			w.goTo(v.control, to)
		}
	}
}
