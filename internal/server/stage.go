package server

import (
	"fmt"
	"net/http"
	"strconv"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/live"
	"jettyfog/internal/studio"
)

// StageMessage is what performing has changed on top of the project, and what waits to be done.
type StageMessage struct {
	// Number is greater than that of all that was told before; what has a smaller one is old.
	Number int64 `json:"number"`
	// Changes are the live changes that differ from what is written.
	Changes []LiveChange `json:"changes"`
	// Given are the values that the song and chains have given, where no live change counts in their place.
	Given []stage.Change `json:"given"`
	// Moved are the values of controls that macros move away from where they stand.
	Moved []stage.Change `json:"moved"`
	// Queue holds what waits, the first first.
	Queue []QueuedAction `json:"queue"`
	// Back is how many actions can be undone.
	Back int `json:"back"`
	// Song is how the song plays.
	Song live.SongStatus `json:"song"`
	// Faders are those that have to come to where their controls stand.
	Faders []live.FaderWait `json:"faders"`
}

// SceneRequest asks for the values of a scene, from a moment on as that of a DoRequest.
type SceneRequest struct {
	Scene int       `json:"scene" jsonschema:"minimum=1,maximum=1000000"`
	When  live.When `json:"when" jsonschema:"enum=now,enum=step,enum=beat,enum=bar,enum=bars,enum=pattern"`
	Bars  int       `json:"bars,omitempty" jsonschema:"minimum=0,maximum=64"`
}

// RampRequest asks for the tempo to go to another over so many bars from the next one on.
type RampRequest struct {
	Tempo score.Tempo `json:"tempo" jsonschema:"minimum=10000,maximum=400000"`
	Bars  int         `json:"bars" jsonschema:"minimum=1,maximum=64"`
}

// LiveChange is a live change, and what is written in its place.
type LiveChange struct {
	stage.Change
	Written int `json:"written"`
	// Words say what is changed to what, as "Bell buoy: mute on".
	Words string `json:"words"`
}

// QueuedAction is an action that waits for a tick of the song.
type QueuedAction struct {
	live.Queued
	Words string `json:"words"`
}

// DoRequest asks for things to be done together.
type DoRequest struct {
	Do []live.Doing `json:"do" jsonschema:"minItems=1,maxItems=64"`
	// When is the moment from which they count: at once, or with the next step, beat, bar, so many bars, or end of the
	// track's pattern.
	When live.When `json:"when" jsonschema:"enum=now,enum=step,enum=beat,enum=bar,enum=bars,enum=pattern"`
	// Bars is how many of bars.
	Bars int `json:"bars,omitempty" jsonschema:"minimum=0,maximum=64"`
}

// stageMessage returns what performing has changed of a state of the project.
func stageMessage(p live.Performing, project *score.Project) *StageMessage {
	m := &StageMessage{Number: p.Number, Changes: []LiveChange{}, Given: []stage.Change{}, Queue: []QueuedAction{}, Back: p.Back, Song: p.Song, Faders: append([]live.FaderWait{}, p.Faders...), Moved: p.Stage.Moved(project)}
	for _, change := range p.Stage.Differing(project) {
		written, _ := change.Control.Written(project)
		m.Changes = append(m.Changes, LiveChange{Change: change, Written: written, Words: wordsOf(project, change.Control, &change.Value)})
	}
	for _, change := range p.Stage.InForce() {
		if _, byHand := p.Stage.Value(change.Control); !byHand {
			m.Given = append(m.Given, change)
		}
	}
	for _, q := range p.Queue {
		m.Queue = append(m.Queue, QueuedAction{Queued: q, Words: wordsOf(project, q.Doing.Control, q.Doing.Value)})
	}
	return m
}

func wordsOf(p *score.Project, c stage.Control, value *int) string {
	if c.Once() {
		return c.Words(p)
	}
	if value == nil {
		written, _ := c.Written(p)
		value = &written
	}
	return c.Words(p) + " " + c.ValueWords(p, *value)
}

type stageResource struct {
	transport *live.Transport
	studio    *studio.Studio
	notice    func(text string)
}

// Routes lists the resource's routes.
func (s stageResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Get("/", func(w http.ResponseWriter, _ *http.Request) { s.answer(w, nil) })
	r.Post("/", s.do)
	r.Post("/back", func(w http.ResponseWriter, _ *http.Request) { s.answer(w, s.transport.Back()) })
	r.Post("/reset", func(w http.ResponseWriter, _ *http.Request) {
		s.transport.Reset()
		s.answer(w, nil)
	})
	r.Post("/store", s.store)
	r.Post("/scene", s.scene)
	r.Post("/ramp", s.ramp)
	r.Delete("/queue/{id}", s.takeBack)
	return r
}

// answer answers with the live changes and the queue, or with why nothing was done.
func (s stageResource) answer(w http.ResponseWriter, err error) {
	if err != nil {
		fail(w, err)
		return
	}
	reply(w, stageMessage(s.transport.Performing(), s.studio.State().Project))
}

func (s stageResource) do(w http.ResponseWriter, r *http.Request) {
	var request DoRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	s.answer(w, s.transport.Do(request.Do, request.When, request.Bars))
}

// scene does what a scene names, and says what it had to leave out.
func (s stageResource) scene(w http.ResponseWriter, r *http.Request) {
	var request SceneRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	leftOut, err := s.transport.DoScene(request.Scene, request.When, request.Bars)
	if scene := s.studio.State().Project.Scene(request.Scene); scene != nil && leftOut > 0 && err == nil {
		s.notice(fmt.Sprintf("Scene “%s” leaves out %s of what is gone, or cannot be now; all others count.", scene.Name, score.Counted(leftOut, "value")))
	}
	s.answer(w, err)
}

func (s stageResource) ramp(w http.ResponseWriter, r *http.Request) {
	var request RampRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	s.answer(w, s.transport.Ramp(request.Tempo, request.Bars))
}

func (s stageResource) takeBack(w http.ResponseWriter, r *http.Request) {
	id, _ := strconv.ParseInt(chi.URLParam(r, "id"), 10, 64) // no action has the id 0
	s.answer(w, s.transport.TakeBack(id))
}

// store writes the live changes into the project, as one step of undo.
func (s stageResource) store(w http.ResponseWriter, r *http.Request) {
	var request RevisionRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	edit, any := s.transport.Stage().Store(s.studio.State().Project)
	if !any {
		refuse(w, http.StatusConflict, "there are no live changes to store")
		return
	}
	answer(w, r)(s.studio.Edit(r.Context(), request.Revision, edit))
}
