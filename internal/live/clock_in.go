package live

import (
	"fmt"
	"math"
	"time"

	"jettyfog/internal/core/follow"
	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// followAhead is how long before its time a message is computed at most while another clock leads, so that a tempo that changes is heard
// soon.
const followAhead = 40 * time.Millisecond

// stoodFor is for how long nothing is done at least where the program stands still, as on a machine that is busy or asleep. Within as long
// afterwards it takes what came meanwhile.
const stoodFor = 100 * time.Millisecond

// ClockState is how things stand with another machine's clock.
type ClockState string

// The states.
const (
	ClockSilent  ClockState = "silent" // no pulses come
	ClockComes   ClockState = "comes"  // pulses come, and nothing plays
	ClockWaits   ClockState = "waits"  // playing begins with the machine's start
	ClockLeads   ClockState = "leads"  // playing follows
	ClockJoins   ClockState = "joins"  // something plays, and the clock is not known yet
	ClockLost    ClockState = "lost"   // something plays on at the last tempo
	clockNoState ClockState = ""       // none is followed
)

// ClockStatus is what there is to see of a clock that is followed.
type ClockStatus struct {
	// Input is the id of the input.
	Input int        `json:"input"`
	State ClockState `json:"state"`
	// Tempo is that of the clock, in thousandths of a beat a minute; 0 while it is not known.
	Tempo score.Tempo `json:"tempo"`
}

// clockIn is another machine's clock.
type clockIn struct {
	of       score.ClockIn
	follower *follow.Follower
	zero     float64         // where pulse 0 is in run time, in ticks
	counted  bool            // its pulses are counted from its start, which gives it bars
	song     float64         // where pulse 0 is in its song then, in ticks
	runs     bool            // it was started and has not stopped, as far as anybody knows
	position score.Tick      // of the song, with which it goes on
	begins   *arming         // what begins with it
	leads    bool            // playing is brought to it
	lost     bool            // while something plays
	up       bool            // the controller of which its pulses are
	others   map[Source]bool // inputs of which it was said that a clock comes in there too
	looked   int64           // when it was looked whether it is silent
	woke     int64           // when that was first after the program had stood still
	notified ClockState
	told     struct { // what screens were told of its tempo, and when
		tempo score.Tempo
		at    int64
	}
}

// arming is playing that waits for another machine: from where, by which plan of sections, and what is recorded then. What was asked for by
// hand begins there with any start.
type arming struct {
	where  func(score.Bars) score.Tick
	plan   log.Plan
	record *plan
	byHand bool // else by the machine
}

// follows reports whether another machine's clock is to lead.
func (t *Transport) follows() bool { return t.project.ClockIn.Input != 0 }

// checkClock takes over what the project says of the clock that leads.
func (t *Transport) checkClock() {
	c, wanted := &t.clockIn, t.project.ClockIn
	if c.of == wanted {
		return
	}
	same := c.of
	if same.Offset, same.RunsOn = wanted.Offset, wanted.RunsOn; same == wanted {
		c.of = wanted
		return
	}
	if c.leads || c.lost {
		t.followTempo(0)
	}
	*c = clockIn{of: wanted}
	if t.follows() {
		c.follower = follow.New(wanted.Pulses())
	}
	t.notify()
}

// hearClock takes a message of another machine's clock that came at a time; it may unlock for a while.
func (t *Transport) hearClock(m midi.Message, at int64) {
	c := &t.clockIn
	switch m.Kind {
	case midi.Clock:
		t.hearPulse(at)
	case midi.SongPosition:
		c.position = min(score.Tick(m.Value)*sixteenth, score.LastTick)
	case midi.Start, midi.Continue:
		from := c.position
		if m.Kind == midi.Start {
			from, c.position = 0, 0
		}
		if t.playing {
			t.stop(t.Now())
		}
		c.follower.Restart()
		c.runs, c.counted, c.lost, c.song = true, true, false, float64(from)
		if c.begins == nil || !c.begins.byHand {
			c.begins = &arming{where: func(score.Bars) score.Tick { return from }}
		}
	case midi.Stop:
		if c.begins != nil && !c.begins.byHand {
			c.begins = nil
		}
		next := float64(c.last()+1) * c.ticks()
		switch c.runs = false; {
		case t.playing:
			c.position = t.player.Pieces().Song(max(0, score.Tick(math.Round(next+c.zero))))
			t.stop(t.Now())
		case c.counted:
			c.position = max(0, score.Tick(math.Round(next+c.song)))
		}
	}
	t.noticeClock()
}

// hearPulse takes a pulse that came at a time.
func (t *Transport) hearPulse(at int64) {
	c := &t.clockIn
	at += c.offset()
	_, last, any := c.follower.Last()
	first := !any || c.follower.Lost(at) && !c.stoodStill(at-c.offset())
	if c.follower.Pulse(max(at, last)); c.of.From == score.NotePulse || c.of.From == score.ControlPulse {
		if first && !t.playing { // it has no other start
			c.counted, c.runs, c.song = true, true, -float64(c.last())*c.ticks()
			if c.begins == nil {
				c.begins = &arming{where: func(score.Bars) score.Tick { return 0 }}
			}
		}
	}
	switch {
	case c.begins != nil && c.runs:
		_, when, _ := c.follower.Last()
		c.zero = -float64(c.last()) * c.ticks()
		t.beginWith(when)
	case t.playing && !c.leads:
		t.join()
	}
}

// silent reports whether the clock is lost at a time.
func (c *clockIn) silent(now int64) bool { return c.follower.Lost(now + c.offset()) }

// stoodStill reports whether the program has just stood still, so that a clock seems silent whose pulses are still to be taken.
func (c *clockIn) stoodStill(now int64) bool {
	return now-c.looked > int64(stoodFor) || now-c.woke < int64(stoodFor)
}

// offset is how much later than its pulses the beats are, in nanoseconds.
func (c *clockIn) offset() int64 { return int64(c.of.Offset) * int64(time.Millisecond) }

// last returns the number of the last pulse.
func (c *clockIn) last() int64 {
	index, _, _ := c.follower.Last()
	return index
}

// ticks is how long a pulse is.
func (c *clockIn) ticks() float64 { return float64(score.TicksPerQuarter) / float64(c.of.Pulses()) }

// beginWith has what waits begin, with tick 0 of run time at a time.
func (t *Transport) beginWith(at int64) {
	c := &t.clockIn
	armed := *c.begins
	c.begins = nil
	t.begin(armed.where, armed.plan, &at, func() bool { return c.runs })
	if !t.playing || c.follower == nil { // it has stopped meanwhile, or is followed no more
		return
	}
	if p := armed.record; p != nil && t.plan == nil {
		p.end = t.endOf(p)
		t.plan = p
	}
	c.leads, c.lost, t.steering.done = true, false, -1
	t.notify()
}

// wait has playing begin with the other machine: with the next bar of one that runs and whose bars are known, or with its next beat; else with
// its start.
func (t *Transport) wait(armed arming) {
	c := &t.clockIn
	c.runs = c.runs || c.begins != nil // asked for once more, it waits for no start
	armed.byHand = true
	c.begins = &armed
	line, known := c.follower.Line()
	if now := t.Now(); c.runs && known && !c.silent(now) {
		unit := float64(score.TicksPerQuarter)
		if c.counted {
			unit = float64(t.project.Meter.Bar())
		}
		begins := math.Ceil((line.PositionAt(now+int64(t.ahead()))+c.song)/unit)*unit - c.song
		c.zero = -begins
		t.beginWith(int64(line.TimeOf(begins)))
	}
	t.noticeClock()
	t.notify()
}

// join brings what plays to the clock: to its nearest beat where its pulses are counted, and else to its nearest pulse.
func (t *Transport) join() {
	c := &t.clockIn
	line, known := c.follower.Line()
	if !known {
		return
	}
	if !c.lost {
		unit := c.ticks()
		if c.counted {
			unit = float64(score.TicksPerQuarter)
		}
		run := t.player.Run()
		c.zero = -math.Round((line.PositionAt(t.timeOf(run))-float64(run))/unit) * unit
	}
	c.leads, c.lost, c.runs, t.steering = true, false, true, steering{done: -1}
}

// noticeOther says once that a clock comes in at another input than the one whose clock is followed.
func (t *Transport) noticeOther(in Incoming, rule score.Input, clock score.ClockIn) {
	if in.Message.Kind != midi.Clock || clock.Input == 0 || clock.Input == rule.ID || t.clockIn.others[in.Source] {
		return
	}
	if t.clockIn.others == nil {
		t.clockIn.others = map[Source]bool{}
	}
	t.clockIn.others[in.Source] = true
	t.options.Notice(fmt.Sprintf("Another clock comes in at %s; the one at %s is followed.", rule.Name, t.inputName(clock.Input)))
}

// isPulse reports whether a message is a pulse of a clock of notes or of a controller.
func (t *Transport) isPulse(m midi.Message) bool {
	c := &t.clockIn
	kind := map[score.ClockFrom]midi.Kind{score.NotePulse: midi.NoteOn, score.ControlPulse: midi.ControlChange}[c.of.From]
	if kind == 0 || m.Kind != kind || int(m.Key) != c.of.Number || c.of.Channel != 0 && c.of.Channel != int(m.Channel)+1 {
		return false
	}
	was := c.up
	c.up = m.Kind == midi.ControlChange && m.Value >= up
	return m.Kind == midi.NoteOn || c.up && !was
}

// loseClock notices that the clock is silent.
func (t *Transport) loseClock(now int64) {
	c := &t.clockIn
	if now-c.looked > int64(stoodFor) {
		c.woke = now
	}
	c.looked = now
	if c.follower == nil || !c.silent(now) || c.stoodStill(now) {
		return
	}
	c.runs = false
	if !c.leads {
		return
	}
	c.leads = false
	if !t.playing {
		return
	}
	if !c.of.RunsOn {
		t.stop(now)
		t.options.Notice(fmt.Sprintf("The clock at %s is silent, so playing has stopped.", t.inputName(c.of.Input)))
		return
	}
	c.lost = true
	if line, known := c.follower.Line(); known {
		t.followTempo(line.Tempo())
	}
	t.options.Notice(fmt.Sprintf("The clock at %s is silent; what plays goes on at its last tempo until it is back.", t.inputName(c.of.Input)))
}

func (t *Transport) inputName(id int) string {
	if input := t.project.Input(id); input != nil {
		return input.Name
	}
	return "an input that is gone"
}

// clockState says how things stand with the clock at a time.
func (t *Transport) clockState(now int64) ClockState {
	c := &t.clockIn
	if !t.follows() || c.follower == nil {
		return clockNoState
	}
	_, _, any := c.follower.Last()
	switch comes := any && !c.silent(now); {
	case c.begins != nil:
		return ClockWaits
	case t.playing && c.lost:
		return ClockLost
	case t.playing && c.leads:
		return ClockLeads
	case t.playing:
		return ClockJoins
	case comes:
		return ClockComes
	}
	return ClockSilent
}

// clockStatus returns what there is to see of the clock; nil if none is followed.
func (t *Transport) clockStatus() *ClockStatus {
	state := t.clockState(t.Now())
	if state == clockNoState {
		return nil
	}
	status := &ClockStatus{Input: t.clockIn.of.Input, State: state}
	if line, known := t.clockIn.follower.Line(); known && state != ClockSilent {
		status.Tempo = line.Tempo()
	}
	return status
}

// tellTempoEvery is how often screens are told of another tempo at most, which is one by more than tellTempoBy, in thousandths of a beat a
// minute.
const (
	tellTempoEvery = 500 * time.Millisecond
	tellTempoBy    = 40
)

// noticeClock tells screens where the state of the clock has changed, or its tempo.
func (t *Transport) noticeClock() {
	c, now := &t.clockIn, t.Now()
	state := t.clockState(now)
	if state == clockNoState {
		return
	}
	tempo := t.clockStatus().Tempo
	another := max(tempo-c.told.tempo, c.told.tempo-tempo) > tellTempoBy && now-c.told.at >= int64(tellTempoEvery)
	if state == c.notified && !another {
		return
	}
	c.notified, c.told.tempo, c.told.at = state, tempo, now
	t.notify()
}
