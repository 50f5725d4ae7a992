package server

import (
	"net/http"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/stage"
	"jettyfog/internal/live"
)

// ControlAt is a control of the project that plays, and the value that it has, as macros move it.
type ControlAt struct {
	Address string `json:"address"`
	Value   int    `json:"value"`
	// Words say which it is and what it stands at.
	Words string `json:"words"`
}

// TurnRequest asks for the control of an address to be given a value, or without one its written value.
type TurnRequest struct {
	Address string    `json:"address" jsonschema:"minLength=1,maxLength=200"`
	Value   *int      `json:"value,omitempty"`
	When    live.When `json:"when,omitempty" jsonschema:"enum=,enum=now,enum=step,enum=beat,enum=bar,enum=pattern"`
	// Turns says that it is one of many values, as of something that is dragged: it counts at once, of many the last one does, and those within a
	// second are undone together.
	Turns bool `json:"turns,omitempty"`
}

// Routes of controls: what there are, what one stands at by its address, and giving one a value.
func (s stageResource) controlRoutes() chi.Router {
	r := chi.NewRouter()
	r.Get("/", func(w http.ResponseWriter, _ *http.Request) { reply(w, stage.Listed()) })
	r.Post("/", s.turn)
	r.Get("/*", s.control)
	return r
}

// control answers with what the control stands at whose address is the rest of the path.
func (s stageResource) control(w http.ResponseWriter, r *http.Request) {
	c, err := stage.ControlAt("/" + chi.URLParam(r, "*"))
	if err != nil {
		refuse(w, http.StatusUnprocessableEntity, err.Error())
		return
	}
	project := s.studio.State().Project
	value, there := s.transport.Stage().Effective(project, c)
	if !there {
		fail(w, stage.ErrGone)
		return
	}
	reply(w, ControlAt{c.Address(), value, wordsOf(project, c, &value)})
}

func (s stageResource) turn(w http.ResponseWriter, r *http.Request) {
	var request TurnRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	c, err := stage.ControlAt(request.Address)
	if err != nil {
		refuse(w, http.StatusUnprocessableEntity, err.Error())
		return
	}
	if request.Turns && request.Value != nil {
		s.answer(w, s.transport.Turn(c, *request.Value))
		return
	}
	if request.When == "" {
		request.When = live.Now
	}
	s.answer(w, s.transport.Do([]live.Doing{{Control: c, Value: request.Value}}, request.When, 0))
}
