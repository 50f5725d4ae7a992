package live

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"time"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/wave"
	"jettyfog/internal/output"
)

const (
	// maxPosition14 is the greatest number of 14 bits.
	maxPosition14 = 1<<14 - 1
	// turnEvery is how often at most what faders say is done, so that a flood of messages costs no more than a hand.
	turnEvery = 20 * time.Millisecond
	// turnTogether is how soon one move of a fader comes after another for both to be undone together.
	turnTogether = time.Second
)

// faderKey names a fader, a knob or a wheel at an input, and what it turns.
type faderKey struct {
	Source
	score.Mapping
}

// fader is how far one has come.
type fader struct {
	coarse   int // half of a position of 14 bits
	position int // 0 to the greatest; −1 before anything has come
	taken    bool
	set      int   // the value that it gave last, while taken
	at       int64 // when
	group    int64 // with which that is undone
	waits    bool  // what it gave is still to be done
	due      int
}

// faders are all that have been moved.
type faders struct {
	of       map[faderKey]*fader
	moved    bool  // since anybody was told
	told     int64 // when pages were
	refused  int64 // when somebody was told of what could not be done
	sentBack map[score.Mapping]int
}

func (f *faders) put(key faderKey, one *fader) {
	if f.of == nil {
		f.of = map[faderKey]*fader{}
	}
	f.of[key] = one
}

// FaderWait is a fader whose position is not that of its control: it turns nothing until it has come to where the value stands.
type FaderWait struct {
	Control stage.Control `json:"control"`
	// Value is the one that the fader stands at.
	Value int `json:"value"`
}

// greatest is the highest position of what a mapping hears.
func greatest(m score.Mapping) int {
	if m.Message == score.MappedControl14 || m.Message == score.MappedBend {
		return maxPosition14
	}
	return 127
}

// hears returns the position that a message says for a mapping; of a relative one its 7 bits.
func (f *fader) hears(m score.Mapping, in midi.Message) (position int, is bool) {
	if m.Channel != 0 && m.Channel != int(in.Channel)+1 {
		return 0, false
	}
	number := int(in.Key)
	switch {
	case m.Message == score.MappedControl && in.Kind == midi.ControlChange && number == m.Number:
		return int(in.Value), true
	case m.Message == score.MappedControl14 && in.Kind == midi.ControlChange && number == m.Number:
		f.coarse = int(in.Value) << 7 // which resets the fine half (MIDI 1.0)
		return f.coarse, true
	case m.Message == score.MappedControl14 && in.Kind == midi.ControlChange && number == m.Number+32:
		return f.coarse | int(in.Value), true
	case m.Message == score.MappedBend && in.Kind == midi.Bend, m.Message == score.MappedPressure && in.Kind == midi.Pressure:
		return int(in.Value), true
	case m.Message == score.MappedNote && in.Kind == midi.NoteOn && number == m.Number:
		return int(in.Velocity), true
	}
	return 0, false
}

// valueAt returns the value of a mapping at a position.
func valueAt(m score.Mapping, position int) int {
	return wave.Between(m.From, m.To, wave.Bend(m.Curve, score.Rounded(position*wave.One, greatest(m))))
}

// positionOf returns the position of a mapping whose value is nearest to one; of several the lowest.
func positionOf(m score.Mapping, value int) int {
	low, high := 0, greatest(m)
	for up := m.To > m.From; low < high; {
		if middle := (low + high) / 2; up && valueAt(m, middle) < value || !up && valueAt(m, middle) > value {
			low = middle + 1
		} else {
			high = middle
		}
	}
	if low > 0 && distance(valueAt(m, low-1), value) <= distance(valueAt(m, low), value) {
		return low - 1
	}
	return low
}

func distance(a, b int) int { return max(a-b, b-a) }

// turnBy has a message turn what its input's faders are mapped to.
func (t *Transport) turnBy(in Incoming) {
	for _, m := range t.project.Mappings {
		key := faderKey{in.Source, m}
		f := t.faders.of[key]
		if f == nil {
			f = &fader{position: -1}
		}
		position, is := f.hears(m, in.Message)
		if !is {
			continue
		}
		t.faders.put(key, f)
		t.faders.moved = true
		if m.Turns.Relative() {
			t.moveBy(m, f, m.Turns.Steps(position))
		} else {
			t.moveTo(m, f, position)
		}
	}
	t.turnDue()
}

// valueOf returns the value that a hand has given a control or that is written, without what macros add.
func (t *Transport) valueOf(c stage.Control) (value int, there bool) {
	for _, q := range t.queue {
		if q.Control == c && q.spaced && q.Value != nil {
			return *q.Value, true
		}
	}
	value, there = c.Written(t.project)
	if changed, is := t.stage.InForceOf(c); is {
		value = changed
	}
	return value, there
}

// moveTo has a fader stand at a position. With a soft takeover it turns its control from where it passes the control's value on.
func (t *Transport) moveTo(m score.Mapping, f *fader, position int) {
	before := f.position
	f.position = position
	stands, there := t.valueOf(stage.Control(m.Control))
	if !there {
		return
	}
	value := valueAt(m, position)
	if f.waits {
		stands = f.due
	}
	if f.taken = f.taken && f.set == stands || m.Turns == score.Jumps || positionOf(m, stands) == position; !f.taken && before >= 0 {
		f.taken = (valueAt(m, before) < stands) != (value < stands)
	}
	if f.taken {
		t.turns(f, value)
	}
}

// moveBy turns an endless knob, of which 127 steps are the whole range.
func (t *Transport) moveBy(m score.Mapping, f *fader, steps int) {
	stands, there := t.valueOf(stage.Control(m.Control))
	if !there {
		return
	}
	if f.waits {
		stands = f.due
	}
	by := score.Rounded((m.To-m.From)*steps, 127)
	if by == 0 {
		by = cmp.Compare(steps, 0) * cmp.Compare(m.To, m.From)
	}
	f.taken = true
	t.turns(f, max(min(m.From, m.To), min(max(m.From, m.To), stands+by)))
}

// turns has a fader give its control a value, with the next of those that faders give.
func (t *Transport) turns(f *fader, value int) {
	f.set, f.due, f.waits = value, value, true
}

// turnDue does what faders have given by now, if it is time.
func (t *Transport) turnDue() {
	now := t.Now()
	if !t.faders.moved || now-t.faders.told < int64(turnEvery) {
		return
	}
	t.faders.moved, t.faders.told = false, now
	for _, key := range t.fadersInOrder() {
		if f := t.faders.of[key]; f.waits {
			f.waits = false
			t.give(stage.Control(key.Control), f, now)
		}
	}
	t.notifyStage()
}

// give has a control get what its fader has given.
func (t *Transport) give(c stage.Control, f *fader, now int64) {
	if f.group == 0 || now-f.at > int64(turnTogether) {
		t.group++
		f.group = t.group
	}
	f.at = now
	value := f.due
	if stands, there := t.valueOf(c); there && stands == value {
		return
	}
	if err := t.check([]Doing{{Control: c, Value: &value}}); err != nil {
		t.noticeTurn(fmt.Sprintf("A fader did nothing: %s.", err), now)
		return
	}
	t.do(Doing{Control: c, Value: &value}, Now, 0, f.group)
}

// forgetFaders forgets where the faders of an input that is gone stood.
func (t *Transport) forgetFaders(from Source) {
	maps.DeleteFunc(t.faders.of, func(key faderKey, _ *fader) bool { return key.Source == from })
}

// noticeTurn says what a fader could not do, now and then.
func (t *Transport) noticeTurn(text string, now int64) {
	const every = 10 * time.Second
	if t.faders.refused == 0 || now-t.faders.refused > int64(every) {
		t.faders.refused = now
		t.options.Notice(text)
	}
}

// fadersInOrder lists the faders of the mappings that the project has, and the controls that programs turn.
func (t *Transport) fadersInOrder() (keys []faderKey) {
	for key := range t.faders.of {
		if key.Mapping.Message == "" || slices.Contains(t.project.Mappings, key.Mapping) {
			keys = append(keys, key)
		}
	}
	slices.SortFunc(keys, func(a, b faderKey) int {
		return cmp.Or(cmp.Compare(a.Source.Kind, b.Source.Kind), cmp.Compare(a.Source.ID, b.Source.ID),
			cmp.Compare(slices.Index(t.project.Mappings, a.Mapping), slices.Index(t.project.Mappings, b.Mapping)),
			cmp.Compare(stage.Control(a.Control).Address(), stage.Control(b.Control).Address()))
	})
	return keys
}

// Turn has a program give a control a value; of many that come at once the last counts. The error is a *score.FieldError, or wraps
// stage.ErrGone.
func (t *Transport) Turn(c stage.Control, value int) error {
	t.mu.Lock()
	defer t.mu.Unlock()
	if err := c.Check(t.stage.On(t.project), value); err != nil {
		return err
	}
	key := faderKey{Source{Kind: score.ProgramInput}, score.Mapping{Control: score.ControlAddress(c)}}
	f := t.faders.of[key]
	if f == nil {
		f = &fader{position: -1}
		t.faders.put(key, f)
	}
	t.faders.moved = true
	t.turns(f, value)
	t.turnDue()
	return nil
}

// faderWaits lists the faders that have to come to where a value stands.
func (t *Transport) faderWaits() []FaderWait {
	waits := []FaderWait{}
	for _, key := range t.fadersInOrder() {
		f := t.faders.of[key]
		if stands, there := t.valueOf(stage.Control(key.Control)); there && f.position >= 0 && (!f.taken || f.set != stands) {
			waits = append(waits, FaderWait{stage.Control(key.Control), valueAt(key.Mapping, f.position)})
		}
	}
	return waits
}

// sendBack tells outputs the values of mapped controls that have changed.
func (t *Transport) sendBack() {
	now := t.Now()
	var events []output.Event
	for _, m := range t.project.Mappings {
		if m.SendsTo == 0 || t.project.Output(m.SendsTo) == nil {
			continue
		}
		value, there := t.valueOf(stage.Control(m.Control))
		position := positionOf(m, value)
		if last, sent := t.faders.sentBack[m]; !there || sent && last == position {
			continue
		}
		if t.faders.sentBack == nil {
			t.faders.sentBack = map[score.Mapping]int{}
		}
		t.faders.sentBack[m] = position
		for key, f := range t.faders.of { // which stands there already
			if key.Mapping == m && f.position == position && f.taken {
				there = false
			}
		}
		if there {
			events = append(events, output.Event{Message: backOf(m, position), At: now, Output: m.SendsTo})
		}
	}
	if len(events) > 0 {
		t.goOut(events)
		t.feedPorts(now)
	}
}

// backOf returns the message by which a position goes back to where it comes from.
func backOf(m score.Mapping, position int) midi.Message {
	back := midi.Message{Channel: uint8(max(1, m.Channel) - 1), Key: uint8(m.Number), Value: uint16(position)}
	switch m.Message {
	case score.MappedControl:
		back.Kind = midi.ControlChange
	case score.MappedControl14:
		back.Kind = midi.WideControl
	case score.MappedBend:
		back.Kind, back.Key = midi.Bend, 0
	case score.MappedPressure:
		back.Kind, back.Key = midi.Pressure, 0
	case score.MappedNote:
		back.Kind, back.Velocity, back.Value = midi.NoteOn, uint8(position), 0
	}
	return back
}
