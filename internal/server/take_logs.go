package server

import (
	"net/http"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/take"
)

// AgainRequest asks for a take to be played again by its log.
type AgainRequest struct {
	// Luck is another luck, under which it is played; without it it is played as it was.
	Luck *int `json:"luck,omitempty" jsonschema:"minimum=0,maximum=999999"`
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
	if request.Luck != nil {
		name = summary.Name + ", other luck"
	}
	again := logged.Again(name, request.Luck)
	ids, err := t.takes.Add(r.Context(), summary.Revision, again)
	if err != nil {
		fail(w, err)
		return
	}
	t.changed()
	reply(w, Imported{ID: ids[0], Notes: again.Count(), Remarks: []string{}})
}
