package play

import (
	"maps"
	"slices"

	"jettyfog/internal/core/field"
	"jettyfog/internal/core/orders"
	"jettyfog/internal/core/score"
)

// State is where a performer stands: all that what it plays from there on depends on, besides the project, its acts and
// what comes in. It is a value that shares nothing with the performer, and is never changed.
type State struct {
	played   score.Tick
	silenced int64
	sources  map[partKey]any
	left     map[partKey]partState
	tracks   map[int]soFar // by id
	notes    []Note
	changes  []pendingChange
	ready    []Change
	lastSent []pendingChange
}

// soFar is how far a track has come.
type soFar struct {
	trackState
	walked score.Tick
	acted  int64
}

// partState is how far a part has come.
type partState struct {
	walker walkerState
	hold   holdState
	gate   orders.State
	lanes  map[score.LaneName]laneState

	modulation modulationState
	chord      chordState
	keys       keysState
	moving     *field.State // nil without a field
	origin     score.Tick
}

// laneState is how far a lane has come.
type laneState struct {
	mover   orders.State
	value   valueState
	evolved []int // the values in force, where it evolves
	control controlState
	sends   score.Mod // what its control sends
}

// Save returns where the performer stands.
func (f *Performer) Save() *State {
	s := &State{
		played: f.played, silenced: f.silenced, sources: map[partKey]any{}, left: maps.Clone(f.left), tracks: map[int]soFar{},
		notes: slices.Clone(f.notes), changes: slices.Clone(f.changes), ready: slices.Clone(f.ready),
	}
	for _, g := range f.groups {
		for _, source := range g.sources {
			s.sources[source.key()] = source.save()
		}
		for _, track := range g.tracks {
			s.tracks[track] = soFar{f.states[slices.Index(f.order, track)], g.walked, g.acted}
		}
	}
	for order, change := range f.lastSent {
		if change.Track > 0 {
			s.lastSent = append(s.lastSent, pendingChange{change, order})
		}
	}
	return s
}

// Walked returns the tick before which all steps of a track were done.
func (s *State) Walked(track int) score.Tick { return s.tracks[track].walked }

// WalkedAll returns a tick from which on no step of any track was done.
func (s *State) WalkedAll() (tick score.Tick) {
	for _, t := range s.tracks {
		tick = max(tick, t.walked)
	}
	return tick
}

// Resume returns a performer that goes on from a state, as the one that was saved would; what the project does not have
// any more is left out. The project is the one before the acts, which are all that are not done. Watch, if it is set, is
// called for all moves from there on.
func Resume(p *score.Project, s *State, acts []Act, watch Watch) *Performer {
	return resume(p, s, acts, watch, nil)
}

// resume is Resume for the groups of some tracks, or for all if none are named.
func resume(p *score.Project, s *State, acts []Act, watch Watch, only []int) *Performer {
	f := unplaced(p)
	f.watch, f.acts, f.played, f.left = watch, slices.Clone(acts), s.played, maps.Clone(s.left)
	first := f.heard
	for i := range acts {
		if acts[i].Silences && acts[i].Number <= s.silenced {
			f.heard = f.after(f.heard, &acts[i])
		}
	}
	f.silenced = s.silenced
	for _, tracks := range first.groups(only) {
		f.groups = append(f.groups, f.resumeGroup(first, tracks, s))
	}
	ranks := map[partKey]int{}
	f.each(func(w *walker) { ranks[w.key()] = w.order })
	rankOf := func(track, part int) (int, bool) {
		rank, there := ranks[partKey{track, part}]
		place := slices.Index(f.order, track)
		if !there || place >= 0 && f.heard.project.Tracks[place].Loop != nil { // whose notes have no part
			rank = place * score.MaxParts
		}
		return rank, place >= 0
	}
	for _, n := range s.notes {
		if rank, there := rankOf(int(n.Track), int(n.Part)); there {
			f.notes, f.orders = append(f.notes, n), append(f.orders, uint16(rank))
		}
	}
	ranked := func(c pendingChange) (pendingChange, bool) {
		rank, there := rankOf(int(c.Track), int(c.Part))
		c.order = rank<<slotBits | c.order&(1<<slotBits-1)
		return c, there
	}
	for _, c := range s.changes {
		if c, there := ranked(c); there {
			f.changes = append(f.changes, c)
		}
	}
	for _, c := range s.lastSent {
		if c, there := ranked(c); there {
			f.lastSent[c.order] = c.Change
		}
	}
	f.ready = slices.Clone(s.ready)
	f.decideSilence()
	return f
}

// resumeGroup returns a group that goes on from a state.
func (f *Performer) resumeGroup(c *common, tracks []int, s *State) *group {
	so := s.tracks[tracks[0]]
	for i := range f.acts {
		a := &f.acts[i]
		if g := (&group{tracks: tracks}); a.Number <= so.acted && !a.Silences && g.isOf(a) {
			c = f.after(c, a)
		}
	}
	g := f.newGroup(c, tracks)
	g.walked, g.acted = so.walked, so.acted
	for _, track := range tracks {
		f.states[slices.Index(f.order, track)] = s.tracks[track].trackState
	}
	for _, w := range g.walkers {
		f.watchLanes(w)
	}
	for _, source := range g.sources {
		source.restore(s.sources[source.key()])
	}
	g.coupled.arrange()
	return g
}

func (w *walker) key() partKey { return partKey{w.track.ID, w.part.ID} }

func (w *walker) save() any {
	s := partState{walker: w.walkerState, hold: w.hold.holdState, gate: w.gate.State, lanes: map[score.LaneName]laneState{}}
	s.walker.triggers, s.walker.incoming, s.modulation = slices.Clone(w.triggers), slices.Clone(w.incoming), w.modulationState
	s.chord, s.keys = w.chordState, w.keysState
	s.keys.waiting = slices.Clone(w.waiting)
	if w.machine != nil {
		s.moving, s.origin = w.moving.Clone(), w.origin
	}
	for _, v := range w.all {
		lane := laneState{mover: v.State, value: v.valueState}
		if v.evolved != nil {
			lane.evolved = slices.Clone(v.evolved[:])
		}
		if v.control != nil {
			lane.control = v.control.controlState
			lane.control.waiting = slices.Clone(v.control.waiting)
			lane.sends = v.control.mod
		}
		s.lanes[v.name] = lane
	}
	return s
}

// restore has the part stand where it stood.
func (w *walker) restore(state any) {
	s := state.(partState)
	w.walkerState, w.hold.holdState, w.gate.State = s.walker, s.hold, s.gate
	w.holdFrom()
	w.triggers, w.incoming = slices.Clone(s.walker.triggers), slices.Clone(s.walker.incoming)
	w.restoreModulation(s.modulation)
	w.restoreChord(s.chord, s.keys)
	if w.machine != nil {
		w.moving, w.origin = s.moving.Clone(), s.origin
	}
	for _, v := range w.all {
		lane := s.lanes[v.name]
		v.State, v.valueState = lane.mover, lane.value
		if v.evolved != nil {
			*v.evolved = [score.MaxSteps]int(lane.evolved)
		}
		if v.control != nil {
			v.control.controlState = lane.control
			v.control.waiting = slices.Clone(lane.control.waiting)
		}
	}
}
