package server

import (
	"context"
	"errors"
	"net/http"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/bounds"
	"jettyfog/internal/core/score"
	"jettyfog/internal/studio"
)

// SetListStore keeps set lists.
type SetListStore interface {
	SetLists(context.Context) ([]studio.SetList, error)
	// KeepSetList keeps a set list, in the place of one of its name; one without projects is deleted.
	KeepSetList(context.Context, studio.SetList) error
}

// SetListRequest asks for the project of a set list that comes so many places after the one that is open; where that is not in the list
// for the first. The project that is open is at a revision.
type SetListRequest struct {
	Name     string `json:"name" jsonschema:"minLength=1,maxLength=60"`
	Places   int    `json:"places" jsonschema:"minimum=-255,maximum=255"`
	Revision int64  `json:"revision"`
}

type setListsResource struct {
	store  SetListStore
	studio *studio.Studio
}

// Routes lists the resource's routes.
func (s setListsResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Get("/", s.list)
	r.Post("/", s.keep)
	r.Post("/go", s.goTo)
	return r
}

func (s setListsResource) list(w http.ResponseWriter, r *http.Request) {
	lists, err := s.store.SetLists(r.Context())
	if err != nil {
		fail(w, err)
		return
	}
	reply(w, append([]studio.SetList{}, lists...))
}

var setListBounds = bounds.For[studio.SetList]()

// keep keeps a set list, and answers with all of them.
func (s setListsResource) keep(w http.ResponseWriter, r *http.Request) {
	var list studio.SetList
	err := read(r, &list)
	if err == nil {
		err = score.CheckName("name", list.Name)
	}
	if err == nil {
		err = score.CheckBounds(setListBounds, &list)
	}
	if err == nil {
		err = s.store.KeepSetList(r.Context(), list)
	}
	if err != nil {
		fail(w, err)
		return
	}
	s.list(w, r)
}

// goTo opens the project of a set list that comes some places after the one that is open. While another plays it comes in with
// the next bar, and is made ready before.
func (s setListsResource) goTo(w http.ResponseWriter, r *http.Request) {
	var request SetListRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	lists, err := s.store.SetLists(r.Context())
	if err != nil {
		fail(w, err)
		return
	}
	for _, list := range lists {
		if list.Name != request.Name {
			continue
		}
		place, ok := list.After(s.studio.State().Document, request.Places)
		if !ok {
			refuse(w, http.StatusConflict, "the set list “"+list.Name+"” has no project there; what plays plays on")
			return
		}
		opened, err := s.studio.Open(r.Context(), request.Revision, list.Projects[place], false)
		if errors.Is(err, studio.ErrNoProject) {
			err = &studio.MissingError{List: list.Name, Place: place + 1}
		}
		answer(w, r)(opened, err)
		return
	}
	refuse(w, http.StatusNotFound, "there is no set list of that name; what plays plays on")
}
