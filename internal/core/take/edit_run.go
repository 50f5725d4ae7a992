package take

import (
	"fmt"

	"jettyfog/internal/core/score"
)

// maxRun bounds how many edits are made as one.
const maxRun = 256

// Several makes edits one after the other, as one step of undo: a run of presses of a key.
type Several struct {
	Edits []EditJSON `json:"edits" jsonschema:"minItems=1,maxItems=256"`
}

// Label implements Edit.
func (e Several) Label() string {
	if last := e.last(); last != nil {
		return last.Label()
	}
	return "nothing"
}

func (e Several) apply(t *Take) error {
	if len(e.Edits) == 0 || len(e.Edits) > maxRun {
		return &score.FieldError{Field: "the number of edits", Got: len(e.Edits), Allowed: fmt.Sprintf("1 to %d", maxRun)}
	}
	for _, form := range e.Edits {
		edit, err := form.Edit()
		if err != nil {
			return err
		}
		if _, nested := edit.(Several); nested {
			return &score.FileError{Reason: "several edits cannot hold several in their turn"}
		}
		if err := edit.apply(t); err != nil {
			return err
		}
	}
	return nil
}

func (e Several) last() Edit {
	if len(e.Edits) == 0 {
		return nil
	}
	last, err := e.Edits[len(e.Edits)-1].Edit()
	if err != nil {
		return nil
	}
	return last
}

// Continue returns an edit that makes another one and then the next of its run; ok is false if they are of different
// kinds, as moves in time and in pitch are, or about other notes, or if the run is long enough.
func Continue(before, next Edit) (both Several, ok bool) {
	last := before
	if several, is := before.(Several); is {
		last, both.Edits = several.last(), several.Edits[:len(several.Edits):len(several.Edits)]
	} else {
		both.Edits = []EditJSON{formOf(before)}
	}
	if len(both.Edits) == maxRun || !goesOn(last, next) {
		return Several{}, false
	}
	both.Edits = append(both.Edits, formOf(next))
	return both, true
}

func goesOn(last, next Edit) bool {
	switch last := last.(type) {
	case MoveNotes:
		next, same := next.(MoveNotes)
		return same && len(last.Notes) == len(next.Notes) && (last.Semitones == 0) == (next.Semitones == 0)
	case ShapeNotes:
		next, same := next.(ShapeNotes)
		return same && len(last.Notes) == len(next.Notes) && (last.Velocity == 0) == (next.Velocity == 0) && (last.Length == 0) == (next.Length == 0)
	}
	return false
}
