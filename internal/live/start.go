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
	t.playFrom(func(bars score.Bars) score.Tick { return bars.Start(bar) })
}

// GoOn starts at the bar in which playing stopped last. It does nothing while playing.
func (t *Transport) GoOn() {
	t.mu.Lock()
	defer t.mu.Unlock()
	t.playFrom(func(bars score.Bars) score.Tick { return bars.Floor(t.stopped) })
}

// playFrom starts at a tick of the song. To be anywhere can take long, and nobody waits for it but who asks.
func (t *Transport) playFrom(where func(score.Bars) score.Tick) {
	for !t.playing {
		project, live := t.project, t.stage
		from := where(project.Bars())
		t.mu.Unlock()
		ready := log.Perform(live.On(project), from, nil)
		t.mu.Lock()
		if t.project == project && live.Equal(t.stage) && !t.playing {
			t.play(from, ready, 0)
			t.notify()
		}
	}
}

// play starts playing a performance at a tick of the song, after so many bars that are counted in.
func (t *Transport) play(from score.Tick, ready *log.Performance, countIn int) {
	t.playing = true
	t.log, t.logged = log.Log{Project: t.project, Stage: t.stage, From: from}, 0
	t.player, t.notified = log.NewPlayer(t.log, ready), [2]int{}
	t.player.KeepCheckpoints()
	t.standing = midi.Settings{}
	t.outlets, t.leading = route.NewOutlets(t.project), leading{}
	lead := int64(t.outlets.Lead()) * int64(time.Millisecond)
	t.started = t.Now() + int64(t.ahead()) + lead
	t.countIn(countIn)
	programs := t.toOutputs(t.outlets.Programs(t.project, 0, nil))
	for i := range programs {
		programs[i].At -= lead
	}
	t.goOut(programs)
	t.wake.begin(t.player.Playing(), t.revision, 0, 0, t.player.Tempo(), t.player.Bars())
	t.wake.follow(t.log)
	t.prepare()
}
