package live

import (
	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
)

// Status returns what the transport is doing.
func (t *Transport) Status() Status {
	t.mu.Lock()
	defer t.mu.Unlock()
	return t.status()
}

func (t *Transport) status() Status {
	if !t.playing {
		return Status{At: t.Now(), TicksPerMilli: t.project.Tempo.TicksPerMilli(), Stopped: t.stopped, Interrupted: t.interrupted, Loop: t.loop, Clock: t.clockStatus()}
	}
	place, tempo := t.segmentAndPiece(), t.player.Tempo()
	piece := t.player.Pieces()[place[1]]
	since := max(tempo[place[0]].Tick, piece.Run)
	status := Status{
		Playing: true, Recording: t.recorder.recording(), Armed: t.plan != nil && !t.recorder.recording(),
		Tick: since + piece.Later(), At: t.timeOf(since), TicksPerMilli: tempo[place[0]].Tempo.TicksPerMilli(), Loop: t.loop,
	}
	status.Opening, status.Clock = t.opening != nil, t.clockStatus()
	if t.jump != nil {
		status.Jump = &NextJump{At: t.player.Pieces().Song(t.jump.run), To: t.jump.Song}
	}
	return status
}

// segmentAndPiece returns which of the tempos and which of the pieces holds now.
func (t *Transport) segmentAndPiece() [2]int {
	now := t.tickAt(t.Now())
	segment, _ := t.player.Timing().Segment(now)
	_, piece := t.player.Pieces().At(now)
	return [2]int{segment, piece}
}

func (t *Transport) notify() {
	status := t.status()
	if t.playing {
		t.notified = t.segmentAndPiece()
	}
	for screen := range t.screens {
		screen.Notify(status)
	}
}

// Log returns what was done since playing began last, and the tick of run time at which it stopped, or is by now. It is
// empty before anything was played, and where more was edited than a log keeps.
func (t *Transport) Log() (logged log.Log, end score.Tick) {
	t.mu.Lock()
	defer t.mu.Unlock()
	logged = t.log
	if end = t.ended; t.playing {
		end = t.tickAt(t.Now())
	}
	return logged, end
}

// maxLogged bounds how many states of the project a log keeps: with 32 tracks of 8 patterns each takes about 45 kB. Of what
// is edited more often while it plays there is no log.
const maxLogged = 4000

// note logs something that counts from the first tick on that is not committed.
func (t *Transport) note(entry log.Entry) {
	t.leading.scouted = 0 // what was foreseen may not come
	if t.log.Project == nil {
		return
	}
	if entry.Project != nil || entry.Jump != nil && entry.Jump.Project != nil {
		t.logged++
	}
	if entry.Tick = t.player.Run(); t.logged > maxLogged || len(t.log.Entries) == log.MaxEntries {
		t.log = log.Log{}
	} else {
		t.log.Entries = append(t.log.Entries, entry)
	}
	t.recorder.follow(t.log)
	t.wake.follow(t.log)
}
