package log

import (
	"slices"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
)

// Place says that a lane with a loop of its own, or a gate lane, goes on to a step.
type Place struct {
	Tick score.Tick
	// Track and Part are ids.
	Track, Part int
	Lane        score.LaneName
	Step        int
}

// Performance is a project being played, and what was told of its lanes and not yet handed over. Ticks are the song's.
type Performance struct {
	player *route.Player
	places []Place
}

// perform returns a performance whose lanes stand where they would stand at a tick of the song if the project had been
// played from the beginning, with all that is known of what came before. Where places do not follow from the time it is played
// through in silence, which can take long.
func perform(project *score.Project, from score.Tick, past play.Past) *Performance {
	p := &Performance{}
	past.Watch = p.watch(from)
	p.player = route.NewPlayer(project, from, past)
	return p
}

// watch returns what keeps the moves from a tick on.
func (p *Performance) watch(from score.Tick) play.Watch {
	return func(track, part int, lane score.LaneName, move play.Move) {
		if move.Tick >= from {
			p.places = append(p.places, Place{Tick: move.Tick, Track: track, Part: part, Lane: lane, Step: move.Step})
		}
	}
}

// change returns a performance of another project that goes on at a tick where this one stands, but for some tracks,
// which go on from another performance of that project. Neither of the two may be used any more.
func (p *Performance) change(project *score.Project, acts []play.Act, at score.Tick, replayed *Performance, tracks []int) *Performance {
	next := &Performance{}
	for _, place := range p.places {
		if !slices.Contains(tracks, place.Track) && project.Track(place.Track) != nil {
			next.places = append(next.places, place)
		}
	}
	var player *route.Player
	if replayed != nil {
		next.places = append(next.places, replayed.places...)
		player = replayed.player
	}
	next.player = p.player.Change(project, player, tracks, acts, next.watch(at))
	return next
}

// skip goes on to a tick in silence.
func (p *Performance) skip(to score.Tick) {
	p.player.Skip(to)
	p.places = slices.DeleteFunc(p.places, func(place Place) bool { return place.Tick < to })
}
