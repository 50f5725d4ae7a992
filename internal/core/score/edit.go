package score

import (
	"errors"
	"fmt"
	"reflect"
	"slices"
)

// Edit is one change that a musician makes to a project: a value that can be stored, sent, applied
// and undone.
type Edit interface {
	// Label says in a few words what the edit does, to follow "Undo " or "Redo "; empty if it does nothing.
	Label() string
	// apply changes p in place and returns the edit that undoes it.
	apply(p *Project) (inverse Edit, err error)
}

// ErrUnknownTrack is returned for an edit of a track that the project does not have.
var ErrUnknownTrack = errors.New("there is no such track")

// ErrNothingBefore is returned for going back to a former luck when there is none.
var ErrNothingBefore = errors.New("there is no former luck to go back to")

// ErrEmptyEdit is returned for an edit that names nothing to change.
var ErrEmptyEdit = errors.New("the edit changes nothing")

// Apply returns a valid project with the edit made, and the edit that undoes it. p itself stays as it is; tracks that the edit does not
// change are shared with it, so neither may be changed afterwards. The error is ErrEmptyEdit, ErrUnknownTrack, ErrUnknownPart, ErrUnknownScene,
// ErrUnknownSection, ErrUnknownLayer, ErrNoField, ErrNothingBefore or a *FieldError, perhaps wrapped.
func Apply(p *Project, e Edit) (next *Project, inverse Edit, err error) {
	if e.Label() == "" {
		return nil, nil, ErrEmptyEdit
	}
	next = p.cloneFor(e)
	inverse, err = e.apply(next)
	if err == nil {
		if _, named := e.(SetLane); !named { // an edit of before can bring a part of before
			next.convertOld()
		}
		changed, known := changedTracks(e)
		err = next.validate(func(track int) bool { return !known || slices.Contains(changed, track) })
	}
	if err != nil {
		return nil, nil, err
	}
	return next, inverse, nil
}

// cloneFor returns a copy of which an edit can change what it changes.
func (p *Project) cloneFor(e Edit) *Project {
	changed, known := changedTracks(e)
	if !known {
		return p.Clone()
	}
	rest := *p
	rest.Tracks = nil
	clone := rest.Clone()
	clone.Tracks = slices.Clone(p.Tracks)
	for i := range clone.Tracks {
		if slices.Contains(changed, clone.Tracks[i].ID) {
			clone.Tracks[i] = clone.Tracks[i].Clone()
		}
	}
	return clone
}

// changedTracks returns the ids of the tracks that an edit changes; known is false if it can be any.
func changedTracks(e Edit) (ids []int, known bool) {
	switch e := e.(type) {
	case SetProject, ChangeLuck, BackLuck, RestoreLuck, SetScene, RemoveScene, SetSection, RemoveSection, KeepLayer, InsertLayer, RemoveLayer:
		return nil, true
	case All:
		for _, form := range e.Edits {
			edit, err := form.Edit()
			if err != nil {
				return nil, false
			}
			of, known := changedTracks(edit)
			if !known {
				return nil, false
			}
			ids = append(ids, of...)
		}
		return ids, true
	case SetTrack, SetLoop, CopyPattern, InsertPattern, RemovePattern, MovePattern, SetPattern, AddPart, InsertPart, RemovePart,
		MovePart, SetPart, RestorePart, SetDetail, SetField, RecallLayer, SetOwn, ToggleNote, Reshape, SetLane, RestoreLane, SetSteps:
		return []int{int(reflect.ValueOf(e).FieldByName("Track").Int())}, true
	}
	return nil, false
}

// Replace puts another project in the place of the whole document.
type Replace struct {
	Project Project `json:"project"`
}

// Label implements Edit.
func (e Replace) Label() string { return fmt.Sprintf("open “%s”", e.Project.Name) }

func (e Replace) apply(p *Project) (Edit, error) {
	inverse := Replace{Project: *p.Clone()}
	*p = *e.Project.Clone()
	return inverse, nil
}

// swapList is swap for lists. A list of nothing is nil in a document, but not in an edit, where it says that
// the list is given.
func swapList[S ~[]T, T any](field, value *S) *S {
	if value == nil {
		return nil
	}
	before := append(S{}, *field...)
	*field = nil
	if len(*value) > 0 {
		*field = slices.Clone(*value)
	}
	return &before
}

// swap exchanges *field with *value if value is given, and returns what the field held before.
func swap[T any](field, value *T) *T {
	if value == nil {
		return nil
	}
	before := *field
	*field = *value
	return &before
}
