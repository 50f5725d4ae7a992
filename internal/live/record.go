package live

import (
	"errors"
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// MaxCountIn bounds how many bars are counted in.
const MaxCountIn = 8

// Recording says what to record.
type Recording struct {
	// CountIn is how many bars are counted in where playing has to begin first, up to MaxCountIn.
	CountIn int
	// From is the bar with which the take begins, from 1; 0 is the present one, or where there are Bars the next.
	From int
	// Start is the bar from which to play if nothing plays, from 1; 0 is the beginning.
	Start int
	// Bars is how many bars the take has; 0 is until it is ended.
	Bars int
	// Again has another take of as many Bars begin where one ends.
	Again bool
}

// ErrPast refuses a take that would begin with a bar that has gone by.
var ErrPast = errors.New("the bar with which the take is to begin has gone by; nothing is recorded")

// plan is a take to come, or the one that is being recorded. Ticks are the transport's.
type plan struct {
	start, end score.Tick // an end of 0 is none
	first      score.Tick // of which something is recorded
	bars       int        // it has; 0 is until it is ended
	again      bool
}

// endOf returns when a take ends that has begun, by the meters of the song from there on.
func (t *Transport) endOf(p *plan) score.Tick {
	if p.bars == 0 {
		return 0
	}
	bars, song := t.bars(), t.player.Pieces().Song(p.start)
	return p.start + bars.Start(bars.At(song)+int64(p.bars)) - song
}

// Record begins a take, from this moment or a bar on; it starts playing if need be. It does nothing while
// a take is recorded or waited for. A take that begins at this moment has the bar that is playing for its first.
func (t *Transport) Record(r Recording) error {
	t.mu.Lock()
	defer t.mu.Unlock()
	if t.plan != nil {
		return nil
	}
	bars := t.bars()
	now, song := score.Tick(0), score.Tick(0)
	if t.playing {
		t.playOut(t.Now())
		now = t.tickAt(t.Now())
		song = t.player.Pieces().Song(now)
	} else {
		song = bars.Start(int64(max(1, r.Start) - 1))
	}
	start := bars.Floor(song)
	switch {
	case r.From > 0:
		start = bars.Start(int64(r.From - 1))
		if start < song {
			return ErrPast
		}
	case r.Bars > 0 && now > 0:
		start = bars.Start(bars.At(song) + 1)
	}
	p := &plan{start: max(0, start-song+now), bars: r.Bars, again: r.Again && r.Bars > 0}
	if p.first = p.start; t.playing && p.start <= now {
		p.first = now + 1
	}
	if !t.playing && t.follows() { // which counts in by itself
		t.wait(arming{where: func(score.Bars) score.Tick { return song }, record: p})
		return nil
	}
	if !t.playing {
		begins := t.begins()
		begins.From = song
		t.play(begins, nil, nil, r.CountIn)
	}
	p.end = t.endOf(p)
	t.plan = p
	if counted := t.started - t.Now() - int64(t.ahead()); counted <= 0 { // else it begins with playing
		t.reach(now)
	}
	t.notify()
	return nil
}

// EndRecording ends the take and goes on playing. It does nothing while not recording.
func (t *Transport) EndRecording() {
	t.mu.Lock()
	defer t.mu.Unlock()
	if t.plan == nil {
		return
	}
	now := t.Now()
	t.playOut(now)
	t.recorder.end(t.unheard(now))
	t.plan = nil
	t.notify()
}

// follow records a message that was heard, if it falls into a take.
func (t *Transport) follow(m midi.Message) {
	at := m.Tick
	if m.Kind == midi.NoteOff { // one at the end of a take belongs to it
		at--
	}
	t.reach(at)
	t.recorder.add([]midi.Message{m})
}

// reach begins and ends the takes that begin and end by a moment that has come.
func (t *Transport) reach(now score.Tick) {
	changed := false
	for p := t.plan; p != nil; p = t.plan {
		if !t.recorder.recording() {
			if now < p.start {
				break
			}
			t.recorder.begin(t.player.At(p.start), t.revision, p.start, p.first, t.player.Tempo(), t.player.Bars())
			t.recorder.follow(t.log)
			// What instruments were told before, and is in force, belongs to the take.
			t.recorder.add(t.standing.Standing(p.start))
			changed = true
		}
		if p.end == 0 || now < p.end {
			break
		}
		t.recorder.end(p.end)
		changed = true
		if !p.again {
			t.plan = nil
			break
		}
		p.start, p.first = p.end, p.end
		p.end = t.endOf(p)
	}
	if changed {
		t.notify()
	}
}

// countIn puts the beginning of playing off by some bars, and has their beats clicked.
func (t *Transport) countIn(bars int) {
	lines := t.bars()
	meter := lines.Meter(lines.At(t.player.Song()))
	beats := bars * meter.Beats
	if beats == 0 {
		return
	}
	var clicks []Click
	beat := play.TempoMap{{Tempo: t.player.Tempo()[0].Tempo}}.Nanos(meter.Beat())
	for i := range beats {
		clicks = append(clicks, Click{At: t.started + int64(i)*beat, First: slices.Contains(meter.GroupStarts(), i%meter.Beats) && (len(meter.Groups) > 0 || i%meter.Beats == 0)})
	}
	t.started += int64(beats) * beat
	for screen := range t.screens {
		screen.Show(nil, clicks)
	}
}
