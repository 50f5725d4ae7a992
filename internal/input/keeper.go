package input

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

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/device"
)

// Options are a keeper's parts.
type Options struct {
	// List finds the devices of the machine that send.
	List func() ([]device.Device, error)
	// Open opens one of those; nil opens it as the machine does.
	Open func(device.Device) (device.Feed, error)
	// StandIns are devices besides; StandIn opens one that is no file.
	StandIns []device.Device
	StandIn  func(device.Device) (feed device.Feed, is bool)
	// Held reports whether the inputs of a project are not to be heard, as nobody has agreed to that.
	Held func(document int64) bool
	// GivesClock reports whether a device is given a clock, so that one that comes from it is the same that comes back; nil gives none.
	GivesClock func(device string) bool
	// Now tells the time, in nanoseconds.
	Now func() int64
	// Hear is given each message that comes in at an input, and when; Gone is told that one is gone, with all that it has left down.
	Hear func(id int, m midi.Message, at int64) error
	Gone func(id int)
	// Changed is told that there is something else to see; Notice is told what has happened, in whole sentences.
	Changed func()
	Notice  func(string)
}

// State is what there is to see of devices that send.
type State struct {
	Devices []device.Device `json:"devices"`
	Inputs  []InputState    `json:"inputs"`
}

// InputState is how an input stands.
type InputState struct {
	// Input is its id.
	Input int `json:"input"`
	// Device is the name of the device that it is on this machine; empty if none was selected.
	Device string `json:"device"`
	// Ready says that it is heard; Words says so, or what to do, in a few words.
	Ready bool   `json:"ready"`
	Words string `json:"words"`
}

// Keeper has devices be the inputs of a project to which they are bound on this machine. All methods may be called concurrently.
type Keeper struct {
	options Options
	kick    chan struct{}
	reading sync.WaitGroup

	mu       sync.Mutex
	document int64
	inputs   []score.Input
	bound    map[string]string // the name of the device by that of the input
	open     map[string]*opened
	state    State
}

// opened is a device that is heard.
type opened struct {
	feed   device.Feed
	inputs []int
	lost   error // why it is gone
	told   time.Time
	second int64 // which one came counts
	came   int
}

// NewKeeper returns a keeper that hears nothing yet. The devices are bound to inputs by name.
func NewKeeper(o Options, bound map[string]string) *Keeper {
	if o.Open == nil {
		o.Open = device.OpenFeed
	}
	if o.GivesClock == nil {
		o.GivesClock = func(string) bool { return false }
	}
	k := &Keeper{options: o, kick: make(chan struct{}, 1), bound: map[string]string{}, open: map[string]*opened{}}
	maps.Copy(k.bound, bound)
	return k
}

// SetInputs says which inputs the project has that is open.
func (k *Keeper) SetInputs(document int64, inputs []score.Input) {
	k.mu.Lock()
	k.document = document
	k.inputs = slices.DeleteFunc(slices.Clone(inputs), func(i score.Input) bool { return i.Kind != score.DeviceInput })
	k.mu.Unlock()
	k.Look()
}

// Bind says which device the inputs of a name are; an empty one is none.
func (k *Keeper) Bind(input, name string) {
	k.mu.Lock()
	if k.bound[input] = name; name == "" {
		delete(k.bound, input)
	}
	k.mu.Unlock()
	k.Look()
}

// State returns what there is to see at present.
func (k *Keeper) State() State {
	k.mu.Lock()
	defer k.mu.Unlock()
	return k.state
}

// Look has the keeper look at once what is wanted and there.
func (k *Keeper) Look() {
	select {
	case k.kick <- struct{}{}:
	default:
	}
}

// lookAgain is how long it takes at most until a device is seen that was plugged in.
const lookAgain = time.Second

// Run opens and closes devices as they are wanted until the context ends, and then closes all.
func (k *Keeper) Run(ctx context.Context) {
	ticker := time.NewTicker(lookAgain)
	defer ticker.Stop()
	for {
		k.settle()
		select {
		case <-ctx.Done():
			for name := range k.open {
				k.close(name)
			}
			k.reading.Wait()
			return
		case <-ticker.C:
		case <-k.kick:
		}
	}
}

var errUnplugged = errors.New("it was unplugged")

// settle has what is open be what is wanted and there.
func (k *Keeper) settle() {
	devices, _ := k.options.List() // why none can be found is told of those that play
	devices = append(devices, k.options.StandIns...)
	k.mu.Lock()
	document := k.document
	k.mu.Unlock()
	held := k.options.Held(document)
	wanted, lost := k.wanted(held), map[string]bool{}
	for name, one := range k.opened() {
		there := slices.ContainsFunc(devices, func(d device.Device) bool { return d.Name == name })
		switch why := k.lostOf(one); {
		case why == nil && wanted[name] != nil && there:
			continue
		case wanted[name] != nil:
			if why == nil {
				why = errUnplugged
			}
			lost[name] = true
			k.options.Notice(fmt.Sprintf("%s is gone: %s. All that it had down is released, and it is heard again once it is back.", name, why))
		}
		k.close(name)
	}
	blocked := map[string]string{}
	for _, found := range devices {
		if inputs := wanted[found.Name]; inputs != nil && !lost[found.Name] { // which is tried again with the next look
			if err := k.takeUp(found, inputs); err != nil {
				blocked[found.Name] = err.Error()
			}
		}
	}
	k.tell(devices, blocked, held)
}

// wanted returns the inputs that each device is, by the device's name.
func (k *Keeper) wanted(held bool) map[string][]int {
	k.mu.Lock()
	defer k.mu.Unlock()
	wanted := map[string][]int{}
	for _, i := range k.inputs {
		if name, ok := k.bound[i.Name]; ok && !held {
			wanted[name] = append(wanted[name], i.ID)
		}
	}
	return wanted
}

func (k *Keeper) opened() map[string]*opened {
	k.mu.Lock()
	defer k.mu.Unlock()
	return maps.Clone(k.open)
}

func (k *Keeper) lostOf(one *opened) error {
	k.mu.Lock()
	defer k.mu.Unlock()
	return one.lost
}

// takeUp hears a device. The error is why it cannot be.
func (k *Keeper) takeUp(found device.Device, inputs []int) error {
	k.mu.Lock()
	now := k.open[found.Name]
	k.mu.Unlock()
	if now == nil {
		feed, err := k.feed(found)
		if err != nil {
			return err
		}
		now = &opened{feed: feed}
		k.mu.Lock()
		k.open[found.Name], now.inputs = now, inputs
		k.mu.Unlock()
		k.reading.Go(func() { k.read(found.Name, now) })
		return nil
	}
	k.mu.Lock()
	gone := slices.DeleteFunc(slices.Clone(now.inputs), func(id int) bool { return slices.Contains(inputs, id) })
	now.inputs = inputs
	k.mu.Unlock()
	for _, id := range gone {
		k.options.Gone(id)
	}
	return nil
}

func (k *Keeper) feed(found device.Device) (device.Feed, error) {
	if k.options.StandIn != nil {
		if feed, is := k.options.StandIn(found); is {
			return feed, nil
		}
	}
	return k.options.Open(found)
}

// close hears a device no more.
func (k *Keeper) close(name string) {
	k.mu.Lock()
	gone := k.open[name]
	delete(k.open, name)
	k.mu.Unlock()
	_ = gone.feed.Close() // it is not read any more
	for _, id := range gone.inputs {
		k.options.Gone(id)
	}
}

// read hears a device until it is gone.
func (k *Keeper) read(name string, one *opened) {
	var stream midi.Stream
	data := make([]byte, 1024)
	for {
		n, err := one.feed.Read(data)
		at := k.options.Now()
		if err != nil {
			k.mu.Lock()
			one.lost = err
			k.mu.Unlock()
			k.Look()
			return
		}
		for _, m := range stream.Read(data[:n]) {
			k.pass(name, one, m, at)
		}
	}
}

const (
	// mostASecond is how many messages of a device are heard in a second; of more all are left out but ends of notes and what machines in time
	// tell each other.
	mostASecond = 4000
	// tellEvery is how long passes at least until somebody is told again of what was left out.
	tellEvery = 10 * time.Second
)

// pass hands a message on.
func (k *Keeper) pass(name string, one *opened, m midi.Message, at int64) {
	if second := at / int64(time.Second); second != one.second {
		one.second, one.came = second, 0
	}
	var err error
	if m.Kind >= midi.Clock && k.options.GivesClock(name) {
		err = errors.New("its clock is the one that it is given")
	} else if one.came++; one.came > mostASecond && m.Kind != midi.NoteOff && m.Kind < midi.Clock {
		err = fmt.Errorf("more than %d messages come in a second", mostASecond)
	} else {
		k.mu.Lock()
		inputs := one.inputs
		k.mu.Unlock()
		for _, id := range inputs {
			err = errors.Join(err, k.options.Hear(id, m, at))
		}
	}
	if now := time.Now(); err != nil && now.Sub(one.told) >= tellEvery {
		one.told = now
		k.options.Notice(fmt.Sprintf("Of what came in from %s some was left out: %s.", name, strings.TrimSuffix(err.Error(), ".")))
	}
}

// tell says what there is to see, if that has changed.
func (k *Keeper) tell(devices []device.Device, blocked map[string]string, held bool) {
	state := State{Devices: devices, Inputs: []InputState{}}
	if state.Devices == nil {
		state.Devices = []device.Device{}
	}
	k.mu.Lock()
	for _, i := range k.inputs {
		state.Inputs = append(state.Inputs, k.stateOf(i, blocked, held))
	}
	changed := !reflect.DeepEqual(state, k.state)
	k.state = state
	k.mu.Unlock()
	if changed {
		k.options.Changed()
	}
}

func (k *Keeper) stateOf(i score.Input, blocked map[string]string, held bool) InputState {
	state := InputState{Input: i.ID, Device: k.bound[i.Name]}
	why, tried := blocked[state.Device]
	switch {
	case state.Device == "":
		state.Words = "no device is selected"
	case held:
		state.Words = "not active yet"
	case k.open[state.Device] != nil:
		state.Ready, state.Words = true, "hears "+state.Device
	case tried:
		state.Words = fmt.Sprintf("%s cannot be used: %s", state.Device, strings.TrimSuffix(why, "."))
	default:
		state.Words = state.Device + " is not plugged in"
	}
	return state
}
