package score

import (
	"errors"
	"slices"
)

// ErrNoSetup is returned for a setup that is not kept.
var ErrNoSetup = errors.New("there is no setup of that name; it may have been deleted")

// Setup is where the tracks of a project go, to be used in another one: outputs and tracks are known by their names there.
type Setup struct {
	Outputs []Output      `json:"outputs"`
	Tracks  []SetupRoutes `json:"tracks"`
	Inputs  []Input       `json:"inputs,omitempty"`
	ClockIn ClockIn       `json:"clockIn,omitzero"`
	// Mappings are faders and knobs; those of controls of tracks are about the tracks that have the names.
	Mappings []Mapping `json:"mappings,omitempty"`
}

// SetupRoutes are the routes of a track, whose outputs are those of the setup.
type SetupRoutes struct {
	// Track is its id where the setup was kept, by which channels of voltages name it.
	Track  int     `json:"track,omitempty"`
	Name   string  `json:"name"`
	Routes []Route `json:"routes"`
}

// Setup returns that of the project.
func (p *Project) Setup() Setup {
	setup := Setup{Outputs: cloneOutputs(p.Outputs), Inputs: cloneInputs(p.Inputs), ClockIn: p.ClockIn, Mappings: slices.Clone(p.Mappings)}
	for i := range p.Tracks {
		setup.Tracks = append(setup.Tracks, SetupRoutes{p.Tracks[i].ID, p.Tracks[i].Name, slices.Clone(p.Tracks[i].RouteList())})
	}
	return setup
}

// EditFor returns the edit that has a project go where the setup says. An output of a name that the project has takes the setup's
// settings, others are added; a track goes where the first track of its name goes in the setup. All others are left as they
// are, and so are routes of tracks whose names the setup does not know. Routes of
// parts are by the ids of parts, and only kits have them.
func (s Setup) EditFor(p *Project) Edit {
	tracks := s.tracksIn(p)
	outputs, ids := joined(p.Outputs, ofTracks(s.Outputs, tracks))
	inputs, clock := s.joinedInputs(p, tracks)
	mappings := s.joinedMappings(p, tracks, ids)
	edits := []EditJSON{FormOf(SetProject{Outputs: &outputs, Inputs: &inputs, ClockIn: &clock, Mappings: &mappings})}
	for i := range p.Tracks {
		at := slices.IndexFunc(s.Tracks, func(t SetupRoutes) bool { return t.Name == p.Tracks[i].Name })
		if at < 0 {
			continue
		}
		routes := renumbered(s.Tracks[at].Routes, ids)
		if p.Tracks[i].Kind == Melodic {
			routes = slices.DeleteFunc(routes, func(r Route) bool { return r.OnlyPart })
		}
		edits = append(edits, FormOf(SetTrack{Track: p.Tracks[i].ID, Routes: &routes}))
	}
	return All{Name: "setup", Edits: edits}
}

// tracksIn returns the ids of tracks of a project by those of the setup's tracks of the same names.
func (s Setup) tracksIn(p *Project) map[int]int {
	ids := map[int]int{}
	for _, kept := range s.Tracks {
		if at := slices.IndexFunc(p.Tracks, func(t Track) bool { return t.Name == kept.Name }); at >= 0 {
			ids[kept.Track] = p.Tracks[at].ID
		}
	}
	return ids
}

// joined returns outputs with others that are put to them by their names, and the id there of each of the others.
func joined(outputs, others []Output) (all []Output, ids map[int]int) {
	all, ids = slices.Clone(outputs), map[int]int{BuiltIn: BuiltIn}
	for _, other := range others {
		id := other.ID
		at := slices.IndexFunc(all, func(o Output) bool { return o.Name == other.Name })
		if at < 0 {
			at, other.ID = len(all), freeOutputID(all)
			all = append(all, other)
		}
		other.ID = all[at].ID
		all[at], ids[id] = other, other.ID
	}
	return all, ids
}

// joinedInputs returns a project's inputs with the setup's put to them by their names, and the clock that is followed: the setup's if it
// follows one. Of the tracks of the setup's inputs those stay whose ids in the project are known.
func (s Setup) joinedInputs(p *Project, tracks map[int]int) (all []Input, clock ClockIn) {
	all, clock = cloneInputs(p.Inputs), p.ClockIn
	if all == nil {
		all = []Input{}
	}
	for _, input := range cloneInputs(s.Inputs) {
		input.ofTracks(tracks)
		id := input.ID
		at := slices.IndexFunc(all, func(i Input) bool {
			return i.Name == input.Name || i.Kind == input.Kind && (i.Kind == ScreenInput || i.Kind == ProgramInput)
		})
		if at < 0 {
			at, input.ID = len(all), 1
			for slices.ContainsFunc(all, func(i Input) bool { return i.ID == input.ID }) {
				input.ID++
			}
			all = append(all, input)
		}
		input.ID = all[at].ID
		all[at] = input
		if s.ClockIn.Input == id {
			clock = s.ClockIn
			clock.Input = input.ID
		}
	}
	return all, clock
}

// joinedMappings returns a project's mappings with those of the setup that it does not have. A mapping of a track that the project does not
// have is left out, and one that is sent back where there is no such output is not sent back.
func (s Setup) joinedMappings(p *Project, tracks, outputs map[int]int) (all []Mapping) {
	all = append([]Mapping{}, p.Mappings...)
	for _, m := range s.Mappings {
		if of := m.Control.Track; of > 0 {
			if m.Control.Track = tracks[of]; m.Control.Track == 0 {
				continue
			}
		}
		if m.SendsTo = outputs[m.SendsTo]; !slices.Contains(all, m) && len(all) < MaxMappings {
			all = append(all, m)
		}
	}
	return all
}

// ofTracks has the input be about the tracks that have become others, by their ids, and about no others.
func (i *Input) ofTracks(ids map[int]int) {
	i.PassesTo = slices.DeleteFunc(i.PassesTo, func(p Passage) bool { return ids[p.Track] == 0 })
	for at := range i.PassesTo {
		i.PassesTo[at].Track = ids[i.PassesTo[at].Track]
	}
	if i.Transposes == nil {
		return
	}
	i.Transposes.Tracks = slices.DeleteFunc(i.Transposes.Tracks, func(id int) bool { return ids[id] == 0 })
	for at, id := range i.Transposes.Tracks {
		i.Transposes.Tracks[at] = ids[id]
	}
	if len(i.Transposes.Tracks) == 0 {
		i.Transposes = nil
	}
}

func freeOutputID(outputs []Output) int {
	id := 1
	for slices.ContainsFunc(outputs, func(o Output) bool { return o.ID == id }) {
		id++
	}
	return id
}

// renumbered returns those routes that lead to outputs which have ids, by these.
func renumbered(routes []Route, ids map[int]int) []Route {
	known := []Route{}
	for _, route := range routes {
		if id, found := ids[route.Output]; found {
			route.Output = id
			known = append(known, route)
		}
	}
	return known
}
