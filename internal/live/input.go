package live

import (
	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
)

// Source is where something comes in.
type Source struct {
	Kind score.InputKind
	// ID is that of the input, of ports and devices; one that the project does not list is played in and presses switches.
	ID int
}

// Incoming is a message that came in.
type Incoming struct {
	Source
	midi.Message
	// At is when it came, in nanoseconds of the transport's clock.
	At int64
}

// rule returns what becomes of what comes in somewhere.
func (t *Transport) rule(from Source) score.Input {
	if from.Kind == score.ScreenInput || from.Kind == score.ProgramInput {
		return t.project.InputOf(from.Kind)
	}
	if input := t.project.Input(from.ID); input != nil && input.Kind == from.Kind {
		return *input
	}
	return score.Input{Kind: from.Kind, PlaysIn: true, Switches: true}
}

// source is what is kept of one input.
type source struct {
	holding    route.Holding
	held       held
	passed     map[route.HeldKey][]midi.NoteID // that sound
	transposes []uint8                         // keys that are down and transpose, the last one last
	how        *score.Transposing              // as the last of them does
}

func (t *Transport) sourceOf(from Source) *source {
	if t.sources[from] == nil {
		if t.sources == nil {
			t.sources = map[Source]*source{}
		}
		t.sources[from] = &source{passed: map[route.HeldKey][]midi.NoteID{}}
	}
	return t.sources[from]
}

// Hear takes a message that has come in: a clock leads, switches are pressed, tracks are transposed, notes are passed on, and tracks hear it
// while they play, by what the project says of its input. The errors are those of Do, and score.ErrUnknownScene.
func (t *Transport) Hear(in Incoming) error {
	t.mu.Lock()
	rule, clock := t.rule(in.Source), t.project.ClockIn
	leads := clock.Input != 0 && clock.Input == rule.ID
	var pressed []pressed
	switch {
	case in.Message.Kind >= midi.Clock:
		if leads && clock.Pulses() == 24 {
			t.hearClock(in.Message, in.At)
		}
		t.noticeOther(in, rule, clock)
	case t.isEcho(in):
	case leads && t.isPulse(in.Message):
		t.hearPulse(in.At)
		t.noticeClock()
	case rule.Channel == 0 || rule.Channel == int(in.Channel)+1:
		t.transpose(in, rule.Transposes)
		if rule.Switches {
			pressed = t.switched(in)
			t.turnBy(in)
		}
		t.playIn(in, rule.PlaysIn)
		t.passOn(in, rule, true)
	default: // what began on another channel before the rule was changed
		t.transpose(in, nil)
		t.playIn(in, false)
		t.passOn(in, rule, false)
	}
	t.mu.Unlock()
	if in.Message.Kind < midi.Clock && (in.Source.Kind == score.DeviceInput || in.Source.Kind == score.ProgramInput) {
		t.options.Heard(in)
	}
	return t.pressAll(pressed)
}

// Gone says that an input is gone: whatever it left down is up.
func (t *Transport) Gone(from Source) {
	t.mu.Lock()
	s := t.sources[from]
	if s != nil {
		t.letGo(s)
		for _, key := range s.holding.Release() {
			t.endPassed(s, key)
		}
		t.transposeBack(s)
		delete(t.sources, from)
	}
	pressed := t.releaseButtons(from)
	t.forgetFaders(from)
	t.mu.Unlock()
	_ = t.pressAll(pressed) // what is released does nothing that can fail
}

// hear lets the tracks hear a channel message that comes in now.
func (t *Transport) hear(m midi.Message) {
	m.Tick = t.player.Pieces().Song(max(t.player.Run(), t.tickAt(t.Now())))
	at, counts := t.player.Hear(m)
	if m.Tick = at; counts {
		t.note(log.Entry{Input: &m})
		if m.Tick < t.loop.From || m.Kind == midi.NoteOn || m.Kind == midi.NoteOff { // it is held beyond the seam
			t.prepare()
		}
	}
}
