package log

import (
	"reflect"
	"slices"

	"jettyfog/internal/core/score"
)

// meters are those of run time; a bar begins at each.
type meters []score.MeterFrom

// from returns meters until a tick of run time, and others from there on, the first of which is left out if it holds there
// already and a bar begins: a short loop would leave thousands of them.
func (m meters) from(run score.Tick, next meters) meters {
	before := metersBefore(m, run)
	if len(before) > 0 {
		bars := score.BarsOf(before)
		if bar := bars.At(run); bars.Start(bar) == run && reflect.DeepEqual(bars.Meter(bar), next[0].Meter) {
			next = next[1:]
		}
	}
	return append(before, next...)
}

// metersFrom returns the meters of a project from a tick of run time on, at which a bar begins that plays a tick of the song.
func metersFrom(p *score.Project, run, song score.Tick) meters {
	bars := p.Bars()
	from := meters{{Tick: run, Meter: bars.Meter(bars.At(song))}}
	for tick, meter := range bars.Changes {
		if tick > song {
			from = append(from, score.MeterFrom{Tick: run + tick - song, Meter: meter})
		}
	}
	return from
}

func metersBefore(m meters, run score.Tick) meters {
	return slices.DeleteFunc(slices.Clone(m), func(change score.MeterFrom) bool { return change.Tick >= run })
}

// remeter has the bars of another state of what plays hold from its next bar line on, where they are others.
func (p *Player) remeter(before, after *score.Project) {
	if reflect.DeepEqual(before.Meter, after.Meter) && reflect.DeepEqual(before.MeterChanges, after.MeterChanges) {
		return
	}
	song := after.Bars().Ceil(p.Song())
	run := p.runOf(song)
	p.meters = p.meters.from(run, metersFrom(after, run, song))
}
