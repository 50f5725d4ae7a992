package cv

import "jettyfog/internal/core/score"

// Bar returns where the bar begins and ends in which a tick is.
type Bar func(tick score.Tick) (begins, ends score.Tick)

// Pulses gives the pulses of a clock that come in [from, until), in ticks, where when says at which moment a tick is. They are evenly apart,
// or follow the swing of the project.
func Pulses(c score.VoltageChannel, p *score.Project, bar Bar, from, until score.Tick, when func(score.Tick) int64, give func(Event)) {
	at := func(n score.Tick) score.Tick {
		tick := n * score.TicksPerQuarter / score.Tick(c.Pulses)
		if c.Swung {
			tick = swung(tick, p, bar)
		}
		return tick
	}
	const pair = 2 * score.TicksPerQuarter // longer than any two steps of a swing grid
	for n := max(0, (from-pair)*score.Tick(c.Pulses)/score.TicksPerQuarter); at(n) < until; n++ {
		if at(n) >= from {
			give(Event{At: when(at(n)), Kind: Pulse, Channel: c.Channel, Next: when(at(n+1)) - when(at(n))})
		}
	}
}

// swung returns where a tick is heard by the swing of a project: of each pair of steps of its grid the first takes as much as the swing says, and
// what is between goes with them. Pairs are counted from the bar line; what is left of a bar after the last of them is straight.
func swung(tick score.Tick, p *score.Project, bar Bar) score.Tick {
	grid := p.SwingGrid.Ticks()
	begins, ends := bar(tick)
	within := (tick - begins) % (2 * grid)
	pair := tick - within
	if pair+2*grid > ends {
		return tick
	}
	first := 2 * grid * score.Tick(p.Swing) / 1000
	if within <= grid {
		return pair + within*first/grid
	}
	return pair + first + (within-grid)*(2*grid-first)/grid
}
