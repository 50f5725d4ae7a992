package voltages_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/cv"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/output"
	"jettyfog/internal/voltages"
)

const ms = int64(time.Millisecond)

// bench is a player on a clock that is set by hand, and all that it showed.
type bench struct {
	now    int64
	player *voltages.Player
	last   voltages.Shown
}

func newBench(o score.Output) *bench {
	b := &bench{now: 1000 * ms}
	b.player = voltages.NewPlayer(o, func() int64 { return b.now }, func(s voltages.Shown) { b.last = s })
	return b
}

// at returns what a channel was last shown to do at a moment.
func (b *bench) at(t require.TestingT, channel int, moment int64) float64 {
	for _, c := range b.last.Channels {
		if c.VoltageChannel.Channel == channel {
			require.LessOrEqual(t, c.Line[0].From, moment)
			for _, s := range c.Line {
				if moment < s.To {
					return s.At(float64(moment))
				}
			}
		}
	}
	require.Fail(t, "no such channel")
	return 0
}

// timeline is how time goes on in a take that is played.
func timeline(taken *take.Take, started int64, until score.Tick) output.Timeline {
	bars := taken.Bars()
	return output.Timeline{
		Project: taken.Project, Started: started, Tempo: play.Timing{}.Changed(play.TempoMapOf(taken.Project)), Until: until,
		Bar: func(tick score.Tick) (score.Tick, score.Tick) {
			bar := bars.At(tick)
			return bars.Start(bar), bars.Start(bar + 1)
		},
		Beats: func(from, until score.Tick) (beats []output.Beat) {
			for bar := bars.At(from); bars.Start(bar) < until; bar++ {
				if bars.Start(bar) >= from {
					beats = append(beats, output.Beat{Tick: bars.Start(bar), Bar: bar})
				}
			}
			return beats
		},
	}
}

// modular returns the demo's output of voltages, with a reset of a track that is realigned and a clock that swings besides.
func modular(p *score.Project) *score.Output {
	o := &p.Outputs[0]
	reset := score.NewVoltageChannel(20, score.ResetSignal)
	reset.Track, p.Tracks[0].Realign = p.Tracks[0].ID, 2
	clock := score.NewVoltageChannel(21, score.ClockSignal)
	clock.Swung, p.Swing = true, 620
	o.Voltages.Channels = append(o.Voltages.Channels, reset, clock)
	return o
}

// What is shown while the demo plays, in pulses of 10 ms that each hand over what comes in the next 160 ms, is what a take's .wav has: no
// voltage differs at any moment, nor once it stops.
func TestShownAsWritten(t *testing.T) {
	p := score.Demo()
	o := modular(p)
	require.NoError(t, p.Validate())
	taken := take.Render(p, 4)
	written, err := cv.Of(taken, *o)
	require.NoError(t, err)
	b := newBench(*o)
	started := b.now + 200*ms
	var events []output.Event
	for _, m := range route.NewOutlets(p).Play(taken.Messages, nil) {
		if m.Output == o.ID && m.Tick < taken.End {
			events = append(events, output.Event{Message: m.Message, Output: m.Output, At: started + taken.Tempo.Nanos(m.Tick)})
		}
	}
	checked := 0
	check := func(from, until int64) {
		for i, c := range written.Channels {
			for moment := from; moment < until; moment += ms / 3 {
				if moment-started < c.Line[0].From {
					continue
				}
				require.InDelta(t, lineAt(c.Line, moment-started), b.at(t, c.VoltageChannel.Channel, moment), 1e-9, "channel %d (%s) at %d", i, c.Signal, moment-started)
				checked++
			}
		}
	}
	for end := started + written.End; b.now < end-170*ms; b.now += 10 * ms {
		until := b.now + int64(b.player.Ahead())
		sent := 0
		for sent < len(events) && events[sent].At <= until {
			sent++
		}
		b.player.Send(events[:sent])
		events = events[sent:]
		if until > started {
			b.player.Time(timeline(taken, started, taken.Tempo.TickAt(until-started)+1))
		}
		if b.last.Channels != nil && b.now > started {
			check(b.now, b.now+10*ms)
		}
	}
	require.Greater(t, checked, 100_000)
	require.True(t, b.last.Playing)
	b.player.Release()
	require.False(t, b.last.Playing)
	for _, c := range b.last.Channels {
		if off, is := c.OffVoltage(); is {
			require.Equal(t, off, b.at(t, c.VoltageChannel.Channel, b.now+500*ms), c.Signal)
		}
	}
}

func lineAt(l cv.Line, moment int64) float64 {
	for _, s := range l {
		if moment < s.To {
			return s.At(float64(moment))
		}
	}
	return l[len(l)-1].End
}

// gated returns a player of one pitch and gate of track 1, and what sends it a note for 50 ms.
func gated() (*bench, func(key uint8, after int64) []output.Event) {
	pitch, gate := score.NewVoltageChannel(3, score.PitchSignal), score.NewVoltageChannel(4, score.GateSignal)
	pitch.Track, gate.Track = 1, 1
	b := newBench(score.Output{ID: 7, Name: "Modular", Kind: score.Voltages, Voltages: &score.VoltageSetup{FullScale: 10_000, Channels: []score.VoltageChannel{pitch, gate}}})
	return b, func(key uint8, after int64) []output.Event {
		on := output.Event{Message: midi.Message{Tick: score.Tick(after / ms), Track: 1, Kind: midi.NoteOn, Key: key, Velocity: 90}, Output: 7, At: b.now + after*ms}
		off := on
		off.Kind, off.Velocity, off.At = midi.NoteOff, 0, on.At+50*ms
		return []output.Event{on, off}
	}
}

// A note that is withdrawn before it was heard leaves no gate; what comes too late begins at once; other outputs' notes are not heard.
func TestWithdrawnAndLate(t *testing.T) {
	b, note := gated()
	taken := take.Render(score.Demo(), 1)
	begun := b.now
	b.player.Time(timeline(taken, begun, 1))
	b.player.Send(note(72, 100))
	foreign := note(60, 20)
	for i := range foreign {
		foreign[i].Output = 8
	}
	b.player.Send(foreign)
	b.player.Show()
	require.Equal(t, 5.0, b.at(t, 4, begun+120*ms))
	require.Equal(t, 1.0, b.at(t, 3, begun+120*ms))
	b.player.Withdraw(note(72, 100)[:1])
	require.Equal(t, 0.0, b.at(t, 4, begun+120*ms))
	late := note(84, 0)
	b.now += 300 * ms
	b.player.Show()
	b.player.Send(late[:1])
	b.player.Show()
	require.Equal(t, 5.0, b.at(t, 4, b.now))
	require.Equal(t, 2.0, b.at(t, 3, b.now))
	b.player.Send(note(60, 100))
	b.player.Release()
	require.Equal(t, 0.0, b.at(t, 4, b.now+120*ms), "what was to come is dropped")
	b.player.Panic()
	require.Equal(t, 0.0, b.at(t, 4, b.now+ms))
}

// A test voltage stands until it is taken back, or something plays.
func TestTestVoltages(t *testing.T) {
	b, _ := gated()
	volts := -2.5
	b.player.Test(3, &volts)
	require.Equal(t, volts, b.at(t, 3, b.now))
	require.Equal(t, 0.0, b.at(t, 4, b.now))
	b.player.Test(3, nil)
	require.Equal(t, 0.0, b.at(t, 3, b.now))
	b.player.Test(3, &volts)
	b.player.Time(timeline(take.Render(score.Demo(), 1), b.now+100*ms, 1))
	require.Equal(t, 0.0, b.at(t, 3, b.now))
}
