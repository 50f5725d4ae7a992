package log

import (
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// Jump has the song go on from a tick of it. Everything that chance can move is there as it is in the song; or it goes on
// from where it stood, and what moves by arithmetic alone is as it is in the song.
//
// With a Project that one plays from there on in place of the one before, with the live changes of Stage; nothing of what
// was done or came in before reaches it, and chance does not go on.
type Jump struct {
	Song    score.Tick
	GoesOn  bool
	Project *score.Project
	Stage   *stage.Stage // nil is none
	// PlaysSong has the song of that project play.
	PlaysSong bool
}

// Staged returns the live changes with which the project of a jump plays.
func (j Jump) Staged() stage.Stage {
	if j.Stage == nil {
		return stage.Stage{}
	}
	return *j.Stage
}

// Jump has the song go on elsewhere. What sounds is released, which is what it returns. Actions that are still to count do so
// at their ticks of run time. Ready is what plays from there, as Outset has it for now; nil has it made.
func (p *Player) Jump(j Jump, ready *Beginning) []midi.Message {
	released := p.Release()
	var going *play.Going
	if j.GoesOn {
		going = p.goingOn()
	}
	o := p.Outset(j, p.run)
	var waiting []act
	if j.Project == nil {
		waiting = p.acts[p.pending:]
	}
	if ready == nil {
		ready = o.Begin()
	}
	p.take(ready, j.Song)
	p.inputs, p.going = slices.Concat(o.Inputs, o.Held), going
	if going != nil {
		p.performance.player.GoOn(going)
	}
	for _, a := range waiting {
		if a.given == nil && a.At > p.run {
			p.Act(a.Action)
		}
	}
	p.missing = p.sent.Missing(p.performance.player.Standing(), nil)
	p.retempo()
	p.meters = p.meters.from(p.run, metersFrom(p.playing, p.run, j.Song))
	return released
}

// beginPiece returns what plays from where the piece began, of some tracks or of all, before anything was done in it.
func (p *Player) beginPiece(inputs []midi.Message, only []int) *Performance {
	song, project := p.base, p.began.On(p.written)
	if p.going == nil {
		return perform(project, song, play.Past{Inputs: inputs, Only: only})
	}
	first := slices.IndexFunc(inputs, func(m midi.Message) bool { return m.Tick >= song })
	if first < 0 {
		first = len(inputs)
	}
	performance := perform(project, song, play.Past{Inputs: inputs[:first], Only: only, Exactly: true})
	performance.player.GoOn(p.going)
	for _, m := range inputs[first:] {
		performance.player.Hear(m)
	}
	return performance
}

// goingOn returns how everything stands at the present tick that chance can move. That is known from the last checkpoint
// none of whose steps come later, or from where the piece began.
func (p *Player) goingOn() *play.Going {
	song := p.Song()
	for i := len(p.checkpoints) - 1; i >= 0; i-- {
		c := &p.checkpoints[i]
		if len(c.stale) == 0 && c.state.WalkedAll() <= song {
			return play.GoingAt(c.settled.On(p.written), c.state, p.playedActs(p.acts[c.pending:], c.settled), p.inputs[c.inputs:], song)
		}
	}
	begun := p.beginPiece(p.inputs, nil)
	return play.GoingAt(p.began.On(p.written), begun.player.Save(), p.playedActs(p.acts, p.began), nil, song)
}
