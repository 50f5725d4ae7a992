package log

import (
	"slices"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// checkpoint is where everything stood at a tick of the song, so that what follows need not be played from the beginning to
// be known.
type checkpoint struct {
	song    score.Tick
	state   *play.State
	settled stage.Stage
	pending int
	inputs  int
	stale   map[int]bool   // the tracks that were edited since so that they stand elsewhere
	project *score.Project // as it is written now, with what was settled; nil until it is asked for
}

// How far checkpoints lie apart at least, and how many are kept: as many as a page shows.
const (
	betweenCheckpoints = 2 * score.TicksPerQuarter
	maxCheckpoints     = 24
)

// KeepCheckpoints has the player keep checkpoints from now on, for Course.
func (p *Player) KeepCheckpoints() { p.keeps = true }

// check keeps a checkpoint where it is time for one.
func (p *Player) check() {
	last := len(p.checkpoints) - 1
	if !p.keeps || last >= 0 && p.Song() < p.checkpoints[last].song+betweenCheckpoints {
		return
	}
	if len(p.checkpoints) == maxCheckpoints {
		p.checkpoints = slices.Delete(p.checkpoints, 0, 1)
	}
	p.checkpoints = append(p.checkpoints, checkpoint{
		song: p.Song(), state: p.performance.player.Save(), settled: p.settled, pending: p.pending, inputs: len(p.inputs), stale: map[int]bool{},
	})
}

// editCheckpoints marks the tracks that stand elsewhere after an edit. Where live changes are taken away all do.
func (p *Player) editCheckpoints(tracks []int, letGo []stage.Control) {
	if len(letGo) > 0 {
		p.checkpoints = nil
	}
	for i := range p.checkpoints {
		p.checkpoints[i].project = nil
		for _, track := range tracks {
			p.checkpoints[i].stale[track] = true
		}
	}
}

// Course returns how another state of the project would play a track from a tick of the song on, if it took the present
// one's place, by what was done until now.
func (p *Player) Course(written *score.Project, track int, from score.Tick) play.Course {
	return p.course(written, track, from, nil)
}

// Outlook returns what tells how the project, as it is written now, will play a track from a tick of the song on: with the actions that wait for
// their ticks of run time, and what the song and chains will give as far as it is decided. It may be asked after another state has come, as that of a
// project that was opened.
func (p *Player) Outlook(waiting []Action) func(track int, from score.Tick) play.Course {
	coming, written := p.playedActs(p.coming(waiting), p.stage), p.written
	return func(track int, from score.Tick) play.Course { return p.course(written, track, from, coming) }
}

func (p *Player) course(written *score.Project, track int, from score.Tick, coming []play.Act) play.Course {
	next := p
	if written != p.written {
		next = p.edited(written, nil)
	}
	course := play.Course{Project: next.began.On(written), From: p.base, Going: next.going, Acts: next.playedAll()}
	course.Acts = append(course.Acts, coming...)
	for i := len(p.checkpoints) - 1; i >= 0 && written == p.written && course.Later == nil; i-- {
		c := &p.checkpoints[i]
		if c.state.Walked(track) > from || c.stale[track] {
			continue
		}
		if c.project == nil {
			c.project = c.settled.On(written)
		}
		course.Later = &play.Later{State: c.state, Project: c.project, Acts: append(p.playedActs(p.acts[c.pending:], c.settled), coming...)}
	}
	return course
}
