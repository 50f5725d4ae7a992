package server

import (
	"net/http"
	"strconv"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/live"
	"jettyfog/internal/studio"
)

// Draws compare what the spread in force at a step of a lane should add with what it really added, in the notes of all steps that have the same.
type Draws struct {
	// Shares are how likely each number is.
	Shares []play.Share `json:"shares"`
	// Drawn holds what was added to each note of the stretch.
	Drawn []int `json:"drawn"`
}

type drawsResource struct {
	studio    *studio.Studio
	transport *live.Transport
}

// Routes lists the resource's routes.
func (d drawsResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Get("/", d.show)
	return r
}

func (d drawsResource) show(w http.ResponseWriter, r *http.Request) {
	query := r.URL.Query()
	asked, ok := readStretch(w, query, d.studio.State().Project, d.transport)
	if !ok {
		return
	}
	project, track := asked.project, asked.track
	id, _ := strconv.Atoi(query.Get("part"))
	part, err := project.Part(score.PartAddress{Track: track.ID, Pattern: track.Playing, Part: id})
	if err != nil {
		fail(w, err)
		return
	}
	name := score.LaneName(query.Get("lane"))
	step, _ := strconv.Atoi(query.Get("step"))
	lane := part.Lanes.Lane(name)
	if lane == nil || step < 0 || step >= score.MaxSteps || lane.Spread == nil && lane.Own[step].Spread == nil {
		refuse(w, http.StatusNotFound, "the lane "+short(string(name))+" has no spread at the step")
		return
	}
	shares, drawn := play.Draws(project, track.ID, part.ID, name, step, asked.from, asked.to)
	reply(w, Draws{Shares: shares, Drawn: drawn})
}
