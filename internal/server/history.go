package server

import (
	"net/http"
	"strconv"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/studio"
)

// GoToRequest asks to undo or redo edits until just those up to a position are in force.
type GoToRequest struct {
	Revision int64 `json:"revision"`
	Position int   `json:"position"`
}

// historyPage is how many edits are listed at a time.
const historyPage = 200

type historyResource struct{ studio *studio.Studio }

// Routes lists the resource's routes.
func (h historyResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Get("/", h.list)
	r.Post("/", h.goTo)
	return r
}

// list answers with the edits before a position, the latest first; without one, with the latest.
func (h historyResource) list(w http.ResponseWriter, r *http.Request) {
	before := 0
	if text := r.URL.Query().Get("before"); text != "" {
		var err error
		if before, err = strconv.Atoi(text); err != nil || before < 1 {
			refuse(w, http.StatusUnprocessableEntity, "the history is listed before a position from 1")
			return
		}
	}
	entries, err := h.studio.History(r.Context(), before, historyPage)
	if err != nil {
		fail(w, err)
		return
	}
	reply(w, entries)
}

func (h historyResource) goTo(w http.ResponseWriter, r *http.Request) {
	var request GoToRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	answer(w, r)(h.studio.GoTo(r.Context(), request.Revision, request.Position))
}
