package play

import "jettyfog/internal/core/score"

// sounding returns how long a note sounds that has the given room, in a step of the given duration; only
// the last one of a step can last longer than its room.
func (w *walker) sounding(length int, duration score.Tick, room exact, last bool) exact {
	of, percent := room, int64(length)
	if length > score.WholeStep {
		of, percent = exactly(duration).over(room.den), int64(length-score.WholeStep+1)*100
	}
	if w.unit > 0 {
		of = exactly(w.unit).over(room.den)
	}
	share := percent * int64(w.length.Lane().Amount)
	if w.sound != nil {
		share = share * int64(w.traveller().Length) / 100
	}
	if share == 100_00 && last {
		return of
	}
	sounding := of.times(share, 100_00)
	if room = room.over(sounding.den); !last && room.less(sounding) {
		return room
	}
	return sounding
}
