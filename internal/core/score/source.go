package score

import (
	"fmt"
	"strings"
)

// Source is what makes a track's gate lanes go on.
type Source struct {
	// Kind is what the source is; OwnClock needs no more.
	Kind SourceKind `json:"kind" jsonschema:"enum=own,enum=starts,enum=ends"`
	// Track is the id of the track whose notes are the clock.
	Track int `json:"track"`
	// Odds is how often such a note makes the track go on, in percent.
	Odds int `json:"odds" jsonschema:"minimum=0,maximum=100"`
	// Delay is how long after the note it does, in ticks up to a whole note.
	Delay Tick `json:"delay" jsonschema:"minimum=0,maximum=80640"`
}

// SourceKind is what kind of clock a track has.
type SourceKind string

// The kinds.
const (
	OwnClock   SourceKind = "own"    // the gate lane's rate
	NoteStarts SourceKind = "starts" // the starts of another track's notes
	NoteEnds   SourceKind = "ends"   // their ends
)

// SourceKinds lists the kinds in the order in which to offer them.
func SourceKinds() []SourceKind { return []SourceKind{OwnClock, NoteStarts, NoteEnds} }

func (s Source) validate(field string, p *Project) error {
	if err := firstOf([]error{
		checkListed(field+".kind", s.Kind, SourceKinds()),
		checkRange(field+".odds", s.Odds, 0, 100),
		checkRange(field+".delay", int(s.Delay), 0, int(whole)),
	}); err != nil || s.Kind == OwnClock {
		return err
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
		for t := &p.Tracks[i]; t.Source.Kind != OwnClock; {
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
