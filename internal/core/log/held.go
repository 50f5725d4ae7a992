package log

import (
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// heldKeys returns the keys that are down after some messages, as they were pressed, and the chord: all that were pressed since none was down.
func heldKeys(messages []midi.Message) (down, chord []midi.Message) {
	for _, m := range messages {
		same := func(other midi.Message) bool { return other.Channel == m.Channel && other.Key == m.Key }
		switch m.Kind {
		case midi.NoteOn:
			if len(down) == 0 {
				chord = nil
			}
			if !slices.ContainsFunc(down, same) {
				down = append(down, m)
			}
			if !slices.ContainsFunc(chord, same) {
				chord = append(chord, m)
			}
		case midi.NoteOff:
			down = slices.DeleteFunc(down, same)
		}
	}
	return down, chord
}

// heldOn returns the messages by which keys are held at a tick of the song as after some messages, where others came in before then: what is down by those is
// released, the chord is pressed, and what of it is up is released. A key that is pressed so has velocity 0, as it is held on and not struck again.
func heldOn(project *score.Project, before, now []midi.Message, at score.Tick) (messages []midi.Message) {
	if !slices.ContainsFunc(project.Tracks, func(t score.Track) bool { return t.Pitches.HearsKeys() }) {
		return nil
	}
	add := func(m midi.Message, kind midi.Kind) {
		m.Kind, m.Tick, m.Velocity = kind, at, 0
		messages = append(messages, m)
	}
	released, _ := heldKeys(before)
	for _, m := range released {
		add(m, midi.NoteOff)
	}
	down, chord := heldKeys(now)
	for _, m := range chord {
		add(m, midi.NoteOn)
	}
	for _, m := range chord {
		if !slices.Contains(down, m) {
			add(m, midi.NoteOff)
		}
	}
	return messages
}
