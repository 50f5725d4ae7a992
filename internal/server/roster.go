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

// How many bars outlines show, if nothing else is asked for, and at most.
const (
	rosterBars     = 2
	mostRosterBars = 16
)

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

// show answers with what every track will play in some bars from one on.
func (c rosterResource) show(w http.ResponseWriter, r *http.Request) {
	state := c.studio.State()
	bars, query := c.transport.Bars(), r.URL.Query()
	many := int64(rosterBars)
	if asked := query.Get("bars"); asked != "" {
		many, _ = strconv.ParseInt(asked, 10, 64) // what is no number is 0
	}
	first, err := strconv.ParseInt(query.Get("bar"), 10, 64)
	if err != nil || first < 0 || many < 1 || many > mostRosterBars || first > bars.At(maxReach)-many {
		refuse(w, http.StatusUnprocessableEntity, "an outline needs the number of a bar, from 0, and 1 to 16 bars")
		return
	}
	from, to := bars.Start(first), bars.Start(first+many)
	performed := c.transport.Stage().On(state.Project)
	foresee := c.transport.Foresee(state.Project)
	outlines := make([]Outline, len(state.Project.Tracks))
	for i := range state.Project.Tracks {
		track := state.Project.Tracks[i].ID
		outlines[i] = outlineOf(foresee(track, from), track, from, to)
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
	for _, cut := range append(course.Cuts(track, from, to), to) { // what is done there can have another pattern play
		for _, outlook := range course.Look(track, from, cut) {
			for _, f := range outlook.Forecasts {
				for _, n := range f.Heard() {
					drawn.add(n.Start, n.End, n.Key)
				}
			}
		}
		from = cut
	}
	return Outline{Track: track, Notes: drawn.notes}
}
