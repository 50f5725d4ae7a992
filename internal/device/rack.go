package device

import (
	"context"
	"errors"
	"fmt"
	"maps"
	"reflect"
	"slices"
	"strings"
	"sync"
	"time"

	"jettyfog/internal/core/score"
	"jettyfog/internal/output"
)

// Options are a rack's parts.
type Options struct {
	// List finds the devices of the machine.
	List func() ([]Device, error)
	// Open opens one of those; nil opens it as the machine does.
	Open func(Device) (Wire, error)
	// StandIns are devices besides.
	StandIns []Device
	// Held reports whether the outputs of a project are not to be played, as nobody has agreed to that.
	Held func(document int64) bool
	// Clock is the transport's.
	Clock Clock
	// Connect has the transport play outputs by a port, or others than before; Disconnect has it do so no more.
	Connect    func(p output.Port, outputs ...int)
	Disconnect func(p output.Port)
	// Changed is told what there is to see.
	Changed func(State)
	// Notice is told of devices that are lost, in whole sentences.
	Notice func(string)
}

// Rack has devices play the outputs of a project to which they are bound on this machine. All methods may be called concurrently, and
// none waits for a device.
type Rack struct {
	options Options
	kick    chan struct{}
	lines   map[string]*Line // of devices that were ever open; what they left down ends when they are back

	mu       sync.Mutex
	document int64
	outputs  []score.Output
	bound    map[string]string // the name of the device by that of the output
	open     map[string]*opened
	lost     map[string]error
	state    State
}

// opened is a device that is open, and what it plays.
type opened struct {
	port     *Port
	outputs  []int
	settings Settings
	standIn  bool
}

// State is what there is to see of devices.
type State struct {
	// Devices are those that can be selected.
	Devices []Device `json:"devices"`
	// Problem is why none can be found on this machine; empty if they can.
	Problem string `json:"problem,omitempty"`
	// Outputs are the outputs that are played by devices.
	Outputs []OutputState `json:"outputs"`
}

// OutputState is how an output stands.
type OutputState struct {
	// Output is its id.
	Output int `json:"output"`
	// Device is the name of the device that it is on this machine; empty if none was selected.
	Device string `json:"device"`
	// Ready says that the device plays it; Words says so, or what to do, in a few words.
	Ready bool   `json:"ready"`
	Words string `json:"words"`
	// Dropped is how many values of controllers were left out, as the device was behind.
	Dropped int `json:"dropped"`
}

// NewRack returns a rack that plays nothing yet. The devices are bound to outputs by name.
func NewRack(o Options, bound map[string]string) *Rack {
	if o.Open == nil {
		o.Open = open
	}
	r := &Rack{
		options: o, kick: make(chan struct{}, 1), lines: map[string]*Line{}, bound: map[string]string{},
		open: map[string]*opened{}, lost: map[string]error{},
	}
	maps.Copy(r.bound, bound)
	return r
}

// SetOutputs says which outputs the project has that plays.
func (r *Rack) SetOutputs(document int64, outputs []score.Output) {
	r.change(func() {
		r.document = document
		r.outputs = slices.DeleteFunc(slices.Clone(outputs), func(o score.Output) bool { return o.Kind != score.ServerDevice })
	})
}

// Bind says which device plays the outputs of a name; an empty one is none.
func (r *Rack) Bind(output, device string) {
	r.change(func() {
		if r.bound[output] = device; device == "" {
			delete(r.bound, output)
		}
	})
}

// State returns what there is to see at present.
func (r *Rack) State() State {
	r.mu.Lock()
	defer r.mu.Unlock()
	return r.state
}

func (r *Rack) change(do func()) {
	r.mu.Lock()
	do()
	r.mu.Unlock()
	r.Look()
}

// Look has the rack look at once what is wanted and there.
func (r *Rack) Look() {
	select {
	case r.kick <- struct{}{}:
	default:
	}
}

// lookAgain is how long it takes at most until a device is seen that was plugged in.
const lookAgain = time.Second

// Run takes devices up and lets go of them until the context ends, and then lets go of all.
func (r *Rack) Run(ctx context.Context) {
	ticker := time.NewTicker(lookAgain)
	defer ticker.Stop()
	for {
		r.settle()
		select {
		case <-ctx.Done():
			for name := range r.open {
				r.letGo(name)
			}
			return
		case <-ticker.C:
		case <-r.kick:
		}
	}
}

// errUnplugged is why a device is gone that is not listed any more.
var errUnplugged = errors.New("it was unplugged")

// wish is what a device is to play.
type wish struct {
	outputs  []int
	settings Settings
}

// settle has what is open be what is wanted and there.
func (r *Rack) settle() {
	devices, err := r.options.List()
	devices = append(devices, r.options.StandIns...)
	r.mu.Lock()
	document := r.document
	r.mu.Unlock()
	held := r.options.Held(document)
	wishes, lost := r.wishes(held)
	for name := range r.open {
		_, wanted := wishes[name]
		there := slices.ContainsFunc(devices, func(f Device) bool { return f.Name == name })
		if lost[name] == nil && wanted && !there {
			lost[name] = errUnplugged
		}
		if !wanted || lost[name] != nil {
			r.letGo(name)
		}
	}
	for name, why := range lost {
		r.options.Notice(fmt.Sprintf("%s is gone: %s. The rest plays on, and it is used again once it is back.", name, why))
	}
	blocked := map[string]string{}
	for _, found := range devices {
		if wish, wanted := wishes[found.Name]; wanted {
			if err := r.takeUp(found, wish); err != nil {
				blocked[found.Name] = err.Error()
			}
		}
	}
	r.tell(devices, err, blocked, held)
}

// wishes returns what each device is to play, and which were lost since it was asked last.
func (r *Rack) wishes(held bool) (wishes map[string]wish, lost map[string]error) {
	r.mu.Lock()
	defer r.mu.Unlock()
	wishes = map[string]wish{}
	for _, o := range r.outputs {
		name, ok := r.bound[o.Name]
		if !ok || held {
			continue
		}
		w := wishes[name]
		w.outputs = append(w.outputs, o.ID)
		w.settings = Settings{
			Paced:         w.settings.Paced || o.Paced,
			RunningStatus: w.settings.RunningStatus || o.RunningStatus,
			ActiveSensing: w.settings.ActiveSensing || o.ActiveSensing,
		}
		wishes[name] = w
	}
	lost, r.lost = r.lost, map[string]error{}
	return wishes, lost
}

// takeUp has a device play what is wanted of it. The error is why it cannot.
func (r *Rack) takeUp(found Device, w wish) error {
	now := r.open[found.Name]
	if now == nil {
		wire, err := r.options.Open(found)
		if err != nil {
			return err
		}
		if r.lines[found.Name] == nil {
			r.lines[found.Name] = NewLine()
		}
		now = &opened{standIn: found.StandIn}
		r.mu.Lock()
		r.open[found.Name] = now
		now.port = Open(wire, r.lines[found.Name], r.options.Clock, func(err error) { r.loses(found.Name, now, err) })
		r.mu.Unlock()
	}
	if now.settings != w.settings {
		now.port.Set(w.settings)
	}
	if !slices.Equal(now.outputs, w.outputs) {
		r.options.Connect(now.port, w.outputs...)
	}
	r.mu.Lock()
	defer r.mu.Unlock()
	now.outputs, now.settings = w.outputs, w.settings
	return nil
}

// loses says that an open device is lost, unless it was let go of already.
func (r *Rack) loses(name string, one *opened, why error) {
	r.change(func() {
		if r.open[name] == one {
			r.lost[name] = why
		}
	})
}

// letGo ends what a device plays.
func (r *Rack) letGo(name string) {
	gone := r.open[name]
	if gone == nil {
		return
	}
	r.mu.Lock()
	delete(r.open, name)
	r.mu.Unlock()
	r.options.Disconnect(gone.port)
	gone.port.Close()
}

// tell says what there is to see, if that has changed.
func (r *Rack) tell(devices []Device, missing error, blocked map[string]string, held bool) {
	state := State{Devices: devices, Outputs: []OutputState{}}
	if state.Devices == nil {
		state.Devices = []Device{}
	}
	if missing != nil {
		state.Problem = missing.Error()
	}
	r.mu.Lock()
	for _, o := range r.outputs {
		state.Outputs = append(state.Outputs, r.outputState(o, blocked, held))
	}
	changed := !reflect.DeepEqual(state, r.state)
	r.state = state
	r.mu.Unlock()
	if changed {
		r.options.Changed(state)
	}
}

func (r *Rack) outputState(o score.Output, blocked map[string]string, held bool) OutputState {
	state := OutputState{Output: o.ID, Device: r.bound[o.Name]}
	why, tried := blocked[state.Device]
	switch now := r.open[state.Device]; {
	case state.Device == "":
		state.Words = "no device is selected"
	case held:
		state.Words = "not active yet"
	case now != nil:
		state.Ready, state.Words, state.Dropped = true, "plays "+state.Device, now.port.Dropped()
		if now.standIn {
			state.Words = "simulated: " + state.Words
		}
	case tried:
		state.Words = fmt.Sprintf("%s cannot be used: %s", state.Device, strings.TrimSuffix(why, "."))
	default:
		state.Words = state.Device + " is not plugged in"
	}
	return state
}

// Play has an output play events now, whatever the transport does. It reports whether a device plays it.
func (r *Rack) Play(id int, events []output.Event) bool {
	r.mu.Lock()
	defer r.mu.Unlock()
	for _, now := range r.open {
		if slices.Contains(now.outputs, id) {
			now.port.Send(events)
			return true
		}
	}
	return false
}
