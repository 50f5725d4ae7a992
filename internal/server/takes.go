package server

import (
	"io"
	"mime"
	"net/http"
	"strconv"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/smf"
	"jettyfog/internal/core/take"
	"jettyfog/internal/shelf"
	"jettyfog/internal/studio"
)

// Imported tells of something that became a take.
type Imported struct {
	ID    int64 `json:"id"`
	Notes int   `json:"notes"`
	// Remarks say what was wrong with it and what could not be kept, each a sentence without its full stop.
	Remarks []string `json:"remarks"`
}

type takesResource struct {
	machine MachineStore
	takes   *shelf.Shelf
	studio  *studio.Studio
	changed func()
}

// Routes lists the resource's routes.
func (t takesResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Post("/", t.load)
	r.Post("/render", t.render)
	r.Get("/{id}.mid", t.midi)
	r.Get("/{id}.zip", t.zip)
	r.Get("/{id}.csv", t.csv)
	r.Get("/{id}/voltages.wav", t.voltages)
	r.Get("/{id}/voltages.json", t.voltageChannels)
	r.Get("/{id}/scope", t.scope)
	r.Get("/{id}/roll", t.roll)
	r.Get("/{id}/statistics", t.statistics)
	r.Get("/{id}/comparison", t.compare)
	r.Post("/{id}/edits", t.edit)
	r.Post("/{id}/undo", t.undo)
	r.Post("/{id}/redo", t.redo)
	r.Post("/{id}/deleted", t.setDeleted)
	r.Post("/{id}/split", t.split)
	r.Post("/{id}/origin", t.bringBack)
	r.Get("/{id}/log.json", t.log)
	r.Post("/{id}/again", t.again)
	r.Get("/{id}/actions", t.actions)
	r.Post("/{id}/stage", t.storeStage)
	r.Post("/{id}/pattern", t.pattern)
	r.Post("/{id}/key", t.key)
	return r
}

// load takes a Standard MIDI File as it is, and makes a take of it; its name is in the query.
func (t takesResource) load(w http.ResponseWriter, r *http.Request) {
	file, remarks, ok := readMIDI(w, r)
	if !ok {
		return
	}
	name := score.CleanName(r.URL.Query().Get("name"))
	if name == "" {
		name = "Imported"
	}
	imported, left := smf.ToTake(file, name)
	ids, err := t.takes.Add(r.Context(), 0, imported)
	if err != nil {
		fail(w, err)
		return
	}
	t.changed()
	reply(w, Imported{ID: ids[0], Notes: imported.Count(), Remarks: append(append([]string{}, remarks...), left...)})
}

// readMIDI reads the Standard MIDI File that a request is. It answers and returns false if it is none.
func readMIDI(w http.ResponseWriter, r *http.Request) (file smf.File, remarks []string, ok bool) {
	if kind, _, err := mime.ParseMediaType(r.Header.Get("Content-Type")); err != nil || kind != "audio/midi" {
		refuse(w, http.StatusUnsupportedMediaType, "the request must have the content type audio/midi")
		return file, nil, false
	}
	data, err := io.ReadAll(r.Body)
	if err != nil {
		fail(w, err)
		return file, nil, false
	}
	if file, remarks, err = smf.Decode(data); err != nil {
		refuse(w, http.StatusUnprocessableEntity, "the MIDI file cannot be read: "+err.Error())
		return file, nil, false
	}
	return file, remarks, true
}

// idOf returns the id of the take that a request names, or 0, which no take has.
func idOf(r *http.Request) int64 {
	id, err := strconv.ParseInt(chi.URLParam(r, "id"), 10, 64)
	if err != nil {
		return 0
	}
	return id
}

// find returns the take that a request names; it answers and returns nil if there is none.
func (t takesResource) find(w http.ResponseWriter, r *http.Request) (*take.Take, take.Summary) {
	found, summary, err := t.takes.Take(r.Context(), idOf(r))
	if err != nil {
		fail(w, err)
		return nil, summary
	}
	return found, summary
}
