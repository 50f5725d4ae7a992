package server

import (
	"errors"
	"net/http"
	"time"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/input"
	"jettyfog/internal/live"
)

// InputsMessage tells of what can come in at this machine.
type InputsMessage struct {
	input.State
	// Clock is how the simulated clock goes.
	Clock input.ClockSettings `json:"clock"`
}

// BindInputRequest says which device the inputs of a name are on this machine.
type BindInputRequest struct {
	Input string `json:"input" jsonschema:"minLength=1,maxLength=60"`
	// Device is its name; an empty one is none.
	Device string `json:"device" jsonschema:"maxLength=200"`
}

type inputsResource struct {
	machine MachineStore
	inputs  *input.Keeper
	clock   *input.Simulated
}

// Routes lists the resource's routes.
func (i inputsResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Post("/bind", i.bind)
	r.Post("/clock", i.act)
	return r
}

func (i inputsResource) bind(w http.ResponseWriter, r *http.Request) {
	var request BindInputRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	if request.Input == "" || len(request.Input) > 240 || len(request.Device) > 200 {
		refuse(w, http.StatusUnprocessableEntity, "an input and a device are known by their names; nothing was changed")
		return
	}
	if err := i.machine.BindInput(r.Context(), request.Input, request.Device); err != nil {
		fail(w, err)
		return
	}
	i.inputs.Bind(request.Input, request.Device)
	reply(w, struct{}{})
}

// act has the simulated clock do something.
func (i inputsResource) act(w http.ResponseWriter, r *http.Request) {
	var request input.ClockAct
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	if err := i.clock.Act(request); err != nil {
		fail(w, err)
		return
	}
	reply(w, i.clock.Settings())
}

// inputs returns what there is to see of inputs.
func (h *hub) inputs() Message {
	return Message{Inputs: &InputsMessage{State: h.options.Inputs.State(), Clock: h.options.Clock.Settings()}}
}

// InputsChanged tells every page of the inputs.
func (s *Server) InputsChanged() { s.hub.broadcast(s.hub.inputs()) }

// maxHeard is of how many messages that come in at the machine pages are told in a second; they do not wait for the rest.
const maxHeard = 200

// Heard tells every page what came in at a device or from a program.
func (s *Server) Heard(in live.Incoming) {
	s.hub.mu.Lock()
	if second := in.At / int64(time.Second); second != s.hub.heardSecond {
		s.hub.heardSecond, s.hub.heard = second, 0
	}
	s.hub.heard++
	tells := s.hub.heard <= maxHeard
	s.hub.mu.Unlock()
	if !tells {
		return
	}
	heard := &HeardInput{Kind: in.Source.Kind, ID: in.ID, At: in.At}
	for _, b := range midi.Append(nil, in.Message) {
		heard.Message = append(heard.Message, int(b))
	}
	s.hub.broadcast(Message{Heard: heard})
}

// maxAgo is how long ago something can have come in at a page; a page whose clock is further off has it come now.
const maxAgo = int64(time.Second)

var errNoInput = errors.New("only the keyboard on the screen and ports of the browser are inputs of a page")

// hear takes a message that came in at a page. One that nothing here knows is left out.
func (h *hub) hear(c *client, in PageInput, now int64) error {
	source := live.Source{Kind: in.Kind, ID: in.ID}
	if in.Kind != score.ScreenInput && in.Kind != score.PortInput {
		return errNoInput
	}
	at := in.At
	if at > now || at < now-maxAgo {
		at = now
	}
	if in.Key != "" {
		c.sources[source] = struct{}{}
		return h.options.Transport.Press(in.Key, in.Down, at)
	}
	if len(in.Message) == 0 {
		delete(c.sources, source)
		h.options.Transport.Gone(source)
		return nil
	}
	data := make([]byte, 0, len(in.Message))
	for _, b := range in.Message {
		data = append(data, byte(min(max(b, 0), 0xFF)))
	}
	m, ok := midi.ReadWhole(data)
	if !ok {
		return nil
	}
	c.sources[source] = struct{}{}
	return h.options.Transport.Hear(live.Incoming{Source: source, Message: m, At: at})
}
