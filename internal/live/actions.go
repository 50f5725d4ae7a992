package live

import (
	"errors"
	"fmt"
	"slices"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// When says from which moment an action counts.
type When string

// The moments: at once, or with the next one of its kind. The end of a pattern is that of the track's own whole pass of its
// gate, in a kit of the longest; for what has none it is the next bar.
const (
	Now        When = "now"
	NextStep   When = "step"
	NextBeat   When = "beat"
	NextBar    When = "bar"
	NextBars   When = "bars"
	PatternEnd When = "pattern"
)

// Moments lists them in the order in which to offer them.
func Moments() []When { return []When{Now, NextStep, NextBeat, NextBar, NextBars, PatternEnd} }

// Bounds of what can be done.
const (
	MaxQueue = 256
	MaxBack  = 100
	// Apart is how many ticks lie between two actions of one control at least; of several that come sooner the last counts.
	Apart = 210
)

// Errors of actions.
var (
	ErrQueueFull = fmt.Errorf("%d actions wait already; take one back or wait until they are done", MaxQueue)
	ErrNotQueued = errors.New("that action is done already, or was taken back")
	ErrNoBack    = errors.New("there is no action left to undo")
	ErrStageFull = fmt.Errorf("there are %d live changes already; store or reset them first", stage.MaxChanges)
)

// Doing asks for a control to be given a value, or without one to be let go of.
type Doing struct {
	Control stage.Control `json:"control"`
	Value   *int          `json:"value,omitempty"`
}

// queued is an action that waits for its tick.
type queued struct {
	id int64
	log.Action
	lead   score.Tick // how far ahead of it a track must look
	spaced bool       // it waits only because the last one of its control was just before
	back   bool       // it cannot be undone
}

// undone is what an action put another value in the place of.
type undone struct {
	control stage.Control
	value   *int
}

// Do does some things together, from a moment on; bars is how many of NextBars. While standing still they count at once.
// The error is a *score.FieldError, or wraps stage.ErrGone, ErrQueueFull or ErrStageFull; then nothing is done.
func (t *Transport) Do(doings []Doing, when When, bars int) error {
	t.mu.Lock()
	defer t.mu.Unlock()
	if !slices.Contains(Moments(), when) {
		return &score.FieldError{Field: "when", Got: fmt.Sprintf("%.20q", when), Allowed: fmt.Sprint(Moments())}
	}
	if when == NextBars && (bars < 1 || bars > score.MaxBars) {
		return &score.FieldError{Field: "bars", Got: bars, Allowed: fmt.Sprintf("1 to %d", score.MaxBars)}
	}
	if err := t.check(doings); err != nil {
		return err
	}
	for _, d := range doings {
		t.do(d, when, bars, false)
	}
	t.notifyStage()
	return nil
}

// check refuses what cannot be done.
func (t *Transport) check(doings []Doing) error {
	if len(t.queue)+len(doings) > MaxQueue {
		return ErrQueueFull
	}
	next := t.stage
	for _, d := range doings {
		if d.Value != nil {
			if err := d.Control.Check(next.On(t.project), *d.Value); err != nil {
				return err
			}
		}
		next = next.After(d.Control, d.Value)
	}
	if len(next.Changes()) > stage.MaxChanges {
		return ErrStageFull
	}
	return score.CheckDensity(t.stage.On(t.project), next.On(t.project))
}

// do does one thing from a moment on; with back it is none that can be undone.
func (t *Transport) do(d Doing, when When, bars int, back bool) {
	if !t.playing {
		if !back {
			t.remember(d.Control)
		}
		t.stage = t.stage.After(d.Control, d.Value)
		return
	}
	at, run := t.moment(d.Control, when, bars), t.player.Run()
	if when != Now || !d.Control.Silences() {
		at = max(at, run)
	}
	q := queued{Action: log.Action{Control: d.Control, Value: d.Value, At: at}, back: back}
	if last, done := t.player.Acted(d.Control); done && q.At < last+Apart {
		q.At, q.spaced = last+Apart, true
	}
	t.queue = slices.DeleteFunc(t.queue, func(other queued) bool {
		return other.Control == q.Control && (other.At == q.At || other.spaced && q.spaced)
	})
	if q.At <= run {
		t.act(q)
		return
	}
	t.queuedID++
	q.id = t.queuedID
	if !d.Control.Silences() {
		q.lead = log.Ahead(t.stage.After(d.Control, d.Value).On(t.project), d.Control)
	}
	t.queue = append(t.queue, q)
	slices.SortStableFunc(t.queue, func(a, b queued) int { return int(a.At - b.At) })
}

// moment returns the tick of run time at which an action is to count that is done now.
func (t *Transport) moment(c stage.Control, when When, bars int) score.Tick {
	lines, song, run := t.project.Bars(), t.player.Song(), t.player.Run()
	bar := lines.At(song)
	after := func(tick score.Tick) score.Tick { return run + tick - song }
	switch when {
	case NextStep:
		if at, found := t.player.NextStep(c); found {
			return after(at)
		}
		const grid = score.TicksPerQuarter / 4
		return after((song + grid - 1) / grid * grid)
	case NextBeat:
		meter, begins := lines.Meter(bar), lines.Start(bar)
		for _, beat := range meter.GroupStarts() {
			if at := begins + score.Tick(beat)*meter.Beat(); at >= song && at < lines.Start(bar+1) {
				return after(at)
			}
		}
	case NextBars:
		every := int64(bars)
		for bar++; bar%every != 0; {
			bar++
		}
		if lines.Start(lines.At(song)) == song && lines.At(song)%every == 0 {
			return after(song)
		}
		return after(lines.Start(bar))
	case PatternEnd:
		if at, found := t.player.PassEnd(c); found {
			return after(at)
		}
	case Now: // what silences counts for what has been handed over, too
		if c.Silences() {
			return max(0, t.tickAt(t.Now()))
		}
		return run
	}
	return after(lines.Ceil(song))
}

// act does an action, from the first tick on that is not committed.
func (t *Transport) act(q queued) {
	if !q.back {
		t.remember(q.Control)
	}
	t.note(log.Entry{Action: &q.Action})
	t.withdraw(t.player.Act(q.Action))
	t.stage = t.player.Stage()
	for i, c := range t.wanted.letGo { // what is done after an edit is not what that takes away
		if c == q.Control {
			t.wanted.letGo = slices.Delete(slices.Clone(t.wanted.letGo), i, i+1)
			break
		}
	}
	for _, r := range []*Recorder{t.recorder, t.wake} {
		r.change(func(now *recording) {
			now.acted(t.player.Playing(), max(q.At, t.player.Run()))
			now.setTime(t.player.Tempo(), t.player.Bars())
		})
	}
	t.prepare()
}

// remember notes which value a control has, to go back to.
func (t *Transport) remember(c stage.Control) {
	was := undone{control: c}
	if value, changed := t.stage.Value(c); changed {
		was.value = &value
	}
	if t.back = append(t.back, was); len(t.back) > MaxBack {
		t.back = t.back[1:]
	}
}

// doQueued does what is due by the tick of run time to which is to be rendered next, and returns one to which nothing more
// is.
func (t *Transport) doQueued(to score.Tick) score.Tick {
	done := false
	for i := 0; i < len(t.queue); {
		q := t.queue[i]
		due := q.At
		if !q.Control.Silences() {
			due -= max(q.lead, t.player.Ahead(q.Control))
		}
		if due > t.player.Run() {
			to = min(to, due)
			i++
			continue
		}
		t.queue = slices.Delete(t.queue, i, i+1)
		t.act(q)
		done = true
	}
	if done {
		t.notify()
		t.notifyStage()
	}
	return to
}

// TakeBack takes an action out of the queue. The error is ErrNotQueued.
func (t *Transport) TakeBack(id int64) error {
	t.mu.Lock()
	defer t.mu.Unlock()
	before := len(t.queue)
	t.queue = slices.DeleteFunc(t.queue, func(q queued) bool { return q.id == id })
	if len(t.queue) == before {
		return ErrNotQueued
	}
	t.notifyStage()
	return nil
}

// Back gives the control of the last action the value again that it had before. The error is ErrNoBack.
func (t *Transport) Back() error {
	t.mu.Lock()
	defer t.mu.Unlock()
	for len(t.back) > 0 {
		last := t.back[len(t.back)-1]
		t.back = t.back[:len(t.back)-1]
		if !t.undoes(last) {
			continue
		}
		t.do(Doing{last.control, last.value}, Now, 0, true)
		t.notifyStage()
		return nil
	}
	return ErrNoBack
}

// undoes reports whether something would change if it was undone.
func (t *Transport) undoes(u undone) bool {
	if _, there := u.control.Written(t.project); !there {
		return false
	}
	value, changed := t.stage.Value(u.control)
	return changed != (u.value != nil) || changed && value != *u.value
}

// Reset lets go of all live changes, and takes back what waits.
func (t *Transport) Reset() {
	t.mu.Lock()
	defer t.mu.Unlock()
	t.queue = nil
	for _, change := range t.stage.Changes() {
		t.do(Doing{Control: change.Control}, Now, 0, false)
	}
	t.notifyStage()
}

// EndMomentary lets go of what is held: nobody is there any more who could.
func (t *Transport) EndMomentary() {
	t.mu.Lock()
	defer t.mu.Unlock()
	for _, change := range t.stage.Changes() {
		if change.Control.Momentary() {
			t.do(Doing{Control: change.Control}, Now, 0, true)
		}
	}
	t.notifyStage()
}

// Stage returns the live changes with all that was done.
func (t *Transport) Stage() stage.Stage {
	t.mu.Lock()
	defer t.mu.Unlock()
	return t.stage
}

// Performing is what was changed on top of the project, and what waits.
type Performing struct {
	Stage stage.Stage
	Queue []Queued
	// Back is how many actions can be undone.
	Back int
}

// Queued is an action that waits for its tick, of the song.
type Queued struct {
	ID    int64 `json:"id"`
	Doing `json:"doing"`
	At    score.Tick `json:"at"`
}

// Performing returns what was changed on top of the project, and what waits.
func (t *Transport) Performing() Performing {
	t.mu.Lock()
	defer t.mu.Unlock()
	return t.performing()
}

func (t *Transport) performing() Performing {
	p := Performing{Stage: t.stage, Back: len(t.back)}
	for _, q := range t.queue {
		p.Queue = append(p.Queue, Queued{ID: q.id, Doing: Doing{q.Control, q.Value}, At: t.player.Pieces().Song(q.At)})
	}
	return p
}

// ListenStage has a function told of the live changes and the queue at once and whenever they are others. It must return
// quickly and must not call the transport.
func (t *Transport) ListenStage(listener func(Performing)) {
	t.mu.Lock()
	defer t.mu.Unlock()
	t.staged = append(t.staged, listener)
	listener(t.performing())
}

func (t *Transport) notifyStage() {
	performing := t.performing()
	for _, listener := range t.staged {
		listener(performing)
	}
}

// SetStage puts live changes on the project, as they were when the program ended. It does nothing while playing.
func (t *Transport) SetStage(s stage.Stage) {
	t.mu.Lock()
	defer t.mu.Unlock()
	if !t.playing {
		t.stage = s.Stopped()
		t.notifyStage()
	}
}

// Course returns how a state of the project plays a track from a tick of the song on: with what was done since playing began
// while it plays, and else with the live changes put on it.
func (t *Transport) Course(written *score.Project, track int, from score.Tick) play.Course {
	t.mu.Lock()
	defer t.mu.Unlock()
	if t.playing {
		return t.player.Course(written, track, from)
	}
	return play.Course{Project: t.stage.On(written)}
}
