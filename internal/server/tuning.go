package server

import (
	"net/http"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
	"jettyfog/internal/studio"
)

// TuningRequest asks for another tuning, in Scala's formats.
type TuningRequest struct {
	Revision int64 `json:"revision"`
	// Scl is the text of a scale file; empty is equal temperament.
	Scl string `json:"scl"`
	// Kbm is the text of a keyboard mapping file; empty has each key play the next note.
	Kbm string `json:"kbm,omitempty"`
}

type tuningResource struct{ studio *studio.Studio }

// Routes lists the resource's routes.
func (t tuningResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Post("/", t.set)
	r.Get("/tuning.scl", t.scale)
	r.Get("/tuning.kbm", t.keyboard)
	return r
}

func (t tuningResource) set(w http.ResponseWriter, r *http.Request) {
	var request TuningRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	var tuning *theory.Tuning
	if request.Scl != "" {
		var err error
		if tuning, err = theory.ParseScale([]byte(request.Scl)); err != nil {
			refuse(w, http.StatusUnprocessableEntity, "the scale file cannot be used: "+err.Error())
			return
		}
		if request.Kbm != "" {
			if tuning.Keyboard, err = theory.ParseKeyboard([]byte(request.Kbm)); err != nil {
				refuse(w, http.StatusUnprocessableEntity, "the keyboard mapping cannot be used: "+err.Error())
				return
			}
		}
	}
	answer(w, r)(t.studio.Edit(r.Context(), request.Revision, score.Retune(t.studio.State().Project, tuning)))
}

// tuning returns the tuning in force.
func (t tuningResource) tuning() *theory.Tuning {
	if tuning := t.studio.State().Project.Key.Tuning; tuning != nil {
		return tuning
	}
	return theory.EqualTemperament()
}

func (t tuningResource) scale(w http.ResponseWriter, _ *http.Request) {
	tuning := t.tuning()
	download(w, "text/plain; charset=utf-8", tuning.Name, ".scl", theory.FormatScale(tuning))
}

func (t tuningResource) keyboard(w http.ResponseWriter, _ *http.Request) {
	tuning, keyboard := t.tuning(), theory.DefaultKeyboard()
	if tuning.Keyboard != nil {
		keyboard = *tuning.Keyboard
	}
	download(w, "text/plain; charset=utf-8", tuning.Name, ".kbm", theory.FormatKeyboard(&keyboard))
}
