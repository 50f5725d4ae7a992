package cv

import (
	"cmp"
	"errors"
	"slices"

	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
)

// Voltages are what the channels of an output do while a take plays.
type Voltages struct {
	// Channels are in the order of their numbers.
	Channels []*Channel
	// From is when they begin, in nanoseconds from the take's beginning: before it by as long as a reset leads the first pulse. End is
	// that of the take.
	From, End int64
	// FullScale is the voltage of a sample of 1.
	FullScale float64
}

// ErrNoProject is returned for a take of which nobody knows where its tracks went.
var ErrNoProject = errors.New("the take knows no project, and so not which of its tracks drive voltages")

// Of returns the voltages of a take at an output of voltages. The error is ErrNoProject.
func Of(t *take.Take, output score.Output) (*Voltages, error) {
	if t.Project == nil {
		return nil, ErrNoProject
	}
	v := &Voltages{End: t.Tempo.Nanos(t.End), FullScale: volts(output.Voltages.FullScale)}
	for _, c := range output.Voltages.Channels {
		if c.Signal == score.ResetSignal {
			v.From = min(v.From, -int64(c.Lead)*tenth)
		}
	}
	engine := NewEngine(output.Voltages, v.From)
	engine.SetTracks(t.Project, output.Voltages)
	engine.Play(eventsOf(t, output))
	v.Channels = engine.Channels
	return v, nil
}

// eventsOf returns what happens at an output while a take plays, in order.
func eventsOf(t *take.Take, output score.Output) []Event {
	events := []Event{{Kind: Start}}
	for _, c := range output.Voltages.Channels {
		switch c.Signal {
		case score.ResetSignal:
			events = append(events, resets(t, c)...)
		case score.ClockSignal:
			Pulses(c, t.Project, barOf(t), 0, t.End, t.Tempo.Nanos, func(pulse Event) { events = append(events, pulse) })
		}
	}
	for _, m := range route.NewOutlets(t.Project).Play(t.Messages, nil) {
		if at := t.Tempo.Nanos(m.Tick); m.Output == output.ID && m.Tick < t.End {
			events = append(events, Event{At: at, Message: m.Message, Next: t.Tempo.Nanos(m.Tick+score.TicksPerQuarter/24) - at})
		}
	}
	slices.SortStableFunc(events, func(a, b Event) int { return cmp.Compare(a.At, b.At) })
	return append(events, Event{Kind: Stop, At: t.Tempo.Nanos(t.End)})
}

// barOf returns the bars of a take.
func barOf(t *take.Take) Bar {
	bars := t.Bars()
	return func(tick score.Tick) (begins, ends score.Tick) {
		bar := bars.At(tick)
		return bars.Start(bar), bars.Start(bar + 1)
	}
}

// resets returns to where resets lead: to the beginning, and to each bar in which their track is realigned.
func resets(t *take.Take, c score.VoltageChannel) []Event {
	events := []Event{{Kind: Reset, Channel: c.Channel}}
	track := t.Project.Track(c.Track)
	if track == nil || track.Realign == 0 {
		return events
	}
	bars := t.Bars()
	for bar := int64(track.Realign); bars.Start(bar) < t.End; bar += int64(track.Realign) {
		events = append(events, Event{At: t.Tempo.Nanos(bars.Start(bar)), Kind: Reset, Channel: c.Channel})
	}
	return events
}
