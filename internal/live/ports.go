package live

import (
	"cmp"
	"slices"
	"time"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/output"
)

// feed is what waits to be handed to a port, which plays some outputs, or all.
type feed struct {
	outputs []int
	waiting []output.Event
}

// takes reports whether an event is for the port.
func (f *feed) takes(e output.Event) bool {
	return f.outputs == nil || slices.Contains(f.outputs, e.Output)
}

// add has events wait that the port takes.
func (f *feed) add(events []output.Event) {
	for _, e := range events {
		if f.takes(e) {
			f.waiting = append(f.waiting, e)
		}
	}
	slices.SortStableFunc(f.waiting, byTime) // outputs have offsets of their own
}

// Connect adds a port that plays outputs, or without any all. While playing it is brought up to date: it is told what instruments were
// told, and of the notes that sound those that go on for a beat or more begin now. One that is connected already releases everything
// before.
func (t *Transport) Connect(p output.Port, outputs ...int) {
	t.mu.Lock()
	defer t.mu.Unlock()
	if t.ports[p] != nil {
		p.Release()
	}
	t.ports[p] = &feed{outputs: outputs}
	if t.playing {
		t.ports[p].add(t.chase())
	}
}

// Disconnect removes a port, which releases everything.
func (t *Transport) Disconnect(p output.Port) {
	t.mu.Lock()
	defer t.mu.Unlock()
	delete(t.ports, p)
	p.Release()
}

// Chase calls join with what brings somebody up to date who begins to listen at a connected port now, and all that was handed over to the
// port and is to come; with nothing while standing still. Nothing goes to the port meanwhile, so that whoever joins in there hears all, and
// nothing twice.
func (t *Transport) Chase(p output.Port, join func([]output.Event)) {
	t.mu.Lock()
	defer t.mu.Unlock()
	var events []output.Event
	if t.playing {
		events = t.chase()
		waiting := map[output.Event]bool{}
		for _, e := range t.ports[p].waiting {
			waiting[e] = true
		}
		events = slices.DeleteFunc(events, func(e output.Event) bool { return waiting[e] })
	}
	join(events)
}

func (t *Transport) chase() (events []output.Event) {
	now := t.Now()
	t.playOut(now)
	tick := t.tickAt(now)
	begin := func(m midi.Message) {
		for _, r := range t.outlets.Standing(m) {
			events = append(events, t.spacing.event(r, now))
		}
	}
	for _, m := range t.outlets.OwnPrograms(tick) {
		events = append(events, t.spacing.event(m, now))
	}
	for _, m := range t.standing.Standing(tick) {
		begin(m)
	}
	for _, on := range t.player.Lasting(tick+t.project.Meter.Beat(), tick) {
		if _, heard := t.sounding.Of(on.NoteID()); heard && !t.outlets.Waits(on.Track) {
			begin(on)
		}
	}
	return append(append(events, t.outgoing...), t.chaseClocks()...)
}

// ahead is how long before its time an event is computed: as long as the slowest port needs, and the output that is sent the
// earliest.
func (t *Transport) ahead() time.Duration {
	ahead := t.options.LookAhead
	for port := range t.ports {
		ahead = max(ahead, port.Ahead())
	}
	if t.follows() {
		ahead = min(ahead, followAhead)
	}
	return ahead + t.spacing.earliest()
}

// goOut has events go out to the ports that take them.
func (t *Transport) goOut(events []output.Event) {
	now := t.Now()
	events = t.spacing.thin(events, now+int64(t.ahead()))
	t.outgoing = slices.DeleteFunc(t.outgoing, func(event output.Event) bool { return event.At <= now })
	t.outgoing = append(t.outgoing, events...)
	t.rememberSent(events, now)
	for _, feed := range t.ports {
		feed.add(events)
	}
}

func byTime(a, b output.Event) int { return cmp.Compare(a.At, b.At) }

// feedPorts hands each port what it is to have by now.
func (t *Transport) feedPorts(now int64) {
	for port, feed := range t.ports {
		until := now + int64(port.Ahead())
		due, _ := slices.BinarySearchFunc(feed.waiting, until+1, func(event output.Event, at int64) int { return int(event.At - at) })
		if due > 0 {
			port.Send(slices.Clone(feed.waiting[:due]))
			feed.waiting = slices.Delete(feed.waiting, 0, due)
		}
	}
}

// releasePorts drops what is to come, and has all ports end what sounds.
func (t *Transport) releasePorts() {
	t.outgoing, t.spacing.held = nil, nil
	for port, feed := range t.ports {
		feed.waiting = nil
		port.Release()
	}
}

// Panic has all ports end whatever sounds, in every way that there is. Playing goes on.
func (t *Transport) Panic() {
	t.mu.Lock()
	defer t.mu.Unlock()
	for port := range t.ports {
		port.Panic()
	}
}

// withdraw takes note-ons back that were handed over and must not be heard after all.
func (t *Transport) withdraw(noteOns []midi.Message) {
	if len(noteOns) == 0 {
		return
	}
	t.waiting = withdrawn(t.waiting, noteOns)
	ends := make([]midi.Message, len(noteOns))
	var taken []output.Event
	for i, on := range noteOns {
		ends[i] = on.NoteID().Off(t.player.Run())
		for _, r := range t.outlets.Anywhere(on) {
			r.Value = 0 // notes of one key go out as one
			taken = append(taken, t.spacing.event(r, t.timeOf(r.Tick)+t.spacing.offset(r.Output)))
		}
	}
	isTaken := func(event output.Event) bool {
		return event.Kind == midi.NoteOn && slices.ContainsFunc(taken, func(other output.Event) bool {
			return other.Output == event.Output && other.Tick == event.Tick && other.Channel == event.Channel && other.Key == event.Key && other.Track == event.Track
		})
	}
	t.outgoing = slices.DeleteFunc(t.outgoing, isTaken)
	for port, feed := range t.ports {
		feed.waiting = slices.DeleteFunc(feed.waiting, isTaken)
		port.Withdraw(taken)
	}
	t.goOut(t.toOutputs(t.outlets.Play(ends, nil)))
}

// withdrawn returns events without note-ons that were withdrawn, and without what ends them.
func withdrawn(events []output.Event, noteOns []midi.Message) []output.Event {
	messages, at := make([]midi.Message, len(events)), map[midi.Message]int64{}
	for i, event := range events {
		messages[i], at[event.Message] = event.Message, event.At
	}
	kept := events[:0:0]
	for _, m := range log.Withdrawn(messages, noteOns) {
		kept = append(kept, output.Event{Message: m, At: at[m]})
	}
	return kept
}
