package server

import (
	"fmt"
	"net/http"
	"strconv"
	"strings"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/score"
	"jettyfog/internal/studio"
)

// ListedProject is a project of the folder, as the list shows it.
type ListedProject struct {
	studio.Listed
	// Open says that it is the one that is open.
	Open bool `json:"open"`
	// Picture is what its first bars play, and Ends the tick at which they end.
	Picture []OutlineNote `json:"picture"`
	Ends    score.Tick    `json:"ends"`
}

// OpenRequest asks for a project of the folder to be opened in place of the one of which the page has seen a revision.
type OpenRequest struct {
	Revision int64 `json:"revision"`
	// AtOnce has it come in at once while another plays, not with the next bar.
	AtOnce bool `json:"atOnce,omitempty"`
}

// NewProjectRequest asks for a new project, which is opened.
type NewProjectRequest struct {
	OpenRequest
	// From is what it begins with: nothing but a track, or the example.
	From string `json:"from" jsonschema:"enum=blank,enum=example"`
}

// NameRequest gives something a name.
type NameRequest struct {
	Name string `json:"name" jsonschema:"minLength=1,maxLength=60"`
}

type projectsResource struct {
	studio   *studio.Studio
	pictures *pictures
	notice   func(text string)
}

// Routes lists the resource's routes.
func (p projectsResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Get("/", p.list)
	r.Post("/", p.add)
	r.Post("/file", p.importFile)
	r.Get("/{id}/project.json", p.export)
	r.Post("/{id}/open", p.open)
	r.Post("/{id}/copy", p.copy)
	r.Post("/{id}/name", p.rename)
	r.Delete("/{id}", p.remove)
	r.Post("/{id}/restore", p.restore)
	return r
}

func (p projectsResource) list(w http.ResponseWriter, r *http.Request) {
	listed, err := p.studio.Projects(r.Context())
	if err != nil {
		fail(w, err)
		return
	}
	open := p.studio.State()
	projects := make([]ListedProject, 0, len(listed))
	for _, one := range listed {
		shown := ListedProject{Listed: one, Open: one.ID == open.Document}
		if shown.Open {
			shown.Revision = open.Revision
		}
		shown.Picture, shown.Ends = p.pictures.of(shown.ID, shown.Revision, func() (*score.Project, error) {
			return p.studio.Project(r.Context(), one.ID)
		})
		projects = append(projects, shown)
	}
	reply(w, projects)
}

func (p projectsResource) add(w http.ResponseWriter, r *http.Request) {
	var request NewProjectRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	begin, known := map[string]func() *score.Project{"blank": score.Blank, "example": score.Demo}[request.From]
	if !known {
		fail(w, &score.FieldError{Field: "from", Got: fmt.Sprintf("%.20q", request.From), Allowed: "blank or example"})
		return
	}
	p.addAndOpen(w, r, begin(), false, request.OpenRequest)
}

// importFile takes a project file as it is; the revision is in the query.
func (p projectsResource) importFile(w http.ResponseWriter, r *http.Request) {
	revision, err := strconv.ParseInt(r.URL.Query().Get("revision"), 10, 64)
	if err != nil {
		refuse(w, http.StatusBadRequest, "opening a project file needs the revision of the project that is open")
		return
	}
	body, err := readJSON(r)
	if err != nil {
		fail(w, err)
		return
	}
	project, remarks, err := score.DecodeOld(body)
	if err != nil {
		fail(w, err)
		return
	}
	if len(remarks) > 0 {
		p.notice("The file is from an earlier version: " + strings.Join(remarks, ". ") + ".")
	}
	p.addAndOpen(w, r, project, true, OpenRequest{Revision: revision, AtOnce: r.URL.Query().Has("atOnce")})
}

func (p projectsResource) addAndOpen(w http.ResponseWriter, r *http.Request, project *score.Project, held bool, request OpenRequest) {
	if now := p.studio.State().Revision; now != request.Revision { // so that nothing is added in vain
		fail(w, &studio.StaleError{Named: request.Revision, Current: now})
		return
	}
	id, err := p.studio.Add(r.Context(), project, held)
	if err != nil {
		fail(w, err)
		return
	}
	answer(w, r)(p.studio.Open(r.Context(), request.Revision, id, request.AtOnce))
}

func (p projectsResource) export(w http.ResponseWriter, r *http.Request) {
	id, ok := projectID(w, r)
	if !ok {
		return
	}
	project, err := p.studio.Project(r.Context(), id)
	if err != nil {
		fail(w, err)
		return
	}
	sendProject(w, project)
}

func (p projectsResource) open(w http.ResponseWriter, r *http.Request) {
	var request OpenRequest
	id, ok := projectID(w, r)
	if !ok {
		return
	}
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	answer(w, r)(p.studio.Open(r.Context(), request.Revision, id, request.AtOnce))
}

func (p projectsResource) copy(w http.ResponseWriter, r *http.Request) {
	p.changed(w, r, func(id int64) error {
		_, err := p.studio.Copy(r.Context(), id)
		return err
	})
}

func (p projectsResource) rename(w http.ResponseWriter, r *http.Request) {
	var request NameRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	p.changed(w, r, func(id int64) error { return p.studio.Rename(r.Context(), id, request.Name) })
}

func (p projectsResource) remove(w http.ResponseWriter, r *http.Request) {
	p.changed(w, r, func(id int64) error { return p.studio.Delete(r.Context(), id) })
}

func (p projectsResource) restore(w http.ResponseWriter, r *http.Request) {
	p.changed(w, r, func(id int64) error { return p.studio.Restore(r.Context(), id) })
}

// changed changes something of the list, and answers with the list.
func (p projectsResource) changed(w http.ResponseWriter, r *http.Request, change func(id int64) error) {
	id, ok := projectID(w, r)
	if !ok {
		return
	}
	if err := change(id); err != nil {
		fail(w, err)
		return
	}
	p.list(w, r)
}

// projectID reads which project a request is about. It answers and returns false if it names none.
func projectID(w http.ResponseWriter, r *http.Request) (id int64, ok bool) {
	id, err := strconv.ParseInt(chi.URLParam(r, "id"), 10, 64)
	if err != nil || id < 1 {
		fail(w, studio.ErrNoProject)
		return 0, false
	}
	return id, true
}
