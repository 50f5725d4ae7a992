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

// passOn has notes that come in go on at once to the outputs of tracks, by the tracks' routes, and be recorded as theirs. What has begun ends,
// whatever the rule is by then.
func (t *Transport) passOn(in Incoming, rule score.Input, begins bool) {
	if t.sources[in.Source] == nil && len(rule.PassesTo) == 0 {
		return
	}
	s, key := t.sourceOf(in.Source), route.HeldKey{Channel: in.Channel, Key: in.Key}
	switch {
	case in.Message.Kind == midi.NoteOn && (!begins || len(rule.PassesTo) == 0):
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
		if _, sounds := t.sounding.Of(m.NoteID()); m.Kind == midi.NoteOn || sounds { // else it began before, and is not of this stretch
			t.note(log.Entry{Passed: &m})
			t.waiting = append([]output.Event{{Message: m, At: now}}, t.waiting...)
			defer t.playOut(now)
		}
	}
	var sent []route.Sent
	switch {
	case t.idle == nil:
		t.idle = route.NewOutlets(t.project)
	case t.idleOf != t.project:
		sent, _ = t.idle.Change(t.project, 0, nil)
	}
	t.idleOf = t.project
	for _, outlets := range []*route.Outlets{t.outlets, t.idle} {
		begins := outlets == t.idle == (t.outlets == nil)
		if outlets != nil && (begins || m.Kind == midi.NoteOff) { // which ends where it began, before playing or since
			sent = outlets.Play([]midi.Message{m}, sent)
		}
	}
	var events []output.Event
	for _, one := range sent {
		events = append(events, t.spacing.event(one, now))
	}
	t.goOut(events)
	t.feedPorts(now)
}
