package score

import (
	"encoding/json"
	"slices"
)

// Continues reports whether an edit gives just the values that one before it gave, so that the later of the two alone
// makes what both make. A run of such edits, as of presses of an arrow key, is one step of undo.
func Continues(last, next Edit) bool {
	return givesValues(last) && givesValues(next) && sameFields("", decoded(last), decoded(next)) && writeOverAlike(last, next)
}

// writeOverAlike reports whether two edits of the same fields take the same away elsewhere: a named chord takes several notes of a step
// away, and they it.
func writeOverAlike(last, next Edit) bool {
	switch last := last.(type) {
	case SetSteps:
		next := next.(SetSteps)
		return last.Lane != Chord || slices.EqualFunc(last.Steps, next.Steps, func(a, b StepValue) bool { return (a.Value == 0) == (b.Value == 0) })
	case SetOwn:
		return (len(last.Own.Notes) > 1) == (len(next.(SetOwn).Own.Notes) > 1)
	case All:
		return slices.EqualFunc(last.Edits, next.(All).Edits, func(a, b EditJSON) bool {
			one, _ := a.Edit() // which givesValues has read without an error
			other, _ := b.Edit()
			return writeOverAlike(one, other)
		})
	}
	return true
}

// givesValues reports whether all that an edit does is to put values in the places of others.
func givesValues(e Edit) bool {
	switch e := e.(type) {
	case SetProject, SetTrack, SetPattern, SetPart, SetDetail, SetOwn, SetLane, SetSteps:
		return true
	case All:
		return !slices.ContainsFunc(e.Edits, func(form EditJSON) bool {
			edit, err := form.Edit()
			return err != nil || !givesValues(edit)
		})
	}
	return false
}

func decoded(e Edit) (form any) {
	data, err := EncodeEdit(e)
	if err == nil {
		err = json.Unmarshal(data, &form)
	}
	if err != nil {
		panic("score: an edit cannot be encoded: " + err.Error()) // it was made by DecodeEdit or by the program
	}
	return form
}

// addresses are fields that say where an edit is made.
var addresses = []string{"track", "pattern", "part", "lane", "step"}

// sameFields reports whether two pieces of JSON under a name have the same fields and the same addresses.
func sameFields(name string, a, b any) bool {
	switch a := a.(type) {
	case map[string]any:
		b, same := b.(map[string]any)
		if !same || len(a) != len(b) {
			return false
		}
		for field, value := range a {
			if other, has := b[field]; !has || !sameFields(field, value, other) {
				return false
			}
		}
		return true
	case []any:
		if name != "steps" && name != "edits" {
			return true // the list is a value
		}
		b, same := b.([]any)
		if !same || len(a) != len(b) {
			return false
		}
		for i := range a {
			if !sameFields("", a[i], b[i]) {
				return false
			}
		}
		return true
	default:
		return !slices.Contains(addresses, name) || a == b
	}
}
