package server

import (
	"context"
	"net/http"
	"slices"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/preset"
	"jettyfog/internal/core/score"
	"jettyfog/internal/studio"
)

// PresetStore keeps presets for all projects.
type PresetStore interface {
	// Presets returns all presets that were kept.
	Presets(ctx context.Context) ([]preset.Preset, error)
	// KeepPreset keeps a preset, in the place of one of its kind that has its name.
	KeepPreset(ctx context.Context, kept preset.Preset) error
	// DeletePreset deletes a preset; it says whether there was one.
	DeletePreset(ctx context.Context, kind preset.Kind, name string) (was bool, err error)
}

// ListedPreset is a preset as it is listed.
type ListedPreset struct {
	Kind  preset.Kind `json:"kind"`
	Name  string      `json:"name"`
	Words string      `json:"words"`
	// Own says that somebody has kept it; others ship with the program.
	Own bool `json:"own"`
}

// PresetRequest names a preset, and a place of the project: a lane of a part.
type PresetRequest struct {
	Revision int64             `json:"revision,omitempty"`
	Kind     preset.Kind       `json:"kind"`
	Name     string            `json:"name" jsonschema:"minLength=1,maxLength=60"`
	Words    string            `json:"words,omitempty" jsonschema:"maxLength=200"`
	At       score.LaneAddress `json:"at"`
	// Roll is the way of rolling that is kept.
	Roll *score.Recipe `json:"roll,omitempty"`
}

type presetsResource struct {
	kept   PresetStore
	studio *studio.Studio
}

// Routes lists the resource's routes.
func (p presetsResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Get("/", p.list)
	r.Post("/", p.keep)
	r.Post("/use", p.found(p.use))
	r.Post("/hear", p.found(p.hear))
	r.Post("/delete", p.remove)
	r.Post("/file", p.load)
	r.Get("/file", p.file)
	return r
}

func (p presetsResource) list(w http.ResponseWriter, r *http.Request) {
	kept, err := p.kept.Presets(r.Context())
	if err != nil {
		fail(w, err)
		return
	}
	listed := []ListedPreset{}
	for i, one := range append(slices.Clone(kept), preset.Shipped()...) {
		listed = append(listed, ListedPreset{one.Kind, one.Name, one.Words, i < len(kept)})
	}
	reply(w, listed)
}

// find returns a preset that was kept, or else one that ships with the program; it answers if there is none.
func (p presetsResource) find(w http.ResponseWriter, r *http.Request, kind preset.Kind, name string) (found preset.Preset, ok bool) {
	kept, err := p.kept.Presets(r.Context())
	if err != nil {
		fail(w, err)
		return found, false
	}
	if at := slices.IndexFunc(kept, func(one preset.Preset) bool { return one.Kind == kind && one.Name == name }); at >= 0 {
		return kept[at], true
	}
	if found, ok = preset.Find(kind, name); !ok {
		refuse(w, http.StatusNotFound, "there is no preset "+short(name)+" of that kind; nothing was changed")
	}
	return found, ok
}

// found answers a request by what is done with the preset that it names.
func (p presetsResource) found(do func(http.ResponseWriter, *http.Request, PresetRequest, preset.Preset)) http.HandlerFunc {
	return func(w http.ResponseWriter, r *http.Request) {
		var request PresetRequest
		if err := read(r, &request); err != nil {
			fail(w, err)
			return
		}
		if found, ok := p.find(w, r, request.Kind, request.Name); ok {
			do(w, r, request, found)
		}
	}
}

func (p presetsResource) keep(w http.ResponseWriter, r *http.Request) {
	var request PresetRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	var roll score.Recipe
	if request.Roll != nil {
		roll = *request.Roll
	}
	kept, err := preset.Of(p.studio.State().Project, request.Kind, request.Name, request.At, roll)
	if err == nil {
		kept.Words = request.Words
		err = p.kept.KeepPreset(r.Context(), kept)
	}
	if err != nil {
		fail(w, err)
		return
	}
	p.list(w, r)
}

func (p presetsResource) use(w http.ResponseWriter, r *http.Request, request PresetRequest, found preset.Preset) {
	edit, err := found.EditFor(p.studio.State().Project, request.At)
	if err != nil {
		fail(w, err)
		return
	}
	answer(w, r)(p.studio.Edit(r.Context(), request.Revision, edit))
}

func (p presetsResource) hear(w http.ResponseWriter, _ *http.Request, request PresetRequest, found preset.Preset) {
	heard, err := found.Hear(p.studio.State().Project, request.At)
	if err != nil {
		fail(w, err)
		return
	}
	reply(w, heard)
}

func (p presetsResource) remove(w http.ResponseWriter, r *http.Request) {
	var request PresetRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	was, err := p.kept.DeletePreset(r.Context(), request.Kind, request.Name)
	if err != nil {
		fail(w, err)
		return
	}
	if !was {
		refuse(w, http.StatusNotFound, "nobody has kept a preset "+short(request.Name)+" of that kind, so there is nothing to delete")
		return
	}
	p.list(w, r)
}

// load keeps the preset of a file.
func (p presetsResource) load(w http.ResponseWriter, r *http.Request) {
	body, err := readJSON(r)
	if err != nil {
		fail(w, err)
		return
	}
	kept, err := preset.Decode(body)
	if err == nil {
		err = p.kept.KeepPreset(r.Context(), kept)
	}
	if err != nil {
		fail(w, err)
		return
	}
	p.list(w, r)
}

func (p presetsResource) file(w http.ResponseWriter, r *http.Request) {
	query := r.URL.Query()
	found, ok := p.find(w, r, preset.Kind(query.Get("kind")), query.Get("name"))
	if !ok {
		return
	}
	data, err := preset.Encode(found)
	if err != nil {
		fail(w, err)
		return
	}
	download(w, "application/json", found.Name, ".preset.json", data)
}
