package log

import (
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// Outset is all that follows from what plays from a tick of the song on.
type Outset struct {
	// Project and the live changes of Stage play from From on as if they had always played.
	Project *score.Project
	Stage   stage.Stage
	From    score.Tick
	// Plan says which sections of the song play.
	Plan Plan
	// Inputs came in before; Held are the messages by which keys are held at From as they are now.
	Inputs, Held []midi.Message
	// GoesOn has chance go on from where it stood elsewhere. Then nothing of the song or of chains was before, but what stands.
	GoesOn bool
}

// Outset returns that of the log.
func (l *Log) Outset() Outset {
	o := Outset{Project: l.Project, Stage: l.Stage, From: l.From}
	if o.Plan = l.Plan; l.PlaysSong && len(l.Plan) == 0 {
		o.Plan = PlanOf(l.Project)
	}
	return o
}

// Outset returns that of a jump at a tick of run time, as everything is now.
func (p *Player) Outset(j Jump, run score.Tick) Outset {
	o := Outset{Project: j.Project, Stage: j.Staged(), From: j.Song}
	switch {
	case j.Project == nil:
		o = Outset{Project: p.written, Stage: p.StageAt(run), From: j.Song, Plan: p.conductor.plan, Inputs: p.Inputs(j.Song), GoesOn: j.GoesOn}
		o.Held = heldOn(p.written, o.Inputs, p.inputs, j.Song)
		if !j.GoesOn {
			o.Stage = o.Stage.Hand()
		}
	case j.PlaysSong:
		o.Plan = PlanOf(j.Project)
	}
	return o
}

// Equal reports whether the same plays from both on.
func (o Outset) Equal(other Outset) bool {
	return o.Project == other.Project && o.Stage.Equal(other.Stage) && o.From == other.From && slices.Equal(o.Plan, other.Plan) &&
		len(o.Inputs) == len(other.Inputs) && slices.Equal(o.Held, other.Held) && o.GoesOn == other.GoesOn
}

// Bars returns the bars of the song as it is planned.
func (o Outset) Bars() score.Bars {
	s := o.Stage
	for _, next := range o.Plan {
		if section := o.Project.Section(next.Section); section != nil && section.Meter != nil {
			s = s.Under(stage.Control{Name: "meter", Bar: int(next.Bar)}, section.ID, false)
		}
	}
	return s.On(o.Project).Bars()
}

// Beginning is what plays from a tick of the song on. It can be used once.
type Beginning struct{ player *Player }

// Begin returns what plays from there. Where it does not follow from the time it is played through in silence, which can take
// long; where there is a song, or a chain, all before is.
func (o Outset) Begin() *Beginning {
	p := &Player{written: o.Project, conductor: conductor{plan: o.Plan}}
	s := o.Stage
	if p.base = o.From; !o.GoesOn && (len(o.Plan) > 0 || s.On(o.Project).Chained()) {
		p.base = 0
	}
	for ; p.conductor.begun < len(o.Plan); p.conductor.begun++ {
		next := o.Plan[p.conductor.begun]
		if s.On(o.Project).Bars().Start(next.Bar) > p.base {
			break
		}
		for _, a := range p.given(next) {
			s = a.on(s)
		}
	}
	p.stage, p.began, p.settled, p.playing = s, s, s, s.On(o.Project)
	p.pieces = Pieces{{Song: p.base}}
	p.tempo, p.meters = shifted(p.playing, 0, p.base), metersFrom(p.playing, 0, p.base)
	p.performance = perform(p.playing, p.base, play.Past{Inputs: slices.Concat(o.Inputs, o.Held), Exactly: o.GoesOn})
	p.skipTo(o.From)
	return &Beginning{p}
}

// skipTo goes on to a tick of the song in silence.
func (p *Player) skipTo(song score.Tick) {
	const atOnce = 64 * score.TicksPerQuarter // so that what is skipped takes no memory
	for p.Song() < song {
		due := p.due()
		if due <= p.Song() {
			p.conduct()
			continue
		}
		until := min(song, due, p.Song()+atOnce)
		p.performance.skip(until)
		p.run = p.runOf(until)
		p.update()
	}
}

// take has a player play what begins, in a piece of its own.
func (p *Player) take(b *Beginning, song score.Tick) {
	from := b.player
	given, began := p.conductor.given, p.conductor.began
	p.written, p.performance, p.conductor = from.written, from.performance, from.conductor
	p.base, p.began, p.settled, p.stage, p.playing = from.base, from.began, from.settled, from.stage, from.playing
	p.acts, p.pending, p.number = from.acts, from.pending, from.number
	p.pieces = append(p.pieces, Piece{Run: p.run, Song: song})
	p.conductor.given, p.conductor.began = given+1, began
	if playing, index := p.conductor.plan.At(p.playing.Bars().At(song)); index >= 0 {
		p.mark(playing.Section, p.run)
	}
	p.checkpoints, p.played = nil, playedSoFar{}
}
