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

// maxReach bounds how late a chart can end: the way there is played through in silence.
const maxReach = 100_000 * 4 * score.TicksPerQuarter

// Chart is how the lanes of a part run through a stretch of time.
type Chart struct {
	Revision int64      `json:"revision"`
	Track    int        `json:"track"`
	Part     int        `json:"part"`
	From     score.Tick `json:"from"`
	To       score.Tick `json:"to"`
	// Lanes has an entry for each lane that the part has, in the order of the lists.
	Lanes []ChartLane `json:"lanes"`
	// Forecasts tell what each gate step that is on will do.
	Forecasts []play.Forecast `json:"forecasts"`
	// Period tells when all lanes stand at their first step together again.
	Period Period `json:"period"`
	// Degrees are the notes that the pitch lane can ask for, from its lowest degree up.
	Degrees []Degree `json:"degrees"`
}

// ChartLane is one lane of a chart.
type ChartLane struct {
	Lane score.LaneName `json:"lane"`
	// Moves are the lane's goings on within the stretch. The first is at or before its beginning.
	Moves []play.Move `json:"moves"`
	// Loop is after how long the lane itself begins anew.
	Loop Period `json:"loop"`
	// MeetsGate is after how long this lane and the gate lane begin together again.
	MeetsGate Period `json:"meetsGate"`
}

// Period is a length of time after which something repeats, or why it never does.
type Period struct {
	// Ticks is 0 if it never does.
	Ticks score.Tick `json:"ticks"`
	// Never says why.
	Never string `json:"never,omitempty"`
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
	part, err4 := strconv.Atoi(query.Get("part"))
	from, err2 := strconv.ParseInt(query.Get("from"), 10, 64)
	to, err3 := strconv.ParseInt(query.Get("to"), 10, 64)
	if err1 != nil || err2 != nil || err3 != nil || err4 != nil {
		refuse(w, http.StatusBadRequest, "a chart needs the whole numbers track, part, from and to")
		return
	}
	if from < 0 || to <= from || to > int64(maxReach) || score.Tick(to-from) > maxChart {
		refuse(w, http.StatusUnprocessableEntity, "the stretch must begin at 0 or later, be at most 64 whole notes long, and end within 100,000")
		return
	}
	state := c.studio.State()
	track := state.Project.Track(id)
	if track == nil {
		fail(w, score.ErrUnknownTrack)
		return
	}
	if part < 0 || part >= len(track.Parts()) {
		fail(w, score.ErrUnknownPart)
		return
	}
	reply(w, chartOf(state, track, part, score.Tick(from), score.Tick(to)))
}

func chartOf(state studio.Snapshot, track *score.Track, index int, from, to score.Tick) Chart {
	part := &track.Parts()[index]
	outlook := play.Look(state.Project, track.ID, index, from, to)
	chart := Chart{
		Revision: state.Revision, Track: track.ID, Part: index, From: from, To: to,
		Forecasts: outlook.Forecasts, Degrees: degreesOf(state.Project.Key),
	}
	period := func(lanes ...score.LaneName) Period {
		ticks, err := play.Period(state.Project, track, part, lanes...)
		if err != nil {
			return Period{Never: err.Error()}
		}
		return Period{Ticks: ticks}
	}
	var names []score.LaneName
	for _, spec := range score.LaneSpecs() {
		if !part.Lanes.Has(spec.Name) {
			continue
		}
		names = append(names, spec.Name)
		moves := outlook.Moves[spec.Name]
		if part.Lanes.Lane(spec.Name).Linked {
			moves = outlook.Moves[score.Gate]
		}
		if moves == nil { // a track that follows another's notes has not moved yet
			moves = []play.Move{}
		}
		chart.Lanes = append(chart.Lanes, ChartLane{
			Lane: spec.Name, Moves: moves, Loop: period(spec.Name), MeetsGate: period(score.Gate, spec.Name),
		})
	}
	chart.Period = period(names...)
	return chart
}

func degreesOf(key theory.Key) []Degree {
	spec := score.Pitch.Spec()
	notes := key.Spelling().Notes()
	var degrees []Degree
	for degree := spec.Least; degree <= spec.Most; degree++ {
		degrees = append(degrees, Degree{Degree: degree, Name: key.DegreeName(degree), Root: degree%notes == 0})
	}
	return degrees
}
