package log

import (
	"cmp"
	"slices"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// comingBars is how many bars ahead it is foreseen what the song gives.
const comingBars = 16

// coming returns acts that are to be done, in the order of their ticks, if nothing else is done: actions that wait, what the next
// sections give, and to which patterns tracks lead as far as that is decided.
func (p *Player) coming(waiting []Action) (acts []act) {
	for _, a := range waiting {
		if !a.Control.Steers() {
			acts = append(acts, act{Action: a, at: a.At + p.later()})
		}
	}
	bars := p.playing.Bars()
	last := bars.At(p.Song()) + comingBars
	for i, placed := range p.plannedWith(waiting) {
		if placed.Bar > last {
			break
		}
		if i < p.conductor.begun && placed.Bar == p.conductor.plan[i].Bar && placed.Section == p.conductor.plan[i].Section {
			continue
		}
		for _, a := range p.given(placed) {
			a.at = bars.Start(placed.Bar)
			acts = append(acts, a)
		}
	}
	for _, next := range p.Chains() {
		a := p.chainAct(next.Track, next.Pattern, !next.Silent)
		a.at = next.At
		acts = append(acts, a)
	}
	slices.SortStableFunc(acts, func(a, b act) int { return cmp.Compare(a.at, b.at) })
	ahead, number := score.Tick(0), p.number
	if len(acts) > 0 {
		ahead = aheadOf(p.playing, nil)
	}
	for i := range acts {
		number++
		acts[i].number, acts[i].issued = number, max(p.Song(), acts[i].at-ahead)
	}
	return acts
}

// plannedWith returns the plan as it is once the actions are done that wait.
func (p *Player) plannedWith(waiting []Action) Plan {
	plan, bars := p.conductor.plan, p.playing.Bars()
	for _, a := range waiting {
		if a.Value == nil {
			continue
		}
		switch bar := bars.At(bars.Ceil(a.At + p.later())); {
		case !a.Control.Steers():
		case a.Control.Name == stage.Section:
			plan = plan.with(p.written, *a.Value, bar)
		default:
			plan = plan.released(p.written, bar)
		}
	}
	return plan
}
