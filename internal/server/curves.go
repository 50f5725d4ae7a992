package server

import (
	"cmp"
	"net/http"
	"slices"
	"strconv"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/wave"
	"jettyfog/internal/live"
	"jettyfog/internal/studio"
)

// ModulatorCurve is where a modulator goes in a stretch of time, as far as it is known.
type ModulatorCurve struct {
	Modulator int `json:"modulator"`
	// Levels are −1000 to 1000, evenly over the stretch; empty where they are not known.
	Levels []int `json:"levels"`
}

// levelsABar is how many levels of a bar are told.
const levelsABar = 96

type curvesResource struct {
	studio    *studio.Studio
	transport *live.Transport
}

// Routes lists the resource's routes.
func (c curvesResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Get("/", c.show)
	return r
}

// show answers with the curves of all modulators in some bars from one on.
func (c curvesResource) show(w http.ResponseWriter, r *http.Request) {
	bars, query := c.transport.Bars(), r.URL.Query()
	first, err := strconv.ParseInt(query.Get("bar"), 10, 64)
	many, _ := strconv.ParseInt(query.Get("bars"), 10, 64) // what is no number is 0
	if err != nil || first < 0 || many < 1 || many > mostRosterBars || first > bars.At(maxReach)-many {
		refuse(w, http.StatusUnprocessableEntity, "curves need the number of a bar, from 0, and 1 to 16 bars")
		return
	}
	state := c.studio.State()
	from, to := bars.Start(first), bars.Start(first+many)
	performed, foresee := c.transport.Stage().On(state.Project), c.transport.Foresee(state.Project)
	ticks := make([]score.Tick, many*levelsABar)
	for i := range ticks {
		ticks[i] = from + (to-from)*score.Tick(i)/score.Tick(len(ticks))
	}
	curves := []ModulatorCurve{}
	for i := range performed.Modulators {
		m := &performed.Modulators[i]
		var notes []play.Note
		if original := performed.Original(m); original != nil && original.Shape.DrivenByTrack() && performed.Track(original.Track) != nil {
			notes = foreseen(foresee(original.Track, from), original.Track, from, to)
		}
		curve := ModulatorCurve{Modulator: m.ID, Levels: []int{}}
		levels, _ := play.Curve(performed, m, notes, ticks)
		for _, level := range levels {
			curve.Levels = append(curve.Levels, score.Rounded(level*1000, wave.One))
		}
		curves = append(curves, curve)
	}
	reply(w, curves)
}

// foreseen returns the notes that a track is to play in a stretch, ascending.
func foreseen(course play.Course, track int, from, to score.Tick) (notes []play.Note) {
	for _, outlook := range course.Look(track, from, to) {
		for _, f := range outlook.Forecasts {
			for _, n := range f.Heard() {
				notes = append(notes, play.Note{Start: n.Start, End: n.End, Key: uint8(n.Key), Velocity: uint8(n.Velocity)})
			}
		}
	}
	slices.SortFunc(notes, func(a, b play.Note) int { return cmp.Compare(a.Start, b.Start) })
	return notes
}
