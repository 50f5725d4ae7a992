package server

import (
	"net/http"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// Lists are what there is to choose from.
type Lists struct {
	Lanes           []score.LaneSpec  `json:"lanes"`
	Rates           []Rate            `json:"rates"`
	Orders          []score.Order     `json:"orders"`
	Movers          []score.Mover     `json:"movers"`
	Chords          []score.ChordType `json:"chords"`
	Roots           []string          `json:"roots"`
	Scales          []string          `json:"scales"`
	TicksPerQuarter score.Tick        `json:"ticksPerQuarter"`
}

// Rate is a note value and its length.
type Rate struct {
	Name  score.NoteValue `json:"name"`
	Ticks score.Tick      `json:"ticks"`
}

type listsResource struct{}

// Routes lists the resource's routes.
func (listsResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Get("/", func(w http.ResponseWriter, _ *http.Request) {
		lists := Lists{
			Lanes: score.LaneSpecs(), Orders: score.Orders(), Movers: score.Movers(), Chords: score.Chords(),
			Roots: theory.RootNames(), Scales: theory.ScaleNames(), TicksPerQuarter: score.TicksPerQuarter,
		}
		for _, v := range score.NoteValues() {
			lists.Rates = append(lists.Rates, Rate{Name: v, Ticks: v.Ticks()})
		}
		reply(w, lists)
	})
	return r
}
