package live

import (
	"fmt"
	"math"
	"time"

	"jettyfog/internal/core/follow"
	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
)

// steering brings playing to where another machine is, or to where a hand has moved it.
type steering struct {
	done score.Tick   // the last sixteenth of run time at which it was asked for, or -1
	own  *follow.Line // where playing is to be that follows nobody; nil while nothing is moved
	left float64      // by how many ticks playing is still to be moved, later if below 0
	each float64      // by how many with each sixteenth
}

// Spreads are over how many beats playing can be moved.
var Spreads = []int{0, 1, 4}

// there is how far from where it is to be playing is there, in nanoseconds.
const there = 100_000

// maxMove is by how much playing is moved at once at most, in milliseconds.
const maxMove = 100

// OneIsNow has the nearest bar line come at a moment of the transport's clock, by a tempo that is faster or slower for so many beats, one of
// Spreads; over 0 it is as fast as can be, at double or half the tempo. It does nothing while standing still. The error is a *score.FieldError.
func (t *Transport) OneIsNow(at int64, beats int) error {
	if beats != 0 && beats != 1 && beats != 4 {
		return &score.FieldError{Field: "beats", Got: beats, Allowed: "0, 1 or 4"}
	}
	t.mu.Lock()
	defer t.mu.Unlock()
	if !t.playing || at < t.started || at > t.Now()+int64(time.Second) {
		return nil
	}
	tick := t.tickAt(at)
	begins, ends := t.barOf(tick)
	to := begins
	if ends-tick < tick-begins {
		to = ends
	}
	t.move(float64(to-tick), beats)
	return nil
}

// Move has all that comes play so much earlier, in milliseconds, or below 0 later, by a tempo that is faster or slower for a beat. It does
// nothing while standing still. The error is a *score.FieldError.
func (t *Transport) Move(millis int) error {
	if millis < -maxMove || millis > maxMove {
		return &score.FieldError{Field: "millis", Got: millis, Allowed: fmt.Sprintf("%d to %d", -maxMove, maxMove)}
	}
	t.mu.Lock()
	defer t.mu.Unlock()
	if t.playing {
		_, holds := t.player.Timing().Segment(t.player.Run())
		t.move(float64(millis)*holds.Tempo.TicksPerMilli(), 1)
	}
	return nil
}

// move has playing be so many ticks further than it would be, within some beats.
func (t *Transport) move(ticks float64, beats int) {
	s := &t.steering
	if !t.clockIn.leads && s.own == nil {
		run := t.player.Run()
		_, holds := t.player.Timing().Segment(run)
		s.own = &follow.Line{At: t.timeOf(run), Position: float64(run), Rate: holds.Tempo.TicksPerMilli() / 1e6}
	}
	s.left += ticks
	s.each, s.done = math.Abs(s.left)/float64(max(1, 4*beats)), -1
}

// steer has the tempo from the first tick on that is not committed be what brings playing where it is to be. It returns up to where that
// counts.
func (t *Transport) steer() (until score.Tick) {
	s, run := &t.steering, t.player.Run()
	line, steers := t.line()
	if !steers {
		return score.LastTick
	}
	until = (run/follow.Sixteenth + 1) * follow.Sixteenth
	if run/follow.Sixteenth == s.done {
		return until
	}
	s.done = run / follow.Sixteenth
	moved := math.Copysign(math.Min(s.each, math.Abs(s.left)), s.left)
	s.left -= moved
	line.Position += moved
	if s.own != nil {
		s.own.Position += moved
	} else {
		t.clockIn.zero += moved
	}
	_, holds := t.player.Timing().Segment(run)
	onBeat := run%score.TicksPerQuarter < follow.Sixteenth
	next, changes := follow.Steer(line, float64(run), t.timeOf(run), holds.Tempo, onBeat)
	switch {
	case changes:
		t.followTempo(next)
	case s.own != nil && s.left == 0 && onBeat && math.Abs(line.TimeOf(float64(run))-float64(t.timeOf(run))) < there:
		if s.own = nil; t.clockIn.lost {
			t.followTempo(line.Tempo())
		} else {
			t.followTempo(0)
		}
		return score.LastTick
	}
	return until
}

// line returns where playing is to be; steers is false if nobody says so.
func (t *Transport) line() (line follow.Line, steers bool) {
	if t.steering.own != nil {
		return *t.steering.own, true
	}
	if !t.clockIn.leads {
		return line, false
	}
	line, known := t.clockIn.follower.Line()
	line.Position += t.clockIn.zero
	return line, known
}

// followTempo has a tempo hold in place of the project's from the first tick on that is not committed; 0 has that hold again.
func (t *Transport) followTempo(tempo score.Tempo) {
	if !t.playing {
		return
	}
	t.note(log.Entry{Tempo: &tempo})
	t.player.Follow(tempo)
	for _, r := range []*Recorder{t.recorder, t.wake} {
		r.change(func(now *recording) { now.setFollowed(t.player.Tempo(), t.player.Bars()) })
	}
}
