package live

import (
	"errors"
	"fmt"
	"slices"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

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
	ramp   bool       // it is a step of a tempo that goes to another
	group  int64      // of what was done together; doneBack if it cannot be undone
}

// Do does some things together, from a moment on; bars is how many of NextBars. While standing still they count at once.
// The error is a *score.FieldError, or wraps stage.ErrGone, ErrQueueFull or ErrStageFull; then nothing is done.
func (t *Transport) Do(doings []Doing, when When, bars int) error {
	t.mu.Lock()
	defer t.mu.Unlock()
	if err := checkMoment(when, bars); err != nil {
		return err
	}
	if err := t.check(doings); err != nil {
		return err
	}
	t.group++
	for _, d := range doings {
		t.do(d, when, bars, t.group)
	}
	t.notifyStage()
	return nil
}

// check refuses what cannot be done.
func (t *Transport) check(doings []Doing) error {
	if t.opening != nil {
		return ErrOpening
	}
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

// do does one thing of a group from a moment on.
func (t *Transport) do(d Doing, when When, bars int, group int64) {
	if !t.playing {
		if group != doneBack {
			t.remember(d.Control, group)
		}
		t.stage = t.stage.After(d.Control, d.Value)
		return
	}
	if d.Control.Name == "tempo" && d.Control.Track == 0 {
		t.endRamp() // the last one counts
	}
	at, run := t.moment(d.Control, when, bars), t.player.Run()
	if when != Now || !d.Control.Silences() {
		at = max(at, run)
	}
	t.enqueue(queued{Action: log.Action{Control: d.Control, Value: d.Value, At: at}, back: group == doneBack, group: group})
}

// enqueue has an action wait for its tick, or does it if that is not ahead.
func (t *Transport) enqueue(q queued) {
	d, run := Doing{q.Control, q.Value}, t.player.Run()
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
	if d.Control.Steers() && d.Value != nil {
		q.lead = max(q.lead, t.player.AheadOfSection(*d.Value))
	}
	t.queue = append(t.queue, q)
	slices.SortStableFunc(t.queue, func(a, b queued) int { return int(a.At - b.At) })
}

// act does an action, from the first tick on that is not committed.
func (t *Transport) act(q queued) {
	if !q.back {
		t.remember(q.Control, q.group)
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
