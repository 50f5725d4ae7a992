package log

import (
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// Pieces relate run time, which counts from the beginning and never jumps, to the song's. Each lasts until the next begins.
type Pieces []Piece

// Piece says which tick of the song plays at a tick of run time.
type Piece struct{ Run, Song score.Tick }

// At returns the piece that plays at a tick of run time, and its index.
func (p Pieces) At(run score.Tick) (Piece, int) {
	for i := len(p) - 1; i > 0; i-- {
		if p[i].Run <= run {
			return p[i], i
		}
	}
	return p[0], 0
}

// Song returns the tick of the song that plays at a tick of run time.
func (p Pieces) Song(run score.Tick) score.Tick {
	now, _ := p.At(run)
	return run + now.Later()
}

// Later is how much later in the song a tick is than in run time.
func (p Piece) Later() score.Tick { return p.Song - p.Run }

// retempo has the tempos hold from here on as what plays has them, and from the ticks on that actions name; or the one that is followed.
func (p *Player) retempo() {
	next := shifted(p.StageAt(p.run).On(p.written), p.run, p.later())
	for _, a := range p.acts[p.pending:] {
		if at := p.runOf(a.at); at > p.run && a.tracks(p.written) == nil {
			next = until(next, at, shifted(p.At(at), at, p.later()))
		}
	}
	if p.followed > 0 {
		next = play.TempoMap{{Tick: p.run, Tempo: p.followed}}
	}
	p.tempo = until(p.tempo, p.run, next)
	p.timing = p.timing.Changed(p.tempo)
}

// until returns tempos until a tick, and others from there on.
func until(before play.TempoMap, at score.Tick, after play.TempoMap) play.TempoMap {
	if at == 0 {
		return after
	}
	before = before.Until(at)
	if before[len(before)-1].Tempo == after[0].Tempo {
		after = after[1:]
	}
	return append(before, after...)
}

// shifted returns the tempos of a project from a tick of run time on, which is so much earlier than the song's.
func shifted(p *score.Project, from, later score.Tick) (tempo play.TempoMap) {
	for _, change := range play.TempoMapOf(p).From(from + later) {
		change.Tick -= later
		tempo = append(tempo, change)
	}
	return tempo
}
