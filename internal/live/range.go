package live

import (
	"errors"
	"slices"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// Range is a stretch of the song that is looped; one that ends at 0 is none.
type Range struct {
	From score.Tick `json:"from"`
	To   score.Tick `json:"to"`
}

// ErrRange refuses a range that is none, or ends before it begins.
var ErrRange = errors.New("a range that is looped must end after it begins; what is looped stays as it was")

// SetLoop has a range of the song play over and over once it is come to, or with one that ends at 0 none. Each pass plays
// what chance has decided for it. The error is ErrRange.
func (t *Transport) SetLoop(loop Range) error {
	t.mu.Lock()
	defer t.mu.Unlock()
	if loop.To != 0 && loop.To <= loop.From || loop.From < 0 {
		return ErrRange
	}
	t.loop, t.prepared = loop, nil
	t.prepare()
	t.tell()
	return nil
}

// seam returns at which tick of run time the range that is looped ends; ok is false if the song is not before its end.
func (t *Transport) seam() (run score.Tick, ok bool) {
	song := t.pieces.song(t.committed)
	return t.committed + t.loop.To - song, song < t.loop.To
}

// prepared is a performance that begins where a range of a state of the project does, after so many inputs.
type prepared struct {
	project     *score.Project
	loop        Range
	inputs      int
	performance *performance
}

// fits reports whether what is prepared is what plays from the beginning of the range as everything is now.
func (t *Transport) fits(p *prepared) bool {
	return p != nil && p.project == t.project && p.loop == t.loop && p.inputs == len(t.inputsBefore(t.loop.From))
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
		inputs := t.inputsBefore(t.loop.From)
		next := &prepared{project: t.project, loop: t.loop, inputs: len(inputs)}
		t.mu.Unlock()
		next.performance = perform(next.project, next.loop.From, inputs, nil)
		t.mu.Lock()
		t.prepared = next
	}
	t.preparing = false
}

func (t *Transport) inputsBefore(song score.Tick) []midi.Message {
	return slices.DeleteFunc(slices.Clone(t.inputs), func(m midi.Message) bool { return m.Tick >= song })
}

// goBack has the song go on from the beginning of the range that is looped. What sounds is released there.
func (t *Transport) goBack(batch *Batch) {
	t.hand(t.performance.player.Release(t.pieces.song(t.committed)), batch)
	next := piece{run: t.committed, song: t.loop.From}
	t.pieces = append(t.pieces, next)
	ready := t.prepared
	if !t.fits(ready) {
		ready = nil
	}
	t.inputs = t.inputsBefore(next.song)
	t.note(log.Entry{Song: &next.song})
	if ready != nil {
		t.performance = ready.performance
	} else {
		t.performance = perform(t.project, next.song, t.inputs, nil)
	}
	t.prepared = nil
	t.missing = t.sent.Missing(t.performance.player.Standing(), nil)
	t.changeTempo(play.TempoMapOf(t.project))
	t.prepare()
}
