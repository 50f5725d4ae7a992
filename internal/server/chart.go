package server

import (
	"fmt"
	"net/http"
	"net/url"
	"strconv"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/field"
	"jettyfog/internal/core/period"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/theory"
	"jettyfog/internal/live"
	"jettyfog/internal/studio"
)

// maxChart bounds the stretch that one chart shows: 64 whole notes.
const maxChart = 256 * score.TicksPerQuarter

// maxReach bounds how late a chart can end: the way there is played through in silence.
const maxReach = 100_000 * 4 * score.TicksPerQuarter

// Chart is how the lanes of a track run through a stretch of time.
type Chart struct {
	Revision int64      `json:"revision"`
	Track    int        `json:"track"`
	From     score.Tick `json:"from"`
	To       score.Tick `json:"to"`
	// Pattern is the id of the pattern that the chart is of, and Parts has an entry for each part of it.
	Pattern int         `json:"pattern"`
	Parts   []ChartPart `json:"parts"`
	// Period tells when all lanes of all parts stand at their first step together again.
	Period Period `json:"period"`
	// Repeats tells after how long the track plays the same again, and ProjectRepeats all tracks together.
	Repeats        Period `json:"repeats"`
	ProjectRepeats Period `json:"projectRepeats"`
	// Degrees are the notes that the pitch lane can ask for, from its lowest degree up.
	Degrees []Degree `json:"degrees"`
}

// ChartPart is one part of a chart.
type ChartPart struct {
	// Lanes has an entry for each lane that the part has, in the order of the lists.
	Lanes []ChartLane `json:"lanes"`
	// Forecasts tell what each gate step that is on will do.
	Forecasts []play.Forecast `json:"forecasts"`
	// Details say what is special of gate steps, by step from 0.
	Details map[int]ChartDetail `json:"details"`
	// Field is how the part's field goes, if it has one.
	Field *ChartField `json:"field,omitempty"`
}

// ChartField is how a field goes through a stretch of time.
type ChartField struct {
	Moments []play.FieldMoment `json:"moments"`
	// Repeats is after how long its travellers are where they were, by the field alone; 0 ticks without a reason is when they stand still in the end.
	Repeats Period `json:"repeats"`
	// Names are those of the notes of its cells, by their columns and rows from 0, as "3 1".
	Names map[string]string `json:"names"`
}

// ChartDetail is what is special of a gate step.
type ChartDetail struct {
	// Condition says in a sentence when the step may sound, and Mark in few characters; both are empty where it always may.
	Condition string `json:"condition"`
	Mark      string `json:"mark"`
	// Words say all that is special.
	Words string `json:"words"`
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
	// InForce is what each value of the lane, from its least up, is with the amount of the lane; it is missing where the
	// amount changes nothing.
	InForce []float64 `json:"inForce,omitempty"`
	// Reaches say between which values chance leads steps of the loop, and which have something of their own.
	Reaches []play.Reach `json:"reaches"`
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
	// Name is its note with an octave number, as A4; the number of a note of a chord, or of a chord, where the track has its pitches from one.
	Name string `json:"name"`
	// Root says that it is the root in some octave, or the first note of the chord.
	Root bool `json:"root"`
	// Key and Detune are how it sounds: the nearest MIDI note, and how far above that, in cents.
	Key    int     `json:"key"`
	Detune float64 `json:"detune"`
}

type chartResource struct {
	studio    *studio.Studio
	transport *live.Transport
}

// Routes lists the resource's routes.
func (c chartResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Get("/", c.show)
	return r
}

func (c chartResource) show(w http.ResponseWriter, r *http.Request) {
	state := c.studio.State()
	asked, ok := readStretch(w, r.URL.Query(), state.Project, c.transport)
	if !ok {
		return
	}
	chart := asked.chart()
	chart.Revision = state.Revision
	reply(w, chart)
}

// stretch is a stretch of time of a track, and the course of the project that it is about.
type stretch struct {
	course   play.Course
	project  *score.Project // as it plays in the end
	track    *score.Track
	from, to score.Tick
}

// readStretch reads which track and stretch a request is about; of which pattern, if not of the one that plays; and under
// which luck, if not that which is heard. It answers and returns false if the request cannot be understood.
func readStretch(w http.ResponseWriter, query url.Values, written *score.Project, transport *live.Transport) (asked stretch, ok bool) {
	id, err1 := strconv.Atoi(query.Get("track"))
	first, err2 := strconv.ParseInt(query.Get("from"), 10, 64)
	last, err3 := strconv.ParseInt(query.Get("to"), 10, 64)
	if err1 != nil || err2 != nil || err3 != nil {
		refuse(w, http.StatusBadRequest, "a chart needs the whole numbers track, from and to")
		return asked, false
	}
	if first < 0 || last <= first || last > int64(maxReach) || score.Tick(last-first) > maxChart {
		refuse(w, http.StatusUnprocessableEntity, "the stretch must begin at 0 or later, be at most 64 whole notes long, and end within 100,000")
		return asked, false
	}
	course := transport.Course(written, id, score.Tick(first))
	asked = stretch{course: course, project: course.End(), from: score.Tick(first), to: score.Tick(last)}
	if asked.track = asked.project.Track(id); asked.track == nil {
		fail(w, score.ErrUnknownTrack)
		return asked, false
	}
	if query.Has("pattern") {
		pattern, err := strconv.Atoi(query.Get("pattern"))
		if err != nil || asked.track.Pattern(pattern) == nil {
			fail(w, score.ErrUnknownPart)
			return asked, false
		}
		if pattern != asked.track.Playing {
			asked.always(stage.Stage{}.With(stage.Control{Name: "pattern", Track: id}, pattern).On(asked.project))
		}
	}
	if query.Has("luck") {
		luck, err := strconv.Atoi(query.Get("luck"))
		if err != nil || luck < 0 || luck > score.MaxLuck {
			refuse(w, http.StatusUnprocessableEntity, "the luck must be 0 to 999999")
			return asked, false
		}
		lucky := *asked.project
		lucky.Luck.Number = luck
		asked.always(&lucky)
	}
	return asked, true
}

// always has the stretch be about a project that always was as it is.
func (s *stretch) always(p *score.Project) {
	s.course, s.project, s.track = play.Course{Project: p}, p, p.Track(s.track.ID)
}

func (s *stretch) chart() Chart {
	p, track := s.project, s.track
	chart := Chart{Track: track.ID, Pattern: track.Playing, From: s.from, To: s.to, Degrees: degreesOf(p.Key, track)}
	for i, outlook := range s.course.Look(track.ID, s.from, s.to) {
		chart.Parts = append(chart.Parts, chartPart(p, track, &track.Parts()[i], outlook))
	}
	chart.Period = periodOf(period.OfTrack(p, track))
	chart.Repeats = periodOf(period.Repeats(p, track))
	chart.ProjectRepeats = periodOf(period.ProjectRepeats(p))
	return chart
}

func chartPart(p *score.Project, track *score.Track, part *score.Part, outlook play.Outlook) ChartPart {
	chart := ChartPart{Forecasts: outlook.Forecasts, Details: map[int]ChartDetail{}}
	if f := part.Field; f != nil {
		chart.Field = &ChartField{Moments: append([]play.FieldMoment{}, outlook.Moments...), Names: map[string]string{}}
		_, repeats, err := field.Period(f)
		chart.Field.Repeats = periodOf(repeats*score.Tick(track.Speed.M)/score.Tick(track.Speed.N), err)
		for i := range f.Cells {
			if c := &f.Cells[i]; c.Note {
				chart.Field.Names[fmt.Sprint(c.Column, " ", c.Row)] = nameOfCell(p, track, c)
			}
		}
	}
	for step, detail := range part.Details {
		words := ChartDetail{Mark: detail.Condition.Mark(), Words: detail.Words(p)}
		if detail.Condition != score.Always {
			words.Condition = detail.Condition.Words(p)
		}
		chart.Details[step] = words
	}
	for _, spec := range score.LaneSpecs() {
		if !part.Lanes.Has(spec.Name) {
			continue
		}
		moves := outlook.Moves[spec.Name]
		if part.Lanes.Lane(spec.Name).Linked {
			moves = outlook.Moves[score.Gate]
		}
		if moves == nil { // a track that follows another's notes has not moved yet
			moves = []play.Move{}
		}
		chart.Lanes = append(chart.Lanes, ChartLane{
			Lane: spec.Name, Moves: moves, Loop: periodOf(period.Of(p, track, part, spec.Name)),
			MeetsGate: periodOf(period.Of(p, track, part, score.Gate, spec.Name)),
			InForce:   spec.InForce(part.Lanes.Lane(spec.Name).Amount),
			Reaches:   play.Reaches(p, &part.Lanes, spec.Name),
		})
	}
	return chart
}

// nameOfCell names the note of a cell: with an octave number, or as the number of a note of the track's chord.
func nameOfCell(p *score.Project, track *score.Track, c *score.Cell) string {
	if track.Pitches.OfChord() {
		return strconv.Itoa(c.Degree)
	}
	return p.Key.DegreeName(c.Degree + c.Octave*p.Key.Spelling().Notes())
}

func periodOf(ticks score.Tick, err error) Period {
	if err != nil {
		return Period{Never: err.Error()}
	}
	return Period{Ticks: ticks}
}

// degreesOf names the values of the pitch lane: by the notes of the key, or by their numbers where they are notes of a chord.
func degreesOf(key theory.Key, track *score.Track) []Degree {
	spec := score.Pitch.Spec()
	spelling, pitches := key.Spelling(), key.Tuning.Ready()
	var degrees []Degree
	for degree := spec.Least; degree <= spec.Most; degree++ {
		note := spelling.Note(degree)
		sounding := pitches.Nearest(note)
		degrees = append(degrees, Degree{
			Degree: degree, Name: key.DegreeName(degree), Root: degree%spelling.Notes() == 0, Key: sounding,
			Detune: float64(pitches.Sounding(note)-theory.Cents(sounding)*theory.Semitone) / float64(theory.Cent),
		})
		if last := &degrees[len(degrees)-1]; track.Pitches.OfChord() {
			last.Name, last.Root = strconv.Itoa(degree), degree == 0
		}
	}
	return degrees
}
