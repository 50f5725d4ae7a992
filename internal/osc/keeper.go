package osc

import (
	"context"
	"errors"
	"fmt"
	"maps"
	"net"
	"net/netip"
	"reflect"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"syscall"
	"time"

	"jettyfog/internal/core/score"
	"jettyfog/internal/device"
	"jettyfog/internal/output"
)

// Options are a keeper's parts.
type Options struct {
	// Now is the transport's clock.
	Now func() int64
	// Held reports whether the outputs of a project are not to be played, as nobody has agreed to that.
	Held func(document int64) bool
	// Connect has the transport play an output by a port; Disconnect has it do so no more.
	Connect    func(p output.Port, outputs ...int)
	Disconnect func(p output.Port)
	// Changed is told that outputs stand otherwise.
	Changed func()
}

// Keeper has ports play the OSC outputs of a project, each at the address to which it is bound on this machine. All methods may be called
// concurrently.
type Keeper struct {
	options Options
	kick    chan struct{}

	mu       sync.Mutex
	document int64
	outputs  []score.Output
	bound    map[string]string // the address by the name of the output
	open     map[int]*opened
	states   []device.OutputState
}

// opened is a port that is open.
type opened struct {
	output  score.Output
	address string
	port    *Port
	conn    *net.UDPConn
	unheard atomic.Bool // whether nobody listens there
}

// NewKeeper returns a keeper that plays nothing yet. The addresses are bound to outputs by name.
func NewKeeper(o Options, bound map[string]string) *Keeper {
	return &Keeper{options: o, kick: make(chan struct{}, 1), bound: maps.Clone(bound), open: map[int]*opened{}}
}

// ParseAddress reads the address of a program: an IP address or localhost, and a port. The error says what it must be.
func ParseAddress(text string) (netip.AddrPort, error) {
	host, port, ok := strings.Cut(strings.TrimSpace(text), ":")
	if ok && host == "localhost" {
		host = "127.0.0.1"
	}
	if address, err := netip.ParseAddrPort(host + ":" + port); err == nil && ok && address.Port() > 0 && !address.Addr().IsUnspecified() {
		return address, nil
	}
	if address, err := netip.ParseAddrPort(strings.TrimSpace(text)); err == nil && address.Port() > 0 && !address.Addr().IsUnspecified() {
		return address, nil
	}
	return netip.AddrPort{}, fmt.Errorf("“%s” is no address of a program: write an IP address and a port, as 127.0.0.1:9000", text)
}

// SetOutputs says which outputs the project has that plays.
func (k *Keeper) SetOutputs(document int64, outputs []score.Output) {
	k.change(func() {
		k.document = document
		k.outputs = slices.DeleteFunc(slices.Clone(outputs), func(o score.Output) bool { return o.Kind != score.OSC })
	})
}

// Bind says at which address the outputs of a name are; an empty one is none.
func (k *Keeper) Bind(output, address string) {
	k.change(func() {
		if k.bound[output] = address; address == "" {
			delete(k.bound, output)
		}
	})
}

func (k *Keeper) change(do func()) {
	k.mu.Lock()
	do()
	k.mu.Unlock()
	k.Look()
}

// Look has the keeper look at once what is wanted.
func (k *Keeper) Look() {
	select {
	case k.kick <- struct{}{}:
	default:
	}
}

// States returns how the outputs stand.
func (k *Keeper) States() []device.OutputState {
	k.mu.Lock()
	defer k.mu.Unlock()
	return slices.Clone(k.states)
}

// lookAgain is how long it takes at most until it is seen that somebody listens, or does not any more.
const lookAgain = time.Second

// Run has ports come and go until the context ends, and then closes all.
func (k *Keeper) Run(ctx context.Context) {
	ticker := time.NewTicker(lookAgain)
	defer ticker.Stop()
	for {
		k.settle()
		select {
		case <-ctx.Done():
			k.SetOutputs(0, nil)
			k.settle()
			return
		case <-ticker.C:
		case <-k.kick:
		}
	}
}

// settle has a port for each output that is bound to an address, as it is now.
func (k *Keeper) settle() {
	k.mu.Lock()
	document, outputs, bound := k.document, k.outputs, maps.Clone(k.bound)
	k.mu.Unlock()
	held := len(outputs) > 0 && k.options.Held(document)
	for id, now := range k.open {
		wanted := !held && slices.ContainsFunc(outputs, func(o score.Output) bool {
			return reflect.DeepEqual(o, now.output) && bound[o.Name] == now.address
		})
		if !wanted {
			k.options.Disconnect(now.port)
			now.port.Close()
			_ = now.conn.Close() // of which nothing is left to send
			k.mu.Lock()
			delete(k.open, id)
			k.mu.Unlock()
		}
	}
	states := []device.OutputState{}
	for _, o := range outputs {
		states = append(states, k.take(o, bound[o.Name], held))
	}
	k.mu.Lock()
	changed := !reflect.DeepEqual(states, k.states)
	k.states = states
	k.mu.Unlock()
	if changed {
		k.options.Changed()
	}
}

// take has an output be played at an address, and returns how it stands.
func (k *Keeper) take(o score.Output, address string, held bool) device.OutputState {
	state := device.OutputState{Output: o.ID, Device: address}
	switch now := k.open[o.ID]; {
	case held:
		state.Words = "not active yet"
	case address == "":
		state.Words = "no address is given"
	case now == nil:
		if err := k.begin(o, address); err != nil {
			state.Words = err.Error()
			return state
		}
		fallthrough
	default:
		state.Ready, state.Words = true, "sends to "+address
		if now != nil && now.unheard.Load() {
			state.Words = "nobody hears " + address + ": start what is to listen there"
		}
	}
	return state
}

// begin opens a port. The error is why it cannot.
func (k *Keeper) begin(o score.Output, address string) error {
	to, err := ParseAddress(address)
	if err != nil {
		return err
	}
	conn, err := net.DialUDP("udp", nil, net.UDPAddrFromAddrPort(to))
	if err != nil {
		return fmt.Errorf("%s cannot be reached from this machine", address)
	}
	now := &opened{output: o, address: address, conn: conn}
	now.port = Open(o, k.options.Now, func(packet []byte) {
		_, err := conn.Write(packet) // which does not wait: what has no room is lost, as packets are
		now.unheard.Store(errors.Is(err, syscall.ECONNREFUSED))
	})
	k.mu.Lock()
	k.open[o.ID] = now
	k.mu.Unlock()
	k.options.Connect(now.port, o.ID)
	return nil
}

// Play has an output play events now, whatever the transport does. It reports whether it is played.
func (k *Keeper) Play(id int, events []output.Event) bool {
	k.mu.Lock()
	defer k.mu.Unlock()
	now := k.open[id]
	if now != nil {
		now.port.Send(events)
	}
	return now != nil
}
