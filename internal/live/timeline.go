package live

import (
	"jettyfog/internal/core/score"
	"jettyfog/internal/output"
)

// tellTime tells ports that have to do with time how it goes on as far as it was computed.
func (t *Transport) tellTime() {
	t.tellClocks()
	for port := range t.ports {
		if timed, is := port.(output.Timed); is {
			timed.Time(output.Timeline{
				Project: t.project, Started: t.started, Tempo: t.player.Timing(), Until: t.player.Run(), Bar: t.barOf, Beats: t.beats,
			})
		}
	}
}

// barOf returns where the bar of the song begins and ends in which a tick of run time is, in run time, as if the song went on from there.
func (t *Transport) barOf(tick score.Tick) (begins, ends score.Tick) {
	piece, _ := t.player.Pieces().At(tick)
	bars := t.bars()
	bar := bars.At(tick + piece.Later())
	return bars.Start(bar) - piece.Later(), bars.Start(bar+1) - piece.Later()
}

// beats returns the beats of the song in [from, until) of run time.
func (t *Transport) beats(from, until score.Tick) (beats []output.Beat) {
	pieces, bars := t.player.Pieces(), t.bars()
	for from < until {
		piece, at := pieces.At(from)
		end := until
		if at+1 < len(pieces) {
			end = min(end, pieces[at+1].Run)
		}
		for bar := bars.At(from + piece.Later()); bars.Start(bar)-piece.Later() < end; bar++ {
			for beat := range bars.Meter(bar).Beats {
				if tick := bars.Start(bar) - piece.Later() + score.Tick(beat)*bars.Meter(bar).Beat(); tick >= from && tick < end {
					beats = append(beats, output.Beat{Tick: tick, Bar: bar, Beat: beat})
				}
			}
		}
		from = end
	}
	return beats
}
