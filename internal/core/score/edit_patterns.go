package score

import (
	"fmt"
	"slices"
)

// patterns returns the track and checks that it has the pattern.
func (p *Project) patterns(id, pattern int) (*Track, error) {
	track := p.Track(id)
	if track == nil {
		return nil, fmt.Errorf("track %d: %w", id, ErrUnknownTrack)
	}
	if pattern < 0 || pattern >= len(track.Patterns) {
		return nil, fmt.Errorf("pattern %d of track %d: %w", pattern, id, ErrUnknownPart)
	}
	return track, nil
}

// CopyPattern adds a copy of a pattern behind it. What plays goes on playing.
type CopyPattern struct {
	Track   int    `json:"track"`
	Pattern int    `json:"pattern"`
	Name    string `json:"name" jsonschema:"minLength=1,maxLength=60"`
}

// Label implements Edit.
func (e CopyPattern) Label() string { return "copy of a pattern" }

func (e CopyPattern) apply(p *Project) (Edit, error) {
	track, err := p.patterns(e.Track, e.Pattern)
	if err != nil {
		return nil, err
	}
	pattern := track.Patterns[e.Pattern].clone()
	pattern.Name = e.Name
	return InsertPattern{Track: e.Track, At: e.Pattern + 1, Pattern: pattern}.apply(p)
}

// InsertPattern puts a whole pattern among those of a track.
type InsertPattern struct {
	Track int `json:"track"`
	// At is its place, from 0.
	At      int     `json:"at"`
	Pattern Pattern `json:"pattern"`
	// Plays lets it be the one that plays; else what plays goes on.
	Plays bool `json:"plays,omitempty"`
}

// Label implements Edit.
func (e InsertPattern) Label() string { return fmt.Sprintf("pattern “%s”", e.Pattern.Name) }

func (e InsertPattern) apply(p *Project) (Edit, error) {
	track, err := p.patterns(e.Track, 0)
	if err != nil {
		return nil, err
	}
	if err := checkRange("at", e.At, 0, len(track.Patterns)); err != nil {
		return nil, err
	}
	before := track.Playing
	track.Patterns = slices.Insert(track.Patterns, e.At, e.Pattern.clone())
	switch {
	case e.Plays:
		track.Playing = e.At
	case e.At <= track.Playing:
		track.Playing++
	}
	remove := RemovePattern{Track: e.Track, Pattern: e.At}
	if e.Plays {
		return all(remove.Label(), remove, SetTrack{Track: e.Track, Playing: &before}), nil
	}
	return remove, nil
}

// RemovePattern takes a pattern away. If it plays, the one behind it plays, or the last.
type RemovePattern struct {
	Track   int `json:"track"`
	Pattern int `json:"pattern"`
}

// Label implements Edit.
func (e RemovePattern) Label() string { return "removal of a pattern" }

func (e RemovePattern) apply(p *Project) (Edit, error) {
	track, err := p.patterns(e.Track, e.Pattern)
	if err != nil {
		return nil, err
	}
	if len(track.Patterns) == 1 {
		return nil, &FieldError{"the number of patterns", 0, fmt.Sprintf("1 to %d", MaxPatterns)}
	}
	undo := InsertPattern{
		Track: e.Track, At: e.Pattern, Pattern: track.Patterns[e.Pattern].clone(), Plays: track.Playing == e.Pattern,
	}
	track.Patterns = slices.Delete(track.Patterns, e.Pattern, e.Pattern+1)
	if e.Pattern < track.Playing {
		track.Playing--
	}
	track.Playing = min(track.Playing, len(track.Patterns)-1)
	return undo, nil
}

// MovePattern gives a pattern another place among those of its track. What plays goes on playing.
type MovePattern struct {
	Track   int `json:"track"`
	Pattern int `json:"pattern"`
	// To is the place, from 0.
	To int `json:"to"`
}

// Label implements Edit.
func (e MovePattern) Label() string { return "order of patterns" }

func (e MovePattern) apply(p *Project) (Edit, error) {
	track, err := p.patterns(e.Track, e.Pattern)
	if err != nil {
		return nil, err
	}
	if err := checkRange("to", e.To, 0, len(track.Patterns)-1); err != nil {
		return nil, err
	}
	moveTo(track.Patterns, e.Pattern, e.To)
	switch playing := track.Playing; {
	case playing == e.Pattern:
		track.Playing = e.To
	case e.Pattern < playing && playing <= e.To:
		track.Playing--
	case e.To <= playing && playing < e.Pattern:
		track.Playing++
	}
	return MovePattern{Track: e.Track, Pattern: e.To, To: e.Pattern}, nil
}

// SetPattern changes the properties of a pattern.
type SetPattern struct {
	Track   int     `json:"track"`
	Pattern int     `json:"pattern"`
	Name    *string `json:"name,omitempty"`
}

// Label implements Edit.
func (e SetPattern) Label() string {
	if e.Name == nil {
		return ""
	}
	return "pattern name"
}

func (e SetPattern) apply(p *Project) (Edit, error) {
	track, err := p.patterns(e.Track, e.Pattern)
	if err != nil {
		return nil, err
	}
	return SetPattern{Track: e.Track, Pattern: e.Pattern, Name: swap(&track.Patterns[e.Pattern].Name, e.Name)}, nil
}
