package server

import (
	"net/http"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/live"
	"jettyfog/internal/studio"
)

// TransportRequest asks the transport to do something.
type TransportRequest struct {
	Do string `json:"do" jsonschema:"enum=play,enum=stop,enum=record,enum=endRecording"`
}

type transportResource struct {
	transport *live.Transport
	studio    *studio.Studio
}

// Routes lists the resource's routes.
func (t transportResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Post("/", t.do)
	return r
}

func (t transportResource) do(w http.ResponseWriter, r *http.Request) {
	var request TransportRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	switch request.Do {
	case "play":
		t.transport.Play()
	case "stop":
		t.transport.Stop()
	case "record":
		t.transport.Record(t.studio.State().Revision)
	case "endRecording":
		t.transport.EndRecording()
	default:
		refuse(w, http.StatusUnprocessableEntity, "the transport can play, stop, record and endRecording")
		return
	}
	reply(w, t.transport.Status())
}
