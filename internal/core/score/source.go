package score

import (
	"fmt"
	"strings"

	"jettyfog/internal/core/theory"
)

// Source is what makes a track's gate lanes go on.
type Source struct {
	// Kind is what the source is; OwnClock needs no more.
	Kind SourceKind `json:"kind" jsonschema:"enum=own,enum=starts,enum=ends,enum=rules,enum=input notes,enum=input control,enum=modulator"`
	// Track is the id of the track whose notes are the clock.
	Track int `json:"track"`
	// Channel is the channel of incoming messages, 1 to 16; 0 hears all.
	Channel int `json:"channel,omitempty" jsonschema:"minimum=0,maximum=16"`
	// Lowest and Highest bound the incoming notes that count.
	Lowest  int `json:"lowest,omitempty" jsonschema:"minimum=0,maximum=127"`
	Highest int `json:"highest,omitempty" jsonschema:"minimum=0,maximum=127"`
	// Controller is the number of the incoming controller, and Level the value that it must reach from below.
	Controller int `json:"controller,omitempty" jsonschema:"minimum=0,maximum=119"`
	Level      int `json:"level,omitempty" jsonschema:"minimum=0,maximum=127"`
	// Modulator is the id of the modulator whose curve is the clock, and Crossing the level that it must rise to, in percent.
	Modulator int `json:"modulator,omitempty" jsonschema:"minimum=0,maximum=255"`
	Crossing  int `json:"crossing,omitempty" jsonschema:"minimum=-100,maximum=100"`
	// Odds is how often such a note or crossing makes the track go on, in percent.
	Odds int `json:"odds" jsonschema:"minimum=0,maximum=100"`
	// Delay is how long after it that happens, in ticks up to a whole note.
	Delay Tick `json:"delay" jsonschema:"minimum=0,maximum=80640"`
}

// SourceKind is what kind of clock a track has.
type SourceKind string

// The kinds.
const (
	OwnClock     SourceKind = "own"
	NoteStarts   SourceKind = "starts"
	NoteEnds     SourceKind = "ends"
	FieldRules   SourceKind = "rules"
	InputNotes   SourceKind = "input notes"
	InputControl SourceKind = "input control"
	CurveClock   SourceKind = "modulator"
)

// sourceKinds is in the order in which to offer them.
var sourceKinds = options[SourceKind]{
	{OwnClock, "its own rate", "The track follows the rate of its gate lane."},
	{NoteStarts, "note starts of a track", "The track advances by a step whenever a note of another track starts."},
	{NoteEnds, "note ends of a track", "The track advances by a step whenever a note of another track ends."},
	{FieldRules, "rules of a field", "The track advances by a step whenever a rule of a field says so at a meeting."},
	{InputNotes, "MIDI input notes", "The track advances by a step whenever a note starts at the MIDI input."},
	{InputControl, "MIDI input CC", "The track advances by a step whenever a controller at the MIDI input rises to a level."},
	{CurveClock, "modulator", "The track advances by a step whenever the curve of a modulator rises to a level."},
}

// SourceKinds lists the kinds in the order in which to offer them.
func SourceKinds() []SourceKind { return sourceKinds.values() }

// SourceOptions lists the kinds as options.
func SourceOptions() []Option { return sourceKinds.list() }

// FollowsTrack reports whether the clock is another track.
func (s Source) FollowsTrack() bool {
	return s.Kind == NoteStarts || s.Kind == NoteEnds || s.Kind == FieldRules
}

func (s Source) validate(field string, p *Project) error {
	if err := checkListed(field+".kind", s.Kind, SourceKinds()); err != nil {
		return err
	}
	switch s.Kind {
	case InputNotes:
		return checkRange(field+".highest", s.Highest, s.Lowest, theory.HighestNote)
	case InputControl:
		return checkRange(field+".level", s.Level, 1, 127)
	case OwnClock, CurveClock:
		return nil
	}
	if p.Track(s.Track) == nil {
		return &FieldError{field + ".track", s.Track, "the id of a track that the project has"}
	}
	return nil
}

// validateSources refuses tracks that are each other's clock, and names the loop.
func (p *Project) validateSources() error {
	for i := range p.Tracks {
		chain := []string{p.Tracks[i].Name}
		for t := &p.Tracks[i]; t.Source.FollowsTrack(); {
			t = p.Track(t.Source.Track)
			chain = append(chain, t.Name)
			if t == &p.Tracks[i] {
				return &FieldError{
					fmt.Sprintf("tracks[%d].source", i), "a loop (" + strings.Join(chain, ", ") + ")",
					"a chain that ends at a track with a clock of its own",
				}
			}
			if len(chain) > len(p.Tracks) {
				break // a loop that this track is not in; it is named at one that is
			}
		}
	}
	return nil
}
