package server

import (
	"fmt"
	"net/http"
	"strconv"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/smf"
	"jettyfog/internal/core/theory"
	"jettyfog/internal/studio"
)

// NamedChord is some keys, ascending, and what they are called as a chord; without keys it has no name.
type NamedChord struct {
	Name string `json:"name"`
	Keys []int  `json:"keys"`
	// Notes are the names of the keys, as they are spelled in the chord.
	Notes []string `json:"notes"`
	// Beats is how many quarter notes it lasts in a file; 0 is as usual.
	Beats int `json:"beats,omitempty"`
}

func named(keys []int) NamedChord {
	if len(keys) == 0 {
		return NamedChord{Keys: []int{}, Notes: []string{}}
	}
	chord, notes := theory.ChordOf(keys), make([]string, len(keys))
	for i, key := range keys {
		notes[i] = chord.NoteName(key)
	}
	return NamedChord{Name: chord.Name(), Keys: keys, Notes: notes}
}

type chordsResource struct{ studio *studio.Studio }

// Routes of chords: those of a map as they lie, one after the other; one on a degree of the key; and those that are found in a Standard MIDI File.
func (c chordsResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Get("/maps/{id}", c.ofMap)
	r.Get("/degrees/{degree}", c.onDegree)
	r.Post("/file", c.inFile)
	return r
}

func (c chordsResource) ofMap(w http.ResponseWriter, r *http.Request) {
	id, _ := strconv.Atoi(chi.URLParam(r, "id")) // what is no number is no map's
	m := c.studio.State().Project.ChordMap(id)
	if m == nil {
		refuse(w, http.StatusNotFound, "the project has no such chord map")
		return
	}
	chords, before := []NamedChord{}, []int(nil)
	for i := range m.Chords {
		keys := m.Chords[i].Voiced()
		if m.Led && len(keys) > 0 {
			keys = theory.Lead(before, keys)
			before = keys
		}
		chords = append(chords, named(keys))
	}
	reply(w, chords)
}

func (c chordsResource) onDegree(w http.ResponseWriter, r *http.Request) {
	degree, err := strconv.Atoi(chi.URLParam(r, "degree"))
	kind, wrong := strconv.Atoi(r.URL.Query().Get("type"))
	if err != nil || wrong != nil || degree < -28 || degree > 28 || kind < 0 || kind >= len(score.Chords()) {
		refuse(w, http.StatusUnprocessableEntity, "a chord needs a degree from -28 to 28, and the number of a type of chords")
		return
	}
	reply(w, named(score.ChordOn(c.studio.State().Project.Key, degree, kind)))
}

// inFile answers with the chords of a Standard MIDI File, as many as a map can have: each once, sorted, or as they come in time.
func (c chordsResource) inFile(w http.ResponseWriter, r *http.Request) {
	file, remarks, ok := readMIDI(w, r)
	if !ok {
		return
	}
	imported, left := smf.ToTake(file, "Chords")
	found, chords, more := imported.Chords(), []NamedChord{}, 0
	if len(found) == 0 {
		refuse(w, http.StatusUnprocessableEntity, "the MIDI file has no chords: three notes or more that sound together")
		return
	}
	if r.URL.Query().Get("inTime") == "true" {
		var timed score.ChordMap
		timed, more = imported.ChordMap("Chords")
		for _, chord := range timed.Chords {
			one := named(chord.Keys)
			one.Beats = chord.Beats
			chords = append(chords, one)
		}
	} else {
		more = max(0, len(found)-score.MaxChordSlots)
		for _, keys := range found[:len(found)-more] {
			chords = append(chords, named(keys))
		}
	}
	remarks = append(append([]string{}, remarks...), left...)
	if more > 0 {
		remarks = append(remarks, fmt.Sprintf("%d chords that a map has no room for were left out", more))
	}
	reply(w, FoundChords{Chords: chords, Remarks: remarks})
}

// FoundChords are the chords of a file, and what is to be said of it.
type FoundChords struct {
	Chords  []NamedChord `json:"chords"`
	Remarks []string     `json:"remarks"`
}
