package play

import (
	"slices"

	"jettyfog/internal/core/orders"
	"jettyfog/internal/core/score"
)

// State is where a performer stands: all that what it plays from there on depends on, besides the project and what
// comes in. It is a value that shares nothing with the performer, and is never changed.
type State struct {
	walked, played score.Tick
	sources        map[partKey]any
	tracks         map[int]trackState
	notes          []Note
	changes        []pendingChange
	ready          []Change
	told           []pendingChange
}

// partState is how far a part has come.
type partState struct {
	walker walkerState
	hold   holdState
	gate   orders.State
	lanes  map[score.LaneName]laneState
}

// laneState is how far a lane has come.
type laneState struct {
	mover   orders.State
	value   valueState
	evolved []int // the values in force, where it evolves
	control controlState
}

// Save returns where the performer stands.
func (f *Performer) Save() *State {
	s := &State{
		walked: f.walked, played: f.played, sources: map[partKey]any{}, tracks: map[int]trackState{},
		notes: slices.Clone(f.notes), changes: slices.Clone(f.changes), ready: slices.Clone(f.ready),
	}
	for _, source := range f.sources {
		s.sources[source.key()] = source.save()
	}
	for _, w := range f.walkers {
		s.tracks[w.track.ID] = f.states[w.place]
	}
	for order, change := range f.told {
		if change.Track > 0 {
			s.told = append(s.told, pendingChange{change, order})
		}
	}
	return s
}

// Resume returns a performer that goes on from a state, as the one that was saved would; what the project does not have
// any more is left out. Watch, if it is set, is told of all moves from there on.
func Resume(p *score.Project, s *State, watch Watch) *Performer {
	f := NewPerformer(p)
	if watch != nil {
		f.watch(watch)
	}
	f.walked, f.played = s.walked, s.played
	ranks := map[partKey]int{}
	for _, w := range f.walkers {
		ranks[w.key()] = w.order
		f.states[w.place] = s.tracks[w.track.ID]
	}
	for _, source := range f.sources {
		source.restore(s.sources[source.key()])
		if source.key().part == ofLoop { // whose notes have no part
			ranks[partKey{source.key().track, 0}] = source.rank()
		}
	}
	for _, n := range s.notes {
		if rank, there := ranks[partKey{int(n.Track), int(n.Part)}]; there {
			f.notes, f.orders = append(f.notes, n), append(f.orders, uint16(rank))
		}
	}
	ranked := func(c pendingChange) (pendingChange, bool) {
		rank, there := ranks[partKey{int(c.Track), int(c.Part)}]
		c.order = rank<<slotBits | c.order&(1<<slotBits-1)
		return c, there
	}
	for _, c := range s.changes {
		if c, there := ranked(c); there {
			f.changes = append(f.changes, c)
		}
	}
	for _, c := range s.told {
		if c, there := ranked(c); there {
			f.told[c.order] = c.Change
		}
	}
	f.ready = slices.Clone(s.ready)
	f.coupled.arrange()
	return f
}

func (w *walker) key() partKey { return partKey{w.track.ID, w.part.ID} }

func (w *walker) save() any {
	s := partState{walker: w.walkerState, hold: w.hold.holdState, gate: w.gate.State, lanes: map[score.LaneName]laneState{}}
	s.walker.triggers = slices.Clone(w.triggers)
	for _, v := range w.all {
		lane := laneState{mover: v.State, value: v.valueState}
		if v.evolved != nil {
			lane.evolved = slices.Clone(v.evolved[:])
		}
		if v.control != nil {
			lane.control = v.control.controlState
			lane.control.waiting = slices.Clone(v.control.waiting)
		}
		s.lanes[v.name] = lane
	}
	return s
}

// restore has the part stand where it stood.
func (w *walker) restore(state any) {
	s := state.(partState)
	w.walkerState, w.hold.holdState, w.gate.State = s.walker, s.hold, s.gate
	w.triggers = slices.Clone(s.walker.triggers)
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
