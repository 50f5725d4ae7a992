package live

import (
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// pieces relate run time, which counts from Play and never jumps, to the song's. Each lasts until the next begins.
type pieces []piece

// piece says which tick of the song plays at a tick of run time.
type piece struct{ run, song score.Tick }

// at returns the piece that plays at a tick of run time, and its place among them.
func (p pieces) at(run score.Tick) (piece, int) {
	for i := len(p) - 1; i > 0; i-- {
		if p[i].run <= run {
			return p[i], i
		}
	}
	return p[0], 0
}

// song returns the tick of the song that plays at a tick of run time.
func (p pieces) song(run score.Tick) score.Tick {
	now, _ := p.at(run)
	return run + now.later()
}

// later is how much later in the song a tick is than in run time.
func (p piece) later() score.Tick { return p.song - p.run }

// tempo returns the tempos that hold while the piece plays, in run time, of those of the song.
func (p piece) tempo(song play.TempoMap) play.TempoMap {
	var tempo play.TempoMap
	for _, change := range song.From(p.song) {
		change.Tick -= p.later()
		tempo = append(tempo, change)
	}
	return tempo
}
