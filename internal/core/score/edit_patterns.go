package score

import (
	"fmt"
	"slices"
)

// pattern returns a track and a pattern of it. The error wraps ErrUnknownTrack or ErrUnknownPart.
func (p *Project) pattern(track, id int) (*Track, *Pattern, error) {
	t := p.Track(track)
	if t == nil {
		return nil, nil, fmt.Errorf("track %d: %w", track, ErrUnknownTrack)
	}
	pattern := t.Pattern(id)
	if pattern == nil {
		return nil, nil, fmt.Errorf("pattern %d of track %d: %w", id, track, ErrUnknownPart)
	}
	return t, pattern, nil
}

// patternPlace returns where the pattern with the id stands, or -1.
func (t *Track) patternPlace(id int) int {
	return slices.IndexFunc(t.Patterns, func(pattern Pattern) bool { return pattern.ID == id })
}

// unusedPatternID returns the lowest id that no pattern has.
func (t *Track) unusedPatternID() (id int) {
	for t.Pattern(id) != nil {
		id++
	}
	return id
}

// CopyPattern adds a copy of a pattern behind it.
type CopyPattern struct {
	Track   int    `json:"track"`
	Pattern int    `json:"pattern"`
	Name    string `json:"name" jsonschema:"minLength=1,maxLength=60"`
	// Plays lets the copy be the one that plays; else what plays goes on.
	Plays bool `json:"plays,omitempty"`
}

// Label implements Edit.
func (e CopyPattern) Label() string { return "copy of a pattern" }

func (e CopyPattern) apply(p *Project) (Edit, error) {
	track, pattern, err := p.pattern(e.Track, e.Pattern)
	if err != nil {
		return nil, err
	}
	copied := pattern.clone()
	copied.Name = e.Name
	return InsertPattern{Track: e.Track, At: track.patternPlace(e.Pattern) + 1, Pattern: copied, Plays: e.Plays}.apply(p)
}

// InsertPattern puts a whole pattern among those of a track. If another has its id it gets one that none has.
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
	track := p.Track(e.Track)
	if track == nil {
		return nil, fmt.Errorf("track %d: %w", e.Track, ErrUnknownTrack)
	}
	if err := checkRange("at", e.At, 0, len(track.Patterns)); err != nil {
		return nil, err
	}
	before := track.Playing
	pattern := e.Pattern.clone()
	if track.Pattern(pattern.ID) != nil {
		pattern.ID = track.unusedPatternID()
	}
	track.Patterns = slices.Insert(track.Patterns, e.At, pattern)
	remove := RemovePattern{Track: e.Track, Pattern: pattern.ID}
	if e.Plays {
		track.Playing = pattern.ID
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
	track, pattern, err := p.pattern(e.Track, e.Pattern)
	if err != nil {
		return nil, err
	}
	if len(track.Patterns) == 1 {
		return nil, &FieldError{"the number of patterns", 0, fmt.Sprintf("1 to %d", MaxPatterns)}
	}
	at := track.patternPlace(e.Pattern)
	undo := InsertPattern{Track: e.Track, At: at, Pattern: pattern.clone(), Plays: track.Playing == e.Pattern}
	track.Patterns = slices.Delete(track.Patterns, at, at+1)
	if undo.Plays {
		track.Playing = track.Patterns[min(at, len(track.Patterns)-1)].ID
	}
	return undo, nil
}

// MovePattern gives a pattern another place among those of its track.
type MovePattern struct {
	Track   int `json:"track"`
	Pattern int `json:"pattern"`
	// To is the place, from 0.
	To int `json:"to"`
}

// Label implements Edit.
func (e MovePattern) Label() string { return "order of patterns" }

func (e MovePattern) apply(p *Project) (Edit, error) {
	track, _, err := p.pattern(e.Track, e.Pattern)
	if err != nil {
		return nil, err
	}
	if err := checkRange("to", e.To, 0, len(track.Patterns)-1); err != nil {
		return nil, err
	}
	back := MovePattern{Track: e.Track, Pattern: e.Pattern, To: track.patternPlace(e.Pattern)}
	moveTo(track.Patterns, back.To, e.To)
	return back, nil
}

// SetPattern changes the properties of a pattern.
type SetPattern struct {
	Track   int     `json:"track"`
	Pattern int     `json:"pattern"`
	Name    *string `json:"name,omitempty"`
	// After is where it leads; Ends takes that away.
	After *Chain `json:"after,omitempty"`
	Ends  bool   `json:"ends,omitempty"`
}

// Label implements Edit.
func (e SetPattern) Label() string {
	switch {
	case e.After != nil || e.Ends:
		return "where a pattern leads"
	case e.Name != nil:
		return "pattern name"
	}
	return ""
}

func (e SetPattern) apply(p *Project) (Edit, error) {
	_, pattern, err := p.pattern(e.Track, e.Pattern)
	if err != nil {
		return nil, err
	}
	inverse := SetPattern{Track: e.Track, Pattern: e.Pattern, Name: swap(&pattern.Name, e.Name)}
	if e.After != nil || e.Ends {
		inverse.After, inverse.Ends = pattern.After, pattern.After == nil
		pattern.After = e.After.clone()
	}
	return inverse, nil
}
