package server

import (
	"errors"
	"net/http"
	"strconv"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/live"
	"jettyfog/internal/studio"
)

// LoopRequest asks to loop what a track played last: whole bars, or so many notes.
type LoopRequest struct {
	Revision int64 `json:"revision"`
	Track    int   `json:"track"`
	Bars     int   `json:"bars,omitempty" jsonschema:"minimum=0,maximum=256"`
	Notes    int   `json:"notes,omitempty" jsonschema:"minimum=0,maximum=1024"`
}

// LoopEditRequest asks for an edit of a loop as if it was a take.
type LoopEditRequest struct {
	Revision int64         `json:"revision"`
	Edit     take.EditJSON `json:"edit"`
}

type loopsResource struct {
	studio    *studio.Studio
	wake      WakeStore
	transport *live.Transport
}

// Routes lists the resource's routes.
func (l loopsResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Post("/", l.freeze)
	r.Get("/{track}/roll", l.roll)
	r.Post("/{track}/edits", l.edit)
	return r
}

// errNoLoop is answered for a track that plays no loop.
var errNoLoop = &score.FieldError{Field: "the track", Got: "playing its pattern", Allowed: "one that plays a loop"}

func (l loopsResource) freeze(w http.ResponseWriter, r *http.Request) {
	var request LoopRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	if err := keepUp(r.Context(), l.transport); err != nil {
		fail(w, err)
		return
	}
	loop, err := l.last(r, request)
	if errors.Is(err, take.ErrUnknown) {
		refuse(w, http.StatusConflict, "nothing was played yet that could be looped")
		return
	}
	if err != nil {
		fail(w, err)
		return
	}
	answer(w, r)(l.studio.Edit(r.Context(), request.Revision, score.SetLoop{Track: request.Track, Loop: loop}))
}

// last makes a loop of what a track played last.
func (l loopsResource) last(r *http.Request, request LoopRequest) (*score.Loop, error) {
	const lookBack = 256 // bars, among which so many notes are looked for
	bars := request.Bars
	if request.Notes > 0 {
		bars = lookBack
	}
	if bars == 0 {
		return nil, &score.FieldError{Field: "bars", Got: bars, Allowed: "1 to 256, where no number of notes is given"}
	}
	piece, err := l.wake.LastBars(r.Context(), 0, 0, bars)
	if err != nil {
		return nil, err
	}
	if request.Notes == 0 {
		return take.LoopOf(piece.Take, uint32(request.Track), l.transport.Song(piece.From), piece.Take.End)
	}
	grid := score.NoteValue("1/16").Ticks()
	from, to, ok := take.LastNotes(piece.Take, uint32(request.Track), request.Notes, grid)
	if !ok {
		return nil, take.ErrUnknown
	}
	last := take.Cut(piece.Take, from, min(to, piece.Take.End))
	return take.LoopOf(last, uint32(request.Track), l.transport.Song(piece.From+from), last.End)
}

// find returns the project and the track that a request names, and the track's loop as a take. It answers and
// returns nil if there is none.
func (l loopsResource) find(w http.ResponseWriter, r *http.Request) (studio.Snapshot, *score.Track, *take.Take) {
	state := l.studio.State()
	id, _ := strconv.Atoi(chi.URLParam(r, "track")) // no track has the id 0
	track := state.Project.Track(id)
	switch {
	case track == nil:
		fail(w, score.ErrUnknownTrack)
	case track.Loop == nil:
		fail(w, errNoLoop)
	default:
		return state, track, take.OfLoop(state.Project, track)
	}
	return state, nil, nil
}

// roll answers with a loop as with a take, whose version is the project's revision.
func (l loopsResource) roll(w http.ResponseWriter, r *http.Request) {
	state, track, looped := l.find(w, r)
	if looped == nil {
		return
	}
	summary := take.SummaryOf(looped)
	summary.ID, summary.Version = -int64(track.ID), int(state.Revision)
	reply(w, rollOf(looped, summary, 0, looped.End))
}

func (l loopsResource) edit(w http.ResponseWriter, r *http.Request) {
	var request LoopEditRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	edit, err := request.Edit.Edit()
	if err != nil {
		fail(w, err)
		return
	}
	_, track, looped := l.find(w, r)
	if looped == nil {
		return
	}
	edited, err := take.Apply(looped, edit)
	if err != nil {
		fail(w, err)
		return
	}
	// A loop lasts as long as it did: what is moved beyond its end is heard from its beginning on.
	loop, err := take.LoopOf(edited, uint32(track.ID), track.Loop.Start, looped.End)
	if err != nil {
		fail(w, err)
		return
	}
	answer(w, r)(l.studio.Edit(r.Context(), request.Revision, score.SetLoop{Track: track.ID, Loop: loop}))
}
