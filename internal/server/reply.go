package server

import (
	"encoding/json"
	"errors"
	"io"
	"mime"
	"net/http"
	"reflect"
	"sync"

	"jettyfog/internal/core/bounds"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/smf"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/take"
	"jettyfog/internal/health"
	"jettyfog/internal/live"
	"jettyfog/internal/shelf"
	"jettyfog/internal/studio"
)

// Refusal is the body of every answer that is not a success.
type Refusal struct {
	// Error is one sentence: what was wrong.
	Error string `json:"error"`
}

// reply answers with JSON.
func reply(w http.ResponseWriter, v any) {
	w.Header().Set("Content-Type", "application/json")
	w.Header().Set("Cache-Control", "no-store")
	// Only a broken connection can make this fail, and then nobody is there to be told.
	_ = json.NewEncoder(w).Encode(v)
}

func refuse(w http.ResponseWriter, status int, sentence string) {
	w.Header().Set("Content-Type", "application/json")
	w.WriteHeader(status)
	_ = json.NewEncoder(w).Encode(Refusal{Error: sentence})
}

// fail answers with the status that fits the error.
func fail(w http.ResponseWriter, err error) {
	status := http.StatusInternalServerError
	var (
		field   *score.FieldError
		file    *score.FileError
		stale   *studio.StaleError
		old     *shelf.StaleError
		disk    *health.Problem
		unheld  *smf.RangeError
		missing *studio.MissingError
	)
	switch {
	case errors.As(err, &file):
		status = http.StatusBadRequest
	case errors.As(err, &disk):
		status = http.StatusServiceUnavailable
		if disk.Kind == health.Full {
			status = http.StatusInsufficientStorage
		}
	case errors.As(err, &unheld):
		status = http.StatusUnprocessableEntity
	case errors.As(err, &field), errors.Is(err, score.ErrEmptyEdit):
		status = http.StatusUnprocessableEntity
	case errors.As(err, &stale), errors.As(err, &old), errors.As(err, &missing):
		status = http.StatusConflict
	case errors.Is(err, score.ErrUnknownTrack), errors.Is(err, score.ErrUnknownPart), errors.Is(err, score.ErrNoField), errors.Is(err, score.ErrUnknownLayer), errors.Is(err, score.ErrUnknownScene), errors.Is(err, score.ErrUnknownSection), errors.Is(err, take.ErrUnknown),
		errors.Is(err, stage.ErrGone), errors.Is(err, live.ErrNotQueued), errors.Is(err, take.ErrNoLog), errors.Is(err, studio.ErrNoProject), errors.Is(err, score.ErrNoSetup), errors.Is(err, errNothingPlayed):
		status = http.StatusNotFound
	case errors.Is(err, score.ErrNothingBefore), errors.Is(err, live.ErrPast), errors.Is(err, studio.ErrNothingToUndo), errors.Is(err, studio.ErrNothingToRedo),
		errors.Is(err, shelf.ErrNothingToUndo), errors.Is(err, shelf.ErrNothingToRedo),
		errors.Is(err, live.ErrQueueFull), errors.Is(err, live.ErrStageFull), errors.Is(err, live.ErrNoBack), errors.Is(err, live.ErrOpening),
		errors.Is(err, studio.ErrIsOpen):
		status = http.StatusConflict
	case errors.Is(err, errNotJSON):
		status = http.StatusUnsupportedMediaType
	}
	refuse(w, status, err.Error())
}

var errNotJSON = errors.New("the request must have the content type application/json")

// read decodes the JSON body of a request, which must be within the bounds that stand in the tags of its type. It writes nothing; the caller passes an error to fail.
func read[T any](r *http.Request, into *T) error {
	body, err := readJSON(r)
	if err != nil {
		return err
	}
	if err := score.DecodeJSON(body, into); err != nil {
		return err
	}
	return score.CheckBounds(boundsOf[T](), into)
}

var knownBounds sync.Map // by the types of requests

func boundsOf[T any]() bounds.Bounds[T] {
	of := reflect.TypeFor[T]()
	if known, ok := knownBounds.Load(of); ok {
		return known.(bounds.Bounds[T])
	}
	found := bounds.For[T]()
	knownBounds.Store(of, found)
	return found
}

func readJSON(r *http.Request) ([]byte, error) {
	kind, _, err := mime.ParseMediaType(r.Header.Get("Content-Type"))
	if err != nil || kind != "application/json" {
		return nil, errNotJSON
	}
	return io.ReadAll(r.Body)
}
