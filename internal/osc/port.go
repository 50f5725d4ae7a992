package osc

import (
	"cmp"
	"fmt"
	"maps"
	"math"
	"slices"
	"sync"
	"time"

	"jettyfog/internal/core/cv"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
	"jettyfog/internal/output"
)

// ahead is how long before its packet leaves an event is handed over.
const ahead = 40 * time.Millisecond

// most is how many events can wait; of more none is taken but what ends notes.
const most = 1 << 15

// Port sends what goes to one output, in packets. It implements output.Timed.
type Port struct {
	output score.Output
	now    func() int64
	send   func(packet []byte)
	wake   chan struct{}
	ended  chan struct{}

	mu      sync.Mutex
	waiting []waiting // by time
	project *score.Project
	playing bool
	told    score.Tick     // up to which beats were told
	down    map[uint32]int // by tracks: how many notes sound
	notes   map[midi.NoteID]bool
	used    map[uint32]bool // the tracks of which a note was ever heard
	closes  bool
}

// waiting is what is to be sent at a moment: an event, or messages.
type waiting struct {
	at       int64
	event    *output.Event
	messages []Message
}

// Open returns a port that sends packets for an output. The function must not block.
func Open(o score.Output, now func() int64, send func(packet []byte)) *Port {
	p := &Port{
		output: o, now: now, send: send, wake: make(chan struct{}, 1), ended: make(chan struct{}),
		down: map[uint32]int{}, notes: map[midi.NoteID]bool{}, used: map[uint32]bool{},
	}
	go p.run()
	return p
}

// lead is how long before its time a packet leaves.
func (p *Port) lead() time.Duration { return time.Duration(p.output.TagLead) * time.Millisecond }

// Ahead implements output.Port.
func (p *Port) Ahead() time.Duration { return ahead + p.lead() }

// Send implements output.Port.
func (p *Port) Send(events []output.Event) {
	p.tell(func() {
		for _, e := range events {
			if len(p.waiting) < most || e.Kind == midi.NoteOff {
				p.add(waiting{at: e.At, event: &e})
			}
		}
	})
}

func (p *Port) add(w waiting) {
	at, _ := slices.BinarySearchFunc(p.waiting, w, func(other, w waiting) int { return cmp.Or(cmp.Compare(other.at, w.at), -1) })
	p.waiting = slices.Insert(p.waiting, at, w)
}

// Withdraw implements output.Port.
func (p *Port) Withdraw(noteOns []output.Event) {
	p.tell(func() {
		p.waiting = slices.DeleteFunc(p.waiting, func(w waiting) bool {
			return w.event != nil && w.event.Kind == midi.NoteOn && slices.ContainsFunc(noteOns, func(on output.Event) bool {
				return on.At == w.at && on.Track == w.event.Track && on.Channel == w.event.Channel && on.Key == w.event.Key
			})
		})
	})
}

// Release implements output.Port.
func (p *Port) Release() {
	p.tell(func() {
		p.waiting = nil
		ends := []Message{}
		for _, id := range slices.SortedFunc(maps.Keys(p.notes), func(a, b midi.NoteID) int {
			return cmp.Or(cmp.Compare(a.Track, b.Track), cmp.Compare(a.Key, b.Key), cmp.Compare(a.Number, b.Number))
		}) {
			ends = append(ends, noteMessage(id.Track, id.Key, 0))
		}
		for _, track := range slices.Sorted(maps.Keys(p.down)) {
			ends = append(ends, gateMessage(track, false))
		}
		if p.playing {
			ends = append(ends, Message{"/run", []any{int32(0)}})
		}
		p.playing = false
		clear(p.notes)
		clear(p.down)
		p.out(p.now(), ends)
	})
}

// Panic implements output.Port: the gates of all tracks that were ever heard fall.
func (p *Port) Panic() {
	p.Release()
	p.tell(func() {
		var ends []Message
		for _, track := range slices.Sorted(maps.Keys(p.used)) {
			ends = append(ends, gateMessage(track, false))
		}
		p.out(p.now(), ends)
	})
}

// Time implements output.Timed.
func (p *Port) Time(t output.Timeline) {
	p.tell(func() {
		offset := int64(p.output.Offset) * int64(time.Millisecond)
		now := p.now()
		p.project = t.Project
		if !p.playing {
			p.playing, p.told = true, 0
			if t.Began(now) {
				p.told = t.Tempo.TickAt(now-t.Started) + 1
			}
			p.add(waiting{at: max(now, t.Started+offset), messages: []Message{{"/run", []any{int32(1)}}}})
		}
		for _, beat := range t.Beats(p.told, t.Until) {
			messages := []Message{{"/beat", []any{int32(beat.Beat + 1)}}}
			if beat.Beat == 0 {
				messages = append([]Message{{"/bar", []any{int32(beat.Bar + 1)}}}, messages...)
			}
			p.add(waiting{at: t.Started + t.Tempo.Nanos(beat.Tick) + offset, messages: messages})
		}
		p.told = max(p.told, t.Until)
	})
}

// Close ends what sounds, and returns once the port sends nothing more.
func (p *Port) Close() {
	p.Release()
	p.tell(func() { p.closes = true })
	<-p.ended
}

func (p *Port) tell(do func()) {
	p.mu.Lock()
	do()
	p.mu.Unlock()
	select {
	case p.wake <- struct{}{}:
	default:
	}
}

// run sends what is due until the port is closed.
func (p *Port) run() {
	defer close(p.ended)
	timer := time.NewTimer(0)
	defer timer.Stop()
	for {
		p.mu.Lock()
		next := p.due()
		closes := p.closes
		p.mu.Unlock()
		if closes {
			return
		}
		if next > 0 {
			timer.Reset(next)
		}
		select {
		case <-p.wake:
		case <-timer.C:
		}
	}
}

// due sends what is due, and returns after how long the next is; 0 if nothing waits.
func (p *Port) due() time.Duration {
	for len(p.waiting) > 0 {
		at := p.waiting[0].at
		if left := time.Duration(at-p.now()) - p.lead(); left > 0 {
			return left
		}
		together := 1
		for together < len(p.waiting) && p.waiting[together].at == at {
			together++
		}
		var messages []Message
		for _, w := range p.waiting[:together] {
			messages = append(messages, w.messages...)
			if w.event != nil {
				messages = append(messages, p.heard(w.event.Message)...)
			}
		}
		p.waiting = slices.Delete(p.waiting, 0, together)
		p.out(at, messages)
	}
	return 0
}

// out sends messages of one moment of the transport's clock.
func (p *Port) out(at int64, messages []Message) {
	if len(messages) == 0 {
		return
	}
	for _, packet := range Bundles(time.Now().Add(time.Duration(at-p.now())), messages) {
		p.send(packet)
	}
}

// heard returns what a message of a track is in OSC.
func (p *Port) heard(m midi.Message) (messages []Message) {
	switch m.Kind {
	case midi.NoteOn:
		if id := m.NoteID(); !p.notes[id] {
			p.notes[id], p.used[m.Track] = true, true
			p.down[m.Track]++
		}
		semitones := float64(m.Key) + float64(m.Detune)/float64(theory.Semitone)
		return []Message{
			{address(m.Track, "pitch"), []any{float32(440 * math.Exp2((semitones-69)/12)), float32((semitones - 60) / 12)}},
			{address(m.Track, "velocity"), []any{float32(m.Velocity) / 127}},
			noteMessage(m.Track, m.Key, m.Velocity),
			gateMessage(m.Track, true),
		}
	case midi.NoteOff:
		id := m.NoteID()
		if !p.notes[id] {
			return nil
		}
		delete(p.notes, id)
		p.down[m.Track]--
		messages = []Message{noteMessage(m.Track, m.Key, 0)}
		if p.down[m.Track] == 0 {
			delete(p.down, m.Track)
			messages = append(messages, gateMessage(m.Track, false))
		}
		return messages
	}
	if p.project == nil {
		return nil
	}
	if track := p.project.Track(int(m.Track)); track != nil {
		cv.ModShares(p.project, track, m, func(lane int, share float64) {
			messages = append(messages, Message{address(m.Track, fmt.Sprintf("mod/%d", lane)), []any{float32(share)}})
		})
	}
	return messages
}

func address(track uint32, of string) string { return fmt.Sprintf("/track/%d/%s", track, of) }

func noteMessage(track uint32, key, velocity uint8) Message {
	return Message{address(track, "note"), []any{int32(key), int32(velocity)}}
}

func gateMessage(track uint32, up bool) Message {
	is := int32(0)
	if up {
		is = 1
	}
	return Message{address(track, "gate"), []any{is}}
}
