package server

import (
	"context"
	"net/http"
	"slices"
	"time"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/cv"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/device"
	"jettyfog/internal/input"
	"jettyfog/internal/live"
	"jettyfog/internal/osc"
	"jettyfog/internal/output"
	"jettyfog/internal/studio"
	"jettyfog/internal/voltages"
)

// MachineStore keeps what belongs to this machine and to no project.
type MachineStore interface {
	// Bind has the outputs of a name be a device; an empty one is none.
	Bind(ctx context.Context, output, device string) error
	// BindInput has the inputs of a name be a device; an empty one is none.
	BindInput(ctx context.Context, input, device string) error
	// Held reports whether the outputs of a project are not to be played, as it came from elsewhere and nobody has agreed.
	Held(ctx context.Context, project int64) (bool, error)
	// Agree has them be played.
	Agree(ctx context.Context, project int64) error
	// Setups returns the names of the setups that are kept, in their order.
	Setups(ctx context.Context) ([]string, error)
	// Setup returns one of them. The error can wrap score.ErrNoSetup.
	Setup(ctx context.Context, name string) (score.Setup, error)
	// KeepSetup keeps one by a name, in the place of one that has it.
	KeepSetup(ctx context.Context, name string, setup score.Setup) error
	// DeleteSetup deletes one. The error can wrap score.ErrNoSetup.
	DeleteSetup(ctx context.Context, name string) error
	// Calibrations returns what was read of channels of audio interfaces.
	Calibrations(ctx context.Context) ([]cv.Calibrated, error)
	// Calibrate keeps what was read of a channel of an interface; without readings nothing is kept of it any more.
	Calibrate(ctx context.Context, of string, channel int, readings []cv.VoltageReading) error
}

// DevicesMessage tells of the MIDI devices of this machine, and whether the project that is open may use them.
type DevicesMessage struct {
	device.State
	// Held says that the project came from elsewhere, and that its outputs are not played until somebody agrees.
	Held bool `json:"held,omitempty"`
	// OSCIn is the address at which OSC comes in; empty if it does nowhere.
	OSCIn string `json:"oscIn,omitempty"`
}

// BindRequest says which device the outputs of a name are on this machine.
type BindRequest struct {
	Output string `json:"output" jsonschema:"minLength=1,maxLength=60"`
	// Device is its name, or the address of a program that hears OSC; an empty one is none.
	Device string `json:"device" jsonschema:"maxLength=200"`
}

// TestRequest asks for a middle C.
type TestRequest struct {
	// Output is the id of an output that a device of this machine plays.
	Output int `json:"output" jsonschema:"minimum=1,maximum=255"`
	// Channel is the MIDI channel, 1 to 16.
	Channel int `json:"channel" jsonschema:"minimum=1,maximum=16"`
}

// devices returns what there is to see of devices.
func (h *hub) devices(ctx context.Context) Message {
	held, err := h.options.Machine.Held(ctx, h.options.Studio.State().Document)
	state := h.options.Rack.State()
	state.Outputs = append(h.options.OSC.States(), state.Outputs...)
	return Message{Devices: &DevicesMessage{State: state, Held: held || err != nil, OSCIn: h.options.OSCIn}}
}

// DevicesChanged tells every page of the devices.
func (s *Server) DevicesChanged() { s.hub.broadcast(s.hub.devices(context.Background())) }

type devicesResource struct {
	machine   MachineStore
	rack      *device.Rack
	voltages  *voltages.Keeper
	osc       *osc.Keeper
	inputs    *input.Keeper
	transport *live.Transport
	studio    *studio.Studio
	changed   func()
}

// Routes lists the resource's routes.
func (d devicesResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Post("/bind", d.bind)
	r.Post("/agree", d.agree)
	r.Post("/test", d.test)
	return r
}

func (d devicesResource) bind(w http.ResponseWriter, r *http.Request) {
	var request BindRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	if request.Output == "" || len(request.Output) > 240 || len(request.Device) > 200 {
		refuse(w, http.StatusUnprocessableEntity, "an output and a device are known by their names; nothing was changed")
		return
	}
	if request.Device != "" && d.isOSC(request.Output) {
		if _, err := osc.ParseAddress(request.Device); err != nil {
			refuse(w, http.StatusUnprocessableEntity, "nothing was changed: "+err.Error())
			return
		}
	}
	if err := d.machine.Bind(r.Context(), request.Output, request.Device); err != nil {
		fail(w, err)
		return
	}
	d.rack.Bind(request.Output, request.Device)
	d.osc.Bind(request.Output, request.Device)
	reply(w, struct{}{})
}

// isOSC reports whether the output of a name speaks OSC, so that its device is an address.
func (d devicesResource) isOSC(name string) bool {
	return slices.ContainsFunc(d.studio.State().Project.Outputs, func(o score.Output) bool { return o.Name == name && o.Kind == score.OSC })
}

// agree has the outputs of the project that is open be played on this machine.
func (d devicesResource) agree(w http.ResponseWriter, r *http.Request) {
	if err := d.machine.Agree(r.Context(), d.studio.State().Document); err != nil {
		fail(w, err)
		return
	}
	d.rack.Look()
	d.voltages.Look()
	d.osc.Look()
	d.inputs.Look()
	d.changed()
	reply(w, struct{}{})
}

// testFor is how long a test note sounds.
const testFor = 300 * time.Millisecond

func (d devicesResource) test(w http.ResponseWriter, r *http.Request) {
	var request TestRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	now := d.transport.Now()
	on := output.Event{Message: midi.NoteID{Channel: uint8(request.Channel - 1), Key: 60}.On(0, 90, 0), Output: request.Output, At: now}
	off := on
	off.Message, off.At = on.NoteID().Off(0), now+int64(testFor)
	if events := []output.Event{on, off}; !d.rack.Play(request.Output, events) && !d.osc.Play(request.Output, events) {
		refuse(w, http.StatusConflict, "nothing was played: nothing plays this output at present")
		return
	}
	reply(w, struct{}{})
}
