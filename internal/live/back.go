package live

import (
	"slices"

	"jettyfog/internal/core/stage"
)

// doneBack is the group of what cannot be undone.
const doneBack = 0

// undone is what an action put another value in the place of.
type undone struct {
	control stage.Control
	value   *int
	group   int64 // of what was done together
}

// remember notes which value a control has, to go back to with all of its group.
func (t *Transport) remember(c stage.Control, group int64) {
	if c.Once() { // nothing that stays, so nothing to go back to
		return
	}
	if last := len(t.back) - 1; last >= 0 && t.back[last].control == c && t.back[last].group == group {
		return // one move of a fader after another
	}
	was := undone{control: c, group: group}
	if value, changed := t.stage.Value(c); changed {
		was.value = &value
	}
	t.back = append(t.back, was)
	for first := t.back[0].group; t.groups() > MaxBack; {
		t.back = slices.DeleteFunc(t.back, func(u undone) bool { return u.group == first })
	}
}

// groups returns how many actions, or groups of them, can be undone.
func (t *Transport) groups() (groups int) {
	for i := range t.back {
		if i == 0 || t.back[i].group != t.back[i-1].group {
			groups++
		}
	}
	return groups
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
		group, done := t.back[len(t.back)-1].group, false
		for n := len(t.back); n > 0 && t.back[n-1].group == group; n = len(t.back) {
			last := t.back[n-1]
			t.back = t.back[:n-1]
			t.queue = slices.DeleteFunc(t.queue, func(q queued) bool { return q.group == group && q.back })
			if t.undoes(last) {
				t.do(Doing{last.control, last.value}, Now, 0, doneBack)
				done = true
			}
		}
		if done {
			t.notifyStage()
			return nil
		}
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
		t.group++
		for _, change := range t.stage.Changes() {
			t.do(Doing{Control: change.Control}, Now, 0, t.group)
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
			t.do(Doing{Control: change.Control}, Now, 0, doneBack)
		}
	}
	t.notifyStage()
}
