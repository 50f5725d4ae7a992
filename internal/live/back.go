package live

import (
	"slices"

	"jettyfog/internal/core/stage"
)

// undone is what an action put another value in the place of.
type undone struct {
	control stage.Control
	value   *int
}

// remember notes which value a control has, to go back to.
func (t *Transport) remember(c stage.Control) {
	if c.Once() { // nothing that stays, so nothing to go back to
		return
	}
	was := undone{control: c}
	if value, changed := t.stage.Value(c); changed {
		was.value = &value
	}
	if t.back = append(t.back, was); len(t.back) > MaxBack {
		t.back = t.back[1:]
	}
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
	if t.opening != nil {
		return ErrOpening
	}
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
	if t.opening != nil {
		t.opening.Stage = stage.Stage{}
	} else {
		t.queue = nil
		for _, change := range t.stage.Changes() {
			t.do(Doing{Control: change.Control}, Now, 0, false)
		}
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
