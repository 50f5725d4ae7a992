package play

import (
	"slices"

	"jettyfog/internal/core/score"
)

// group is the tracks that hear each other, directly or through others, whichever of their patterns play. It has a state
// of the project of its own, because what is done while it plays counts for each group from its own first step that no
// note of which can have begun.
type group struct {
	*common
	tracks    []int          // ids
	sources   []source       // in the order of their ranks
	walkers   []*walker      // those of them that walk
	alone     []source       // those that neither hear others nor are heard by others
	coupled   coupledWalkers // the others
	followers map[int][]*walker
	inputs    []*walker // those that go on by what comes in
	clocks    []*walker // those whose clock is a curve that something drives
	senders   []*walker // those that send one
	held      []*walker // those that are coupled and whose luck is held

	reach  score.Tick // how much earlier than its own step a note can start
	ahead  score.Tick // the same along tracks that follow each other
	walked score.Tick // all steps before this tick are done
	acted  int64      // the number of the last act that counts
	next   *group     // how the group goes on once walked is at the tick from which it does, or nil
	from   score.Tick // that tick
	moves  Moves      // what the act does by which the group has come to be
	moved  []int      // the tracks whose lanes it moves
	onStep bool       // whether a pattern enters there with the track's next step instead of at the tick itself
}

// common is what the parts of a state of the project share.
type common struct {
	project *score.Project // with its tracks in the order in which they take their turns
	pitches *pitches
	tempo   TempoMap
	bars    score.Bars
	hearing hearing
}

func newCommon(p *score.Project, pitches *pitches, h hearing) *common {
	return &common{project: p, pitches: pitches, tempo: TempoMapOf(p), bars: p.Bars(), hearing: h}
}

// groups returns the ids of the tracks of each group that has one of the tracks that are named, or of all.
func (c *common) groups(only []int) (groups [][]int) {
	of, indexes := c.hearing.coupled(c.project), map[int]int{}
	for i := range c.project.Tracks {
		id := c.project.Tracks[i].ID
		index, known := indexes[of[id]]
		if !known {
			index = len(groups)
			indexes[of[id]] = index
			groups = append(groups, nil)
		}
		groups[index] = append(groups[index], id)
	}
	return slices.DeleteFunc(groups, func(tracks []int) bool {
		return len(only) > 0 && !slices.ContainsFunc(tracks, func(id int) bool { return slices.Contains(only, id) })
	})
}

// newGroup returns a group at tick 0.
func (f *Performer) newGroup(c *common, tracks []int) *group {
	g := &group{common: c, tracks: tracks, followers: map[int][]*walker{}}
	longest := 1
	for place := range c.project.Tracks {
		track := &c.project.Tracks[place]
		if !slices.Contains(tracks, track.ID) {
			continue
		}
		for index := range track.Parts() {
			w := newWalker(c, place, index)
			w.changes, w.states = &f.changes, f.states
			g.walkers, g.sources = append(g.walkers, w), append(g.sources, w)
			g.reach = max(g.reach, w.ahead())
			longest = max(longest, chainLength(c.project, track))
		}
		if track.Loop != nil {
			l := newLooper(c.project, place)
			g.sources, g.alone = append(g.sources, l), append(g.alone, l)
		}
	}
	// A note that comes early lets the tracks that follow it come early too.
	g.ahead = g.reach * score.Tick(longest)
	g.couple()
	return g
}

// couple finds out which parts hear which.
func (g *group) couple() {
	heard := map[int]bool{}
	for _, w := range g.walkers {
		switch {
		case w.track.Source.FollowsTrack():
			place := trackIndexOf(g.project, w.track.Source.Track)
			heard[place] = true
			g.followers[place] = append(g.followers[place], w)
		case w.track.Source.Kind == score.CurveClock || w.machine != nil:
		case !w.ownClock:
			g.inputs = append(g.inputs, w)
		}
		for i := range w.of {
			switch original := w.of[i].original; {
			case original.Shape.DrivenByTrack():
				place := slices.IndexFunc(g.project.Tracks, func(t score.Track) bool { return t.ID == original.Track })
				heard[place] = true
				w.drivers = g.partsOf(w.drivers, place)
			case original.Shape == score.ControlShape && !slices.Contains(g.inputs, w):
				g.inputs = append(g.inputs, w)
			}
		}
		if w.place >= 0 && w.source != nil {
			heard[w.place] = true
		}
		if w.source.HearsKeys() && !slices.Contains(g.inputs, w) {
			g.inputs = append(g.inputs, w)
		}
		if w.clockDriven() {
			g.clocks = append(g.clocks, w)
		}
		if w.sendsDriven() {
			g.senders = append(g.senders, w)
		}
		for i := range w.steps {
			for _, t := range w.steps[i].about() {
				heard[t.trackIndex] = true
			}
		}
	}
	for _, w := range g.walkers {
		if heard[w.trackIndex] || w.hearsOthers() {
			g.coupled = append(g.coupled, w)
			if w.hold.every > 0 {
				g.held = append(g.held, w)
			}
		} else {
			g.alone = append(g.alone, w)
		}
	}
	g.coupled.arrange()
}

// partsOf adds the parts of the track at a place to a list.
func (g *group) partsOf(list []*walker, place int) []*walker {
	for _, w := range g.walkers {
		if w.trackIndex == place && !slices.Contains(list, w) {
			list = append(list, w)
		}
	}
	return list
}

// walkAll does all steps before a tick.
func (f *Performer) walkAll(to score.Tick) {
	for _, g := range f.groups {
		f.walkTo(g, to)
	}
}

// walkTo does all steps of a group before a tick.
func (f *Performer) walkTo(g *group, to score.Tick) {
	g.walked = max(g.walked, to)
	for _, w := range g.walkers {
		if w.clock.is && !w.clockDriven() {
			w.findCrossings(to)
			g.coupled.arrange()
		}
	}
	for _, s := range g.alone {
		for s.due() < to {
			f.play(g, s)
		}
	}
	for g.passCurves(to) {
		w := g.coupled[0]
		for _, held := range g.held { // what is held is back before any step at that moment, which others can hear
			if held.next >= w.next && held.hold.next() <= w.next {
				held.seekTo(w.next)
			}
		}
		w.seekDrivers(w.next)
		notes := f.play(g, w)
		g.coupled.moved()
		if followers := g.followers[w.trackIndex]; len(followers) > 0 && len(notes)+len(w.clocks) > 0 {
			for _, follower := range followers {
				follower.hearAll(w, notes)
			}
			g.coupled.arrange()
		}
	}
	for _, w := range g.walkers {
		w.sendCurves(to)
	}
}

// play has a source do what is due, keeps its notes, and returns them.
func (f *Performer) play(g *group, s source) []Note {
	w, walks := s.(*walker)
	first, early := len(f.notes), s.due() < g.ahead
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
