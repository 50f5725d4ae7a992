package live

import (
	"time"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/output"
)

// toOutput returns a message with the time at which it is to be heard: the offset of its output counts.
func (t *Transport) toOutput(s route.Sent) output.Event {
	event := output.Event{Message: s.Message, Output: s.Output, At: t.timeOf(s.Tick)}
	if to := t.project.Output(s.Output); to != nil {
		event.At += int64(offsetOf(to))
	}
	return event
}

func (t *Transport) toOutputs(sent []route.Sent) []output.Event {
	events := make([]output.Event, len(sent))
	for i, s := range sent {
		events[i] = t.toOutput(s)
	}
	return events
}

func offsetOf(o *score.Output) time.Duration { return time.Duration(o.Offset) * time.Millisecond }

// earliest returns how much earlier than its time an output is sent anything at most.
func (t *Transport) earliest() (earlier time.Duration) {
	for i := range t.project.Outputs {
		earlier = max(earlier, -offsetOf(&t.project.Outputs[i]))
	}
	return earlier
}

// reroute has the routes of another state of the project count from what was not handed over yet on. Where a track does not go any
// more its notes end; an output to which it goes now is brought up to date.
func (t *Transport) reroute(project *score.Project) {
	if !t.playing {
		return
	}
	tick := t.player.Run()
	sent, begun := t.outlets.Change(project, tick, nil)
	if len(begun) > 0 {
		var standing midi.Settings
		standing.Note(t.standing.Standing(tick))
		for _, event := range t.waiting {
			standing.Set(event.Message)
		}
		lasting := t.player.Lasting(tick+t.project.Meter.Beat(), tick)
		for _, b := range begun {
			sent = t.outlets.Begin(b, standing.Standing(tick), lasting, sent)
		}
	}
	t.goOut(t.toOutputs(sent))
}

// leaveRoutes has the routes of the project that comes in count from a tick on. What sounds of the one before is released there.
func (t *Transport) leaveRoutes(tick score.Tick) {
	sent, _ := t.outlets.Change(t.project, tick, nil)
	t.goOut(t.toOutputs(sent))
}
