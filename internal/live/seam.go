package live

import (
	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// seam is where the song goes on elsewhere: at a tick of run time.
type seam struct {
	run score.Tick
	log.Jump
	loops bool // at the end of the range that is looped
}

// NextJump says from which tick of the song on another is to play.
type NextJump struct {
	At score.Tick `json:"at"`
	To score.Tick `json:"to"`
}

// nextSeam returns where the song goes on elsewhere next; ok is false if it goes straight on.
func (t *Transport) nextSeam() (next seam, ok bool) {
	if song := t.player.Song(); song < t.loop.To {
		next, ok = seam{t.player.Run() + t.loop.To - song, log.Jump{Song: t.loop.From, GoesOn: t.loop.GoesOn}, true}, true
	}
	if t.jump != nil && (!ok || t.jump.run <= next.run) {
		next, ok = *t.jump, true
	}
	if t.opening != nil && (!ok || t.opening.run <= next.run) {
		next, ok = t.opening.seam(), true
	}
	return next, ok
}

// JumpTo has the song go on from a bar, counted from 0, at a moment; bars is how many of NextBars. Chance is there as it is in
// the song, or goes on. Of several jumps that wait the last counts. While standing still playing begins with the bar. To be
// anywhere can take long, and nobody waits for it but who asks. The error is a *score.FieldError.
func (t *Transport) JumpTo(bar int64, when When, bars int, goesOn bool) error {
	if err := checkMoment(when, bars); err != nil {
		return err
	}
	t.mu.Lock()
	defer t.mu.Unlock()
	for t.playing {
		if t.opening != nil {
			return ErrOpening
		}
		jump := log.Jump{Song: t.bars().Start(bar), GoesOn: goesOn}
		run := t.moment(stage.Control{}, when, bars)
		ready := t.toPrepare(seam{run: run, Jump: jump})
		t.mu.Unlock()
		ready.prepare()
		t.mu.Lock()
		if !t.playing {
			break
		}
		next := seam{run: t.moment(stage.Control{}, when, bars), Jump: jump}
		if t.opening != nil || !t.fits(ready, next) {
			continue
		}
		if t.jump = &next; !t.fits(t.prepared, next) {
			t.prepared = ready
		}
		t.prepare()
		t.notify()
		return nil
	}
	t.playFrom(func(lines score.Bars) score.Tick { return lines.Start(bar) }, nil)
	return nil
}

// StayOn takes back a jump that waits. It does nothing if there is none.
func (t *Transport) StayOn() {
	t.mu.Lock()
	defer t.mu.Unlock()
	if t.jump != nil {
		t.jump = nil
		t.prepare()
		t.notify()
	}
}

// prepared is what plays from a seam on.
type prepared struct {
	log.Outset
	beginning *log.Beginning
}

// toPrepare returns what is to be prepared for a seam as everything is now.
func (t *Transport) toPrepare(s seam) *prepared {
	return &prepared{Outset: t.player.Outset(s.Jump, s.run)}
}

// prepare computes it, which can take long.
func (p *prepared) prepare() { p.beginning = p.Begin() }

// fits reports whether what is prepared is what plays from a seam on as everything is now.
func (t *Transport) fits(p *prepared, s seam) bool {
	return p != nil && p.Equal(t.player.Outset(s.Jump, s.run))
}

// prepare makes ready what plays from the next seam on, beside what plays.
func (t *Transport) prepare() {
	t.leading.scouted = 0
	if !t.playing || t.preparing {
		return
	}
	if _, seams := t.nextSeam(); seams {
		t.preparing = true
		go t.keepPrepared()
	}
}

// keepPrepared prepares until what is prepared fits, so that never more than one goroutine does, however much is edited.
func (t *Transport) keepPrepared() {
	t.mu.Lock()
	defer t.mu.Unlock()
	for t.playing {
		s, seams := t.nextSeam()
		if !seams || t.fits(t.prepared, s) {
			break
		}
		next := t.toPrepare(s)
		t.mu.Unlock()
		next.prepare()
		t.mu.Lock()
		t.prepared = next
	}
	t.preparing = false
}

// leap has the song go on elsewhere. What sounds is released there.
func (t *Transport) leap(s seam, batch *batch) {
	var ready *log.Beginning
	if t.fits(t.prepared, s) {
		ready = t.prepared.beginning
	}
	t.note(log.Entry{Jump: &s.Jump})
	t.hand(t.player.Jump(s.Jump, ready), batch)
	if t.prepared = nil; !s.loops {
		t.jump = nil
	}
	t.retimed()
	t.prepare()
}
