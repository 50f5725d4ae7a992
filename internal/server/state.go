package server

import (
	"net/http"
	"slices"

	"jettyfog/internal/core/score"
	"jettyfog/internal/studio"
)

// ProjectState is the project at a revision: as a whole, or by what leads to it from the revision before.
type ProjectState struct {
	// Document is the id of the project in its folder.
	Document int64 `json:"document"`
	Revision int64 `json:"revision"`
	// Undo and Redo name the edits that would be undone and redone; empty if there is none.
	Undo string `json:"undo"`
	Redo string `json:"redo"`
	// Project is the whole project. Without it Changes lead to it from the revision From.
	Project *score.Project     `json:"project,omitempty"`
	From    int64              `json:"from,omitempty"`
	Changes []score.Difference `json:"changes,omitempty"`
	// Bars are those of the project, and TicksPerMilli how many ticks pass in a millisecond at its tempo. They come with
	// the whole project, and with changes of what they follow from.
	Bars          []score.BarSpan `json:"bars,omitempty"`
	TicksPerMilli float64         `json:"ticksPerMilli,omitempty"`
}

// whole returns a state of the project as a whole.
func whole(s studio.Snapshot) ProjectState {
	state := ProjectState{Document: s.Document, Revision: s.Revision, Undo: s.Undo, Redo: s.Redo, Project: s.Project}
	return state.withTime(s.Project)
}

// step returns a state of the project by what leads to it.
func step(s studio.Snapshot) ProjectState {
	if s.From == 0 {
		return whole(s)
	}
	state := ProjectState{Document: s.Document, Revision: s.Revision, Undo: s.Undo, Redo: s.Redo, From: s.From, Changes: s.Changes}
	if slices.ContainsFunc(s.Changes, func(d score.Difference) bool {
		return len(d.Path) == 0 || d.Path[0] == "meter" || d.Path[0] == "meterChanges" || d.Path[0] == "tempo"
	}) {
		return state.withTime(s.Project)
	}
	return state
}

func (s ProjectState) withTime(p *score.Project) ProjectState {
	s.Bars, s.TicksPerMilli = p.Bars().Spans(), p.Tempo.TicksPerMilli()
	return s
}

// minimal is how a request asks for what leads to a state instead of the whole (RFC 7240).
const minimal = "return=minimal"

// asAsked returns a state of the project as a request asks for it.
func asAsked(r *http.Request, s studio.Snapshot) ProjectState {
	if r.Header.Get("Prefer") == minimal {
		return step(s)
	}
	return whole(s)
}

// answer answers a change with the project after it, or with why there was none.
func answer(w http.ResponseWriter, r *http.Request) func(studio.Snapshot, error) {
	return func(state studio.Snapshot, err error) {
		if err != nil {
			fail(w, err)
			return
		}
		reply(w, asAsked(r, state))
	}
}
