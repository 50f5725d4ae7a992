package live

import (
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/output"
)

// toOutputs returns messages with the times at which they go out.
func (t *Transport) toOutputs(sent []route.Sent) []output.Event {
	events := make([]output.Event, len(sent))
	for i, s := range sent {
		events[i] = t.spacing.event(s, t.timeOf(s.Tick)+t.spacing.offset(s.Output))
	}
	return t.spacing.part(events)
}

// ListenOutputs has the function called with the project that plays and its outputs whenever they can be others, and once at once. It
// must return quickly and must not call the transport.
func (t *Transport) ListenOutputs(listener func(document int64, outputs []score.Output)) {
	t.mu.Lock()
	defer t.mu.Unlock()
	t.outputs = append(t.outputs, listener)
	listener(t.document, t.project.Outputs)
}

// ListenInputs has the function called with the project that plays and its inputs, as ListenOutputs does with its outputs.
func (t *Transport) ListenInputs(listener func(document int64, inputs []score.Input)) {
	t.mu.Lock()
	defer t.mu.Unlock()
	t.inputs = append(t.inputs, listener)
	listener(t.document, t.project.Inputs)
}

// setOutputs has the settings of a project's outputs count, and tells of its inputs.
func (t *Transport) setOutputs(project *score.Project) {
	t.spacing.set(project)
	for _, listener := range t.outputs {
		listener(t.document, project.Outputs)
	}
	for _, listener := range t.inputs {
		listener(t.document, project.Inputs)
	}
}

// reroute has the routes of another state of the project count from what was not handed over yet on. Where a track does not go any
// more its notes end; an output to which it goes now is brought up to date.
func (t *Transport) reroute(project *score.Project) {
	if !t.playing {
		t.setOutputs(project)
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
			sent = t.outlets.Begin(b, tick, standing.Standing(tick), lasting, sent)
		}
	}
	t.goOut(t.toOutputs(sent))
}

// cutSilenced ends what sounds of tracks that were silenced and are to end at once.
func (t *Transport) cutSilenced() {
	if !t.playing || t.opening != nil {
		return
	}
	silent := map[uint32]bool{}
	now := t.stage.On(t.project)
	for i := range now.Tracks {
		track := &now.Tracks[i]
		id := uint32(track.ID)
		if silent[id] = now.SilentTrack(track); silent[id] && !t.silent[id] && track.MuteCuts {
			t.goOut(t.toOutputs(t.outlets.Cut(id, t.player.Run(), nil)))
		}
	}
	t.silent = silent
}

// changeRoutes has other routes count from a tick on, and ends what does not go by them there. It returns which have begun.
func (t *Transport) changeRoutes(project *score.Project, tick score.Tick) []route.Begun {
	sent, begun := t.outlets.Change(project, tick, nil)
	t.goOut(t.toOutputs(sent)) // as the outputs were
	t.setOutputs(project)
	return begun
}
