package server

import (
	"errors"
	"net/http"
	"time"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/entry"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
	"jettyfog/internal/live"
	"jettyfog/internal/studio"
)

// EntryRequest asks to enter what was played into a step.
type EntryRequest struct {
	Revision int64 `json:"revision"`
	score.PartAddress
	Step int `json:"step" jsonschema:"minimum=0,maximum=63"`
	// Do is notes for what was played, chord for just the kind of chord that it is, rest or tie; name for the named chord that the notes of steps are, degrees for
	// the notes of named chords.
	Do string `json:"do" jsonschema:"enum=notes,enum=chord,enum=rest,enum=tie,enum=name,enum=degrees"`
	// Steps are those of name and degrees.
	Steps []int `json:"steps,omitempty" jsonschema:"maxItems=64"`
	// Notes were struck together.
	Notes []entry.Struck `json:"notes,omitempty" jsonschema:"maxItems=16"`
	// Fit is where notes go that are foreign to the key: nearest, up or down; empty leaves them.
	Fit string `json:"fit,omitempty"`
}

// PlayedRequest tells of notes that were played together while the project plays.
type PlayedRequest struct {
	Track int          `json:"track"`
	Part  int          `json:"part"`
	Notes []PlayedNote `json:"notes" jsonschema:"minItems=1,maxItems=16"`
	// Strength is that of quantisation, in percent.
	Strength int    `json:"strength" jsonschema:"minimum=0,maximum=100"`
	Fit      string `json:"fit,omitempty"`
	// Replace silences the steps between After, a tick, and these notes; else they stay.
	Replace bool       `json:"replace"`
	After   score.Tick `json:"after"`
}

// PlayedNote is a note that was played in time.
type PlayedNote struct {
	Key      int `json:"key" jsonschema:"minimum=0,maximum=127"`
	Velocity int `json:"velocity" jsonschema:"minimum=1,maximum=127"`
	// At is when it was struck, on the server's clock, and Held how long it was held, in nanoseconds.
	At   int64 `json:"at"`
	Held int64 `json:"held" jsonschema:"minimum=0"`
}

// PlayedAnswer tells where notes that were played have gone.
type PlayedAnswer struct {
	Project ProjectState `json:"project"`
	Step    int          `json:"step"`
	// Began is the tick at which the step began, to be named as After by what is played next.
	Began score.Tick `json:"began"`
}

// HeardKeyRequest asks to take what was played as the project's key: its root, or its whole scale.
type HeardKeyRequest struct {
	Revision int64  `json:"revision"`
	Notes    []int  `json:"notes" jsonschema:"minItems=1,maxItems=128"`
	Do       string `json:"do" jsonschema:"enum=root,enum=scale"`
}

type entryResource struct {
	studio    *studio.Studio
	transport *live.Transport
}

// Routes lists the resource's routes.
func (e entryResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Post("/", e.step)
	r.Post("/played", e.played)
	r.Post("/key", e.key)
	return r
}

// fitted brings struck keys into the key of the project, for a track that is transposed.
func fitted(p *score.Project, track int, struck []entry.Struck, fit string) ([]entry.Struck, error) {
	found := p.Track(track)
	switch {
	case found != nil && found.Kind == score.FieldKind:
		return nil, &score.FieldError{Field: "track", Got: found.Name, Allowed: "one with steps: a field has none into which to play"}
	case fit == "":
		return struck, nil
	}
	direction, known := theory.Directions[fit]
	if !known {
		return nil, &score.FieldError{Field: "fit", Got: short(fit), Allowed: "nearest, up, down or nothing"}
	}
	if found == nil || found.Kind == score.Kit || p.Key.Period() != theory.Octave {
		return struck, nil
	}
	speller := entry.NewSpeller(p.Key, found.Transpose)
	in := make([]entry.Struck, len(struck))
	for i, s := range struck {
		s.Key = speller.Fit(s.Key, direction)
		in[i] = s
	}
	return in, nil
}

func (e entryResource) step(w http.ResponseWriter, r *http.Request) {
	var request EntryRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	project := e.studio.State().Project
	place := entry.Place{At: request.PartAddress, Step: request.Step}
	var edit score.Edit
	var err error
	switch request.Do {
	case "notes":
		var struck []entry.Struck
		if struck, err = fitted(project, request.Track, request.Notes, request.Fit); err == nil {
			edit, err = entry.Step(project, place, struck)
		}
	case "chord":
		edit, err = entry.Chord(project, place, request.Notes)
	case "rest":
		edit, err = entry.Rest(project, place)
	case "tie":
		edit, err = entry.Tie(project, place)
	case "name":
		edit, err = entry.NameIt(project, place.At, request.Steps)
	case "degrees":
		edit, err = entry.AsDegrees(project, place.At, request.Steps)
	default:
		err = &score.FieldError{Field: "do", Got: short(request.Do), Allowed: "notes, chord, rest, tie, name or degrees"}
	}
	if errors.Is(err, entry.ErrSame) { // entering goes on over what is there already
		reply(w, whole(e.studio.State()))
		return
	}
	if err != nil {
		fail(w, err)
		return
	}
	answer(w, r)(e.studio.Edit(r.Context(), request.Revision, edit))
}

// played enters notes where the part stood when they were struck. They name no revision, because whoever plays
// cannot wait for one.
func (e entryResource) played(w http.ResponseWriter, r *http.Request) {
	var request PlayedRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	played, ok := request.played(e.transport)
	if !ok {
		refuse(w, http.StatusConflict, "nothing was playing when the notes were played, so they were heard and not entered")
		return
	}
	state := e.studio.State()
	var err error
	if played.Notes, err = fitted(state.Project, request.Track, played.Notes, request.Fit); err != nil {
		fail(w, err)
		return
	}
	at := score.PartAddress{Track: request.Track, Part: request.Part}
	entered, step, began, ok, err := entry.Timed(state.Project, at, played, request.Strength)
	if err != nil {
		fail(w, err)
		return
	}
	if !ok {
		refuse(w, http.StatusConflict, "the part has no step near the notes, so they were heard and not entered")
		return
	}
	var edits []score.EditJSON
	if cleared, ok := entry.Cleared(state.Project, at, request.After, began).(score.SetSteps); ok && request.Replace {
		edits = append(edits, score.EditJSON{SetSteps: &cleared})
	}
	if edits = append(edits, entered...); len(edits) > 0 {
		if state, err = e.studio.Edit(r.Context(), state.Revision, score.All{Name: "notes played", Edits: edits}); err != nil {
			fail(w, err)
			return
		}
	}
	reply(w, PlayedAnswer{Project: asAsked(r, state), Step: step, Began: began})
}

// played returns the notes in ticks of what plays, from the first of them on; ok is false where nothing was playing.
func (request *PlayedRequest) played(transport *live.Transport) (played entry.Played, ok bool) {
	for i, n := range request.Notes {
		start, length, ok := transport.Stretch(n.At, n.Held)
		if !ok || n.Held < 0 || n.Held > int64(time.Hour) {
			return played, false
		}
		if i == 0 {
			played.Start = start
		}
		played.Notes = append(played.Notes, entry.Struck{Key: n.Key, Velocity: n.Velocity, Late: start - played.Start, Length: length})
	}
	return played, len(request.Notes) > 0
}

// key takes what was played as the root or the scale of the project.
func (e entryResource) key(w http.ResponseWriter, r *http.Request) {
	var request HeardKeyRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	for _, note := range request.Notes {
		if note < theory.LowestNote || note > theory.HighestNote {
			fail(w, &score.FieldError{Field: "notes", Got: note, Allowed: "0 to 127"})
			return
		}
	}
	key := e.studio.State().Project.Key.Clone()
	switch {
	case len(request.Notes) == 0 || request.Do != "root" && request.Do != "scale":
		refuse(w, http.StatusUnprocessableEntity, "a key needs notes, and root or scale as what they are; nothing was changed")
		return
	case key.Period() != theory.Octave:
		refuse(w, http.StatusUnprocessableEntity, "a tuning of other than twelve notes has no keys of MIDI notes; nothing was changed")
		return
	case request.Do == "root":
		key.Root = request.Notes[0] % theory.Octave
	default:
		tuning := key.Tuning
		key = entry.KeyOf(request.Notes, key.Root)
		key.Tuning = tuning
	}
	answer(w, r)(e.studio.Edit(r.Context(), request.Revision, score.SetProject{Key: &key}))
}
