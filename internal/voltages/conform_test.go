package voltages_test

import (
	"cmp"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/output"
	"jettyfog/internal/output/conform"
	"jettyfog/internal/voltages"
)

// checked is a player of two voices as the conformance test sees it, on a clock that goes on when something is waited for: what a gate and its
// pitch do are notes. What is withdrawn and never played is told of behind all else.
type checked struct {
	conform.Noted
	*bench
	coming []conform.Outcome
}

// modularOnly has all that is sent be for the output of the player.
type modularOnly struct{ *voltages.Player }

func (m modularOnly) Send(events []output.Event) { m.Player.Send(toModular(events)) }

func (m modularOnly) Withdraw(noteOns []output.Event) { m.Player.Withdraw(toModular(noteOns)) }

func toModular(events []output.Event) []output.Event {
	for i := range events {
		events[i].Output = 7
	}
	return events
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
		c.coming = append(c.coming, c.Asked()...)
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
	b := newBench(score.Output{ID: 7, Name: "Modular", Kind: score.Voltages, Voltages: setup})
	c := &checked{Noted: conform.Noted{Port: modularOnly{b.player}}, bench: b}
	p := score.Blank()
	c.player.Time(output.Timeline{Project: p, Started: c.now, Tempo: play.Timing{}.Changed(play.TempoMapOf(p)), Until: 0, Beats: func(score.Tick, score.Tick) []output.Beat { return nil }})
	conform.Check(t, conform.Harness{Port: c, Now: func() int64 { return c.now }, Next: func() conform.Outcome { return c.next(t) }, Stall: func() {}})
}
