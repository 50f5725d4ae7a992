package live

import (
	"slices"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// Change is how a state of the project came to be.
type Change struct {
	// Way is an edit that leads there from the state before; nil if none is known.
	Way score.Edit
	// New says that it was made anew, and does not undo or do again what was made before.
	New bool
}

// edited is a state of the project, the controls whose live changes it takes away, and whether a goroutine is bringing
// the present one to play.
type edited struct {
	project   *score.Project
	letGo     []stage.Control
	ways      []score.Edit // that lead to it from the one that plays, one after the other; one of nil is not known
	revision  int64
	replaying bool
}

// SetProject has everything that is not yet committed played from another state of the project. It does not wait for tracks that must be played from the beginning
// on: what plays plays on until they have been. Of several states that are set meanwhile the latest counts.
func (t *Transport) SetProject(project *score.Project, change Change) {
	t.mu.Lock()
	defer t.mu.Unlock()
	if t.opening != nil {
		t.opening = t.opening.changed(project, change)
		t.prepare()
		t.notifyStage()
		return
	}
	before := t.project
	if t.wanted.project != nil {
		before = t.wanted.project
	}
	t.reroute(project)
	t.wanted.project, t.wanted.revision = project, t.revision
	t.wanted.ways = append(t.wanted.ways, change.Way)
	if change.New {
		left := t.stage.Edited(change.Way, before, project)
		for _, change := range t.stage.InForce() {
			if _, stays := left.InForceOf(change.Control); !stays {
				t.wanted.letGo = append(t.wanted.letGo, change.Control)
			}
		}
	}
	if t.wanted.replaying { // whoever replays looks again
		return
	}
	if !t.playing {
		t.adopt(nil)
		return
	}
	if replay := t.player.Replay(project, t.wanted.letGo); replay.Quick {
		replay.Run()
		t.adopt(replay)
		return
	}
	t.wanted.replaying = true
	go t.replayWanted()
}

// way returns one edit that does what several did one after the other; nil if not all are known, or there are too many.
func (e *edited) way() score.Edit {
	if len(e.ways) == 1 {
		return e.ways[0]
	}
	var all score.All
	for _, way := range e.ways {
		if way == nil || len(all.Edits) == score.MaxEdits {
			return nil
		}
		all.Edits = append(all.Edits, score.FormOf(way))
	}
	all.Name = "edits"
	return all
}

// replayWanted brings the state of the project that is wanted to play, and others that are wanted meanwhile.
func (t *Transport) replayWanted() {
	t.mu.Lock()
	defer t.mu.Unlock()
	for t.playing && t.wanted.project != nil {
		next, player := t.wanted, t.player
		replay := player.Replay(next.project, next.letGo)
		t.mu.Unlock()
		replay.Run()
		t.mu.Lock()
		if !t.playing || t.player != player {
			continue
		}
		if letGo := t.wanted.letGo; len(letGo) < len(next.letGo) || !slices.Equal(letGo[:len(next.letGo)], next.letGo) {
			continue // something that was to be let go of was done again meanwhile
		}
		later := t.wanted
		t.wanted = next
		if !t.adopt(replay) { // what plays now is elsewhere in the song
			t.wanted = later
			continue
		}
		if later.project != next.project {
			t.wanted = later
			t.wanted.letGo, t.wanted.ways = later.letGo[len(next.letGo):], later.ways[len(next.ways):]
		}
	}
	t.wanted.replaying = false
	if t.wanted.project != nil {
		t.adopt(nil)
	}
}

// adopt has the state of the project that is wanted play from what is not committed on, or while standing still next, and
// reports whether it could; the replay is nil while standing still.
func (t *Transport) adopt(replay *log.Replay) bool {
	next := t.wanted
	tempo := play.TempoMapOf(next.project)
	changed := !slices.Equal(play.TempoMapOf(t.project), tempo)
	if t.playing {
		if !t.player.Edit(replay) {
			return false
		}
		t.note(log.Entry{Project: next.project, LetGo: next.letGo, Way: next.way()})
		for _, r := range []*Recorder{t.recorder, t.wake} {
			r.change(func(now *recording) { now.setProject(t.player.Playing(), next.revision, t.player.Run()) })
		}
		t.stage = t.player.Stage()
	} else {
		for _, c := range next.letGo {
			t.stage = t.stage.Without(c)
		}
	}
	t.project, t.wanted = next.project, edited{replaying: next.replaying}
	t.checkClock()
	if t.playing {
		t.prepare()
		t.retimed()
	}
	if changed {
		t.notify()
	}
	t.notifyStage()
	return true
}
