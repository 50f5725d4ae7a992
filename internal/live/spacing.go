package live

import (
	"slices"
	"time"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/output"
)

// spacing gives what goes to outputs its times, as the settings of each have it: later or earlier by its offset, keys up for a while
// before they are struck again, and no more values of a controller than there may be. The zero value knows no outputs.
type spacing struct {
	outputs map[int]score.Output
	mono    map[uint32]bool // which tracks have one voice
	struck  map[place]int64 // when each key of an output with a gap was struck last
	passed  map[place]int64 // when a value of each controller went out last
	held    []output.Event  // values that are to go out later
}

// place is a key of an output, or a controller of one.
type place struct {
	output       int
	kind         midi.Kind
	channel, key uint8
}

func placeOf(e output.Event) place { return place{e.Output, e.Kind, e.Channel, e.Key} }

// set has the settings of a project's outputs count.
func (s *spacing) set(p *score.Project) {
	s.outputs, s.mono = map[int]score.Output{}, map[uint32]bool{}
	for _, o := range p.Outputs {
		s.outputs[o.ID] = o
	}
	for i := range p.Tracks {
		s.mono[uint32(p.Tracks[i].ID)] = p.Tracks[i].Voices == 1
	}
	if s.struck == nil {
		s.struck, s.passed = map[place]int64{}, map[place]int64{}
	}
}

// offset returns how much later than its time an output is sent everything, in nanoseconds.
func (s *spacing) offset(id int) int64 { return int64(s.outputs[id].Offset) * int64(time.Millisecond) }

// earliest returns how much earlier than its time an output is sent anything at most.
func (s *spacing) earliest() (earlier time.Duration) {
	for _, o := range s.outputs {
		earlier = max(earlier, time.Duration(o.Gap-o.Offset)*time.Millisecond)
		if o.Clock != nil {
			earlier = max(earlier, time.Duration(-o.Clock.Offset)*time.Millisecond)
		}
	}
	return earlier
}

// event returns a message as it goes to an output at a time.
func (s *spacing) event(m route.Sent, at int64) output.Event {
	return output.Event{Message: m.Message, Output: m.Output, At: at, VelocityZero: s.outputs[m.Output].VelocityZero}
}

// part has keys go up earlier where they are struck again at once, or where another note of a track of one voice is, if the output
// asks for a gap: by that, or half of what the note lasts.
func (s *spacing) part(events []output.Event) []output.Event {
	parted := false
	for i := range events {
		e := &events[i]
		gap := int64(s.outputs[e.Output].Gap) * int64(time.Millisecond)
		if gap == 0 {
			continue
		}
		switch e.Kind {
		case midi.NoteOff:
			next := slices.ContainsFunc(events, func(on output.Event) bool {
				return on.Kind == midi.NoteOn && on.Output == e.Output && on.At == e.At && on.Channel == e.Channel &&
					(on.Key == e.Key || on.Track == e.Track && s.mono[e.Track])
			})
			if began, known := s.struck[noteOn(*e)]; next && known {
				e.At -= min(gap, (e.At-began)/2)
				parted = true
			}
		case midi.NoteOn:
			s.struck[placeOf(*e)] = e.At
		}
	}
	if parted {
		slices.SortStableFunc(events, byTime)
	}
	return events
}

// noteOn returns the place of a note-off's note-on.
func noteOn(e output.Event) place {
	e.Kind = midi.NoteOn
	return placeOf(e)
}

// thin holds back values that come too soon after others of their controller, or lets them take the place of one that is held back.
// It returns the others, with those that are due before a moment.
func (s *spacing) thin(events []output.Event, before int64) []output.Event {
	kept := make([]output.Event, 0, len(events))
	for _, e := range events {
		rate := int64(s.outputs[e.Output].ControllerRate)
		if rate == 0 || !e.Moves() {
			kept = append(kept, e)
			continue
		}
		at := placeOf(e)
		passed, known := s.passed[at]
		soonest := passed + int64(time.Second)/rate
		if i := slices.IndexFunc(s.held, func(h output.Event) bool { return placeOf(h) == at }); i >= 0 && e.At < s.held[i].At {
			s.held[i].Message = e.Message
		} else if known && e.At < soonest {
			e.At = soonest
			s.held, s.passed[at] = append(s.held, e), soonest
		} else {
			kept, s.passed[at] = append(kept, e), e.At
		}
	}
	s.held = slices.DeleteFunc(s.held, func(h output.Event) bool {
		if h.At < before {
			kept = append(kept, h)
		}
		return h.At < before
	})
	slices.SortStableFunc(kept, byTime)
	return kept
}
