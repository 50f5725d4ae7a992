package live

import (
	"time"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// Stage returns the live changes with all that was done.
func (t *Transport) Stage() stage.Stage {
	t.mu.Lock()
	defer t.mu.Unlock()
	return t.stage
}

// Performing is what was changed on top of the project, and what waits.
type Performing struct {
	// Number is greater than that of all that was told before, over starts of the program too, so that an answer which comes late is known to be old.
	Number int64
	// Document is the one that is open.
	Document int64
	Stage    stage.Stage
	Queue    []Queued
	// Back is how many actions can be undone.
	Back int
	// Song is how the song plays.
	Song SongStatus
	// Faders are those that have to come to where their controls stand.
	Faders []FaderWait
}

// Queued is an action that waits for its tick, of the song.
type Queued struct {
	ID    int64 `json:"id"`
	Doing `json:"doing"`
	At    score.Tick `json:"at"`
}

// Performing returns what was changed on top of the project, and what waits.
func (t *Transport) Performing() Performing {
	t.mu.Lock()
	defer t.mu.Unlock()
	return t.performing()
}

func (t *Transport) performing() Performing {
	t.performed = max(t.performed+1, time.Now().UnixMicro())
	if t.opening != nil { // all that is there of the one that waits
		return Performing{Number: t.performed, Document: t.opening.Document, Stage: t.opening.Stage, Song: SongStatus{Sections: []PlannedSection{}, Chains: []log.Next{}, Bars: t.opening.Project.Bars().Spans()}}
	}
	p := Performing{Number: t.performed, Document: t.document, Stage: t.stage, Back: t.groups(), Song: t.songStatus(), Faders: t.faderWaits()}
	for _, q := range t.queue {
		p.Queue = append(p.Queue, Queued{ID: q.id, Doing: Doing{q.Control, q.Value}, At: t.player.Pieces().Song(q.At)})
	}
	return p
}

// ListenStage has a function told of the live changes and the queue at once and whenever they are others. It must return
// quickly and must not call the transport.
func (t *Transport) ListenStage(listener func(Performing)) {
	t.mu.Lock()
	defer t.mu.Unlock()
	t.staged = append(t.staged, listener)
	listener(t.performing())
}

func (t *Transport) notifyStage() {
	t.cutSilenced()
	t.sendBack()
	performing := t.performing()
	for _, listener := range t.staged {
		listener(performing)
	}
}

// Foresee returns what tells how a state of the project will play a track from a tick of the song on, as far as it is decided: with what waits, and
// what the song and chains will give; while standing still how it would.
func (t *Transport) Foresee(written *score.Project) func(track int, from score.Tick) play.Course {
	t.mu.Lock()
	begins := t.begins()
	begins.Project = written
	if t.opening != nil {
		begins.Stage, begins.PlaysSong = t.opening.Stage, false
	}
	stands, foreseen := !t.playing || t.opening != nil, t.player != nil && t.player.Written() == written
	var outlook func(int, score.Tick) play.Course
	if !stands && foreseen {
		outlook = t.player.Outlook(t.waitingActions())
	}
	t.mu.Unlock()
	if stands {
		return log.NewPlayer(begins, nil).Outlook(nil)
	}
	return func(track int, from score.Tick) play.Course {
		if !foreseen { // an edit is being taken over
			return t.Course(written, track, from)
		}
		t.mu.Lock()
		defer t.mu.Unlock()
		return outlook(track, from)
	}
}

// waitingActions lists what is queued.
func (t *Transport) waitingActions() (actions []log.Action) {
	for _, q := range t.queue {
		actions = append(actions, q.Action)
	}
	return actions
}

// Course returns how a state of the project plays a track from a tick of the song on: with what was done since playing began
// while it plays, and else with the live changes put on it.
func (t *Transport) Course(written *score.Project, track int, from score.Tick) play.Course {
	t.mu.Lock()
	defer t.mu.Unlock()
	if t.opening != nil {
		return play.Course{Project: t.opening.Stage.On(written)}
	}
	if t.playing {
		return t.player.Course(written, track, from)
	}
	return play.Course{Project: t.stage.On(written)}
}
