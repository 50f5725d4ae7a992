package server

import (
	"net/http"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/studio"
)

// LoadRequest asks for a setup to be loaded into the project of which the page has seen a revision.
type LoadRequest struct {
	NameRequest
	Revision int64 `json:"revision"`
}

// setupsResource keeps where tracks go by name, to be used in other projects.
type setupsResource struct {
	machine MachineStore
	studio  *studio.Studio
}

// Routes lists the resource's routes.
func (s setupsResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Get("/", s.list)
	r.Post("/", s.keep)
	r.Post("/load", s.load)
	r.Post("/delete", s.remove)
	return r
}

func (s setupsResource) list(w http.ResponseWriter, r *http.Request) {
	names, err := s.machine.Setups(r.Context())
	if err != nil {
		fail(w, err)
		return
	}
	reply(w, append([]string{}, names...))
}

func (s setupsResource) keep(w http.ResponseWriter, r *http.Request) {
	var request NameRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	if request.Name == "" || len([]rune(request.Name)) > 60 {
		refuse(w, http.StatusUnprocessableEntity, "the name of a setup has 1 to 60 characters; nothing was kept")
		return
	}
	if err := s.machine.KeepSetup(r.Context(), request.Name, s.studio.State().Project.Setup()); err != nil {
		fail(w, err)
		return
	}
	s.list(w, r)
}

func (s setupsResource) load(w http.ResponseWriter, r *http.Request) {
	var request LoadRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	setup, err := s.machine.Setup(r.Context(), request.Name)
	if err != nil {
		fail(w, err)
		return
	}
	answer(w, r)(s.studio.Edit(r.Context(), request.Revision, setup.EditFor(s.studio.State().Project)))
}

func (s setupsResource) remove(w http.ResponseWriter, r *http.Request) {
	var request NameRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	if err := s.machine.DeleteSetup(r.Context(), request.Name); err != nil {
		fail(w, err)
		return
	}
	s.list(w, r)
}
