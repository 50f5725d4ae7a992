package voltages

import (
	"cmp"
	"slices"
	"sync"
	"time"

	"jettyfog/internal/core/cv"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/output"
)

// Shown is what the channels of an output do from a moment on, in nanoseconds of the transport's clock, and as far as was computed.
type Shown struct {
	Output score.Output
	Since  int64
	// Playing says that more is to come; a page that hears nothing more then has its gates be off after a while.
	Playing  bool
	Channels []*cv.Channel
	// Tested are the channels that carry a test voltage, which is sent uncorrected.
	Tested map[int]bool
}

const (
	// ahead is how long before its time a voltage goes to a page, which renders a few milliseconds ahead of what it plays.
	ahead = 160 * time.Millisecond
	// showEvery is how long passes at least between two times that a page is shown what is to come.
	showEvery = 40 * time.Millisecond
	// kept is how long ago is shown still, for a page whose clock is behind.
	kept = int64(100 * time.Millisecond)
)

// most is how many events can wait; of more none is taken but what ends notes.
const most = 1 << 14

// Player plays one output of voltages. It implements output.Timed.
type Player struct {
	output score.Output
	now    func() int64
	show   func(Shown)

	mu      sync.Mutex
	project *score.Project
	engine  *cv.Engine // as far as nothing can be taken back
	settled int64      // until when
	pending []cv.Event // by time
	tempo   play.Timing
	playing bool
	pulsed  score.Tick // up to which pulses were made
	shown   int64      // when it was shown last
	tests   map[int]float64
}

// NewPlayer returns a player of an output, all of whose channels are at rest.
func NewPlayer(o score.Output, now func() int64, show func(Shown)) *Player {
	player := &Player{output: o, now: now, show: show, tests: map[int]float64{}}
	player.settled = now() - kept
	player.engine = cv.NewEngine(o.Voltages, player.settled)
	return player
}

// Ahead implements output.Port.
func (p *Player) Ahead() time.Duration { return ahead }

// Send implements output.Port.
func (p *Player) Send(events []output.Event) {
	p.mu.Lock()
	defer p.mu.Unlock()
	for _, e := range events {
		if e.Output != p.output.ID || len(p.pending) >= most && e.Kind != midi.NoteOff {
			continue
		}
		event := cv.Event{At: e.At, Message: e.Message}
		if p.playing {
			event.Next = p.tempo.Nanos(e.Tick+score.TicksPerQuarter/24) - p.tempo.Nanos(e.Tick)
		}
		p.add(event)
	}
}

// add has an event be played at its time, or now if that is over.
func (p *Player) add(event cv.Event) {
	event.At = max(event.At, p.settled+cv.Reach)
	at, _ := slices.BinarySearchFunc(p.pending, event, func(other, event cv.Event) int { // behind those of its time
		return cmp.Or(cmp.Compare(other.At, event.At), -1)
	})
	p.pending = slices.Insert(p.pending, at, event)
}

// Withdraw implements output.Port.
func (p *Player) Withdraw(noteOns []output.Event) {
	p.mu.Lock()
	defer p.mu.Unlock()
	p.pending = slices.DeleteFunc(p.pending, func(event cv.Event) bool {
		m := event.Message
		return event.Kind == cv.Told && m.Kind == midi.NoteOn && slices.ContainsFunc(noteOns, func(on output.Event) bool {
			return on.Output == p.output.ID && on.At == event.At && on.Track == m.Track && on.Channel == m.Channel && on.Key == m.Key
		})
	})
	p.showNow()
}

// Release implements output.Port: everything is at rest from now on.
func (p *Player) Release() {
	p.mu.Lock()
	defer p.mu.Unlock()
	now := p.now()
	p.pending = slices.DeleteFunc(p.pending, func(event cv.Event) bool { return event.At > now })
	p.add(cv.Event{Kind: cv.Stop, At: now})
	p.playing = false
	p.showNow()
}

// Panic implements output.Port.
func (p *Player) Panic() {
	p.mu.Lock()
	defer p.mu.Unlock()
	p.add(cv.Event{Kind: cv.Stop, At: p.now()})
	p.showNow()
}

// Time implements output.Timed.
func (p *Player) Time(t output.Timeline) {
	p.mu.Lock()
	defer p.mu.Unlock()
	now := p.now()
	if !p.playing {
		p.playing, p.pulsed = true, 0
		clear(p.tests)
		p.shown = 0
		begins := t.Started
		if t.Began(now) { // it comes in while something plays
			p.pulsed, begins = t.Tempo.TickAt(now-t.Started)+1, now
		}
		p.add(cv.Event{Kind: cv.Start, At: begins + p.offset()})
		p.reset(begins+p.offset(), func(score.VoltageChannel) bool { return !t.Began(now) })
	}
	if p.project != t.Project {
		p.project = t.Project
		p.engine.SetTracks(t.Project, p.output.Voltages)
	}
	p.tempo = t.Tempo
	p.pulse(t)
	p.pulsed = max(p.pulsed, t.Until)
	if p.shown == 0 || now-p.shown >= int64(showEvery) {
		p.showNow()
	}
}

func (p *Player) offset() int64 { return int64(p.output.Offset) * int64(time.Millisecond) }

// pulse makes the pulses of clocks, and the resets before bars, that were not made yet.
func (p *Player) pulse(t output.Timeline) {
	when := func(tick score.Tick) int64 { return t.Started + t.Tempo.Nanos(tick) + p.offset() }
	for _, c := range p.output.Voltages.Channels {
		if c.Signal == score.ClockSignal {
			cv.Pulses(c, t.Project, t.Bar, p.pulsed, t.Until, when, func(event cv.Event) { p.add(event) })
		}
	}
	for _, beat := range t.Beats(max(1, p.pulsed), t.Until) {
		p.reset(when(beat.Tick), func(c score.VoltageChannel) bool {
			track := t.Project.Track(c.Track)
			return beat.Beat == 0 && track != nil && track.Realign > 0 && beat.Bar%int64(track.Realign) == 0
		})
	}
}

// reset has channels reset that are to.
func (p *Player) reset(at int64, resets func(score.VoltageChannel) bool) {
	for _, c := range p.output.Voltages.Channels {
		if c.Signal == score.ResetSignal && resets(c) {
			p.add(cv.Event{Kind: cv.Reset, At: at, Channel: c.Channel})
		}
	}
}

// Show shows what the channels do at present.
func (p *Player) Show() {
	p.mu.Lock()
	defer p.mu.Unlock()
	p.showNow()
}

// Test has a channel carry a voltage until something plays, or without one carry what it carried before.
func (p *Player) Test(channel int, volts *float64) {
	p.mu.Lock()
	defer p.mu.Unlock()
	if delete(p.tests, channel); volts != nil {
		p.tests[channel] = *volts
	}
	p.showNow()
}

// showNow settles what is over, and shows the rest.
func (p *Player) showNow() {
	p.shown = p.now()
	if until := p.shown - kept; until > p.settled {
		over := 0
		for over < len(p.pending) && p.pending[over].At < until {
			over++
		}
		p.engine.Play(p.pending[:over])
		p.pending = slices.Delete(p.pending, 0, over)
		p.settled = until
		p.engine.Forget(until - cv.Reach)
	}
	coming := p.engine.Clone()
	coming.Play(p.pending)
	coming.Forget(p.settled)
	tested := map[int]bool{}
	for _, c := range coming.Channels {
		if volts, is := p.tests[c.VoltageChannel.Channel]; is {
			c.Line, tested[c.VoltageChannel.Channel] = cv.Steady(p.settled, volts), true
		}
	}
	p.show(Shown{p.output, p.settled, p.playing, coming.Channels, tested})
}
