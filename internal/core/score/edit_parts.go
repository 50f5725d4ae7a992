package score

import (
	"fmt"
	"slices"

	"jettyfog/internal/core/theory"
)

// AddPart adds a new part to a kit, or a copy of one, behind a part.
type AddPart struct {
	// PartAddress names the part behind which it goes.
	PartAddress
	// Note is the MIDI note of a new part, which is named after it.
	Note int `json:"note" jsonschema:"minimum=0,maximum=127"`
	// Copy copies the part instead.
	Copy bool `json:"copy,omitempty"`
}

// Label implements Edit.
func (e AddPart) Label() string {
	if e.Copy {
		return "copy of a part"
	}
	return "new part"
}

func (e AddPart) apply(p *Project) (Edit, error) {
	behind, err := p.Part(e.PartAddress)
	if err != nil {
		return nil, err
	}
	id, ok := p.Track(e.Track).unusedPartID()
	if !ok {
		return nil, &FieldError{"the number of parts of a track", MaxPartID + 1, fmt.Sprintf("1 to %d", MaxPartID)}
	}
	part := NewKitPart(e.Note)
	if e.Copy {
		part = behind.Clone()
		part.Name = CopyName(behind.Name)
	}
	part.ID = id
	at := 1 + p.Track(e.Track).Pattern(e.Pattern).partIndex(e.Part)
	return InsertPart{Track: e.Track, Pattern: e.Pattern, At: at, Value: part}.apply(p)
}

// NewKitPart returns a part of a kit that plays a note and is named after it.
func NewKitPart(note int) Part {
	part := NewPart(fmt.Sprintf("Note %d", note))
	if name, ok := theory.PercussionName(note); ok {
		part.Name = name
	}
	part.Note = note
	return part
}

// unusedPartID returns the lowest id that no part of any pattern has.
func (t *Track) unusedPartID() (id int, ok bool) {
	used := [MaxPartID + 1]bool{}
	for _, pattern := range t.Patterns {
		for i := range pattern.Parts {
			used[pattern.Parts[i].ID] = true
		}
	}
	id = slices.Index(used[:], false)
	return id, id >= 0
}

// InsertPart puts a whole part among those of a pattern.
type InsertPart struct {
	Track   int `json:"track"`
	Pattern int `json:"pattern"`
	// At is its place, from 0.
	At    int  `json:"at"`
	Value Part `json:"value"`
}

// Label implements Edit.
func (e InsertPart) Label() string { return fmt.Sprintf("part “%s”", e.Value.Name) }

func (e InsertPart) apply(p *Project) (Edit, error) {
	_, pattern, err := p.pattern(e.Track, e.Pattern)
	if err != nil {
		return nil, err
	}
	if err := checkRange("at", e.At, 0, len(pattern.Parts)); err != nil {
		return nil, err
	}
	pattern.Parts = slices.Insert(pattern.Parts, e.At, e.Value.Clone())
	return RemovePart{PartAddress{Track: e.Track, Pattern: e.Pattern, Part: e.Value.ID}}, nil
}

// RemovePart takes a part away.
type RemovePart struct {
	PartAddress
}

// Label implements Edit.
func (e RemovePart) Label() string { return "removal of a part" }

func (e RemovePart) apply(p *Project) (Edit, error) {
	part, err := p.Part(e.PartAddress)
	if err != nil {
		return nil, err
	}
	pattern := p.Track(e.Track).Pattern(e.Pattern)
	if len(pattern.Parts) == 1 {
		return nil, &FieldError{"the number of parts", 0, fmt.Sprintf("1 to %d", MaxParts)}
	}
	at := pattern.partIndex(e.Part)
	undo := InsertPart{Track: e.Track, Pattern: e.Pattern, At: at, Value: part.Clone()}
	pattern.Parts = slices.Delete(pattern.Parts, at, at+1)
	return undo, nil
}

// MovePart gives a part another place among those of its pattern.
type MovePart struct {
	PartAddress
	// To is the place, from 0.
	To int `json:"to"`
}

// Label implements Edit.
func (e MovePart) Label() string { return "order of parts" }

func (e MovePart) apply(p *Project) (Edit, error) {
	if _, err := p.Part(e.PartAddress); err != nil {
		return nil, err
	}
	pattern := p.Track(e.Track).Pattern(e.Pattern)
	if err := checkRange("to", e.To, 0, len(pattern.Parts)-1); err != nil {
		return nil, err
	}
	back := MovePart{PartAddress: e.PartAddress, To: pattern.partIndex(e.Part)}
	moveTo(pattern.Parts, back.To, e.To)
	return back, nil
}
