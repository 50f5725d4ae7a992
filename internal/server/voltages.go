package server

import (
	"net/http"
	"slices"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/score"
	"jettyfog/internal/studio"
	"jettyfog/internal/voltages"
)

// WireVoltages is what the channels of an output do from a moment on, in the place of all that was said of it before.
type WireVoltages struct {
	Output int `json:"output"`
	// Playing says that more is to come, soon.
	Playing bool       `json:"playing"`
	Lines   []WireLine `json:"lines"`
}

// WireLine is what a channel does.
type WireLine struct {
	// Channel is that of the interface, from 1.
	Channel int `json:"channel"`
	// Rest is its voltage while the program is not heard of, if it is one that is off then.
	Rest *float64 `json:"rest,omitempty"`
	// Segments are in the order of their times; each ends where the next begins, and the last stays at its end.
	Segments []WireSegment `json:"segments"`
}

// WireSegment is a voltage that goes from a value to another.
type WireSegment struct {
	// At is the time of the server's clock, Takes how long it takes, in nanoseconds.
	At    int64 `json:"at"`
	Takes int64 `json:"takes"`
	// Start and End are volts.
	Start float64 `json:"start"`
	End   float64 `json:"end"`
	// Bend above 0 has it go fast first: with x from 0 to 1 it is at Start + (End - Start) · (1 - e^(-Bend·x)) / (1 - e^(-Bend)).
	Bend float64 `json:"bend,omitempty"`
}

// VoltageTestRequest has a channel carry a voltage.
type VoltageTestRequest struct {
	Output  int `json:"output" jsonschema:"minimum=1,maximum=255"`
	Channel int `json:"channel" jsonschema:"minimum=1,maximum=32"`
	// Millivolts is the voltage until something plays; without it the channel is at rest again.
	Millivolts *int `json:"millivolts,omitempty" jsonschema:"minimum=-20000,maximum=20000"`
}

// ShowVoltages has every page know what the channels of an output do.
func (s *Server) ShowVoltages(shown voltages.Shown) {
	s.hub.broadcast(Message{Batch: &WireBatch{Voltages: []WireVoltages{wireVoltages(shown)}}})
}

func wireVoltages(shown voltages.Shown) WireVoltages {
	wire := WireVoltages{Output: shown.Output.ID, Playing: shown.Playing}
	for _, c := range shown.Channels {
		line := WireLine{Channel: c.VoltageChannel.Channel}
		if rest, falls := c.OffVoltage(); falls {
			line.Rest = &rest
		}
		for i, s := range c.Line {
			segment := WireSegment{At: s.From, Start: s.Start, End: s.End, Bend: s.Bend}
			if i+1 < len(c.Line) {
				segment.Takes = s.To - s.From
			}
			line.Segments = append(line.Segments, segment)
		}
		wire.Lines = append(wire.Lines, line)
	}
	return wire
}

type voltagesResource struct {
	studio *studio.Studio
	keeper *voltages.Keeper
}

// Routes lists the resource's routes.
func (v voltagesResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Post("/test", v.test)
	return r
}

func (v voltagesResource) test(w http.ResponseWriter, r *http.Request) {
	var request VoltageTestRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	player := v.keeper.Player(request.Output)
	outputs := v.studio.State().Project.Outputs
	at := slices.IndexFunc(outputs, func(o score.Output) bool { return o.ID == request.Output && o.Voltages != nil })
	if player == nil || at < 0 {
		refuse(w, http.StatusConflict, "nothing was changed: the output is not active; confirm the outputs of this project first")
		return
	}
	setup := outputs[at].Voltages
	if !slices.ContainsFunc(setup.Channels, func(c score.VoltageChannel) bool { return c.Channel == request.Channel }) {
		refuse(w, http.StatusConflict, "nothing was changed: the channel is not marked as one that carries voltages")
		return
	}
	if request.Millivolts == nil {
		player.Test(request.Channel, nil)
	} else if volts := float64(*request.Millivolts) / 1000; max(volts, -volts) > float64(setup.FullScale)/1000 {
		refuse(w, http.StatusUnprocessableEntity, "nothing was changed: the voltage is beyond the full scale of the interface")
		return
	} else {
		player.Test(request.Channel, &volts)
	}
	reply(w, struct{}{})
}
