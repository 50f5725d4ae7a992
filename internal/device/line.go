package device

import (
	"math"
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/output"
)

// perByte is how long a MIDI cable takes for a byte, in nanoseconds: 10 bits at 31,250 a second (MIDI 1.0).
const perByte = 320_000

// late is how far behind values that move are left out for later ones, in nanoseconds.
const late = 20_000_000

// Settings are how the bytes of a device leave.
type Settings struct {
	// Paced is no faster than a MIDI cable takes them.
	Paced bool
	// RunningStatus leaves status bytes out that are those of the message before.
	RunningStatus bool
	// ActiveSensing says that the line is there, when nothing else does.
	ActiveSensing bool
}

// Line is what waits for a device, and which of its keys are down. Times are nanoseconds of one clock. Make one with NewLine; it may
// not be used by two goroutines at once.
type Line struct {
	settings Settings
	next     [][]byte // goes out before anything else: the rest of an event that is several messages
	waiting  []item   // by time
	clock    []item   // what machines in time are told, by time: it goes out before all else that is due
	keys     keys
	status   byte  // of the last message, as running status has it; 0 is none
	free     int64 // when the cable is, where it is paced
	sensed   int64 // when something was sent last
	dropped  int
}

// item is an event that waits, or bytes that are due at once.
type item struct {
	at    int64
	event output.Event
	bytes []byte // of what is no event
}

// NewLine returns a line of a device whose keys are all up.
func NewLine() *Line { return &Line{keys: newKeys()} }

// Set has settings count from now on.
func (l *Line) Set(s Settings) { l.settings, l.status = s, 0 }

// Dropped returns how many values were left out so far.
func (l *Line) Dropped() int { return l.dropped }

// Waits returns how many events and messages wait.
func (l *Line) Waits() int { return len(l.next) + len(l.waiting) + len(l.clock) }

// Push adds events that are in the order of their times; some may come before events that were added already.
func (l *Line) Push(events []output.Event) {
	for _, e := range events {
		if e.Kind.RealTime() || e.Kind == midi.SongPosition {
			l.clock = inserted(l.clock, item{at: e.At, event: e})
		} else {
			l.waiting = inserted(l.waiting, item{at: e.At, event: e})
		}
	}
}

// inserted returns items with one more, behind those of its time.
func inserted(items []item, one item) []item {
	place := len(items)
	for place > 0 && items[place-1].at > one.at {
		place--
	}
	return slices.Insert(items, place, one)
}

// Withdraw takes note-ons out that wait.
func (l *Line) Withdraw(noteOns []output.Event) {
	l.waiting = slices.DeleteFunc(l.waiting, func(w item) bool {
		return w.bytes == nil && slices.ContainsFunc(noteOns, func(on output.Event) bool {
			e := w.event
			return e.Kind == on.Kind && e.Output == on.Output && e.Tick == on.Tick && e.Channel == on.Channel && e.Key == on.Key && e.Track == on.Track
		})
	})
}

// Release drops what waits, and ends what sounds at a moment.
func (l *Line) Release(now int64) { l.instead(l.keys.release(), now) }

// Begin drops what waits, and ends what a device can have been left with that was lost: what it was sent last may not have reached it.
func (l *Line) Begin(now int64) { l.instead(l.keys.releaseUsed(), now) }

// Panic drops what waits, and sends all that can end a note, on every channel, and for every key that was ever used. Machines in time go on.
func (l *Line) Panic(now int64) {
	clock := l.clock
	l.instead(l.keys.panic(), now)
	l.clock = clock
}

// instead has messages go out at a moment, in the place of the events that wait; what ends notes already goes out before.
func (l *Line) instead(messages [][]byte, now int64) {
	l.next, l.status, l.clock = nil, 0, nil
	l.waiting = slices.DeleteFunc(l.waiting, func(w item) bool { return w.bytes == nil })
	for _, data := range messages {
		l.waiting = append(l.waiting, item{at: now, bytes: data})
	}
}

// sensing is the message that says that the line is there, and how often it does at least, in nanoseconds (MIDI 1.0: 300 ms).
const (
	sensing      = 0xFE
	sensingAfter = 270_000_000
)

// Next returns when the next bytes are due; ok is false if nothing waits.
func (l *Line) Next() (at int64, ok bool) {
	if at, ok = l.soonest(); ok {
		at = max(at, l.free)
	}
	if len(l.clock) > 0 && (!ok || l.clock[0].at < at) {
		at, ok = l.clock[0].at, true
	}
	if s := l.sensed + sensingAfter; l.settings.ActiveSensing && (!ok || s < at) {
		at, ok = s, true
	}
	return at, ok
}

// soonest returns when what goes out next was to go out; ok is false if nothing waits.
func (l *Line) soonest() (at int64, ok bool) {
	switch {
	case len(l.next) > 0:
		return math.MinInt64, true
	case len(l.waiting) > 0:
		return l.waiting[0].at, true
	}
	return 0, false
}

// Take returns the bytes of the next message that is due by a moment; without any it is empty.
func (l *Line) Take(now int64) (data []byte) {
	if len(l.clock) > 0 && l.clock[0].at <= now { // at once, whatever the cable carries
		first := l.clock[0].event
		l.clock, l.sensed = slices.Delete(l.clock, 0, 1), now
		data = first.Bytes()[0]
		if !first.Kind.RealTime() {
			l.status = 0
		}
		if l.settings.Paced {
			l.free = max(l.free, now) + int64(len(data))*perByte
		}
		return data
	}
	for len(data) == 0 {
		at, ok := l.Next()
		if !ok || at > now {
			return nil
		}
		if due, waits := l.soonest(); !waits || max(due, l.free) > at {
			data = []byte{sensing}
			break
		}
		data = l.first(now)
	}
	l.sensed = now
	if l.settings.Paced {
		l.free = max(l.free, now) + int64(len(data))*perByte
	}
	return data
}

// first returns the next bytes of what waits first, which it may have gone without any.
func (l *Line) first(now int64) []byte {
	if len(l.next) > 0 {
		data := l.next[0]
		l.next = l.next[1:]
		return l.running(data)
	}
	first := l.waiting[0]
	l.waiting = slices.Delete(l.waiting, 0, 1)
	if first.bytes != nil {
		return l.running(first.bytes)
	}
	if first.at < now-late && l.replaced(first.event, now) {
		l.dropped++
		return nil
	}
	messages := l.keys.play(first.event)
	if len(messages) == 0 {
		return nil
	}
	l.next = messages[1:]
	return l.running(messages[0])
}

// replaced reports whether a value that moves is followed by another one in its place that is due too.
func (l *Line) replaced(e output.Event, now int64) bool {
	return e.Moves() && slices.ContainsFunc(l.waiting, func(w item) bool {
		o := w.event
		return w.bytes == nil && w.at <= now && o.Kind == e.Kind && o.Channel == e.Channel && o.Key == e.Key && (o.Moves())
	})
}

// running returns a message as it goes out after the one before.
func (l *Line) running(data []byte) []byte {
	status := data[0]
	if status >= exclusive {
		l.status = 0
		return data
	}
	if l.settings.RunningStatus && status == l.status {
		return data[1:]
	}
	l.status = status
	return data
}

// exclusive is the first status byte that running status does not know.
const exclusive = 0xF0
