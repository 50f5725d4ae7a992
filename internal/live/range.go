package live

import (
	"errors"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// Range is a stretch of the song that is looped; one that ends at 0 is none. Chance is the same in each pass, or goes on from
// pass to pass.
type Range struct {
	From   score.Tick `json:"from"`
	To     score.Tick `json:"to"`
	GoesOn bool       `json:"goesOn"`
}

// jump is how the range begins anew.
func (r Range) jump() log.Jump { return log.Jump{Song: r.From, GoesOn: r.GoesOn} }

// ErrRange refuses a range that is none, or ends before it begins.
var ErrRange = errors.New("a range that is looped must end after it begins; what is looped stays as it was")

// SetLoop has a range of the song play over and over once it is come to, or with one that ends at 0 none. The error is ErrRange.
func (t *Transport) SetLoop(loop Range) error {
	t.mu.Lock()
	defer t.mu.Unlock()
	if loop.To != 0 && loop.To <= loop.From || loop.From < 0 {
		return ErrRange
	}
	t.loop, t.prepared = loop, nil
	t.prepare()
	t.notify()
	return nil
}

// seam returns at which tick of run time the range that is looped ends; ok is false if the song is not before its end.
func (t *Transport) seam() (run score.Tick, ok bool) {
	song := t.player.Song()
	return t.player.Run() + t.loop.To - song, song < t.loop.To
}

// prepared is a performance that begins where a range of a state of the project does, after so many inputs.
type prepared struct {
	project     *score.Project
	stage       stage.Stage
	loop        Range
	inputs      int
	performance *log.Performance
}

// fits reports whether what is prepared is what plays from the beginning of the range as everything is now.
func (t *Transport) fits(p *prepared) bool {
	seam, _ := t.seam()
	return p != nil && p.project == t.player.Written() && p.stage.Equal(t.player.StageAt(seam)) && p.loop == t.loop &&
		p.inputs == len(t.player.Inputs(t.loop.From))
}

// prepare makes ready what plays from the beginning of the range that is looped, beside what plays.
func (t *Transport) prepare() {
	if !t.preparing && t.playing && t.loop.To > 0 {
		t.preparing = true
		go t.keepPrepared()
	}
}

// keepPrepared prepares until what is prepared fits, so that never more than one goroutine does, however much is edited.
func (t *Transport) keepPrepared() {
	t.mu.Lock()
	defer t.mu.Unlock()
	for t.playing && t.loop.To > 0 && !t.fits(t.prepared) {
		inputs := t.player.Inputs(t.loop.From)
		seam, _ := t.seam()
		next := &prepared{project: t.player.Written(), stage: t.player.StageAt(seam), loop: t.loop, inputs: len(inputs)}
		t.mu.Unlock()
		next.performance = next.loop.jump().Perform(next.stage.On(next.project), inputs)
		t.mu.Lock()
		t.prepared = next
	}
	t.preparing = false
}

// goBack has the song go on from the beginning of the range that is looped. What sounds is released there.
func (t *Transport) goBack(batch *batch) {
	var ready *log.Performance
	if t.fits(t.prepared) {
		ready = t.prepared.performance
	}
	jump := t.loop.jump()
	t.note(log.Entry{Jump: &jump})
	t.hand(t.player.Jump(jump, ready), batch)
	t.prepared = nil
	t.retimed()
	t.prepare()
}
