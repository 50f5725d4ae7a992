package server

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/live"
	"jettyfog/internal/shelf"
)

// maxWakeBars bounds how many bars of the wake are shown or kept at once.
const maxWakeBars = 4096

// WakeView is some bars that were played.
type WakeView struct {
	// Stretch names the stretch of playing, from a start to its stop; Before and After are those next to it, 0
	// if there is none.
	Stretch int64 `json:"stretch"`
	Before  int64 `json:"before"`
	After   int64 `json:"after"`
	// From and To bound the bars, in ticks since playing began.
	From score.Tick `json:"from"`
	To   score.Tick `json:"to"`
	// Bar is the number of the first, from 1; Bars are they, with ticks from From.
	Bar  int64           `json:"bar"`
	Bars []score.BarSpan `json:"bars"`
	// Notes count from From.
	Notes []OutlineNote `json:"notes"`
}

// KeepRequest asks to keep what was played: the last whole bars, or a piece of a stretch.
type KeepRequest struct {
	Bars    int        `json:"bars,omitempty" jsonschema:"minimum=1,maximum=4096"`
	Stretch int64      `json:"stretch,omitempty"`
	From    score.Tick `json:"from,omitempty" jsonschema:"minimum=0"`
	To      score.Tick `json:"to,omitempty" jsonschema:"minimum=0"`
}

type wakeResource struct {
	wake      WakeStore
	takes     *shelf.Shelf
	transport *live.Transport
	changed   func()
}

// Routes lists the resource's routes.
func (k wakeResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Get("/", k.show)
	r.Post("/", k.keep)
	return r
}

// keepUpWithin is how long a request waits for the wake to be up to date.
const keepUpWithin = 5 * time.Second

// keepUp has everything that was heard written to the wake, so that it can be kept up to this moment.
func keepUp(ctx context.Context, transport *live.Transport) error {
	limited, cancel := context.WithTimeout(ctx, keepUpWithin)
	defer cancel()
	if err := transport.KeepUp(limited); err != nil {
		return fmt.Errorf("what was played last is not in the wake yet, so nothing was changed; try again: %w", err)
	}
	return nil
}

// errNothingPlayed is returned where nothing sounded in what is to be kept, or playing has just begun.
var errNothingPlayed = errors.New("nothing was played yet that could be kept")

// lastBars returns the last bars before a moment of a stretch, up to what has come to disk.
func (k wakeResource) lastBars(ctx context.Context, stretch int64, end score.Tick, bars int) (take.Stretch, error) {
	if bars < 1 || bars > maxWakeBars {
		return take.Stretch{}, &score.FieldError{Field: "bars", Got: bars, Allowed: fmt.Sprintf("1 to %d", maxWakeBars)}
	}
	last, err := k.wake.LastBars(ctx, stretch, end, bars)
	if err == nil && last.Take.End == 0 { // playing has just begun
		err = take.ErrUnknown
	}
	return last, err
}

// show answers with ?bars=, the last ones, or those that end at ?end= of the ?stretch=; with null before anything was
// played.
func (k wakeResource) show(w http.ResponseWriter, r *http.Request) {
	query := r.URL.Query()
	bars, err := strconv.Atoi(query.Get("bars"))
	if err != nil {
		refuse(w, http.StatusBadRequest, "the wake needs the number of bars to show")
		return
	}
	stretch, _ := strconv.ParseInt(query.Get("stretch"), 10, 64) // without one it is the last
	end, _ := strconv.ParseInt(query.Get("end"), 10, 64)         // without one it is the end
	last, err := k.lastBars(r.Context(), stretch, score.Tick(end), bars)
	if stretch == 0 && errors.Is(err, take.ErrUnknown) {
		reply(w, nil)
		return
	}
	if err != nil {
		fail(w, err)
		return
	}
	drawn := newOutline(0, last.Take.End)
	for _, n := range last.Take.Notes() {
		drawn.add(n.Start, n.End, int(n.Key))
	}
	reply(w, WakeView{
		Stretch: last.ID, Before: last.Before, After: last.After,
		From: last.From, To: last.To, Bar: last.Bar + 1, Bars: last.Take.Bars().Spans(), Notes: drawn.notes,
	})
}

func (k wakeResource) keep(w http.ResponseWriter, r *http.Request) {
	var request KeepRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	kept, err := k.kept(r.Context(), request)
	if err != nil {
		fail(w, err)
		return
	}
	reply(w, kept)
}

// kept keeps a piece of the wake as a take.
func (k wakeResource) kept(ctx context.Context, request KeepRequest) (Imported, error) {
	piece, err := k.piece(ctx, request)
	if err != nil {
		return Imported{}, err
	}
	piece.Take.Name = fmt.Sprintf("Wake from bar %d", piece.Bar+1)
	ids, err := k.takes.Add(ctx, piece.Revision, piece.Take)
	if err != nil {
		return Imported{}, err
	}
	remarks := []string{}
	if err := k.wake.CopyLog(context.WithoutCancel(ctx), piece.ID, ids[0], piece.From, piece.To); err != nil {
		remarks = append(remarks, "It cannot be played again: its log could not be copied.")
	}
	k.changed()
	return Imported{ID: ids[0], Notes: piece.Take.Count(), Remarks: remarks}, nil
}

// Keep keeps the last bars that were played as a take, as a pedal asks for, and tells every page.
func (s *Server) Keep(bars int) {
	k := wakeResource{s.options.Wake, s.options.Takes, s.options.Transport, s.TakesChanged}
	kept, err := k.kept(context.Background(), KeepRequest{Bars: bars})
	if err != nil {
		s.Notice(fmt.Sprintf("The last %s could not be kept: %s.", score.Counted(bars, "bar"), strings.TrimSuffix(err.Error(), ".")))
		return
	}
	said := fmt.Sprintf("Kept the last %s as a take: %s.", score.Counted(bars, "bar"), score.Counted(kept.Notes, "note"))
	s.Notice(strings.Join(append([]string{said}, kept.Remarks...), " "))
}

func (k wakeResource) piece(ctx context.Context, request KeepRequest) (take.Stretch, error) {
	if request.To != 0 && (request.From < 0 || request.From >= request.To) {
		return take.Stretch{}, &score.FieldError{Field: "from", Got: int(request.From), Allowed: "before to"}
	}
	if err := keepUp(ctx, k.transport); err != nil {
		return take.Stretch{}, err
	}
	if request.To == 0 {
		last, err := k.lastBars(ctx, 0, 0, request.Bars)
		if errors.Is(err, take.ErrUnknown) {
			err = errNothingPlayed
		}
		return last, err
	}
	piece, err := k.wake.Piece(ctx, request.Stretch, request.From, request.To)
	if err == nil && piece.Take.End == 0 {
		err = errNothingPlayed
	}
	return piece, err
}
