package live

import (
	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/output"
)

// passedNumber is from where on notes that are passed on are numbered, so that none is one that its track plays.
const passedNumber = 1 << 15

// sustain is the pedal that holds notes (MIDI 1.0, table III).
const sustain = 64

// passOn has notes that come in go on at once to the outputs of tracks, by the tracks' routes, and be recorded as theirs.
func (t *Transport) passOn(in Incoming, rule score.Input) {
	if len(rule.PassesTo) == 0 {
		return
	}
	s, key := t.sourceOf(in.Source), route.HeldKey{Channel: in.Channel, Key: in.Key}
	switch {
	case in.Message.Kind == midi.NoteOn:
		for _, ends := range s.holding.On(key, rule.Holds) {
			t.endPassed(s, ends)
		}
		for _, to := range rule.PassesTo {
			if track := t.project.Track(to.Track); track != nil && (to.Channel == 0 || to.Channel == int(in.Channel)+1) {
				t.passed++
				id := midi.NoteID{Track: uint32(track.ID), Channel: uint8(track.Channel - 1), Key: in.Key, Number: passedNumber + t.passed%passedNumber}
				s.passed[key] = append(s.passed[key], id)
				t.pass(id.On(0, in.Velocity, 0))
			}
		}
	case in.Message.Kind == midi.NoteOff:
		if s.holding.Off(key, rule.Holds) {
			t.endPassed(s, key)
		}
	case in.Message.Kind == midi.ControlChange && in.Key == sustain:
		for _, ends := range s.holding.Pedal(in.Channel, in.Value >= up, rule.Holds) {
			t.endPassed(s, ends)
		}
	}
}

// endPassed ends the notes of a key.
func (t *Transport) endPassed(s *source, key route.HeldKey) {
	for _, id := range s.passed[key] {
		t.pass(id.Off(0))
	}
	delete(s.passed, key)
}

// pass has a message go out now, and into the log, the take and the wake while something plays.
func (t *Transport) pass(m midi.Message) {
	now := t.Now()
	if t.playing && now >= t.started {
		t.playOut(now)
		m.Tick = min(t.tickAt(now), t.player.Run())
		if _, sounds := t.sounding.Of(m.NoteID()); m.Kind == midi.NoteOff && !sounds {
			return // it has ended with a stop in between
		}
		t.note(log.Entry{Passed: &m})
		t.waiting = append([]output.Event{{Message: m, At: now}}, t.waiting...)
		defer t.playOut(now)
	}
	outlets := t.outlets
	if outlets == nil {
		if t.idle == nil || t.idleOf != t.project {
			t.idle, t.idleOf = route.NewOutlets(t.project), t.project
		}
		outlets = t.idle
	}
	var events []output.Event
	for _, sent := range outlets.Play([]midi.Message{m}, nil) {
		events = append(events, t.spacing.event(sent, now))
	}
	t.goOut(events)
	t.feedPorts(now)
}
