package server

import (
	"net/http"
	"strconv"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
	"jettyfog/internal/studio"
)

// maxChart bounds the stretch that one chart shows: 64 whole notes.
const maxChart = 256 * score.TicksPerQuarter

// Chart is how a track's lanes run through a stretch of time.
type Chart struct {
	Revision int64      `json:"revision"`
	Track    int        `json:"track"`
	From     score.Tick `json:"from"`
	To       score.Tick `json:"to"`
	// Lanes has an entry for each lane, in the order of the lists.
	Lanes []ChartLane `json:"lanes"`
	// Forecasts tell what each gate step that is on will do.
	Forecasts []play.Forecast `json:"forecasts"`
	// Period is after how many ticks all lanes stand at their first step together again.
	Period score.Tick `json:"period"`
	// Degrees are the notes that the pitch lane can ask for, from its lowest degree up.
	Degrees []Degree `json:"degrees"`
}

// ChartLane is one lane of a chart.
type ChartLane struct {
	Lane score.LaneName `json:"lane"`
	// Moves are the lane's goings on within the stretch. The first is at or before its beginning.
	Moves []play.Move `json:"moves"`
	// Loop is the length of the lane's loop.
	Loop score.Tick `json:"loop"`
	// MeetsGate is after how many ticks this lane and the gate lane start together again.
	MeetsGate score.Tick `json:"meetsGate"`
}

// Degree is a degree of the key.
type Degree struct {
	Degree int `json:"degree"`
	// Name is its note with an octave number, as A4.
	Name string `json:"name"`
	// Root says that it is the root in some octave.
	Root bool `json:"root"`
}

type chartResource struct{ studio *studio.Studio }

// Routes lists the resource's routes.
func (c chartResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Get("/", c.show)
	return r
}

func (c chartResource) show(w http.ResponseWriter, r *http.Request) {
	query := r.URL.Query()
	id, err1 := strconv.Atoi(query.Get("track"))
	from, err2 := strconv.ParseInt(query.Get("from"), 10, 64)
	to, err3 := strconv.ParseInt(query.Get("to"), 10, 64)
	if err1 != nil || err2 != nil || err3 != nil {
		refuse(w, http.StatusBadRequest, "a chart needs the whole numbers track, from and to")
		return
	}
	if from < 0 || to <= from || to > 1<<53 || score.Tick(to-from) > maxChart {
		refuse(w, http.StatusUnprocessableEntity, "the stretch must begin at 0 or later and be at most 64 whole notes long")
		return
	}
	state := c.studio.State()
	track := state.Project.Track(id)
	if track == nil {
		fail(w, score.ErrUnknownTrack)
		return
	}
	reply(w, chartOf(state, track, score.Tick(from), score.Tick(to)))
}

func chartOf(state studio.Snapshot, track *score.Track, from, to score.Tick) Chart {
	chart := Chart{Revision: state.Revision, Track: track.ID, From: from, To: to}
	var names []score.LaneName
	for _, spec := range score.LaneSpecs() {
		names = append(names, spec.Name)
		rate := track.Lanes.Loop(spec.Name).Rate.Ticks()
		chart.Lanes = append(chart.Lanes, ChartLane{
			Lane:      spec.Name,
			Moves:     play.Moves(track, spec.Name, from/rate*rate, to),
			Loop:      play.Period(track, spec.Name),
			MeetsGate: play.Period(track, score.Gate, spec.Name),
		})
	}
	chart.Forecasts = play.Forecasts(state.Project, track, from, to)
	chart.Period = play.Period(track, names...)
	chart.Degrees = degreesOf(state.Project.Key)
	return chart
}

func degreesOf(key theory.Key) []Degree {
	spec := score.LaneSpecs()[score.Pitch.Index()]
	notes := key.Spelling().Notes()
	var degrees []Degree
	for degree := spec.Least; degree <= spec.Most; degree++ {
		degrees = append(degrees, Degree{Degree: degree, Name: key.DegreeName(degree), Root: degree%notes == 0})
	}
	return degrees
}
