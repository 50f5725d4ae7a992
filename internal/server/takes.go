package server

import (
	"net/http"
	"strconv"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/smf"
	"jettyfog/internal/core/take"
)

type takesResource struct{ takes TakeStore }

// Routes lists the resource's routes.
func (t takesResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Get("/{id}.mid", t.midi)
	return r
}

// midi answers with a take as a Standard MIDI File: ?format=0 or 1, default 1, and ?division=960 or
// 20160, default 960.
func (t takesResource) midi(w http.ResponseWriter, r *http.Request) {
	id, err := strconv.ParseInt(chi.URLParam(r, "id"), 10, 64)
	if err != nil {
		fail(w, take.ErrUnknown)
		return
	}
	options := smf.Options{Format: 1, Division: smf.DefaultDivision}
	switch r.URL.Query().Get("format") {
	case "", "1":
	case "0":
		options.Format = 0
	default:
		refuse(w, http.StatusUnprocessableEntity, "the format must be 0 or 1")
		return
	}
	switch r.URL.Query().Get("division") {
	case "", strconv.Itoa(smf.DefaultDivision):
	case strconv.Itoa(smf.ExactDivision):
		options.Division = smf.ExactDivision
	default:
		refuse(w, http.StatusUnprocessableEntity, "the division must be 960 or 20160")
		return
	}
	recorded, err := t.takes.Take(r.Context(), id)
	if err != nil {
		fail(w, err)
		return
	}
	data, err := smf.Encode(smf.FromTake(recorded, options))
	if err != nil {
		fail(w, err)
		return
	}
	download(w, "audio/midi", recorded.Name, ".mid", data)
}
