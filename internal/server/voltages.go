package server

import (
	"context"
	"net/http"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/cv"
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
	// Beyond says which notes are beyond what it reaches, and kept there.
	Beyond string `json:"beyond,omitempty"`
	// Uncorrected says that it carries a test voltage, which no calibration changes.
	Uncorrected bool `json:"uncorrected,omitempty"`
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
	wire := WireVoltages{Output: shown.Output.ID, Playing: shown.Playing, Lines: []WireLine{}}
	for _, c := range shown.Channels {
		line := WireLine{Channel: c.VoltageChannel.Channel, Uncorrected: shown.Tested[c.VoltageChannel.Channel], Beyond: c.Beyond()}
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

// CalibrationsMessage is what was read of channels of audio interfaces on this machine.
type CalibrationsMessage struct {
	Calibrations []cv.Calibrated `json:"calibrations"`
}

// CalibrateRequest is what was read of a channel of an interface.
type CalibrateRequest struct {
	// Output is the id of the output of voltages, whose channel is to reach what it can with the calibration.
	Output  int `json:"output" jsonschema:"minimum=1,maximum=255"`
	Channel int `json:"channel" jsonschema:"minimum=1,maximum=32"`
	// Interface is its name on this machine.
	Interface string `json:"interface" jsonschema:"minLength=1,maxLength=200"`
	// Readings take the place of those that were kept; none is none.
	Readings []cv.VoltageReading `json:"readings" jsonschema:"maxItems=24"`
}

// calibrations returns the message of what was read, or nil if that cannot be.
func (h *hub) calibrations(ctx context.Context) *Message {
	all, err := h.options.Machine.Calibrations(ctx)
	if err != nil {
		if ctx.Err() == nil {
			h.notice("The calibrations of audio interfaces cannot be read, so voltages are sent uncorrected: " + err.Error() + ".")
		}
		return nil
	}
	return &Message{Calibrations: &CalibrationsMessage{Calibrations: append([]cv.Calibrated{}, all...)}}
}

type voltagesResource struct {
	studio  *studio.Studio
	keeper  *voltages.Keeper
	machine MachineStore
	hub     *hub
}

// Routes lists the resource's routes.
func (v voltagesResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Post("/show", v.show)
	r.Post("/test", v.test)
	r.Post("/calibrate", v.calibrate)
	return r
}

// show has every page know what all channels do, for one that begins to play some.
func (v voltagesResource) show(w http.ResponseWriter, _ *http.Request) {
	v.keeper.Show()
	reply(w, struct{}{})
}

// channelOf returns the setup of an output and one of its channels; ok is false if there is none, which is answered.
func (v voltagesResource) channelOf(w http.ResponseWriter, output, channel int) (setup *score.VoltageSetup, of score.VoltageChannel, ok bool) {
	for _, o := range v.studio.State().Project.Outputs {
		if o.ID != output || o.Voltages == nil {
			continue
		}
		for _, c := range o.Voltages.Channels {
			if c.Channel == channel {
				return o.Voltages, c, true
			}
		}
	}
	refuse(w, http.StatusConflict, "nothing was changed: the channel is not marked as one that carries voltages")
	return nil, of, false
}

func (v voltagesResource) test(w http.ResponseWriter, r *http.Request) {
	var request VoltageTestRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	setup, _, ok := v.channelOf(w, request.Output, request.Channel)
	if !ok {
		return
	}
	player := v.keeper.Player(request.Output)
	if player == nil {
		refuse(w, http.StatusConflict, "nothing was changed: the output is not active; have the outputs of this project be used first")
		return
	}
	if request.Millivolts == nil {
		player.Test(request.Channel, nil)
		reply(w, struct{}{})
		return
	}
	if *request.Millivolts < -setup.FullScale || *request.Millivolts > setup.FullScale {
		refuse(w, http.StatusUnprocessableEntity, "nothing was changed: the voltage is beyond the full scale of the interface")
		return
	}
	volts := float64(*request.Millivolts) / 1000
	player.Test(request.Channel, &volts)
	reply(w, struct{}{})
}

func (v voltagesResource) calibrate(w http.ResponseWriter, r *http.Request) {
	var request CalibrateRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	if request.Interface == "" || len(request.Interface) > 200 {
		refuse(w, http.StatusUnprocessableEntity, "nothing was kept: an interface is known by its name; select one first")
		return
	}
	setup, channel, ok := v.channelOf(w, request.Output, request.Channel)
	if !ok {
		return
	}
	calibration, err := cv.Calibrate(request.Readings)
	if err == nil {
		err = calibration.Check(channel, setup.FullScale)
	}
	if err != nil {
		refuse(w, http.StatusUnprocessableEntity, "nothing was kept: "+err.Error())
		return
	}
	if err := v.machine.Calibrate(r.Context(), request.Interface, request.Channel, request.Readings); err != nil {
		fail(w, err)
		return
	}
	if message := v.hub.calibrations(context.WithoutCancel(r.Context())); message != nil {
		v.hub.broadcast(*message)
	}
	reply(w, struct{}{})
}
