package voltages

import (
	"context"
	"reflect"
	"slices"
	"sync"

	"jettyfog/internal/core/score"
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
	// Show is given what is to come. It must return quickly.
	Show func(Shown)
}

// Keeper has players play the outputs of voltages of a project. All methods may be called concurrently.
type Keeper struct {
	options Options
	kick    chan struct{}

	mu       sync.Mutex
	document int64
	outputs  []score.Output
	players  map[int]*Player
}

// NewKeeper returns a keeper that plays nothing yet.
func NewKeeper(o Options) *Keeper {
	return &Keeper{options: o, kick: make(chan struct{}, 1), players: map[int]*Player{}}
}

// SetOutputs says which outputs the project has that plays.
func (k *Keeper) SetOutputs(document int64, outputs []score.Output) {
	k.mu.Lock()
	k.document = document
	k.outputs = slices.DeleteFunc(slices.Clone(outputs), func(o score.Output) bool { return o.Kind != score.Voltages })
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

// Run has players come and go until the context ends, and then lets go of all.
func (k *Keeper) Run(ctx context.Context) {
	for {
		k.settle()
		select {
		case <-ctx.Done():
			k.SetOutputs(0, nil)
			k.settle()
			return
		case <-k.kick:
		}
	}
}

// settle has a player for each output, as it is now.
func (k *Keeper) settle() {
	k.mu.Lock()
	document, outputs := k.document, k.outputs
	k.mu.Unlock()
	if len(outputs) > 0 && k.options.Held(document) {
		outputs = nil
	}
	var come, gone []*Player
	k.mu.Lock()
	for id, player := range k.players {
		if !slices.ContainsFunc(outputs, func(o score.Output) bool { return reflect.DeepEqual(o, player.output) }) {
			gone = append(gone, player)
			delete(k.players, id)
		}
	}
	for _, o := range outputs {
		if k.players[o.ID] == nil {
			player := NewPlayer(o, k.options.Now, k.options.Show)
			k.players[o.ID] = player
			come = append(come, player)
		}
	}
	k.mu.Unlock()
	for _, player := range gone {
		k.options.Disconnect(player)
	}
	for _, player := range come {
		k.options.Connect(player, player.output.ID)
		player.Show()
	}
}

// Show shows what all outputs do at present.
func (k *Keeper) Show() {
	k.mu.Lock()
	defer k.mu.Unlock()
	for _, player := range k.players {
		player.Show()
	}
}

// Player returns that of an output, or nil.
func (k *Keeper) Player(output int) *Player {
	k.mu.Lock()
	defer k.mu.Unlock()
	return k.players[output]
}
