package live

import (
	"context"
	"sync"
	"time"

	"jettyfog/internal/core/button"
	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/output"
)

// Options are the transport's settings.
type Options struct {
	// LookAhead is how long before its time a message is computed at least; 0 means 20 ms. It is as long as any port
	// needs: a longer one forgives a busier machine, a shorter one lets edits be heard sooner.
	LookAhead time.Duration
	// Pulse is the time between two renderings; 0 means 10 ms.
	Pulse time.Duration
	// Omitted is told, once a second at most, what was left out; nil is told nothing. It must return quickly and
	// must not call the transport.
	Omitted func(Omission)
	// Notice is told of what has happened, in whole sentences; nil is told nothing. The same holds for it.
	Notice func(string)
	// Heard is told of what came in at devices and from programs, but for clocks; nil is told nothing. The same holds for it.
	Heard func(Incoming)
	// Keep has the last so many bars be kept as a take; nil keeps none. The same holds for it.
	Keep func(bars int)
}

// Transport plays a project. All methods may be called concurrently.
type Transport struct {
	options  Options
	epoch    time.Time
	recorder *Recorder
	wake     *Recorder

	mu       sync.Mutex
	document int64          // which one is open
	project  *score.Project // as it is written
	revision int64
	stage    stage.Stage // the live changes with all that was done
	queue    []queued
	queuedID int64
	group    int64 // of what was done together last
	back     []undone
	staged   []func(Performing) // are told of the live changes and the queue
	wanted   edited             // the state of the project that is to play next
	log      log.Log
	logged   int // how many states of the project the log has
	screens  map[Screen]struct{}
	ports    map[output.Port]*feed
	outputs  []func(int64, []score.Output) // are told of the outputs of the project that plays
	inputs   []func(int64, []score.Input)  // and of its inputs
	spacing  spacing
	clocks   clocks
	leading  leading
	silent   map[uint32]bool // which tracks are kept from being heard

	clockIn  clockIn
	steering steering
	sources  map[Source]*source // inputs of which something is down, or was
	buttons  map[trigger]*button.Button
	faders   faders

	performed int64          // the number of what was told last of performing
	taps      []int64        // of the tempo, when
	echoes    []echo         // what was sent that can come back
	passed    uint16         // how many notes were passed on
	idle      *route.Outlets // by which notes are passed on while nothing plays
	idleOf    *score.Project

	playing         bool
	started         int64          // the time of tick 0
	player          *log.Player    // what plays, or played last; nil before anything did
	loop            Range          // of the song, that is played over and over
	playsSong       bool           // whether the song plays from where playing begins
	given, marked   int            // how many times it has given values, and how many sections have begun, as was noticed last
	jump            *seam          // where it goes on elsewhere once, or nil
	opening         *opening       // the project that waits to come in, or nil
	cuts            []cut          // where others came in of which nothing was heard yet
	prepared        *prepared      // what plays from the next seam on, once it has been computed
	preparing       bool           // whether a goroutine computes it
	stopped         score.Tick     // the tick of the song at which playing stopped last
	stoppedPlan     log.Plan       // and which sections played
	interrupted     bool           // whether that was because the program ended while it played
	ended           score.Tick     // and that of run time
	notified        [2]int         // which of its tempos and pieces the outputs were told last
	outlets         *route.Outlets // what goes to which output, once all that was handed over is heard
	sieve           sieve
	omittedNotified int64                     // when it was told last what was left out
	waiting         []output.Event            // handed over, not yet heard
	outgoing        []output.Event            // the same as it goes out, where several notes are on one key
	sounding        midi.Sounding[score.Tick] // when each note that sounds began
	standing        midi.Settings             // what else was heard
	plan            *plan                     // what is to be recorded, or nil
}

// New returns a transport that stands still. The recorder writes takes, the wake everything that is heard; they
// may not be used by another transport.
func New(project *score.Project, options Options, recorder, wake *Recorder) *Transport {
	if options.LookAhead == 0 {
		options.LookAhead = 20 * time.Millisecond
	}
	if options.Pulse == 0 {
		options.Pulse = 10 * time.Millisecond
	}
	if options.Notice == nil {
		options.Notice = func(string) {}
	}
	if options.Heard == nil {
		options.Heard = func(Incoming) {}
	}
	if options.Keep == nil {
		options.Keep = func(int) {}
	}
	if options.Omitted == nil {
		options.Omitted = func(Omission) {}
	}
	t := &Transport{
		options: options, epoch: time.Now(), recorder: recorder, wake: wake, project: project,
		screens: map[Screen]struct{}{}, ports: map[output.Port]*feed{},
	}
	t.spacing.set(project)
	t.checkClock()
	return t
}

// Now returns the time on the transport's clock, in nanoseconds.
func (t *Transport) Now() int64 { return int64(time.Since(t.epoch)) }

// Run pulses until the context ends, then stops playing.
func (t *Transport) Run(ctx context.Context) {
	ticker := time.NewTicker(t.options.Pulse)
	defer ticker.Stop()
	for {
		select {
		case <-ctx.Done():
			t.Stop()
			return
		case <-ticker.C:
			t.pressDue()
			t.pulse()
		}
	}
}

// Attach adds a screen and tells it the state.
func (t *Transport) Attach(s Screen) {
	t.mu.Lock()
	defer t.mu.Unlock()
	t.screens[s] = struct{}{}
	s.Notify(t.status())
}

// Detach removes a screen.
func (t *Transport) Detach(s Screen) {
	t.mu.Lock()
	defer t.mu.Unlock()
	delete(t.screens, s)
}

// SetRevision says which revision of the project the wake of what is played from now on is of.
func (t *Transport) SetRevision(revision int64) {
	t.mu.Lock()
	defer t.mu.Unlock()
	if t.opening != nil { // it is of the one that waits
		t.opening.Revision = revision
		return
	}
	t.revision = revision
}

// KeepUp has everything that was heard by now written to the wake. The error is why it could not be.
func (t *Transport) KeepUp(ctx context.Context) error {
	t.mu.Lock()
	if t.playing {
		t.playOut(t.Now())
	}
	t.mu.Unlock()
	return t.wake.Flush(ctx)
}

// retimed tells what records that the tempos and the bars may be others.
func (t *Transport) retimed() {
	for _, r := range []*Recorder{t.recorder, t.wake} {
		r.change(func(now *recording) { now.setTime(t.player.Tempo(), t.player.Bars()) })
	}
}

// Stop stops playing and recording and releases everything. It does nothing while standing still.
func (t *Transport) Stop() {
	t.mu.Lock()
	defer t.mu.Unlock()
	waited := t.clockIn.begins != nil
	t.clockIn.begins = nil
	switch {
	case t.playing:
		t.stop(t.Now())
	case waited:
		t.noticeClock()
	}
}

func (t *Transport) stop(now int64) {
	t.playOut(now)
	t.notifyOmitted(now, true)
	at := t.unheard(now)
	if end, ends := t.player.SongEnd(); ends {
		at = min(at, end)
	}
	releases := t.sounding.Release(func(score.Tick) score.Tick { return at })
	t.recorder.add(releases)
	t.recorder.end(at)
	t.plan = nil
	t.wake.add(releases)
	t.wake.end(at)
	t.stopped, t.stoppedPlan, t.ended = t.player.Pieces().Song(at), t.player.Plan(), at
	t.playing, t.waiting, t.outlets, t.sieve = false, nil, nil, sieve{}
	t.clockIn.leads, t.clockIn.lost, t.steering = false, false, steering{}
	t.releasePorts()
	t.stopClocks(now)
	t.stage, t.queue, t.jump, t.cuts = t.stage.Stopped(), nil, nil, nil
	if o := t.opening; o != nil {
		t.turnTo(o)
		t.setOutputs(t.project)
		t.stage = o.Stage
	}
	t.notify()
	t.notifyStage()
}

// unheard returns the first tick of run time of which nothing was heard by a moment.
func (t *Transport) unheard(now int64) score.Tick {
	if now < t.started {
		return 0
	}
	return t.tickAt(now) + 1
}

func (t *Transport) tickAt(now int64) score.Tick  { return t.player.Timing().TickAt(now - t.started) }
func (t *Transport) timeOf(tick score.Tick) int64 { return t.started + t.player.Timing().Nanos(tick) }

// pulse hands over what has come within the look-ahead and notes what has been heard.
func (t *Transport) pulse() {
	t.mu.Lock()
	defer t.mu.Unlock()
	now := t.Now()
	t.loseClock(now)
	t.noticeClock()
	if !t.playing {
		t.idleClocks(now)
		return
	}
	if t.songOver(now) {
		t.stop(now)
		return
	}
	t.playOut(now)
	if t.segmentAndPiece() != t.notified {
		t.notify()
	}
	t.notifyOmitted(now, now-t.omittedNotified >= int64(time.Second))
	defer t.feedPorts(now)
	if now+int64(t.ahead()) < t.started {
		return
	}
	// After a stall, or where much plays, what is due takes long to compute; nobody who wants to stop waits for it.
	horizon := t.tickAt(now+int64(t.ahead())) + 1
	if end, ends := t.player.SongEnd(); ends {
		horizon = min(horizon, end)
	}
	if t.player.Run() >= horizon {
		t.tellTime()
		return
	}
	t.lead(now)
	var batch batch
	for t.player.Run() < horizon && t.Now()-now < int64(pulseWithin) {
		until := t.steer()
		horizon = min(horizon, t.tickAt(now+int64(t.ahead()))+1)
		to := min(horizon, until, t.tickAt(t.timeOf(t.player.Run())+int64(slice))+1)
		next, seams := t.nextSeam()
		if seams {
			to = min(to, next.run)
		}
		to = t.doQueued(to)
		t.render(to, next.run, &batch)
		t.noticeSong()
		switch {
		case !seams || to != next.run:
		case next.Project != nil:
			t.goOutSoFar(&batch, now)
			t.enter(&batch)
		default:
			t.leap(next, &batch)
		}
	}
	t.goOutSoFar(&batch, now)
	t.tellTime()
	if len(batch.places) > 0 {
		for screen := range t.screens {
			screen.Show(batch.places, nil)
		}
	}
}

// batch is what is computed at a pulse.
type batch struct {
	events []output.Event
	places []Place
}

// goOutSoFar has the events of a batch go out.
func (t *Transport) goOutSoFar(batch *batch, now int64) {
	passed := t.sieve.pass(batch.events, now)
	batch.events = nil
	t.waiting = append(t.waiting, passed...)
	messages := make([]midi.Message, len(passed))
	for i, event := range passed {
		messages[i] = event.Message
	}
	t.goOut(t.toOutputs(t.outlets.Play(messages, nil)))
}

// How much is rendered at once, and how long that may go on before others have their turn.
const (
	slice       = 50 * time.Millisecond
	pulseWithin = 50 * time.Millisecond
)

// notifyOmitted tells what was left out, and marks it in what is recorded.
func (t *Transport) notifyOmitted(now int64, due bool) {
	if t.sieve.omitted == (Omission{}) || !due {
		return
	}
	omitted := t.sieve.takeOmission()
	t.omittedNotified = now
	for _, r := range []*Recorder{t.recorder, t.wake} {
		r.change(func(now *recording) { now.mark(omitted.Tick, omitted.String()) })
	}
	t.options.Omitted(omitted)
}

// render appends what comes up to a tick to a batch. At a seam, if that is not 0, the song goes on elsewhere.
func (t *Transport) render(to, seam score.Tick, batch *batch) {
	messages, places := t.player.Advance(to)
	t.hand(messages, batch)
	for _, place := range places {
		if seam > 0 && place.Tick >= seam {
			continue // the song goes on elsewhere before it comes
		}
		batch.places = append(batch.places, Place{At: t.timeOf(place.Tick), Place: place})
	}
}

// hand appends messages to a batch.
func (t *Transport) hand(messages []midi.Message, batch *batch) {
	for _, m := range messages {
		batch.events = append(batch.events, output.Event{Message: m, At: t.timeOf(m.Tick)})
	}
}

// playOut moves what was due by now from waiting to heard, and into the take and the wake.
func (t *Transport) playOut(now int64) {
	due := 0
	var messages []midi.Message
	for due < len(t.waiting) && t.waiting[due].At <= now {
		m := t.waiting[due].Message
		messages = t.cutBefore(func(at score.Tick) bool { return m.Tick < at || m.Tick == at && m.Kind == midi.NoteOff }, messages)
		t.follow(m)
		messages = append(messages, m)
		switch m.Kind {
		case midi.NoteOn:
			t.sounding.Begin(m.NoteID(), m.Tick)
		case midi.NoteOff:
			t.sounding.End(m.NoteID())
		default:
			t.standing.Set(m)
		}
		due++
	}
	t.waiting = t.waiting[due:]
	if now >= t.started {
		messages = t.cutBefore(func(at score.Tick) bool { return t.tickAt(now) < at }, messages)
		t.reach(t.tickAt(now))
	}
	t.wake.add(messages)
}
