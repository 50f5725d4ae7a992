package live

import (
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
)

// performance is a project being played, and what was told of its lanes and not yet handed over.
type performance struct {
	player *route.Player
	places []Place
}

// perform returns a performance whose lanes stand where they would stand at a tick if it had been played
// from the beginning, hearing what came in. Where places do not follow from the time it is played through in silence.
func perform(project *score.Project, from score.Tick, inputs []midi.Message) *performance {
	p := &performance{}
	p.player = route.NewPlayer(project, from, play.Past{Inputs: inputs, Watch: func(track, part int, lane score.LaneName, move play.Move) {
		if move.Tick >= from {
			p.places = append(p.places, Place{Tick: move.Tick, Track: track, Part: part, Lane: lane, Step: move.Step})
		}
	}})
	return p
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
