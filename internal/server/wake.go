package server

import (
	"context"
	"fmt"
	"net/http"
	"strconv"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/live"
)

// maxWakeBars bounds how many bars of the wake are shown or kept at once.
const maxWakeBars = 4096

// WakeView is the last bars that were played.
type WakeView struct {
	// Bar is the number of the first of them, from 0, since playing began.
	Bar int `json:"bar"`
	// End is how long they last, in ticks.
	End   score.Tick    `json:"end"`
	Notes []OutlineNote `json:"notes"`
}

// KeepRequest asks to keep the last bars that were played.
type KeepRequest struct {
	Bars int `json:"bars" jsonschema:"minimum=1,maximum=4096"`
}

type wakeResource struct {
	wake      WakeStore
	takes     TakeStore
	transport *live.Transport
	changed   func(problem error)
}

// Routes lists the resource's routes.
func (k wakeResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Get("/", k.show)
	r.Post("/", k.keep)
	return r
}

// last returns the last bars, up to this moment.
func (k wakeResource) last(ctx context.Context, bars int) (*take.Take, int, int64, error) {
	if bars < 1 || bars > maxWakeBars {
		return nil, 0, 0, &score.FieldError{Field: "bars", Got: bars, Allowed: fmt.Sprintf("1 to %d", maxWakeBars)}
	}
	if err := k.transport.KeepUp(ctx); err != nil {
		return nil, 0, 0, fmt.Errorf("write the wake: %w", err)
	}
	last, bar, revision, err := k.wake.Last(ctx, bars)
	if err == nil && last.End == 0 { // playing has just begun
		err = take.ErrUnknown
	}
	return last, bar, revision, err
}

func (k wakeResource) show(w http.ResponseWriter, r *http.Request) {
	bars, err := strconv.Atoi(r.URL.Query().Get("bars"))
	if err != nil {
		refuse(w, http.StatusBadRequest, "the wake needs the number of bars to show")
		return
	}
	last, bar, _, err := k.last(r.Context(), bars)
	if err != nil {
		fail(w, err)
		return
	}
	view := WakeView{Bar: bar, End: last.End, Notes: []OutlineNote{}}
	down := map[[2]uint8]int{}
	for _, m := range last.Messages {
		key := [2]uint8{m.Channel, m.Key}
		switch m.Kind {
		case play.NoteOn:
			down[key] = len(view.Notes)
			view.Notes = append(view.Notes, OutlineNote{Start: m.Tick, Key: int(m.Key)})
		case play.NoteOff:
			view.Notes[down[key]].End = m.Tick
		}
	}
	reply(w, view)
}

func (k wakeResource) keep(w http.ResponseWriter, r *http.Request) {
	var request KeepRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	last, bar, revision, err := k.last(r.Context(), request.Bars)
	if err != nil {
		fail(w, err)
		return
	}
	last.Name = fmt.Sprintf("Wake from bar %d", bar+1)
	id, err := k.takes.AddTake(r.Context(), last, revision)
	if err != nil {
		fail(w, err)
		return
	}
	k.changed(nil)
	reply(w, Imported{ID: id, Notes: last.Count(), Remarks: []string{}})
}
