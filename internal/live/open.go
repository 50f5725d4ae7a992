package live

import (
	"errors"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// Opened is a project that is opened: the document that it is, at a revision, and its live changes.
type Opened struct {
	Document int64
	Revision int64
	Project  *score.Project
	Stage    stage.Stage
}

// ErrOpening refuses what is done to the project before while the next one waits to come in.
var ErrOpening = errors.New("the project that was opened begins with the next bar; nothing was changed, so try again then")

// opening is a project that waits to come in at a tick of run time.
type opening struct {
	Opened
	run       score.Tick
	playsSong bool // its song begins with it
}

// cut is where what is heard begins to be of another project: the recordings of the one before end there.
type cut struct {
	at       score.Tick // of run time
	revision int64
}

// Open has another project play from its beginning. While playing it comes in at once or with the next bar: the clock goes
// on, what sounds is released there, and what is recorded of the project before ends. Of several that wait the last counts.
func (t *Transport) Open(next Opened, when When) {
	t.mu.Lock()
	defer t.mu.Unlock()
	next.Stage = next.Stage.Stopped()
	if !t.playing {
		t.turnTo(&opening{Opened: next})
		t.setOutputs(t.project)
		t.stage = next.Stage
		t.notify()
		t.notifyStage()
		return
	}
	run := t.player.Run()
	if when != Now {
		run = t.moment(stage.Control{}, NextBar, 0)
	}
	t.opening = &opening{Opened: next, run: run, playsSong: t.playsSong && len(next.Project.Song) > 0}
	t.queue, t.jump = nil, nil
	t.prepare()
	t.notify()
	t.notifyStage()
}

// turnTo leaves the project before, with all that was asked of it.
func (t *Transport) turnTo(o *opening) {
	t.document, t.revision, t.project = o.Document, o.Revision, o.Project
	t.loop, t.jump, t.opening, t.queue, t.back, t.stopped = Range{}, nil, nil, nil, nil, 0
	t.stoppedPlan, t.interrupted = nil, false
	t.wanted = edited{replaying: t.wanted.replaying}
	t.checkClock()
}

// jumpTo returns the jump with which a project comes in.
func (o *opening) jumpTo() log.Jump {
	return log.Jump{Project: o.Project, Stage: &o.Stage, PlaysSong: o.playsSong}
}

// seam returns where it comes in.
func (o *opening) seam() seam { return seam{run: o.run, Jump: o.jumpTo()} }

// changed takes over another state of a project that waits.
func (o *opening) changed(project *score.Project, change Change) *opening {
	next := *o
	next.Project = project
	if change.New {
		next.Stage = o.Stage.Edited(change.Way, o.Project, project)
	}
	return &next
}

// enter has the project that waits come in.
func (t *Transport) enter(batch *batch) {
	o, run := t.opening, t.player.Run()
	jump := o.jumpTo()
	var ready *log.Beginning
	if t.fits(t.prepared, o.seam()) {
		ready = t.prepared.beginning
	}
	t.note(log.Entry{Jump: &jump})
	t.hand(t.player.Jump(jump, ready), batch)
	t.prepared = nil
	t.turnTo(o)
	t.changeRoutes(t.project, run)
	t.goOut(t.toOutputs(t.outlets.Programs(t.project, run, nil)))
	t.stage = t.player.Stage()
	t.cuts = append(t.cuts, cut{at: run, revision: o.Revision})
	if p := t.plan; p != nil && p.start < run && (p.end == 0 || p.end > run) {
		p.end, p.again = run, false
	}
	t.prepare()
	t.notifyStage()
}

// cutBefore ends the stretch of the wake that is of the project before a message, or the moment, and begins the next one.
func (t *Transport) cutBefore(belongs func(at score.Tick) bool, heard []midi.Message) []midi.Message {
	for len(t.cuts) > 0 && !belongs(t.cuts[0].at) {
		c := t.cuts[0]
		t.cuts = t.cuts[1:]
		t.wake.add(heard)
		heard = nil
		t.wake.end(c.at)
		t.wake.begin(t.player.At(c.at), c.revision, c.at, c.at, t.player.Tempo(), t.player.Bars())
		t.wake.follow(t.log)
		t.wake.add(t.standing.Standing(c.at))
	}
	return heard
}
