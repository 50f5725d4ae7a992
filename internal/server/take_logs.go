package server

import (
	"errors"
	"fmt"
	"net/http"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/take"
)

// AgainRequest asks for a take to be played again by its log.
type AgainRequest struct {
	// Luck is another luck, under which it is played; without it it is played as it was.
	Luck *int `json:"luck,omitempty" jsonschema:"minimum=0,maximum=999999"`
	// Mends are actions of its log that are moved, or left out.
	Mends []take.Mend `json:"mends,omitempty" jsonschema:"maxItems=10000"`
}

// findLog returns what the take is a function of that a request names; it answers and returns false if that is not known.
func (t takesResource) findLog(w http.ResponseWriter, r *http.Request) (logged take.Logged, summary take.Summary, ok bool) {
	found, summary := t.find(w, r)
	if found == nil {
		return logged, summary, false
	}
	logged, err := t.takes.Log(r.Context(), summary.ID)
	if err != nil {
		fail(w, err)
		return logged, summary, false
	}
	return logged, summary, true
}

// log answers with the log of which a take is a stretch, until the take's end.
func (t takesResource) log(w http.ResponseWriter, r *http.Request) {
	logged, summary, ok := t.findLog(w, r)
	if !ok {
		return
	}
	data, err := log.Encode(logged.Log, logged.To)
	if err != nil {
		fail(w, err)
		return
	}
	download(w, "application/json", summary.Name+" log", ".json", data)
}

// again makes another take of one, as its log plays it once more.
func (t takesResource) again(w http.ResponseWriter, r *http.Request) {
	var request AgainRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	logged, summary, ok := t.findLog(w, r)
	if !ok {
		return
	}
	name := summary.Name + ", again"
	if len(request.Mends) > 0 {
		name = summary.Name + ", mended"
		var err error
		if logged, err = logged.Mended(request.Mends); err != nil {
			fail(w, err)
			return
		}
	}
	if request.Luck != nil {
		name = summary.Name + ", other luck"
		logged = logged.Under(*request.Luck)
	}
	again := logged.Again(name)
	id, err := t.takes.AddPlayed(r.Context(), summary.Revision, again, logged)
	if err != nil {
		fail(w, err)
		return
	}
	t.changed()
	reply(w, Imported{ID: id, Notes: again.Count(), Remarks: []string{}})
}

// PerformedAction is an action of a take's log, in words.
type PerformedAction struct {
	take.Performed
	Words string `json:"words"`
}

// actions answers with what was performed while a take was recorded; nothing where that is not known.
func (t takesResource) actions(w http.ResponseWriter, r *http.Request) {
	found, summary := t.find(w, r)
	if found == nil {
		return
	}
	logged, err := t.takes.Log(r.Context(), summary.ID)
	if errors.Is(err, take.ErrNoLog) {
		reply(w, []PerformedAction{})
		return
	}
	if err != nil {
		fail(w, err)
		return
	}
	project, at := logged.Log.Project, 0
	performed := []PerformedAction{}
	for _, a := range logged.Actions() {
		for ; at < a.Entry; at++ {
			if entry := logged.Log.Entries[at]; entry.Project != nil {
				project = entry.Project
			} else if entry.Jump != nil && entry.Jump.Project != nil {
				project = entry.Jump.Project
			}
		}
		performed = append(performed, PerformedAction{Performed: a, Words: wordsOf(project, a.Control, a.Value)})
	}
	reply(w, performed)
}

// storeStage writes the live changes that stood at a take's end into the project, as one step of undo.
func (t takesResource) storeStage(w http.ResponseWriter, r *http.Request) {
	var request RevisionRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	logged, summary, ok := t.findLog(w, r)
	if !ok {
		return
	}
	edit, any := logged.Stage().Store(t.studio.State().Project)
	if !any {
		refuse(w, http.StatusConflict, fmt.Sprintf("nothing that was performed in “%s” differs at its end from what is written", summary.Name))
		return
	}
	answer(w, r)(t.studio.Edit(r.Context(), request.Revision, edit))
}
