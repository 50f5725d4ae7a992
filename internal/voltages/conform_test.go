package voltages_test

import (
	"cmp"
	"math"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/output"
	"jettyfog/internal/output/conform"
)

// checked is a player of two voices as the conformance test sees it, on a clock that goes on when something is waited for: what a gate and its
// pitch do are notes. What is withdrawn and never played is told of behind all else.
type checked struct {
	*bench
	coming []conform.Outcome
	told   []conform.Outcome
}

func (c *checked) Ahead() time.Duration { return c.player.Ahead() }

func (c *checked) Send(events []output.Event) {
	for i := range events {
		events[i].Output = 7
	}
	c.player.Send(events)
}

func (c *checked) Withdraw(noteOns []output.Event) {
	for i := range noteOns {
		noteOns[i].Output = 7
		c.told = append(c.told, conform.Outcome{Withdrawn: &noteOns[i]})
	}
	c.player.Withdraw(noteOns)
}

func (c *checked) Release() {
	c.player.Release()
	c.told = append(c.told, conform.Outcome{Released: true})
}

func (c *checked) Panic() {
	c.player.Panic()
	c.told = append(c.told, conform.Outcome{Panicked: true})
}

// next returns what the gates do next, or once they do nothing more what else was asked.
func (c *checked) next(t *testing.T) conform.Outcome {
	if len(c.coming) == 0 {
		for range 100 {
			c.player.Show()
			from, until := c.now, c.now+10*ms
			for voice := range 2 {
				for i, s := range c.last.Channels[2*voice+1].Line[1:] {
					if s.From < from || s.From >= until || s.Start == c.last.Channels[2*voice+1].Line[i].End {
						continue
					}
					kind := midi.NoteOff
					if s.Start > 0 {
						kind = midi.NoteOn
					}
					key := uint8(math.Round(60 + 12*c.at(t, 3+2*voice, s.From)))
					c.coming = append(c.coming, conform.Outcome{Event: &output.Event{Message: midi.Message{Kind: kind, Channel: 2, Key: key}, At: s.From}})
				}
			}
			c.now = until
		}
		slices.SortStableFunc(c.coming, func(a, b conform.Outcome) int {
			return cmp.Or(cmp.Compare(a.Event.At, b.Event.At), cmp.Compare(a.Event.Key, b.Event.Key))
		})
		c.coming, c.told = append(c.coming, c.told...), nil
	}
	require.NotEmpty(t, c.coming, "nothing comes out")
	first := c.coming[0]
	c.coming = c.coming[1:]
	return first
}

func TestVoltagesAreAPort(t *testing.T) {
	setup := &score.VoltageSetup{FullScale: 10_000}
	for voice := range 2 {
		for i, signal := range []score.Signal{score.PitchSignal, score.GateSignal} {
			c := score.NewVoltageChannel(3+2*voice+i, signal)
			c.Track, c.Voice = 1, voice+1
			setup.Channels = append(setup.Channels, c)
		}
	}
	c := &checked{bench: newBench(score.Output{ID: 7, Name: "Modular", Kind: score.Voltages, Voltages: setup})}
	p := score.Blank()
	c.player.Time(output.Timeline{Project: p, Started: c.now, Tempo: nil, Until: 0, Beats: func(score.Tick, score.Tick) []output.Beat { return nil }})
	conform.Check(t, conform.Harness{Port: c, Now: func() int64 { return c.now }, Next: func() conform.Outcome { return c.next(t) }, Stall: func() {}})
}
