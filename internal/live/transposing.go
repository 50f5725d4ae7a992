package live

import (
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// transpose has a key that comes in transpose tracks: until it is released, or until the next one.
func (t *Transport) transpose(in Incoming, how *score.Transposing) {
	s := t.sourceOf(in.Source)
	if in.Message.Kind == midi.NoteOff {
		how = s.how // a key ends what it began, whatever the rule is by then
	}
	key := func(other uint8) bool { return other == in.Key }
	switch {
	case t.opening != nil || how == nil:
		return
	case in.Message.Kind == midi.NoteOn:
		s.how = how
		s.transposes = append(slices.DeleteFunc(s.transposes, key), in.Key)
		t.transposeBy(how, s.transposing())
	case in.Message.Kind == midi.NoteOff && slices.ContainsFunc(s.transposes, key):
		s.transposes = slices.DeleteFunc(s.transposes, key)
		if how.Latches {
			return
		}
		t.transposeBy(how, s.transposing())
	default:
		return
	}
	t.notifyStage()
}

// transposing returns the key that transposes: of those that are down the last, as for keys of one voice, or the lowest; nil without one.
func (s *source) transposing() *uint8 {
	switch {
	case len(s.transposes) == 0:
		return nil
	case s.how.Lowest:
		lowest := slices.Min(s.transposes)
		return &lowest
	}
	return &s.transposes[len(s.transposes)-1]
}

// transposeBack has nothing be transposed any more by keys of an input that were down.
func (t *Transport) transposeBack(s *source) {
	how := s.how
	if len(s.transposes) > 0 && !how.Latches && t.opening == nil {
		t.transposeBy(how, nil)
		t.notifyStage()
	}
}

// transposeBy transposes tracks by a key, or without one as they are written. A track that cannot be transposed as far is so as far as it can
// be by whole octaves less.
func (t *Transport) transposeBy(how *score.Transposing, key *uint8) {
	for _, id := range how.Tracks {
		c := stage.Control{Name: "semitones", Track: id}
		written, there := c.Written(t.project)
		if !there {
			continue
		}
		d := Doing{Control: c}
		if key != nil && int(*key) != how.Root {
			value := written + int(*key) - how.Root
			for c.CheckRange(value) != nil && value != 0 {
				value -= 12 * max(-1, min(1, value/12))
			}
			d.Value = &value
		}
		t.do(d, Now, 0, doneBack)
	}
}
