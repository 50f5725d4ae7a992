package live

import (
	"time"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/output"
)

// toOutput returns a message with the time at which it is to be heard, which is by so many milliseconds later.
func (t *Transport) toOutput(s route.Sent, offset int) output.Event {
	return output.Event{Message: s.Message, Output: s.Output, At: t.timeOf(s.Tick) + int64(offset)*int64(time.Millisecond)}
}

// toOutputs returns messages with the times at which they are to be heard: the offsets of outputs count.
func (t *Transport) toOutputs(sent []route.Sent, offsets map[int]int) []output.Event {
	events := make([]output.Event, len(sent))
	for i, s := range sent {
		events[i] = t.toOutput(s, offsets[s.Output])
	}
	return events
}

// earliest returns how much earlier than its time an output is sent anything at most.
func (t *Transport) earliest() (earlier time.Duration) {
	for _, output := range t.project.Outputs {
		earlier = max(earlier, -time.Duration(output.Offset)*time.Millisecond)
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
	begun := t.changeRoutes(project, tick)
	var sent []route.Sent
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
	t.goOut(t.toOutputs(sent, t.outlets.Offsets()))
}

// changeRoutes has other routes count from a tick on, and ends what does not go by them there. It returns which have begun.
func (t *Transport) changeRoutes(project *score.Project, tick score.Tick) []route.Begun {
	before := t.outlets.Offsets()
	sent, begun := t.outlets.Change(project, tick, nil)
	t.goOut(t.toOutputs(sent, before))
	return begun
}
