package live

import (
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"slices"
)

// performance is a project being played, and what was told of its lanes and not yet handed over.
type performance struct {
	player *route.Player
	places []Place
}

// perform returns a performance whose lanes stand where they would stand at a tick if it had been played
// from the beginning, hearing what came in. Where places do not follow from the time it is played through in silence.
// It plays only the tracks that are named, or all if none are.
func perform(project *score.Project, from score.Tick, inputs []midi.Message, only []int) *performance {
	p := &performance{}
	p.player = route.NewPlayer(project, from, play.Past{Inputs: inputs, Only: only, Watch: p.watch(from)})
	return p
}

// watch returns what keeps the moves from a tick on.
func (p *performance) watch(from score.Tick) play.Watch {
	return func(track, part int, lane score.LaneName, move play.Move) {
		if move.Tick >= from {
			p.places = append(p.places, Place{Tick: move.Tick, Track: track, Part: part, Lane: lane, Step: move.Step})
		}
	}
}

// change returns a performance of another project that goes on at a tick where this one stands, but for some tracks,
// which go on from another performance of that project. Neither of the two may be used any more.
func (p *performance) change(project *score.Project, at score.Tick, replayed *performance, tracks []int) *performance {
	next := &performance{}
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
	next.player = p.player.Change(project, player, tracks, next.watch(at))
	return next
}

// skip goes on to a tick in silence.
func (p *performance) skip(to score.Tick) {
	p.player.Skip(to)
	kept := p.places[:0]
	for _, place := range p.places {
		if place.Tick >= to {
			kept = append(kept, place)
		}
	}
	p.places = kept
}

// advance plays on to a tick.
func (p *performance) advance(to score.Tick) (messages []midi.Message, places []Place) {
	messages = p.player.Advance(to, nil)
	places, p.places = p.places, nil
	return messages, places
}
