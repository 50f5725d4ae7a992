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

// Outline is what a track will play in a stretch of time.
type Outline struct {
	Track int           `json:"track"`
	Notes []OutlineNote `json:"notes"`
	// Silent says that the track is not heard at present: it is muted, not active, or beside a solo.
	Silent bool `json:"silent"`
}

// rosterBars is how many bars an outline shows.
const rosterBars = 2

type rosterResource struct {
	studio    *studio.Studio
	transport *live.Transport
}

// Routes lists the resource's routes.
func (c rosterResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Get("/", c.show)
	return r
}

// show answers with what every track will play in the two bars from one on.
func (c rosterResource) show(w http.ResponseWriter, r *http.Request) {
	state := c.studio.State()
	bars := state.Project.Bars()
	first, err := strconv.ParseInt(r.URL.Query().Get("bar"), 10, 64)
	if err != nil || first < 0 || first > bars.At(maxReach)-rosterBars {
		refuse(w, http.StatusUnprocessableEntity, "an outline needs the number of a bar, from 0")
		return
	}
	from, to := bars.Start(first), bars.Start(first+rosterBars)
	performed := c.transport.Performing().Stage.On(state.Project)
	outlines := make([]Outline, len(state.Project.Tracks))
	for i := range state.Project.Tracks {
		track := state.Project.Tracks[i].ID
		outlines[i] = outlineOf(c.transport.Course(state.Project, track, from), track, from, to)
		outlines[i].Silent = performed.SilentTrack(&performed.Tracks[i])
	}
	reply(w, outlines)
}

func outlineOf(course play.Course, track int, from, to score.Tick) Outline {
	drawn := newOutline(from, to)
	if looped := course.Project.Track(track); looped.Loop != nil {
		for _, n := range play.LoopNotes(looped, from, to) {
			drawn.add(n.Start, n.End, int(n.Key))
		}
		return Outline{Track: track, Notes: drawn.notes}
	}
	for _, outlook := range course.Look(track, from, to) {
		for _, f := range outlook.Forecasts {
			for _, n := range f.Heard() {
				drawn.add(n.Start, n.End, n.Key)
			}
		}
	}
	return Outline{Track: track, Notes: drawn.notes}
}
