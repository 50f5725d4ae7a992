package live

import (
	"time"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
)

// Play starts at the beginning of the song, a look-ahead from now. It does nothing while playing.
func (t *Transport) Play() { t.PlayFrom(0) }

// PlayFrom starts at a bar of the song, counted from 0, as if all before had been played. It does nothing while playing.
func (t *Transport) PlayFrom(bar int64) {
	t.mu.Lock()
	defer t.mu.Unlock()
	t.playFrom(func(bars score.Bars) score.Tick { return bars.Start(bar) }, nil)
}

// GoOn starts at the bar in which playing stopped last, with the sections of the song that played. It does nothing while playing.
func (t *Transport) GoOn() {
	t.mu.Lock()
	defer t.mu.Unlock()
	t.playFrom(func(bars score.Bars) score.Tick { return bars.Floor(t.stopped) }, t.stoppedPlan)
}

// playFrom starts at a tick of the song, by a plan of its sections if there is one. To be anywhere can take long, and nobody waits for it but who asks.
func (t *Transport) playFrom(where func(score.Bars) score.Tick, plan log.Plan) {
	if t.playing {
		return
	}
	if t.follows() {
		t.wait(arming{where: where, plan: plan})
		return
	}
	t.begin(where, plan, nil, func() bool { return true })
	t.notify()
}

// begin starts at a tick of the song, with tick 0 of run time at a time; nil is as soon as it can be. Once it is not wanted any more it does not.
func (t *Transport) begin(where func(score.Bars) score.Tick, plan log.Plan, at *int64, wanted func() bool) {
	for !t.playing && wanted() {
		begins := t.begins()
		begins.Plan = plan
		outset := begins.Outset()
		begins.From = where(outset.Bars())
		t.mu.Unlock()
		ready := begins.Outset().Begin()
		t.mu.Lock()
		if t.project == begins.Project && begins.Stage.Equal(t.stage) && begins.PlaysSong == t.playsSong && !t.playing && wanted() {
			t.play(begins, ready, at, 0)
		}
	}
}

// begins returns the log of playing from the beginning of the song, as everything is now.
func (t *Transport) begins() log.Log {
	return log.Log{Project: t.project, Stage: t.stage, PlaysSong: t.playsSong}
}

// bars returns those of what plays, or would play.
func (t *Transport) bars() score.Bars {
	if t.playing {
		return t.player.Playing().Bars()
	}
	begins := t.begins()
	return begins.Outset().Bars()
}

// play starts playing a log, with tick 0 of run time at a time, or without one as soon as it can be, after so many bars that are counted in.
func (t *Transport) play(begins log.Log, ready *log.Beginning, at *int64, countIn int) {
	t.playing, t.interrupted = true, false
	t.log, t.logged = begins, 0
	t.player, t.notified = log.NewPlayer(t.log, ready), [2]int{}
	t.stage, t.given, t.marked = t.player.Stage(), 0, 0
	t.player.KeepCheckpoints()
	t.standing = midi.Settings{}
	t.outlets, t.leading, t.steering = route.NewOutlets(t.project), leading{}, steering{done: -1}
	lead := int64(t.outlets.Lead()) * int64(time.Millisecond)
	if t.started = t.Now() + int64(t.ahead()) + lead; at != nil {
		t.started = *at
	}
	t.countIn(countIn)
	programs := t.toOutputs(t.outlets.Programs(t.project, 0, nil))
	for i := range programs {
		programs[i].At -= lead
	}
	t.goOut(programs)
	t.wake.begin(t.player.Playing(), t.revision, 0, 0, t.player.Tempo(), t.player.Bars())
	t.wake.follow(t.log)
	t.hearHeld()
	t.prepare()
}
