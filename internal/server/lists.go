package server

import (
	"net/http"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// Lists are what there is to choose from.
type Lists struct {
	Lanes           []score.LaneSpec   `json:"lanes"`
	Rates           []Rate             `json:"rates"`
	Orders          []score.Order      `json:"orders"`
	Shapes          []score.Shape      `json:"shapes"`
	Sources         []score.SourceKind `json:"sources"`
	Spacings        []score.Spacing    `json:"spacings"`
	ModTargets      []score.ModTarget  `json:"modTargets"`
	TunedBys        []score.TunedBy    `json:"tunedBys"`
	Chords          []score.ChordType  `json:"chords"`
	Percussion      []PercussionKey    `json:"percussion"`
	Roots           []string           `json:"roots"`
	Scales          []Scale            `json:"scales"`
	TicksPerQuarter score.Tick         `json:"ticksPerQuarter"`
}

// PercussionKey is a key of a kit, and what General MIDI plays there.
type PercussionKey struct {
	Note int    `json:"note"`
	Name string `json:"name"`
}

// Scale is a scale and the semitones of its notes above the root.
type Scale struct {
	Name      string `json:"name"`
	Semitones []int  `json:"semitones"`
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
			Lanes: score.LaneSpecs(), Orders: score.Orders(), Shapes: score.Shapes(),
			Sources: score.SourceKinds(), Spacings: score.Spacings(),
			ModTargets: score.ModTargets(), TunedBys: score.TunedBys(), Chords: score.Chords(),
			Roots: theory.RootNames(), TicksPerQuarter: score.TicksPerQuarter,
		}
		for _, v := range score.NoteValues() {
			lists.Rates = append(lists.Rates, Rate{Name: v, Ticks: v.Ticks()})
		}
		for _, name := range theory.ScaleNames() {
			scale, _ := theory.ScaleByName(name)
			lists.Scales = append(lists.Scales, Scale{Name: name, Semitones: scale.Semitones})
		}
		for note := theory.LowestPercussion; note <= theory.HighestPercussion; note++ {
			name, _ := theory.PercussionName(note)
			lists.Percussion = append(lists.Percussion, PercussionKey{Note: note, Name: name})
		}
		reply(w, lists)
	})
	return r
}
