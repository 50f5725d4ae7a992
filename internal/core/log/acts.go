package log

import (
	"slices"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// act is something that was done, with ticks of the song: an action, or values that a section of the song or a chain gives.
type act struct {
	Action
	given      []stage.Change // in place of the action
	takesOver  bool           // they count in place of what a hand has changed
	issued, at score.Tick
	number     int64
}

// on returns a stage after the act.
func (a act) on(s stage.Stage) stage.Stage {
	if a.given == nil {
		return s.After(a.Control, a.Value)
	}
	for _, change := range a.given {
		s = s.Under(change.Control, change.Value, a.takesOver)
	}
	return s
}

// changes lists the values that the act gives to controls.
func (a act) changes() []stage.Change {
	switch {
	case a.given != nil:
		return a.given
	case a.Value != nil:
		return []stage.Change{{Control: a.Control, Value: *a.Value}}
	}
	return nil
}

// controls lists what the act is about.
func (a act) controls() (controls []stage.Control) {
	if a.given == nil {
		return []stage.Control{a.Control}
	}
	for _, change := range a.given {
		controls = append(controls, change.Control)
	}
	return controls
}

// silences reports whether the act decides which parts are heard, and nothing else.
func (a act) silences() bool {
	return !slices.ContainsFunc(a.controls(), func(c stage.Control) bool { return !c.Silences() })
}

// tracks returns the tracks of a project that the act is about; nil is all.
func (a act) tracks(p *score.Project) []int {
	return stage.TracksOf(a.controls(), p)
}

// without returns an act that does nothing to some controls; left is false if nothing is left of it.
func (a act) without(controls []stage.Control) (rest act, left bool) {
	if a.given == nil {
		return a, !slices.Contains(controls, a.Control)
	}
	a.given = slices.DeleteFunc(slices.Clone(a.given), func(change stage.Change) bool { return slices.Contains(controls, change.Control) })
	return a, len(a.given) > 0
}

// moves returns what an act does to lanes.
func (a act) moves() play.Moves {
	for _, change := range a.changes() {
		switch change.Control.Name {
		case stage.Realign:
			return play.Realigning
		case stage.Evolve:
			return play.Evolving
		}
	}
	return 0
}

// played returns the act as it is played of a project, of which written is the document, where it leads to a stage.
func (a act) played(written *score.Project, s stage.Stage) play.Act {
	steps := make([]func(*score.Project) *score.Project, 0, 1)
	for _, c := range a.controls() {
		steps = append(steps, s.Step(written, c))
	}
	return play.Act{
		Number: a.number, Issued: a.issued, Tick: a.at, Tracks: a.tracks(written), Silences: a.silences(), Moves: a.moves(),
		Change: func(p *score.Project) *score.Project {
			for _, step := range steps {
				p = step(p)
			}
			return p
		},
	}
}

// playedActs returns acts as they are played that are done on a stage.
func (p *Player) playedActs(acts []act, s stage.Stage) (played []play.Act) {
	for _, a := range acts {
		s = a.on(s)
		played = append(played, a.played(p.written, s))
	}
	return played
}

// playedSoFar are acts as they are played, kept so that a long performance is not gone through again for each forecast.
type playedSoFar struct {
	of    *score.Project // as it is written
	acts  []play.Act
	stage stage.Stage // after them
}

// playedAll returns all acts since the piece began as they are played.
func (p *Player) playedAll() []play.Act {
	if p.played.of != p.written {
		p.played = playedSoFar{of: p.written, stage: p.began}
	}
	for _, a := range p.acts[len(p.played.acts):] {
		p.played.stage = a.on(p.played.stage)
		p.played.acts = append(p.played.acts, a.played(p.written, p.played.stage))
	}
	return p.played.acts[:len(p.played.acts):len(p.played.acts)]
}

// do has an act count, and whatever follows from the project that plays be as it is after it.
func (p *Player) do(a act) {
	p.number++
	a.number, a.issued = p.number, p.Song()
	before := p.playing
	p.stage = a.on(p.stage)
	p.playing = p.stage.On(p.written)
	p.acts = append(p.acts, a)
	p.performance.player.Act(a.played(p.written, p.stage))
	p.conductor.changed()
	p.remeter(before, p.playing)
}

// update takes acts that count everywhere by now as part of what plays.
func (p *Player) update() {
	done := p.performance.player.Done()
	for p.pending < len(p.acts) && p.acts[p.pending].number <= done {
		p.settled = p.acts[p.pending].on(p.settled)
		p.pending++
	}
}

// StageAt returns the live changes that are in force at a tick of run time by what was done until now.
func (p *Player) StageAt(run score.Tick) stage.Stage {
	s := p.settled
	for _, a := range p.acts[p.pending:] {
		if p.runOf(a.at) <= run {
			s = a.on(s)
		}
	}
	return s
}
