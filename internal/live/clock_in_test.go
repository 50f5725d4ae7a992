package live

import (
	"math"
	"math/rand"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// following is a project that follows the clock of its input 7.
func following(how score.ClockIn) *score.Project {
	p := testkit.Buoy()
	p.Inputs = []score.Input{{ID: 7, Name: "Winch", Kind: score.DeviceInput}}
	how.Input = 7
	p.ClockIn = how
	return p
}

// other is another machine, which sends its clock to a transport: in a bubble, so that its pulses come at exact times.
type other struct {
	*rig
	pulse  midi.Message
	period time.Duration
	due    time.Time
	jitter time.Duration
	random *rand.Rand
	came   []int64 // when its pulses were due, since the last start
}

func (s *rig) other(bpm float64) *other {
	o := &other{rig: s, pulse: midi.Message{Kind: midi.Clock}, due: time.Now(), random: rand.New(rand.NewSource(3))}
	o.tempo(bpm)
	return o
}

func (o *other) tempo(bpm float64) { o.period = time.Duration(float64(time.Minute) / 24 / bpm) }

func (o *other) tell(m midi.Message) {
	_ = o.Hear(Incoming{Source: Source{score.DeviceInput, 7}, Message: m, At: o.Now()})
}

// start has it start, or with another message go on, and its next pulse come 2 ms later.
func (o *other) start(m midi.Message) {
	o.tell(m)
	o.due, o.came = time.Now().Add(2*time.Millisecond), nil
}

// pulses sends some.
func (o *other) pulses(count int) {
	for range count {
		at := o.due.Add(time.Duration(o.random.Float64() * float64(o.jitter)))
		if wait := time.Until(at); wait > 0 {
			time.Sleep(wait)
		}
		o.came = append(o.came, o.Now()-int64(time.Until(o.due)*-1))
		o.tell(o.pulse)
		o.due = o.due.Add(o.period)
	}
}

// late returns how much later than pulses, from one on, their ticks play, in milliseconds.
func (o *other) late(from int) (late []float64) {
	o.Transport.mu.Lock()
	defer o.Transport.mu.Unlock()
	for n := from; n < len(o.came); n++ {
		if tick := score.Tick(n) * clockTick; tick < o.player.Run() {
			late = append(late, float64(o.timeOf(tick)-o.came[n])/1e6)
		}
	}
	return late
}

func worst(late []float64) (most float64) {
	for _, l := range late {
		most = max(most, math.Abs(l))
	}
	return most
}

// A machine that gives its clock before it starts is followed from its first beat on: that is played at once, and all that comes is in time.
func TestPlayingFollowsAClock(t *testing.T) {
	onStage(t, following(score.ClockIn{}), func(t *testing.T, s *rig) {
		require.Equal(t, ClockSilent, s.Status().Clock.State)
		o := s.other(132)
		o.jitter = 3 * time.Millisecond
		o.pulses(30)
		require.Equal(t, ClockComes, s.Status().Clock.State)
		require.InDelta(t, 132_000, int(s.Status().Clock.Tempo), 3000)
		require.False(t, s.Status().Playing)
		o.start(midi.Message{Kind: midi.Start})
		require.Equal(t, ClockWaits, s.Status().Clock.State)
		o.pulses(1)
		require.Equal(t, ClockLeads, s.Status().Clock.State)
		pass(0)
		o.pulses(24 * 40)
		require.Less(t, worst(o.late(0)), 3.5)
		late := o.late(8 * 24)
		slices.SortFunc(late, func(a, b float64) int { return int(1e6 * (math.Abs(a-1.5) - math.Abs(b-1.5))) })
		require.Less(t, math.Abs(late[len(late)*99/100]-1.5), 0.5, "99 of 100, against the middle of the jitter")
		events := s.listener.events()
		require.Less(t, s.listener.arrived[0]-o.came[0], int64(11*time.Millisecond), "the first beat is played at once")
		for i, e := range events[10:] {
			require.LessOrEqual(t, e.At-s.listener.arrived[10+i], int64(45*time.Millisecond), "the look-ahead is short")
		}
		o.tell(midi.Message{Kind: midi.Stop})
		require.False(t, s.Status().Playing)
	})
}

// A position is where playing goes on: sixteenths, as MIDI 1.0 has it. Stopped and continued, it goes on with the pulse after the last.
func TestPositionsAreFollowed(t *testing.T) {
	onStage(t, following(score.ClockIn{}), func(t *testing.T, s *rig) {
		o := s.other(100)
		o.pulses(20)
		o.tell(midi.Message{Kind: midi.SongPosition, Value: 37})
		o.start(midi.Message{Kind: midi.Continue})
		o.pulses(50)
		require.Equal(t, 37*sixteenth, s.player.Pieces()[0].Song)
		require.Less(t, worst(o.late(0)), 0.1)
		o.tell(midi.Message{Kind: midi.Stop})
		o.pulses(7)
		o.start(midi.Message{Kind: midi.Continue})
		o.pulses(10)
		require.Equal(t, 37*sixteenth+50*clockTick, s.player.Pieces()[0].Song, "50 pulses later")
		require.Less(t, worst(o.late(0)), 0.1)
		o.start(midi.Message{Kind: midi.Start})
		o.pulses(10)
		require.Zero(t, s.player.Pieces()[0].Song, "a start is from the beginning, also while playing")
		s.Stop()
		o.pulses(30)
		o.tell(midi.Message{Kind: midi.Stop})
		o.pulses(5)
		o.start(midi.Message{Kind: midi.Continue})
		o.pulses(10)
		require.Equal(t, 40*clockTick, s.player.Pieces()[0].Song, "where the machine is, though playing was stopped by hand")
	})
}

// A tempo that jumps is taken up within a beat, and no tick goes back.
func TestATempoThatJumpsIsFollowed(t *testing.T) {
	onStage(t, following(score.ClockIn{}), func(t *testing.T, s *rig) {
		o := s.other(60)
		o.start(midi.Message{Kind: midi.Start})
		o.pulses(24 * 8)
		o.tempo(120)
		o.pulses(24 * 8)
		require.Less(t, worst(o.late(24*9)), 5.0, "a beat later")
		require.Less(t, worst(o.late(24*10)), 1.0, "and another one")
		last := int64(0)
		for _, e := range s.listener.events() {
			require.GreaterOrEqual(t, e.At, last)
			last = e.At
		}
	})
}

// A clock that is lost stops playing, or does not; when it is back, playing goes on with it, where it would be by now.
func TestAClockThatIsLost(t *testing.T) {
	onStage(t, following(score.ClockIn{}), func(t *testing.T, s *rig) {
		o := s.other(120)
		o.start(midi.Message{Kind: midi.Start})
		o.pulses(60)
		pass(450 * time.Millisecond)
		require.True(t, s.Status().Playing, "half a second is not over")
		pass(100 * time.Millisecond)
		require.False(t, s.Status().Playing)
		require.Equal(t, ClockSilent, s.Status().Clock.State)
	})
	onStage(t, following(score.ClockIn{RunsOn: true}), func(t *testing.T, s *rig) {
		o := s.other(120)
		o.start(midi.Message{Kind: midi.Start})
		o.pulses(96)
		lost := 96 * o.period
		pass(lost)
		require.Equal(t, ClockLost, s.Status().Clock.State)
		require.True(t, s.Status().Playing)
		o.due = o.due.Add(lost)
		o.pulses(1)
		require.Equal(t, ClockLeads, s.Status().Clock.State)
		o.pulses(95)
		require.Equal(t, 288, int(math.Round(float64(s.tickAt(s.Now()))/float64(clockTick)))+1, "as if nothing had been missing")
	})
}

// Play waits for the machine's start, or begins with its next bar if it runs; pressed once more it begins with a beat of a machine that gives its
// clock and no start. Stop ends waiting.
func TestPlayWaitsForTheClock(t *testing.T) {
	onStage(t, following(score.ClockIn{}), func(t *testing.T, s *rig) {
		s.PlayFrom(2)
		pass(time.Second)
		require.False(t, s.Status().Playing)
		require.Equal(t, ClockWaits, s.Status().Clock.State)
		s.Stop()
		require.Equal(t, ClockSilent, s.Status().Clock.State)
		s.PlayFrom(2)
		o := s.other(120)
		o.pulses(10)
		require.Equal(t, ClockWaits, s.Status().Clock.State)
		o.start(midi.Message{Kind: midi.Start})
		o.pulses(40)
		require.Equal(t, 8*score.TicksPerQuarter, s.player.Pieces()[0].Song, "from the bar that was asked for")
		s.Stop()
		o.pulses(30)
		require.False(t, s.Status().Playing, "stopped by hand it stays so")
		s.Play()
		o.pulses(60)
		require.True(t, s.Status().Playing)
		require.InDelta(t, o.came[96], s.started, 1e5, "with its next bar")
		s.Stop()
		o.tell(midi.Message{Kind: midi.Stop})
		s.Play()
		o.pulses(24)
		require.False(t, s.Status().Playing)
		s.Play()
		o.pulses(24)
		require.True(t, s.Status().Playing, "without a start")
	})
}

// Whatever is followed is in the log, so that what was played is played again, and a take has the tempos.
func TestWhatIsFollowedIsPlayedAgain(t *testing.T) {
	onStage(t, following(score.ClockIn{RunsOn: true}), func(t *testing.T, s *rig) {
		require.NoError(t, s.Record(Recording{}))
		o := s.other(90)
		o.jitter = 2 * time.Millisecond
		o.start(midi.Message{Kind: midi.Start})
		o.pulses(100)
		o.tempo(140)
		o.pulses(100)
		require.NoError(t, s.Move(-5))
		o.pulses(100)
		s.Stop()
		logged, end := s.Log()
		require.Greater(t, len(logged.Entries), 5)
		requireTaken(t, s.disk, &logged, end)
		taken, _, _, err := s.disk.Recording(t.Context(), 1)
		require.NoError(t, err)
		require.InDelta(t, 140_000, int(taken.Tempo[len(taken.Tempo)-1].Tempo), 2500)
	})
}

// Notes that come at a beat of a machine are a clock too, which begins playing with its first.
func TestNotesAreAClock(t *testing.T) {
	onStage(t, following(score.ClockIn{From: score.NotePulse, Number: 40, PerQuarter: 4}), func(t *testing.T, s *rig) {
		o := s.other(100)
		beat := func() {
			o.tell(midi.Message{Kind: midi.NoteOn, Key: 40, Velocity: 90})
			pass(75 * time.Millisecond)
			o.tell(midi.Message{Kind: midi.NoteOff, Key: 40})
			pass(75 * time.Millisecond)
		}
		began := s.Now()
		for range 33 {
			beat()
		}
		require.True(t, s.Status().Playing)
		require.InDelta(t, s.Now()-began, s.timeOf(33*sixteenth)-began, 1e6)
		pass(time.Second)
		require.False(t, s.Status().Playing)
		require.Empty(t, s.log.Entries[0].Input)
	})
}

// Playing is moved so that the nearest bar line is at a tap, and by milliseconds; then the project's tempo holds again.
func TestPlayingIsMoved(t *testing.T) {
	for _, beats := range Spreads {
		onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
			s.Play()
			pass(4 * time.Second)
			tap := s.Now()
			tick := s.tickAt(tap)
			bar := 4 * score.TicksPerQuarter
			nearest := (tick + bar/2) / bar * bar
			require.NoError(t, s.OneIsNow(tap, beats))
			pass(8 * time.Second)
			now := s.tickAt(s.Now())
			perNano := score.Tempo(96_000).TicksPerMilli() / 1e6
			require.InDelta(t, float64(nearest)+float64(s.Now()-tap)*perNano, float64(now), 100, "%d beats", beats)
			tempos := s.player.Tempo()
			require.Equal(t, score.Tempo(96_000), tempos[len(tempos)-1].Tempo)
			require.Nil(t, s.steering.own)
			require.NoError(t, s.Move(5))
			pass(4 * time.Second)
			require.InDelta(t, float64(now)+(4e9+5e6)*perNano, float64(s.tickAt(s.Now())), 30)
			require.Error(t, s.Move(101))
			require.Error(t, s.OneIsNow(tap, 2))
		})
	}
}

// Run time goes on with the machine over seams of the song, and over another project: by its tempo where that follows nobody, and with the machine
// where it does.
func TestFollowingGoesOnOverSeams(t *testing.T) {
	onStage(t, following(score.ClockIn{}), func(t *testing.T, s *rig) {
		o := s.other(110)
		bar := 4 * score.TicksPerQuarter
		require.NoError(t, s.SetLoop(Range{From: 0, To: bar, GoesOn: true}))
		o.start(midi.Message{Kind: midi.Start})
		o.pulses(24 * 13)
		require.Greater(t, len(s.player.Pieces()), 3)
		require.Less(t, worst(o.late(24)), 0.1)

		alone := testkit.Buoy()
		alone.Tempo = 77_000
		s.Open(Opened{Document: 2, Project: alone}, NextBar)
		o.pulses(24 * 8)
		tempos := s.player.Tempo()
		require.Equal(t, score.Tempo(77_000), tempos[len(tempos)-1].Tempo)
		require.Nil(t, s.Status().Clock)

		s.Open(Opened{Document: 3, Project: following(score.ClockIn{RunsOn: true})}, Now)
		o.pulses(24 * 8)
		require.Equal(t, ClockLeads, s.Status().Clock.State)
		apart := math.Mod(float64(s.timeOf(1000*clockTick)-o.came[0]), float64(o.period)) / float64(o.period)
		require.InDelta(t, 0, math.Sin(math.Pi*apart), 0.01, "at its nearest pulse")
		require.True(t, s.Status().Playing)
	})
}

// Of two machines only the one that is followed counts, and turned off in between playing goes on at the project's tempo.
func TestOneOfTwoMachinesIsFollowed(t *testing.T) {
	p := following(score.ClockIn{})
	p.Inputs = append(p.Inputs, score.Input{ID: 8, Name: "Capstan", Kind: score.DeviceInput})
	onStage(t, p, func(t *testing.T, s *rig) {
		var said []string
		s.options.Notice = func(text string) { said = append(said, text) }
		defer func() {
			require.Equal(t, []string{"Another clock comes in at Capstan; the one at Winch is followed."}, said)
		}()
		o := s.other(100)
		o.start(midi.Message{Kind: midi.Start})
		for range 100 {
			o.pulses(1)
			require.NoError(t, s.Hear(Incoming{Source: Source{score.DeviceInput, 8}, Message: midi.Message{Kind: midi.Clock}, At: s.Now()}))
			require.NoError(t, s.Hear(Incoming{Source: Source{score.DeviceInput, 8}, Message: midi.Message{Kind: midi.Stop}, At: s.Now()}))
		}
		require.Less(t, worst(o.late(24)), 0.1)
		own := p.Clone()
		own.ClockIn = score.ClockIn{}
		s.SetProject(own, Change{})
		o.tempo(180)
		o.pulses(100)
		tempos := s.player.Tempo()
		require.Equal(t, p.Tempo, tempos[len(tempos)-1].Tempo)
		require.True(t, s.Status().Playing)
		logged, end := s.Log()
		require.Equal(t, tempos, logged.Hear(end).Tempo)
	})
}

// Bars of the wake that are kept while a clock is followed have the tempos up to then, though those are written now and then only.
func TestBarsAreKeptWithTheTemposThatWereFollowed(t *testing.T) {
	onStage(t, following(score.ClockIn{}), func(t *testing.T, s *rig) {
		o := s.other(90)
		o.start(midi.Message{Kind: midi.Start})
		o.pulses(24 * 9)
		o.tempo(160)
		o.pulses(24 * 5)
		last := func() score.Tempo {
			kept, err := s.wake.LastBars(t.Context(), 0, 0, 1)
			require.NoError(t, err)
			return kept.Take.Tempo[len(kept.Take.Tempo)-1].Tempo
		}
		pass(time.Millisecond)
		require.InDelta(t, 90_000, int(last()), 10)
		require.NoError(t, s.KeepUp(t.Context()))
		require.InDelta(t, 160_000, int(last()), 500)
	})
}
