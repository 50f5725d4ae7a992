package score

import (
	"fmt"
	"slices"
)

// MaxEdits bounds how many edits can be made as one.
const MaxEdits = 8192

// All makes several edits as one, in their order: one step of undo.
type All struct {
	// Name says what they do together, as a label does.
	Name  string     `json:"name" jsonschema:"minLength=1,maxLength=60"`
	Edits []EditJSON `json:"edits" jsonschema:"minItems=1,maxItems=8192"`
}

// Label implements Edit.
func (e All) Label() string { return e.Name }

// count returns how many edits there are, in groups within the group too, the groups counted with them. It stops
// counting beyond MaxEdits.
func (e All) count() int {
	count := 0
	for _, form := range e.Edits {
		if count++; form.All != nil {
			count += form.All.count()
		}
		if count > MaxEdits {
			break
		}
	}
	return count
}

func (e All) apply(p *Project) (Edit, error) {
	if err := firstOf([]error{
		CheckName("name", e.Name), checkRange("the number of edits", len(e.Edits), 1, MaxEdits),
		checkRange("the number of edits in all groups", e.count(), 1, MaxEdits),
	}); err != nil {
		return nil, err
	}
	var inverses []Edit
	for i, form := range e.Edits {
		edit, err := form.Edit()
		if err == nil && edit.Label() == "" {
			err = ErrEmptyEdit
		}
		var inverse Edit
		if err == nil {
			inverse, err = edit.apply(p)
		}
		if err != nil {
			return nil, fmt.Errorf("edit %d of %d: %w", i+1, len(e.Edits), err)
		}
		inverses = append(inverses, inverse)
	}
	slices.Reverse(inverses)
	return all(e.Name, inverses...), nil
}

// all returns several edits as one.
func all(name string, edits ...Edit) All {
	e := All{Name: name}
	for _, edit := range edits {
		e.Edits = append(e.Edits, FormOf(edit))
	}
	return e
}
