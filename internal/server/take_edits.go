package server

import (
	"errors"
	"net/http"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
)

// TakeEditRequest asks for an edit of the version of a take that the page has seen.
type TakeEditRequest struct {
	Version int           `json:"version"`
	Edit    take.EditJSON `json:"edit"`
	// Run names a run of edits of the same notes, which together are one step of undo; empty is none.
	Run string `json:"run,omitempty" jsonschema:"maxLength=64"`
}

// VersionRequest asks for a change of a take that needs no more words.
type VersionRequest struct {
	Version int `json:"version"`
}

// DeletedRequest puts a take out of the way, or brings it back.
type DeletedRequest struct {
	Version int  `json:"version"`
	Deleted bool `json:"deleted"`
}

// SplitRequest asks to make two takes of one, at a tick.
type SplitRequest struct {
	Tick score.Tick `json:"tick" jsonschema:"minimum=1"`
}

// answer answers a change of a take with what the list says of it now, and tells every page.
func (t takesResource) answer(w http.ResponseWriter) func(take.Summary, error) {
	return func(summary take.Summary, err error) {
		if err != nil {
			fail(w, err)
			return
		}
		t.changed()
		reply(w, summary)
	}
}

func (t takesResource) edit(w http.ResponseWriter, r *http.Request) {
	var request TakeEditRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	edit, err := request.Edit.Edit()
	if err != nil {
		fail(w, err)
		return
	}
	if refuseLongRun(w, request.Run) {
		return
	}
	t.answer(w)(t.takes.EditInRun(r.Context(), idOf(r), request.Version, edit, request.Run))
}

func (t takesResource) undo(w http.ResponseWriter, r *http.Request) {
	var request VersionRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	t.answer(w)(t.takes.Undo(r.Context(), idOf(r), request.Version))
}

func (t takesResource) redo(w http.ResponseWriter, r *http.Request) {
	var request VersionRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	t.answer(w)(t.takes.Redo(r.Context(), idOf(r), request.Version))
}

func (t takesResource) setDeleted(w http.ResponseWriter, r *http.Request) {
	var request DeletedRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	t.answer(w)(t.takes.SetDeleted(r.Context(), idOf(r), request.Version, request.Deleted))
}

// split makes two takes of what is before and after a tick. The take itself stays.
func (t takesResource) split(w http.ResponseWriter, r *http.Request) {
	var request SplitRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	whole, summary := t.find(w, r)
	if whole == nil {
		return
	}
	if request.Tick < 1 || request.Tick >= whole.End {
		fail(w, &score.FieldError{Field: "tick", Got: int(request.Tick), Allowed: "within the take"})
		return
	}
	// What made the whole made both halves; a take of no project has none.
	project, err := t.takes.Origin(r.Context(), summary.ID)
	if err != nil && !errors.Is(err, take.ErrUnknown) {
		fail(w, err)
		return
	}
	halves := []*take.Take{take.Cut(whole, 0, request.Tick), take.Cut(whole, request.Tick, whole.End)}
	for i, half := range halves {
		half.Name, half.Project = score.CleanName(whole.Name+[]string{" a", " b"}[i]), project
	}
	ids, err := t.takes.Add(r.Context(), summary.Revision, halves...)
	if err != nil {
		fail(w, err)
		return
	}
	t.changed()
	reply(w, ids)
}

// bringBack makes the project what it was when a take began.
func (t takesResource) bringBack(w http.ResponseWriter, r *http.Request) {
	var request RevisionRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	project, err := t.takes.Origin(r.Context(), idOf(r))
	if err != nil {
		fail(w, err)
		return
	}
	answer(w, r)(t.studio.Edit(r.Context(), request.Revision, score.Replace{Project: *project}))
}
