package play

import (
	"cmp"
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// Performer plays a project from its beginning on, in stretches of any size. The notes of all stretches
// together are the same however time is cut up. The project must be valid and must not be changed.
type Performer struct {
	order  []int // the ids of the tracks, in the order in which they take their turns
	groups []*group
	states []trackState // by the places of tracks in that order
	left   map[partKey]partState
	watch  Watch
	built  func(*walker) // is called with each walker that takes the place of another

	acts     []Act // that some group has not taken over, or that have not silenced yet
	taken    map[taken]*common
	heard    *common // by which it is decided what is silent
	silenced int64   // the number of the last act that counts there

	cuts   []Cut      // that were not asked for yet
	played score.Tick // all notes before this tick are handed over
	limit  score.Tick // before which alone steps are done and lanes go on by the clock, where it is not 0
	waiting
}

// chunk is how much is walked at once, so that notes that wait to be sorted stay few.
const chunk = 4 * score.TicksPerQuarter

// NewPerformer returns a performer at tick 0.
func NewPerformer(p *score.Project) *Performer { return newPerformer(p, nil) }

// newPerformer returns a performer at tick 0 of some tracks, or of all if none are named.
func newPerformer(p *score.Project, only []int) *Performer {
	f := unplaced(p)
	for _, tracks := range f.heard.groups(only) {
		f.groups = append(f.groups, f.newGroup(f.heard, tracks))
	}
	f.decideSilence()
	return f
}

// unplaced returns a performer that has no groups yet.
func unplaced(p *score.Project) *Performer {
	h := hearingOf(p)
	order := h.order(p)
	f := &Performer{order: order, states: make([]trackState, len(order)), left: map[partKey]partState{}, taken: map[taken]*common{}}
	f.heard = newCommon(inOrder(p, order), newPitches(p.Key), h)
	f.silent, f.patterns = make([]bool, len(order)*score.MaxParts), make([]int, len(order))
	f.lastSent = make([]Change, len(f.silent)<<slotBits)
	for i := range f.states {
		f.states[i].since = -1
	}
	return f
}

// each calls a function with the walkers of all parts, in the order of their ranks.
func (f *Performer) each(do func(*walker)) {
	var walkers []*walker
	for _, g := range f.groups {
		walkers = append(walkers, g.walkers...)
	}
	slices.SortFunc(walkers, func(a, b *walker) int { return cmp.Compare(a.order, b.order) })
	for _, w := range walkers {
		do(w)
	}
}

// decideSilence finds out which parts are not heard.
func (f *Performer) decideSilence() {
	p := f.heard.project
	f.audible = p
	for _, g := range f.groups {
		for _, s := range g.sources {
			place := s.rank() / score.MaxParts
			track := &p.Tracks[place]
			part := &score.Part{} // a loop has no parts that could be muted
			if w, walks := s.(*walker); walks && track.Loop == nil {
				part = track.Pattern(w.track.Playing).Part(w.part.ID)
				f.patterns[place] = w.track.Playing
			} else if walks { // a loop plays in its place
				continue
			} else {
				f.patterns[place] = whole
			}
			f.silent[s.rank()] = p.Silent(track, part)
		}
	}
}

// Past is what a performer that begins in the middle needs to know of what came before.
type Past struct {
	// Watch, if it is set, is called for all moves from the beginning on, or of the last of them.
	Watch Watch
	// Inputs are the messages that came in, ascending; see Performer.Hear.
	Inputs []midi.Message
	// Only names the tracks that are played, which hear no others; without it all are.
	Only []int
	// Passed, if it is set, is given the notes before the tick, in order, of tracks whose places do not follow from the
	// time alone, and of all tracks that tune their notes.
	Passed func(notes []Note)
	// Exactly has it stand exactly at the tick, for GoOn, which must follow: no later step has been done.
	Exactly bool
}

// Watch is called for every move of every lane that has a loop of its own, and of the gate lanes, with the ids of the
// track and of the part. It can be called for moves before their notes are handed over.
type Watch func(track, part int, lane score.LaneName, move Move)

// NewPerformerAt returns a performer whose first stretch begins at a tick.
func NewPerformerAt(p *score.Project, tick score.Tick, past Past) *Performer {
	f := newPerformer(p, past.Only)
	f.watchAll(past.Watch)
	for _, m := range past.Inputs {
		f.Hear(m)
	}
	f.skipTo(tick)
	if past.Exactly {
		f.limit = tick
	}
	f.pass(tick, past.Passed)
	f.limit = 0
	return f
}

// pass plays on to a tick in silence.
func (f *Performer) pass(tick score.Tick, passed func([]Note)) {
	var silent []Note
	for f.played < tick {
		if idle := min(tick, f.idleUntil()); idle > f.played+chunk {
			f.played = idle
			f.walkAll(idle) // only curves pass
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
	if len(f.notes) > 0 || len(f.acts) > 0 {
		return f.played
	}
	first := never
	for _, g := range f.groups {
		for _, s := range g.sources {
			first = min(first, max(s.due(), g.ahead)-g.ahead)
			if w, walks := s.(*walker); walks && (w.clock.is || w.sendsDriven()) { // which can rise at any moment
				first = f.played
			}
		}
	}
	return first
}

// Done returns the number up to which all acts count everywhere that were issued by now.
func (f *Performer) Done() int64 {
	done := f.silenced
	for _, g := range f.groups {
		done = min(done, g.acted)
	}
	return done
}

// watchAll has all moves notified from now on.
func (f *Performer) watchAll(watch Watch) {
	if f.watch = watch; watch != nil {
		f.each(f.watchLanes)
	}
}

// watchLanes has the moves of a part notified, if any are.
func (f *Performer) watchLanes(w *walker) {
	if f.watch != nil {
		w.watchLanes(func(lane score.LaneName, move Move) { f.watch(w.track.ID, w.part.ID, lane, move) })
	}
}

// Hear lets the tracks hear a message that comes in and have it for their clock. One that comes in later
// than what has been computed already counts at the first moment that has not; Hear returns when that is,
// and whether it counts for any track.
func (f *Performer) Hear(m midi.Message) (at score.Tick, counts bool) {
	m.Tick = max(m.Tick, f.played)
	for _, g := range f.groups {
		if len(g.inputs) > 0 {
			m.Tick = max(m.Tick, g.walked)
		}
	}
	for _, g := range f.groups {
		for _, w := range g.inputs {
			if w.hearInput(m) {
				counts = true
			}
		}
		g.coupled.arrange()
	}
	return m.Tick, counts
}

// Advance appends to dst the notes that start before the tick to and after all those it gave before,
// ordered by start, then by the order of the tracks and parts.
func (f *Performer) Advance(to score.Tick, dst []Note) []Note {
	for f.played < to {
		from := f.played
		f.silence(from)
		f.played = f.before(from, min(to, from+chunk))
		for _, g := range f.groups {
			f.walk(g, from, f.played)
		}
		f.dropActs()
		f.watchTo(f.played)
		dst = f.handOver(from, f.played, dst)
	}
	return dst
}

// watchTo tells the moves of lanes that come between two gate steps, and has mod lanes glide on.
func (f *Performer) watchTo(to score.Tick) {
	for _, g := range f.groups {
		for _, w := range g.walkers {
			if w.watch != nil || len(w.mods) > 0 {
				w.seekTo(min(f.limited(to+g.reach), w.next)) // what comes early is due by then
			}
			for _, v := range w.mods {
				w.goTo(v.control, to)
			}
		}
	}
}
