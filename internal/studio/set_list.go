package studio

import (
	"fmt"
	"slices"
)

// MaxSetList bounds how many projects a set list has.
const MaxSetList = 256

// SetList is projects in the order in which they are to be played.
type SetList struct {
	Name string `json:"name" jsonschema:"minLength=1,maxLength=60"`
	// Projects are their ids; one that is deleted stays in its place.
	Projects []int64 `json:"projects" jsonschema:"maxItems=256"`
}

// MissingError says that a project of a set list is not there.
type MissingError struct {
	List  string
	Place int // from 1
}

func (e *MissingError) Error() string {
	return fmt.Sprintf("number %d of the set list “%s” is not in the folder, or was deleted: nothing was opened; bring it back in the library, or take it out of the list", e.Place, e.List)
}

// After returns the place in the list, from 0, that comes so many places after that of a project; the list begins with its first
// where the project is not in it. There is none where ok is false.
func (l SetList) After(project int64, places int) (place int, ok bool) {
	at := slices.Index(l.Projects, project)
	if at < 0 {
		at, places = 0, 0
	}
	place = at + places
	return place, place >= 0 && place < len(l.Projects)
}
