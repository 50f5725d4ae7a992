package cv

import (
	"maps"
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// Kind is what an event is.
type Kind uint8

// The kinds.
const (
	Told  Kind = iota // a message of a track
	Pulse             // a pulse of a clock
	Reset             // where a reset leads to
	Start             // playing begins
	Stop              // playing ends: all is at rest
)

// Event is what happens at an output of voltages at a moment, in nanoseconds.
type Event struct {
	At   int64
	Kind Kind
	// Message is what was told; its tick does not count.
	Message midi.Message
	// Channel is the number of the channel that pulses or resets.
	Channel int
	// Next is how long it takes to the next pulse, or, of a message, a 24th of a quarter note, in nanoseconds.
	Next int64
}

// Reach is how long before an event it can change what channels do: the longest lead.
const Reach = 100 * tenth

// Engine turns events into what the channels of an output do. It looks not ahead: an event changes lines from its moment on, or from as
// long before as Reach at most. Its Clone goes on apart from it.
type Engine struct {
	// Channels are in the order of their numbers.
	Channels []*Channel

	sources map[int]source // by the ids of tracks
	voices  map[int]*voices
	sliding map[int]bool
}

// NewEngine returns the engine of an output of voltages, whose channels are at rest from a moment on. It hears no track before SetTracks.
func NewEngine(setup *score.VoltageSetup, from int64) *Engine {
	e := &Engine{sources: map[int]source{}, voices: map[int]*voices{}, sliding: map[int]bool{}}
	for _, c := range setup.Channels {
		e.Channels = append(e.Channels, begin(c, from))
	}
	slices.SortFunc(e.Channels, func(a, b *Channel) int { return a.Channel - b.Channel })
	return e
}

// SetTracks has the engine hear the tracks of a project as they are there; those that it heard go on where they are.
func (e *Engine) SetTracks(p *score.Project, setup *score.VoltageSetup) {
	e.sources = map[int]source{} // which clones share
	for i := range p.Tracks {
		id := p.Tracks[i].ID
		e.sources[id] = sourceOf(p, &p.Tracks[i])
		if e.voices[id] == nil {
			e.voices[id] = newVoices(setup.Voices(id), setup.LowestFree)
		}
	}
}

// Clone returns an engine that stands where this one stands.
func (e *Engine) Clone() *Engine {
	clone := &Engine{sources: e.sources, voices: map[int]*voices{}, sliding: maps.Clone(e.sliding)}
	for id, v := range e.voices {
		clone.voices[id] = v.clone()
	}
	for _, c := range e.Channels {
		clone.Channels = append(clone.Channels, c.clone())
	}
	return clone
}

// Forget leaves out what channels did before a moment.
func (e *Engine) Forget(before int64) {
	for _, c := range e.Channels {
		c.Line.forget(before)
	}
}

// Play has events happen, in order; all those of one moment come in one call.
func (e *Engine) Play(events []Event) {
	for len(events) > 0 {
		together := 1
		for together < len(events) && events[together].At == events[0].At {
			together++
		}
		e.moment(events[:together])
		events = events[together:]
	}
}

// moment has happen what happens at one moment.
func (e *Engine) moment(events []Event) {
	ends, begins := map[int][]midi.NoteID{}, map[int][]note{}
	for _, event := range events {
		m := event.Message
		track := int(m.Track)
		switch {
		case event.Kind != Told:
			e.time(event)
		case e.voices[track] == nil: // a track that is gone
		case m.Kind == midi.NoteOff:
			ends[track] = append(ends[track], m.NoteID())
		case m.Kind == midi.NoteOn:
			n := note{m.NoteID(), event.At, float64(m.Key) + float64(m.Detune)/float64(theory.Semitone), m.Key, int(m.Velocity), e.sliding[track]}
			begins[track] = append(begins[track], n)
			e.strike(track, n)
		default:
			if m.Kind == midi.ControlChange && m.Key == midi.PortamentoSwitch {
				e.sliding[track] = m.Value >= 64
			}
			e.turn(track, m, event)
		}
	}
	at := events[0].At
	for id, v := range e.voices {
		if len(ends[id]) > 0 || len(begins[id]) > 0 {
			e.sound(id, v.play(ends[id], begins[id], at), at)
		}
	}
}

// sound has channels do what the voices of a track came to at a moment, after what they did before.
func (e *Engine) sound(track int, before []span, at int64) {
	for _, c := range e.Channels {
		voice := c.Voice - 1
		if c.Track != track || voice < 0 || voice >= len(before) {
			continue
		}
		switch now := e.voices[track].spans[voice]; {
		case now.sounds() && now.from == at:
			c.sounds(before[voice], now)
		case before[voice].sounds() && !now.sounds():
			c.ends(at)
		}
	}
}

// strike has triggers do what a note of a track strikes.
func (e *Engine) strike(track int, n note) {
	for _, c := range e.Channels {
		if c.Signal == score.TriggerSignal && c.Track == track && e.sources[track].strikes(c.Part, n.key) {
			c.pulse(n.at, n.velocity)
		}
	}
}

// turn has mods go where a message of a track says.
func (e *Engine) turn(track int, m midi.Message, event Event) {
	mods := e.sources[track].mods
	for _, c := range e.Channels {
		if c.Signal != score.ModSignal || c.Track != track {
			continue
		}
		if share, is := shareOf(m, mods[c.Mod-1]); is {
			c.mod(turn{event.At, event.Next, share})
		}
	}
}

// time has the channels do what comes of time itself.
func (e *Engine) time(event Event) {
	for _, c := range e.Channels {
		mine := c.Channel == event.Channel
		switch {
		case event.Kind == Stop:
			c.stop(event.At)
		case event.Kind == Start && c.Signal == score.RunSignal:
			c.to(event.At, level(c.VoltageChannel, true, 127))
		case event.Kind == Pulse && mine && c.Signal == score.ClockSignal:
			c.tick(event.At, event.Next)
		case event.Kind == Reset && mine && c.Signal == score.ResetSignal:
			c.pulse(event.At-int64(c.Lead)*tenth, 127)
		}
	}
	if event.Kind == Stop {
		for id, v := range e.voices {
			e.voices[id] = newVoices(len(v.spans), v.lowestFree)
		}
		clear(e.sliding)
	}
}
