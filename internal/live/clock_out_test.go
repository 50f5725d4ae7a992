package live

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/output"
)

// machine is one that plays in time with what it is told, as MIDI 1.0 has it.
type machine struct {
	runs, waits bool
	clocks      int // where it stands, counted from the song's beginning
	ready       int64
	starts      int
	stops       int
}

// hear takes a message in, and returns whether a beat of the clock was played.
func (m *machine) hear(t *testing.T, e output.Event) (played bool) {
	switch e.Kind {
	case midi.Start, midi.Continue:
		require.False(t, m.runs, "it runs already")
		if e.Kind == midi.Start {
			m.clocks = 0
		}
		m.runs, m.waits, m.ready = true, true, e.At
		m.starts++
	case midi.Stop:
		m.runs = false
		m.stops++
	case midi.SongPosition:
		require.False(t, m.runs, "a position while it runs")
		m.clocks = int(e.Value) * 6
	case midi.Clock:
		if !m.runs {
			return false
		}
		if !m.waits {
			m.clocks++
		} else {
			require.GreaterOrEqual(t, e.At-m.ready, int64(time.Millisecond), "it needs a millisecond to be ready")
		}
		m.waits = false
		return true
	}
	return false
}

// clocking is a project whose output 1 gives a clock.
func clocking(c score.ClockOut) *score.Project {
	p := testkit.Buoy()
	p.Outputs = []score.Output{{ID: 1, Name: "Quay machine", Kind: score.ServerDevice, Clock: &c}}
	return p
}

// told returns what the clock of output 1 was told, in the order of its times.
func told(l *listener) (events []output.Event) {
	for _, e := range l.events() {
		if e.Output == 1 && e.Kind >= midi.Clock {
			events = append(events, e)
		}
	}
	return events
}

// A machine plays each clock where the song is, from the beginning, from a bar, and over the seams of a loop that it is told; clocks are evenly
// apart; it stops with the song.
func TestAMachineFollows(t *testing.T) {
	for _, from := range []int64{0, 3, 1022} {
		for _, offset := range []int{0, -30, 45} {
			p := clocking(score.ClockOut{Offset: offset, Follows: true})
			p.MeterChanges = []score.MeterChange{{Bar: 5, Meter: score.Meter{Beats: 7, Unit: 8}}}
			require.NoError(t, p.Validate())
			onStage(t, p, func(t *testing.T, s *rig) {
				bars := p.Bars()
				require.NoError(t, s.SetLoop(Range{From: bars.Start(from + 1), To: bars.Start(from + 3)}))
				s.PlayFrom(from)
				pass(12 * time.Second)
				s.Transport.mu.Lock()
				at := func(e output.Event) score.Tick {
					return s.player.Pieces().Song(s.tickAt(e.At - int64(offset)*int64(time.Millisecond)))
				}
				s.Transport.mu.Unlock()
				var m machine
				played, last := 0, int64(0)
				for _, e := range told(s.listener) {
					if m.hear(t, e) {
						require.InDelta(t, int64(at(e)), m.clocks*int(clockTick), 1, "clock %d", played)
						played++
					}
					if e.Kind == midi.Clock && last > 0 {
						require.InDelta(t, play.TempoMap{{Tempo: p.Tempo}}.Nanos(clockTick), e.At-last, 1)
					}
					if e.Kind == midi.Clock {
						last = e.At
					}
				}
				require.Greater(t, played, 400)
				require.Greater(t, m.starts, 1, "a seam")
				s.Stop()
				after := told(s.listener)
				require.Equal(t, midi.Stop, after[len(after)-1].Kind)
				pass(time.Second)
				require.Len(t, told(s.listener), len(after), "nothing while it stands")
			})
		}
	}
}

// Without being told of jumps a machine runs on; one that knows no positions is started; beyond the last position that can be told it goes on.
func TestOtherWaysOfClocks(t *testing.T) {
	kinds := func(c score.ClockOut, from int64, loop bool) (kinds []midi.Kind) {
		p := clocking(c)
		onStage(t, p, func(t *testing.T, s *rig) {
			if loop {
				require.NoError(t, s.SetLoop(Range{From: p.Bars().Start(from), To: p.Bars().Start(from + 1)}))
			}
			s.PlayFrom(from)
			pass(8 * time.Second)
			s.Stop()
			for _, e := range told(s.listener) {
				if e.Kind != midi.Clock {
					kinds = append(kinds, e.Kind)
				}
			}
		})
		return kinds
	}
	require.Equal(t, []midi.Kind{midi.Start, midi.Stop}, kinds(score.ClockOut{}, 0, true))
	require.Equal(t, []midi.Kind{midi.SongPosition, midi.Continue, midi.Stop}, kinds(score.ClockOut{}, 2, false))
	require.Equal(t, []midi.Kind{midi.Start, midi.Stop}, kinds(score.ClockOut{Starts: true}, 2, false))
	require.Equal(t, []midi.Kind{midi.SongPosition, midi.Continue, midi.Stop}, kinds(score.ClockOut{}, 1023, false))
	require.Equal(t, []midi.Kind{midi.Continue, midi.Stop}, kinds(score.ClockOut{}, 1024, false), "16,384 sixteenths")
}

// The clock goes on while nothing plays if it is to, evenly, and is there again after a stop.
func TestClockWhileStopped(t *testing.T) {
	p := clocking(score.ClockOut{WhileStopped: true})
	onStage(t, p, func(t *testing.T, s *rig) {
		apart := play.TempoMap{{Tempo: p.Tempo}}.Nanos(clockTick)
		pass(2 * time.Second)
		idle := told(s.listener)
		require.Greater(t, len(idle), 60)
		for i := 1; i < len(idle); i++ {
			require.Equal(t, apart, idle[i].At-idle[i-1].At)
		}
		s.Play()
		pass(2 * time.Second)
		s.Stop()
		before := len(told(s.listener))
		pass(time.Second)
		after := told(s.listener)[before:]
		require.Greater(t, len(after), 30)
		require.Equal(t, apart, after[1].At-after[0].At)
	})
}

// A machine that is connected while something plays, or whose output is given a clock then, is told where the song is, and follows.
func TestAMachineComesIn(t *testing.T) {
	p := clocking(score.ClockOut{})
	onStage(t, p, func(t *testing.T, s *rig) {
		s.PlayFrom(1)
		pass(1234 * time.Millisecond)
		late := &listener{now: s.Now}
		s.Connect(late)
		with := p.Clone()
		with.Outputs = append(with.Outputs, score.Output{ID: 2, Name: "Other", Kind: score.ServerDevice, Clock: &score.ClockOut{}})
		s.SetProject(with, Change{})
		pass(2 * time.Second)
		s.Transport.mu.Lock()
		defer s.Transport.mu.Unlock()
		for id := 1; id <= 2; id++ {
			var m machine
			played := 0
			for _, e := range late.events() {
				if e.Output == id && e.Kind >= midi.Clock && m.hear(t, e) {
					require.InDelta(t, int64(s.player.Pieces().Song(s.tickAt(e.At))), m.clocks*int(clockTick), 1, "output %d", id)
					played++
				}
			}
			require.Greater(t, played, 50)
		}
	})
}
