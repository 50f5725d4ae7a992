package live

import (
	"slices"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// edited is a state of the project, and whether a goroutine is bringing the present one to play.
type edited struct {
	project   *score.Project
	revision  int64
	replaying bool
}

// SetProject has everything that is not yet committed played from another state of the project. It does not wait for
// tracks that must be played from the beginning on: what plays plays on until they have been. Of several states that are
// set meanwhile the latest counts.
func (t *Transport) SetProject(project *score.Project) {
	t.mu.Lock()
	defer t.mu.Unlock()
	t.wanted.project, t.wanted.revision = project, t.revision
	if t.wanted.replaying { // whoever replays looks again
		return
	}
	if !t.playing {
		t.adopt(t.wanted, nil)
		return
	}
	tracks, quick := play.Replayed(t.project, project)
	if quick {
		t.adopt(t.wanted, t.performance.change(project, t.pieces.song(t.committed), t.replay(project, tracks), tracks))
		return
	}
	t.wanted.replaying = true
	go t.replayWanted()
}

// replay returns a performance of some tracks of a project that has come to where the one that plays is.
func (t *Transport) replay(project *score.Project, tracks []int) *performance {
	if len(tracks) == 0 {
		return nil
	}
	return perform(project, t.pieces.song(t.committed), t.inputs, tracks)
}

// replayWanted brings the state of the project that is wanted to play, and others that are wanted meanwhile.
func (t *Transport) replayWanted() {
	t.mu.Lock()
	defer t.mu.Unlock()
	for t.playing && t.wanted.project != t.project {
		next, started, piece, inputs := t.wanted, t.started, len(t.pieces), t.inputs
		from := t.pieces.song(t.committed)
		tracks, _ := play.Replayed(t.project, next.project)
		var replayed *performance
		if len(tracks) > 0 {
			t.mu.Unlock()
			replayed = perform(next.project, from, inputs, tracks)
			t.mu.Lock()
		}
		if !t.playing || t.started != started || len(t.pieces) != piece {
			continue // what plays now is elsewhere in the song
		}
		if replayed != nil {
			for _, m := range t.inputs[len(inputs):] {
				replayed.player.Hear(m)
			}
			replayed.skip(t.pieces.song(t.committed))
		}
		t.adopt(next, t.performance.change(next.project, t.pieces.song(t.committed), replayed, tracks))
	}
	t.wanted.replaying = false
	if t.wanted.project != t.project {
		t.adopt(t.wanted, nil)
	}
}

// adopt has a state of the project play from what is not committed on; the performance is nil while standing still.
func (t *Transport) adopt(next edited, performance *performance) {
	tempo := play.TempoMapOf(next.project)
	changed := !slices.Equal(play.TempoMapOf(t.project), tempo)
	t.project = next.project
	if t.playing {
		t.prepare()
		t.note(log.Entry{Project: next.project})
		t.performance = performance
		t.missing = t.sent.Missing(performance.player.Standing(), nil)
		for _, r := range []*Recorder{t.recorder, t.wake} {
			r.change(func(now *recording) { now.setProject(next.project, next.revision, t.committed) })
		}
	}
	if !changed {
		return
	}
	if t.playing {
		t.changeTempo(tempo)
	}
	t.tell()
}
