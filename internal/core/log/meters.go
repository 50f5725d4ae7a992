package log

import (
	"reflect"
	"slices"

	"jettyfog/internal/core/score"
)

// meterAt is a meter and the tick of run time from which it holds; a bar begins there.
type meterAt struct {
	run   score.Tick
	meter score.Meter
}

// barsOf returns the bars of run time.
func barsOf(meters []meterAt) score.Bars {
	bars := score.NewBars(meters[0].meter)
	for _, change := range meters[1:] {
		bars = bars.Change(change.run, change.meter)
	}
	return bars
}

// metersFrom returns the meters of a project from a tick of run time on, at which a bar begins that plays a tick of the song.
func metersFrom(p *score.Project, run, song score.Tick) []meterAt {
	bars := p.Bars()
	meters := []meterAt{{run, bars.Meter(bars.At(song))}}
	for tick, meter := range bars.Changes {
		if tick > song {
			meters = append(meters, meterAt{run + tick - song, meter})
		}
	}
	return meters
}

func metersBefore(meters []meterAt, run score.Tick) []meterAt {
	return slices.DeleteFunc(slices.Clone(meters), func(change meterAt) bool { return change.run >= run })
}

// remeter has the bars of another state of the project hold from its next bar line on, where they are others.
func (p *Player) remeter(before *score.Project) {
	if reflect.DeepEqual(before.Meter, p.written.Meter) && reflect.DeepEqual(before.MeterChanges, p.written.MeterChanges) {
		return
	}
	song := p.written.Bars().Ceil(p.Song())
	run := p.runOf(song)
	p.meters = append(metersBefore(p.meters, run), metersFrom(p.written, run, song)...)
}
