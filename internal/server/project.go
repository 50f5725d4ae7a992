package server

import (
	"fmt"
	"net/http"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/score"
	"jettyfog/internal/studio"
)

// EditRequest asks for an edit of the revision that the page has seen.
type EditRequest struct {
	Revision int64          `json:"revision"`
	Edit     score.EditJSON `json:"edit"`
	// Run names a run of edits of one value, which together are one step of undo; empty is none.
	Run string `json:"run,omitempty" jsonschema:"maxLength=64"`
}

const mostRunName = 64

// refuseLongRun refuses the name of a run of edits that is too long, and reports whether it is.
func refuseLongRun(w http.ResponseWriter, name string) bool {
	if len(name) <= mostRunName {
		return false
	}
	refuse(w, http.StatusUnprocessableEntity, fmt.Sprintf("the name of a run of edits has at most %d bytes; nothing was changed", mostRunName))
	return true
}

// RevisionRequest asks for a change that needs no more words.
type RevisionRequest struct {
	Revision int64 `json:"revision"`
}

type projectResource struct{ studio *studio.Studio }

// Routes lists the resource's routes.
func (p projectResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Post("/edits", p.edit)
	r.Post("/undo", p.undo)
	r.Post("/redo", p.redo)
	r.Get("/project", p.show)
	r.Get("/project/digest", p.digest)
	r.Get("/project/clashes", p.clashes)
	r.Get("/project.json", p.export)
	r.NotFound(func(w http.ResponseWriter, r *http.Request) {
		refuse(w, http.StatusNotFound, "there is nothing at "+short(r.URL.Path))
	})
	r.MethodNotAllowed(func(w http.ResponseWriter, r *http.Request) {
		refuse(w, http.StatusMethodNotAllowed, short(r.URL.Path)+" does not take "+short(r.Method))
	})
	return r
}

// clashes answers with what several tracks write at the same place of an output.
func (p projectResource) clashes(w http.ResponseWriter, _ *http.Request) {
	reply(w, p.studio.State().Project.Clashes())
}

func (p projectResource) edit(w http.ResponseWriter, r *http.Request) {
	var request EditRequest
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
	answer(w, r)(p.studio.EditInRun(r.Context(), request.Revision, edit, request.Run))
}

func (p projectResource) undo(w http.ResponseWriter, r *http.Request) {
	var request RevisionRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	answer(w, r)(p.studio.Undo(r.Context(), request.Revision))
}

func (p projectResource) redo(w http.ResponseWriter, r *http.Request) {
	var request RevisionRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	answer(w, r)(p.studio.Redo(r.Context(), request.Revision))
}

// show answers with the whole project.
func (p projectResource) show(w http.ResponseWriter, _ *http.Request) {
	reply(w, whole(p.studio.State()))
}

func (p projectResource) export(w http.ResponseWriter, _ *http.Request) {
	sendProject(w, p.studio.State().Project)
}

// sendProject answers with a project file.
func sendProject(w http.ResponseWriter, project *score.Project) {
	data, err := score.Encode(project)
	if err != nil {
		fail(w, err)
		return
	}
	download(w, "application/json", project.Name, ".json", data)
}
