package score

import (
	"cmp"
	"fmt"
	"slices"
)

// Clash is something of a channel of an output that several tracks write, so that the last one to do so has its way.
type Clash struct {
	// Output is the id of the output, Channel its channel, 1 to 16.
	Output  int `json:"output"`
	Channel int `json:"channel"`
	// What says what it is, in a few words.
	What string `json:"what"`
	// Tracks are the ids of the tracks, in the order of the project, at least two.
	Tracks []int `json:"tracks"`
}

// Clashes returns what tracks write at the same place: controllers, programs, bends and pressures of a channel, by all of their
// patterns, ordered by output, channel and words. The built-in sound knows none of these.
func (p *Project) Clashes() []Clash {
	type place struct {
		output, channel int
		what            string
	}
	tracks := map[place][]int{}
	for i := range p.Tracks {
		track := &p.Tracks[i]
		writes := track.writes()
		for _, route := range track.RouteList() {
			if route.Output == BuiltIn {
				continue
			}
			first, count := route.Channels(track)
			for _, w := range writes {
				if w.what == "program" && route.Program > 0 {
					continue // the route's is selected instead
				}
				for channel := first; channel <= first+max(count, w.channels)-1; channel++ {
					at := place{route.Output, channel, w.what}
					if !slices.Contains(tracks[at], track.ID) {
						tracks[at] = append(tracks[at], track.ID)
					}
				}
			}
		}
	}
	clashes := []Clash{}
	for at, ids := range tracks {
		if len(ids) > 1 {
			clashes = append(clashes, Clash{at.output, at.channel, at.what, ids})
		}
	}
	slices.SortFunc(clashes, func(a, b Clash) int {
		return cmp.Or(cmp.Compare(a.Output, b.Output), cmp.Compare(a.Channel, b.Channel), cmp.Compare(a.What, b.What))
	})
	return clashes
}

// PlaysPrograms reports whether a mod lane of the track, in any pattern, selects programs.
func (t *Track) PlaysPrograms() bool {
	for i := range t.Patterns {
		for j := range t.Patterns[i].Parts {
			if slices.ContainsFunc(t.Patterns[i].Parts[j].Mods, func(m Mod) bool { return m.Target == ProgramTarget }) {
				return true
			}
		}
	}
	return false
}

// written is something that a track writes, on so many channels from its own up.
type written struct {
	what     string
	channels int
}

// writes returns what a track writes besides notes, each once.
func (t *Track) writes() (writes []written) {
	add := func(what string, channels int) {
		if !slices.ContainsFunc(writes, func(w written) bool { return w.what == what }) {
			writes = append(writes, written{what, channels})
		}
	}
	if t.Tuned != nil && t.Tuned.By == BendTuned {
		add("pitch bend", t.Tuned.Channels)
	}
	if t.Program > 0 {
		add("program", 1)
	}
	for i := range t.Patterns {
		for j := range t.Patterns[i].Parts {
			for _, mod := range t.Patterns[i].Parts[j].Mods {
				switch mod.Target {
				case ControlTarget:
					add(fmt.Sprintf("CC %d", mod.Number), 1)
				case Control14Target:
					add(fmt.Sprintf("CC %d", mod.Number), 1)
					add(fmt.Sprintf("CC %d", mod.Number+32), 1)
				case BendTarget:
					add("pitch bend", 1)
				case PressureTarget:
					add("pressure", 1)
				case ProgramTarget:
					add("program", 1)
				}
			}
		}
	}
	return writes
}
