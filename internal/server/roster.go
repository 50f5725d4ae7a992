package server

import (
	"net/http"
	"strconv"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/studio"
)

// Outline is what a track will play in a stretch of time.
type Outline struct {
	Track int           `json:"track"`
	Notes []OutlineNote `json:"notes"`
}

// OutlineNote is a note of an outline.
type OutlineNote struct {
	Start score.Tick `json:"start"`
	End   score.Tick `json:"end"`
	Key   int        `json:"key"`
}

// rosterBars is how many bars an outline shows.
const rosterBars = 2

type rosterResource struct{ studio *studio.Studio }

// Routes lists the resource's routes.
func (c rosterResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Get("/", c.show)
	return r
}

// show answers with what every track will play in the two bars from one on.
func (c rosterResource) show(w http.ResponseWriter, r *http.Request) {
	state := c.studio.State()
	bar := state.Project.Meter.Bar()
	first, err := strconv.ParseInt(r.URL.Query().Get("bar"), 10, 64)
	if err != nil || first < 0 || first > int64(maxReach/bar)-rosterBars {
		refuse(w, http.StatusUnprocessableEntity, "an outline needs the number of a bar, from 0")
		return
	}
	from := score.Tick(first) * bar
	outlines := make([]Outline, len(state.Project.Tracks))
	for i := range state.Project.Tracks {
		outlines[i] = outlineOf(state.Project, state.Project.Tracks[i].ID, from, from+rosterBars*bar)
	}
	reply(w, outlines)
}

func outlineOf(p *score.Project, track int, from, to score.Tick) Outline {
	outline := Outline{Track: track, Notes: []OutlineNote{}}
	if looped := p.Track(track); looped.Loop != nil {
		for _, n := range play.LoopNotes(looped, from, to) {
			outline.Notes = append(outline.Notes, OutlineNote{Start: n.Start, End: n.End, Key: int(n.Key)})
		}
		return outline
	}
	for _, outlook := range play.Look(p, track, from, to) {
		for _, f := range outlook.Forecasts {
			if f.Sounds {
				outline.Notes = append(outline.Notes, OutlineNote{Start: f.Start, End: f.End, Key: f.Key})
			}
		}
	}
	return outline
}
