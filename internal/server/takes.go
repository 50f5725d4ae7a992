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
	"jettyfog/internal/studio"
)

type takesResource struct {
	takes   TakeStore
	studio  *studio.Studio
	changed func(problem error)
}

// Imported tells of a file that became a take.
type Imported struct {
	ID    int64 `json:"id"`
	Notes int   `json:"notes"`
	// Remarks say what was wrong with the file and what could not be kept, each a sentence without its full stop.
	Remarks []string `json:"remarks"`
}

// Routes lists the resource's routes.
func (t takesResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Get("/{id}.mid", t.midi)
	r.Get("/{id}.csv", t.csv)
	r.Post("/", t.load)
	return r
}

// load takes a Standard MIDI File as it is, and makes a take of it; its name is in the query.
func (t takesResource) load(w http.ResponseWriter, r *http.Request) {
	if kind, _, err := mime.ParseMediaType(r.Header.Get("Content-Type")); err != nil || kind != "audio/midi" {
		refuse(w, http.StatusUnsupportedMediaType, "the request must have the content type audio/midi")
		return
	}
	data, err := io.ReadAll(r.Body)
	if err != nil {
		fail(w, err)
		return
	}
	file, remarks, err := smf.Decode(data)
	if err != nil {
		refuse(w, http.StatusUnprocessableEntity, "the MIDI file cannot be read: "+err.Error())
		return
	}
	name := score.CleanName(r.URL.Query().Get("name"))
	if name == "" {
		name = "Imported"
	}
	imported, left := smf.ToTake(file, name)
	id, err := t.takes.AddTake(r.Context(), imported, t.studio.State().Revision)
	if err != nil {
		fail(w, err)
		return
	}
	t.changed(nil)
	reply(w, Imported{ID: id, Notes: imported.Count(), Remarks: append(append([]string{}, remarks...), left...)})
}

// find returns the take that a request names; it answers and returns nil if there is none.
func (t takesResource) find(w http.ResponseWriter, r *http.Request) *take.Take {
	id, err := strconv.ParseInt(chi.URLParam(r, "id"), 10, 64)
	if err != nil {
		fail(w, take.ErrUnknown)
		return nil
	}
	found, err := t.takes.Take(r.Context(), id)
	if err != nil {
		fail(w, err)
		return nil
	}
	return found
}

// csv answers with a take as a table of its messages.
func (t takesResource) csv(w http.ResponseWriter, r *http.Request) {
	if found := t.find(w, r); found != nil {
		download(w, "text/csv; charset=utf-8", found.Name, ".csv", take.CSV(found))
	}
}

// midi answers with a take as a Standard MIDI File: ?format=0 or 1, default 1, and ?division=960 or
// 20160, default 960.
func (t takesResource) midi(w http.ResponseWriter, r *http.Request) {
	options := smf.Options{Format: 1, Division: smf.DefaultDivision}
	switch r.URL.Query().Get("format") {
	case "", "1":
	case "0":
		options.Format = 0
	default:
		refuse(w, http.StatusUnprocessableEntity, "the format must be 0 or 1")
		return
	}
	switch r.URL.Query().Get("division") {
	case "", strconv.Itoa(smf.DefaultDivision):
	case strconv.Itoa(smf.ExactDivision):
		options.Division = smf.ExactDivision
	default:
		refuse(w, http.StatusUnprocessableEntity, "the division must be 960 or 20160")
		return
	}
	recorded := t.find(w, r)
	if recorded == nil {
		return
	}
	data, err := smf.Encode(smf.FromTake(recorded, options))
	if err != nil {
		fail(w, err)
		return
	}
	download(w, "audio/midi", recorded.Name, ".mid", data)
}
